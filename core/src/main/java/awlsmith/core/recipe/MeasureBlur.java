package awlsmith.core.recipe;

import awlsmith.core.clean.RepairStage;
import awlsmith.core.measure.BlurWidth;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Timing;
import java.util.List;
import java.util.Map;

/** Finds how soft a clip is by its sharpest edges, from some frames all along it. */
final class MeasureBlur implements Analysis<MeasureBlur.Blur> {
    private static final int LOOKED_AT = 8;
    /** Of R'G'B' the plane that says most of the light. */
    private static final int GREEN = 1;

    /** Smaller pictures have too few edges. */
    private static final int LEAST_SIDE = 16;
    /**
     * How wide the sharpest edges of pictures look that nothing has blurred, and how much of a blur shows in them: fitted by hand to eleven
     * pictures blurred by 0, 0.7, 1.2 and 1.8 samples, rather too little than too much, as too much rings.
     */
    private static final double OWN = 0.28;

    private static final double SLOPE = 1.9;

    /** @param deviation of the blur, in samples; 0 where the clip is sharp, or where it has too few edges to tell */
    record Blur(double deviation) {}

    @Override
    public String id() {
        return "blur/1";
    }

    @Override
    public String doing() {
        return "measuring the blur";
    }

    @Override
    public Fold<Blur> begin(Format input, Timing times) {
        return new SomeFrames<>(
                LOOKED_AT,
                frame -> {
                    Plane light = frame.plane(input.chroma() == Chroma.RGB ? GREEN : 0);
                    return Math.min(light.width(), light.height()) < LEAST_SIDE
                            ? Double.NaN
                            : BlurWidth.of(light).sharpest();
                },
                MeasureBlur::found);
    }

    private static Blur found(List<Double> looks) {
        double[] known = looks.stream()
                .filter(look -> !Double.isNaN(look))
                .mapToDouble(Double::doubleValue)
                .sorted()
                .toArray();
        double sharpest = known.length == 0 ? 0 : known[known.length / 2];
        return new Blur(Math.clamp(SLOPE * (sharpest - OWN), 0, RepairStage.SOFTEST));
    }

    @Override
    public Map<String, Object> toTree(Blur found) {
        return Map.of("deviation", found.deviation());
    }

    @Override
    public Blur fromTree(Map<?, ?> tree) {
        if (tree.get("deviation") instanceof Number deviation
                && deviation.doubleValue() >= 0
                && deviation.doubleValue() <= RepairStage.SOFTEST) {
            return new Blur(deviation.doubleValue());
        }
        throw new IllegalArgumentException("how soft a clip is has a number 'deviation'");
    }
}
