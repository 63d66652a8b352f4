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

    /** A row between the middles of squares; the middle of square n of a column lies at n. */
    Row row(float row) {
        return new Row(row);
    }

    /** Motion along a row, even from the middle of one square to that of the next. What holds from one to the next is worked out once. */
    final class Row {
        private final int above;
        private final int below;
        private final float lower;
        private int left = -1;
        private float u0;
        private float u1;
        private float v0;
        private float v1;
        private float spread;
        private float right;

        private Row(float row) {
            int top = Math.clamp((int) row, 0, rows - 1);
            above = top * columns;
            below = Math.min(top + 1, rows - 1) * columns;
            lower = Math.clamp(row - top, 0, 1);
        }

        /** Goes to a place; square n of a row has its middle at n. */
        void to(float column) {
            int here = Math.clamp((int) column, 0, columns - 1);
            if (here != left) {
                left = here;
                int next = Math.min(here + 1, columns - 1);
                u0 = between(u, here);
                u1 = between(u, next);
                v0 = between(v, here);
                v1 = between(v, next);
                spread = Math.max(spread(u, here, next), spread(v, here, next));
            }
            right = Math.clamp(column - left, 0, 1);
        }

        /** Samples to the right. */
        float across() {
            return u0 + right * (u1 - u0);
        }

        /** Samples down. */
        float down() {
            return v0 + right * (v1 - v0);
        }

        /** How far apart the motions of the four squares around are, samples. */
        float spread() {
            return spread;
        }

        private float between(float[] of, int column) {
            return of[above + column] + lower * (of[below + column] - of[above + column]);
        }

        private float spread(float[] of, int here, int next) {
            float least = Math.min(
                    Math.min(of[above + here], of[above + next]), Math.min(of[below + here], of[below + next]));
            float most = Math.max(
                    Math.max(of[above + here], of[above + next]), Math.max(of[below + here], of[below + next]));
            return most - least;
        }
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
