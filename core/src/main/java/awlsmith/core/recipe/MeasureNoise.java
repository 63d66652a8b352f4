package awlsmith.core.recipe;

import awlsmith.core.clean.NoiseFold;
import awlsmith.core.clean.NoiseModel;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Timing;
import java.util.List;
import java.util.Map;

/** Finds how strong the noise is at every light, and how coarse, from some frames all along the clip. */
final class MeasureNoise implements Analysis<NoiseModel> {
    /** Frames looked at of a clip, this many to twice as many. */
    private static final int LOOKED_AT = 24;

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
        return new SomeFrames<>(
                LOOKED_AT,
                frame -> {
                    var fold = new NoiseFold();
                    fold.see(frame);
                    return fold;
                },
                folds -> {
                    var all = new NoiseFold();
                    folds.forEach(all::add);
                    return all.found();
                });
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
