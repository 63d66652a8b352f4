package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import java.util.SplittableRandom;

/** Numbers of unit deviation over a picture, alike from sample to sample, that change into others from frame to frame. */
final class Drifting {
    private final Plane one;
    private final Plane other;
    private final double turn;

    /**
     * @param clump standard deviation of the bell that lays them together, samples, at least 0.5
     * @param turn radians that a frame goes on; after half a circle everything is its opposite
     */
    Drifting(int width, int height, double clump, double turn, SplittableRandom random) {
        one = field(width, height, clump, random);
        other = field(width, height, clump, random);
        this.turn = turn;
    }

    private static Plane field(int width, int height, double clump, SplittableRandom random) {
        Plane white = Plane.of(width, height);
        for (int i = 0; i < white.data().length; i++) {
            white.data()[i] = (float) random.nextGaussian();
        }
        Plane out = Blur.gaussian(white, clump, clump);
        // a bell of this width leaves 1 / (2 sqrt(pi) clump) of the deviation
        float gain = (float) (2 * Math.sqrt(Math.PI) * clump);
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] *= gain;
        }
        return out;
    }

    float at(int frame, int i) {
        double angle = frame * turn;
        return (float) (Math.cos(angle) * one.data()[i] + Math.sin(angle) * other.data()[i]);
    }
}
