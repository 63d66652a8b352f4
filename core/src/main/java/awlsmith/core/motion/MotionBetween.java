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

    /** Samples to the right at a place between the middles of squares; square n's lies at n. */
    float across(float column, float row) {
        return between(u, column, row);
    }

    /** Samples down. */
    float down(float column, float row) {
        return between(v, column, row);
    }

    /** How far apart the motions of the four squares around are, samples. */
    float spread(float column, float row) {
        return Math.max(spread(u, column, row), spread(v, column, row));
    }

    private float spread(float[] of, float column, float row) {
        int left = Math.clamp((int) column, 0, columns - 1);
        int top = Math.clamp((int) row, 0, rows - 1) * columns;
        int right = Math.min(left + 1, columns - 1);
        int below = Math.min(top + columns, (rows - 1) * columns);
        float least =
                Math.min(Math.min(of[top + left], of[top + right]), Math.min(of[below + left], of[below + right]));
        float most = Math.max(Math.max(of[top + left], of[top + right]), Math.max(of[below + left], of[below + right]));
        return most - least;
    }

    private float between(float[] of, float column, float row) {
        int left = Math.clamp((int) column, 0, columns - 1);
        int top = Math.clamp((int) row, 0, rows - 1);
        int right = Math.min(left + 1, columns - 1);
        int below = Math.min(top + 1, rows - 1) * columns;
        float shareX = Math.clamp(column - left, 0, 1);
        float shareY = Math.clamp(row - top, 0, 1);
        float upper = of[top * columns + left] + shareX * (of[top * columns + right] - of[top * columns + left]);
        float lower = of[below + left] + shareX * (of[below + right] - of[below + left]);
        return upper + shareY * (lower - upper);
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
