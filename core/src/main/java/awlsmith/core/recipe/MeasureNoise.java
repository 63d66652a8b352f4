package awlsmith.core.recipe;

import awlsmith.core.clean.NoiseFold;
import awlsmith.core.clean.NoiseModel;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
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
        return new Some();
    }

    /**
     * Every so manieth frame: at first each, and each time there are too many every second one of them. So the same frames are looked at
     * whether anybody knows beforehand how many will come or not.
     */
    private static final class Some implements Fold<NoiseModel> {
        private final List<NoiseFold> folds = new ArrayList<>();
        private long every = 1;
        private long seen;

        @Override
        public void see(Frame frame, Work work) {
            if (seen++ % every != 0) {
                return;
            }
            var fold = new NoiseFold();
            fold.see(frame);
            folds.add(fold);
            if (folds.size() == 2 * LOOKED_AT) {
                for (int i = folds.size() - 1; i > 0; i -= 2) {
                    folds.remove(i);
                }
                every *= 2;
            }
        }

        @Override
        public NoiseModel found() {
            var all = new NoiseFold();
            folds.forEach(all::add);
            return all.found();
        }
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
