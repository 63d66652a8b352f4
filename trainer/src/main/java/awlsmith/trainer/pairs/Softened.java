package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import awlsmith.core.upscale.Softness;
import awlsmith.footage.Pictures;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/**
 * Reduced in ways that leave a picture sharp or soft, rounded to eight bits, and beside it how soft it is: sometimes told, sometimes
 * not, as whoever enlarges footage may know it or not.
 */
public record Softened() implements PairMaker {
    /** Standard deviation of the blur of the softest, samples of the truth. */
    private static final double MOST_BLUR = 1.2;

    private static final int DRAWN = 2;

    @Override
    public String words() {
        return "reduced by area (softness 0), by catmull-rom (0.5), by a mean of both (between), or blurred by up to "
                + MOST_BLUR
                + " samples and reduced by catmull-rom (to 1); four of seven told how soft they are, of the others two in three reduced"
                + " by catmull-rom and one by area";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        Plane area = reduced(sharp, factor, 0);
        Plane cubic = reduced(sharp, factor, 0.5);
        var pairs = new ArrayList<Pair>();
        pairs.add(pair(cubic, Softness.unknown(), sharp, factor));
        pairs.add(pair(cubic, Softness.of(0.5), sharp, factor));
        pairs.add(pair(area, Softness.of(0), sharp, factor));
        pairs.add(pair(area, Softness.unknown(), sharp, factor));
        pairs.add(pair(cubic, Softness.unknown(), sharp, factor));
        for (int i = 0; i < DRAWN; i++) {
            double softness = random.nextDouble();
            pairs.add(pair(reduced(sharp, factor, softness), Softness.of(softness), sharp, factor));
        }
        return pairs;
    }

    private static Pair pair(Plane small, Softness softness, Plane sharp, int factor) {
        Plane told = Plane.of(small.width(), small.height()).fill(softness.sample());
        return new Enlarging(List.of(small, told), sharp, factor);
    }

    /** @param softness 0..1 */
    public static Plane reduced(Plane sharp, int factor, double softness) {
        int width = sharp.width() / factor;
        int height = sharp.height() / factor;
        if (softness >= 0.5) {
            double blur = MOST_BLUR * (2 * softness - 1);
            return Pictures.eightBits(
                    Pictures.resized(Blur.gaussian(sharp, blur, blur), width, height, Kernel.CATMULL_ROM));
        }
        Plane area = Pictures.resized(sharp, width, height, Kernel.AREA);
        Plane cubic = Pictures.resized(sharp, width, height, Kernel.CATMULL_ROM);
        float share = (float) (2 * softness);
        for (int i = 0; i < area.data().length; i++) {
            area.data()[i] += share * (cubic.data()[i] - area.data()[i]);
        }
        return Pictures.eightBits(area);
    }
}
