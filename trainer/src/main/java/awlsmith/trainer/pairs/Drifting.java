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
        one = Noise.clumped(width, height, clump, random);
        other = Noise.clumped(width, height, clump, random);
        this.turn = turn;
    }

    /** The field of a frame. */
    Plane at(int frame) {
        float cos = (float) Math.cos(frame * turn);
        float sin = (float) Math.sin(frame * turn);
        Plane out = Plane.of(one.width(), one.height());
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] = cos * one.data()[i] + sin * other.data()[i];
        }
        return out;
    }
}
