package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.footage.Codec;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/** Pictures reduced in ways that leave them sharp or soft, as {@link Softened} has them; what is wanted is how soft, everywhere. */
public record Guessed() implements PairMaker {
    /** The best guess of who does not look. */
    private static final float BLIND = 0.45f;

    private static final int DRAWN = 4;

    @Override
    public String words() {
        return "reduced by area (softness 0), by catmull-rom (0.5), by a mean of both, or blurred by up to 1.2 samples and reduced by catmull-rom"
                + " (to 1); a third with noise of standard deviation 0.5 to 4 of 255, a third through JPEG at quantiser 2 to 6";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        var pairs = new ArrayList<Pair>();
        for (double softness : new double[] {0, 0.5}) {
            pairs.add(pair(sharp, softness, random));
        }
        for (int i = 0; i < DRAWN; i++) {
            pairs.add(pair(sharp, random.nextDouble(), random));
        }
        return pairs;
    }

    private static Pair pair(Plane sharp, double softness, SplittableRandom random) {
        Plane small = Softened.reduced(sharp, 2, softness);
        Plane even = small.window(new Region(0, 0, small.width() & -2, small.height() & -2));
        Plane seen = new Plane(even.packed(), 0, even.width(), even.height(), even.width());
        int fault = random.nextInt(3);
        if (fault == 0) {
            seen = Coded.grainy(seen, 0.5 * Math.pow(8, random.nextDouble()) / 255, random);
        } else if (fault == 1) {
            seen = Codec.through(List.of(seen), "mjpeg -q:v " + (2 + random.nextInt(5)))
                    .getFirst();
        }
        return new Value(seen, (float) softness);
    }

    /** A picture, and one value that is true of all of it. */
    private record Value(Plane picture, float value) implements Pair {
        @Override
        public List<Plane> shown() {
            return List.of(picture);
        }

        @Override
        public Plane sharp() {
            return Plane.of(picture.width(), picture.height()).fill(value);
        }

        @Override
        public Plane plain(Region part) {
            return Plane.of(part.width(), part.height());
        }

        @Override
        public Plane rival() {
            return Plane.of(picture.width(), picture.height()).fill(BLIND);
        }

        @Override
        public boolean turns() {
            return true;
        }
    }
}
