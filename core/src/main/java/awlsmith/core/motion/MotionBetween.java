package awlsmith.core.motion;

import java.util.Arrays;

/**
 * Motion of what is seen at a moment between two pictures: what lies at x, y then was at x - share u, y - share v in the first and will be at
 * x + (1 - share) u, y + (1 - share) v in the second. One motion for each square; squares overlap by half, and the first of a row begins half a
 * square before the picture.
 *
 * @param columns squares across
 * @param rows squares down
 * @param side of a square, samples of the picture
 * @param u samples to the right, by rows of squares
 * @param v samples down
 * @param misfit mean difference of both pictures there, luma
 * @param cameraMisfit the same if the square went with most of the picture
 */
public record MotionBetween(
        int columns, int rows, int side, float[] u, float[] v, float[] misfit, float[] cameraMisfit) {
    /** Samples from one square to the next. */
    public int stride() {
        return side / 2;
    }

    /**
     * How torn the motion is, 0..1: the share of squares that go another way than the one beside them, by an eighth of their side. Within a scene
     * it is about a tenth at most, between two scenes half (measured on clips of opencv-doc and the demo).
     */
    public double torn() {
        int count = 0;
        float apart = side / 8f;
        for (int row = 0; row < rows; row++) {
            for (int column = 1; column < columns; column++) {
                int at = row * columns + column;
                if (Math.hypot(u[at] - u[at - 1], v[at] - v[at - 1]) > apart) {
                    count++;
                }
            }
        }
        return (double) count / Math.max(1, rows * (columns - 1));
    }

    /** What most of the picture does, across and down: the middle of all squares. */
    public float[] camera() {
        return new float[] {middle(u), middle(v)};
    }

    static float middle(float[] all) {
        float[] sorted = all.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    /** Mean difference of what both pictures show, luma. */
    public double meanMisfit() {
        double sum = 0;
        for (float one : misfit) {
            sum += one;
        }
        return sum / misfit.length;
    }
}
