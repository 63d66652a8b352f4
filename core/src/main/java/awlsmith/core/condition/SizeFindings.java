package awlsmith.core.condition;

import awlsmith.core.measure.TrueSize;
import awlsmith.core.picture.Format;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;

/** What is told of the size footage was made at. */
final class SizeFindings {
    /** Pictures enlarged so many times by a kernel are blurred by at least this much for each time, in samples; where they are not, it is chance. */
    private static final double LEAST_BLUR = 0.3;
    /** Of two factors that the same rhythm fits the larger one holds where pictures are blurred by so much for each time. */
    private static final double LARGE_BLUR = 0.35;
    /** Share of the frames looked at that must say the same. */
    private static final double MOST = 0.5;

    private SizeFindings() {}

    /**
     * @param sizes of frames here and there
     * @param bell that edges look blurred by, in samples; NaN where there are too few
     */
    static TrueSize size(List<TrueSize> sizes, double bell) {
        // rates are only known to a few thousandths
        Map<Long, List<TrueSize>> alike = sizes.stream()
                .filter(size -> size.factor() > 1)
                .collect(Collectors.groupingBy(size -> Math.round(20 * size.factor()) + (size.repeated() ? 1000 : 0)));
        List<TrueSize> usual = alike.values().stream()
                .max((a, b) -> Integer.compare(a.size(), b.size()))
                .orElse(List.of());
        double factor = 1;
        boolean repeated = false;
        if (usual.size() > MOST * sizes.size()) {
            repeated = usual.getFirst().repeated();
            double small = middle(usual, TrueSize::factor);
            double large = middle(usual, TrueSize::orElse);
            factor = repeated ? small : bell >= LARGE_BLUR * large ? large : bell >= LEAST_BLUR * small ? small : 1;
        }
        return new TrueSize(factor, factor, repeated && factor > 1);
    }

    /** @param size of the whole clip */
    static Finding enlarged(TrueSize size, Format format) {
        double factor = size.factor();
        String words = factor == 1
                ? "nothing speaks for an earlier enlarging"
                : String.format(
                        Locale.ROOT,
                        "enlarged %s times before%s: made at about %dx%d",
                        number(factor),
                        size.repeated() ? ", by repeating pixels" : "",
                        Math.round(format.width() / factor),
                        Math.round(format.height() / factor));
        return new Finding(
                "enlarged",
                "Enlarged before",
                factor,
                "times",
                factor == 1 ? 0 : Math.min(1, 0.2 + factor / 4),
                words,
                "rhythm of steps and bends along rows and columns (after Gallagher 2005)");
    }

    private static double middle(List<TrueSize> sizes, Function<TrueSize, Double> of) {
        double[] all = sizes.stream().mapToDouble(of::apply).sorted().toArray();
        double value = all[all.length / 2];
        // usual factors are what is meant
        for (double usual : new double[] {4 / 3.0, 1.5, 1.8, 2, 2.25, 2.5, 3, 4}) {
            if (Math.abs(value - usual) < 0.02 * usual) {
                return usual;
            }
        }
        return value;
    }

    static String number(double factor) {
        String text = String.format(Locale.ROOT, "%.2f", factor);
        return text.replaceAll("\\.?0+$", "");
    }
}
