package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * How much of a plane's fine structure runs one way, square by square: strokes and worms do, noise does not. Of white noise a twelfth of it seems
 * to, by chance alone, as a square has only so many samples.
 *
 * <p>Source: coherence of the structure tensor, the difference of its eigenvalues by their sum: J. Bigun and G. Granlund, "Optimal orientation
 * detection of linear symmetry", ICCV 1987.
 */
public final class Direction {
    private static final int SQUARE = 16;
    /** Half a side of the mean that is taken off, so that slopes and soft edges count for nothing. */
    /** Deviation of a change that no one sees. */
    private static final double NOTHING = 0.5 / 255;

    private static final int COARSE = 2;

    private Direction() {}

    /**
     * @param plane what is judged
     * @param like where this plane's fine structure is weak, a plane of the same size; the quieter half of the squares is looked at
     * @param border samples at the edges that are left out
     * @return 0 no direction, 1 all of it
     */
    public static double ofQuiet(Plane plane, Plane like, int border) {
        Plane fine = fine(plane);
        Plane fineLike = plane == like ? fine : fine(like);
        int across = (plane.width() - 2 * border) / SQUARE;
        int down = (plane.height() - 2 * border) / SQUARE;
        if (across < 1 || down < 1) {
            return 0;
        }
        double[] strengths = new double[across * down];
        double[] coherences = new double[across * down];
        for (int i = 0; i < strengths.length; i++) {
            int x = border + i % across * SQUARE;
            int y = border + i / across * SQUARE;
            strengths[i] = tensor(fineLike, x, y)[1];
            double[] own = tensor(fine, x, y);
            coherences[i] = own[1] <= 1e-12 ? 0 : own[0] / own[1];
        }
        double middle = java.util.Arrays.stream(strengths).sorted().toArray()[strengths.length / 2];
        double sum = 0;
        int count = 0;
        for (int i = 0; i < strengths.length; i++) {
            if (strengths[i] <= middle) {
                sum += coherences[i];
                count++;
            }
        }
        return sum / count;
    }

    /**
     * How much of what differs between two pictures runs one way, 0..1; about 0.08 of noise. Squares count by how much differs in them.
     *
     * @return NaN where next to nothing differs
     */
    public static double ofChange(Plane before, Plane after) {
        Plane change = Plane.of(before.width(), before.height());
        for (int y = 0; y < change.height(); y++) {
            for (int x = 0; x < change.width(); x++) {
                change.set(x, y, after.at(x, y) - before.at(x, y));
            }
        }
        Plane fine = fine(change);
        double directed = 0;
        double all = 0;
        int squares = 0;
        for (int y = 0; y + SQUARE <= fine.height(); y += SQUARE) {
            for (int x = 0; x + SQUARE <= fine.width(); x += SQUARE) {
                double[] own = tensor(fine, x, y);
                directed += own[0];
                all += own[1];
                squares++;
            }
        }
        // two differences of two samples each: a change of half a code value's deviation
        boolean isNothing = all < squares * SQUARE * SQUARE * 8 * NOTHING * NOTHING;
        return squares == 0 || isNothing ? Double.NaN : directed / all;
    }

    /** Difference of the eigenvalues of a square's structure tensor, and their sum. */
    private static double[] tensor(Plane p, int left, int top) {
        double xx = 0;
        double yy = 0;
        double xy = 0;
        for (int y = top; y < top + SQUARE - 1; y++) {
            int at = p.row(y) + left;
            int below = p.row(y + 1) + left;
            for (int x = 0; x < SQUARE - 1; x++) {
                // steps in the middle of four samples, so that both ways are treated alike
                float a = p.data()[at + x];
                float b = p.data()[at + x + 1];
                float c = p.data()[below + x];
                float d = p.data()[below + x + 1];
                double gx = b + d - a - c;
                double gy = c + d - a - b;
                xx += gx * gx;
                yy += gy * gy;
                xy += gx * gy;
            }
        }
        return new double[] {Math.sqrt((xx - yy) * (xx - yy) + 4 * xy * xy), xx + yy};
    }

    /** Less the mean of five by five around each sample. */
    private static Plane fine(Plane p) {
        Plane out = Plane.of(p.width(), p.height());
        for (int y = 0; y < p.height(); y++) {
            for (int x = 0; x < p.width(); x++) {
                float sum = 0;
                int count = 0;
                for (int v = Math.max(0, y - COARSE); v <= Math.min(p.height() - 1, y + COARSE); v++) {
                    for (int u = Math.max(0, x - COARSE); u <= Math.min(p.width() - 1, x + COARSE); u++) {
                        sum += p.at(u, v);
                        count++;
                    }
                }
                out.set(x, y, p.at(x, y) - sum / count);
            }
        }
        return out;
    }
}
