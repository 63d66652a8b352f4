package awlsmith.core.condition;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** What is told of what few colours, few code values and coarse rounding made of surfaces. Where a level is bad is common practice, no source. */
final class SurfaceFindings {
    /** Steps at which compression is as bad as it gets, of 255: H.264 at QP 40. */
    private static final double COARSE = 64;
    /** Share of a picture that must be flat for dots in it to be dither. */
    private static final double FLAT = 0.2;
    /** Per cent of flat samples that are dots where dither is as dense as this measure sees it. */
    private static final double DENSE = 4;
    /** Per cent of a picture in bands where it is as bad as it gets. */
    private static final double BANDED = 40;

    private SurfaceFindings() {}

    /** @param step between values that the file's codec tells apart, of 255 */
    static Finding rounding(double step) {
        return new Finding(
                "rounding",
                "Compression",
                step,
                "of 255",
                step / COARSE,
                say(
                        step < COARSE * Finding.NOTICED
                                ? "lightly compressed: rounded to %.0f of 255"
                                : "compressed: rounded to %.0f of 255",
                        step),
                "the codec's own quantisers as FFmpeg tells them (ITU-T H.264, ISO/IEC 13818-2)");
    }

    /** @param dots share of flat samples, 0..1 or NaN; @param flat share of the picture, likewise */
    static Finding dither(double dots, double flat) {
        double value = flat > FLAT && !Double.isNaN(dots) ? 100 * dots : 0;
        return new Finding(
                "dither",
                "Dither",
                value,
                "% of flat",
                value / DENSE,
                value < DENSE * Finding.NOTICED
                        ? "no dots in flat surfaces"
                        : say("%.0f %% of flat surfaces are dots of other colours", value),
                "single samples that differ from a flat surface around them (our own)");
    }

    /**
     * How soft the picture is, for models that can be told. No fault by itself.
     *
     * @param guesses of several frames, 0..1 or NaN; empty where there are none
     */
    static Optional<Finding> softness(double[] guesses) {
        double[] known =
                Arrays.stream(guesses).filter(v -> !Double.isNaN(v)).sorted().toArray();
        if (known.length == 0) {
            return Optional.empty();
        }
        double value = Math.rint(100 * known[known.length / 2]);
        double low = Math.rint(100 * known[known.length / 10]);
        double high = Math.rint(100 * known[known.length - 1 - known.length / 10]);
        String words = value < 25
                ? "sharp to the pixel"
                : value < 58 ? "as sharp as a good resize leaves it" : value < 75 ? "a little soft" : "soft";
        return Optional.of(new Finding(
                "softness",
                "Softness",
                value,
                "%",
                0,
                String.format(Locale.ROOT, "%s: %.0f %%, from %.0f to %.0f in most frames", words, value, low, high),
                "enlarged and reduced again, told one softness after the other (our own)"));
    }

    /** @param share of the picture, 0..1 or NaN */
    static Finding bands(double share) {
        double value = Double.isNaN(share) ? 0 : 100 * share;
        return new Finding(
                "bands",
                "Banding",
                value,
                "% of picture",
                value / BANDED,
                value < BANDED * Finding.NOTICED
                        ? "hardly any bands"
                        : say("%.0f %% of the picture lies in bands of one code value", value),
                "level pieces of rows one small step apart (our own)");
    }

    private static String say(String format, double value) {
        return String.format(Locale.ROOT, format, value);
    }
}
