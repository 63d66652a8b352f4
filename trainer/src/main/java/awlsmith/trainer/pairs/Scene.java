package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.function.Function;

/** Nine clean frames in which a picture moves, and often a piece of it before it. */
final class Scene {
    static final int FRAMES = 9;
    private static final int NOW = 4;

    /** What its frames are like, for a model's card. */
    static final String WORDS =
            "scenes of nine frames, two in five still, the rest at 0.05 to 14 samples a frame, some turning, growing or"
                    + " shaken, one in fourteen cut within; before two in five a piece of the same picture goes its own way";

    private Scene() {}

    /**
     * How large scenes are cut from a picture, and how many.
     *
     * @param wide and high at most
     * @param area one scene for so many samples of the picture
     */
    record Size(int wide, int high, double area) {
        /**
         * Pairs of all scenes of a picture.
         *
         * @param step that sides are multiples of
         * @param pairs of one scene, given its clean frames
         */
        List<Pair> scenes(Plane sharp, int step, SplittableRandom random, Function<List<Plane>, List<Pair>> pairs) {
            int across = Math.min(wide, (sharp.width() - 16) / step * step);
            int down = Math.min(high, (sharp.height() - 16) / step * step);
            long count = Math.max(1, Math.round((double) sharp.width() * sharp.height() / area));
            var all = new ArrayList<Pair>();
            for (long i = 0; i < count; i++) {
                all.addAll(pairs.apply(frames(sharp, across, down, random)));
            }
            return all;
        }
    }

    static List<Plane> frames(Plane sharp, int wide, int high, SplittableRandom random) {
        Layer.Sampling way = random.nextBoolean() ? Layer.Sampling.WHOLE : Layer.Sampling.SMALLER;
        var back = new Layer(sharp, wide, high, FRAMES, NOW, way, random, true);
        var cutTo = new Layer(sharp, wide, high, FRAMES, NOW, way, random, true);
        int cut = random.nextInt(14) == 0 ? 1 + random.nextInt(FRAMES - 1) : FRAMES;
        Layer front = random.nextInt(5) < 2 ? new Layer(sharp, wide, high, FRAMES, NOW, way, random, false) : null;
        var truth = new ArrayList<Plane>();
        for (int n = 0; n < FRAMES; n++) {
            truth.add(Layer.picture(n < cut ? back : cutTo, front, wide, high, n - NOW, 1));
        }
        return truth;
    }
}
