package awlsmith.core.recipe;

import awlsmith.core.clean.NoiseFold;
import awlsmith.core.clean.NoiseModel;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import java.util.List;
import java.util.Map;

/** Finds how strong the noise is at every light, and how coarse, from some frames all along the clip. */
final class MeasureNoise implements Analysis<NoiseModel> {
    /** Frames looked at of a clip, about. */
    private static final int LOOKED_AT = 32;
    /** One in so many where nobody knows how long the clip is. */
    private static final int EVERY = 12;

    @Override
    public String id() {
        return "noise/1";
    }

    @Override
    public String doing() {
        return "measuring the noise";
    }

    @Override
    public Fold<NoiseModel> begin(Format input, Timing times) {
        long every = times.count() == FrameRange.OPEN ? EVERY : Math.max(1, times.count() / LOOKED_AT);
        return new Fold<>() {
            private final NoiseFold fold = new NoiseFold();
            private long seen;

            @Override
            public void see(Frame frame, Work work) {
                if (seen++ % every == 0) {
                    fold.see(frame);
                }
            }

            @Override
            public NoiseModel found() {
                return fold.found();
            }
        };
    }

    @Override
    public Map<String, Object> toTree(NoiseModel noise) {
        return Map.of(
                "levels", noise.levels(),
                "colour", noise.colour(),
                "shape", noise.shape(),
                "colourShape", noise.colourShape());
    }

    @Override
    public NoiseModel fromTree(Map<?, ?> tree) {
        if (!(tree.get("colour") instanceof Number colour)) {
            throw new IllegalArgumentException("what noise is like has a number 'colour'");
        }
        return new NoiseModel(
                numbers(tree, "levels"), colour.doubleValue(), numbers(tree, "shape"), numbers(tree, "colourShape"));
    }

    private static List<Double> numbers(Map<?, ?> tree, String key) {
        if (!(tree.get(key) instanceof List<?> list)) {
            throw new IllegalArgumentException("what noise is like has a list '" + key + "'");
        }
        return list.stream()
                .map(item -> {
                    if (item instanceof Number number
                            && number.doubleValue() >= 0
                            && Double.isFinite(number.doubleValue())) {
                        return number.doubleValue();
                    }
                    throw new IllegalArgumentException("'" + item + "' is no measure of noise");
                })
                .toList();
    }
}
