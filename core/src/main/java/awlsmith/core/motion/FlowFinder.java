package awlsmith.core.motion;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/**
 * Finds dense motion: from(x, y) is seen again at to(x + u, y + v).
 *
 * <p>Shape: both pictures w x h; where a side is shorter than 16 samples nothing moves. Units: luma 0 black, 1 white; u, v samples, right and down.
 * The motion is that of {@link BetweenFinder} at the first picture's moment; each sample takes the mean of the squares over it, weighed by how near
 * their middles are and how well they fit. Cost: O(w h). Same bits for any number of threads.
 */
public final class FlowFinder {
    private static final int LEAST = 16;
    /** Of a level of luma: below it, all fits are as good. */
    private static final float FITS = 1 / 255f;

    private static final int BAND = 16;
    /** Finer than this dust needs no motion. */
    private static final int FINEST_WIDTH = 400;
    /** Squares on each side for the middle of motion. */
    private static final int STEADY = 2;

    private FlowFinder() {}

    /** @throws IllegalArgumentException when the pictures are not of one size */
    public static Flow find(Plane from, Plane to, Work work) {
        var finder = new BetweenFinder(from, to, FINEST_WIDTH, work);
        Plane u = Plane.of(from.width(), from.height());
        Plane v = Plane.of(from.width(), from.height());
        if (Math.min(from.width(), from.height()) >= LEAST) {
            MotionBetween motion = steadied(finder.at(0), work);
            work.bands(u.height(), BAND, (first, end) -> {
                for (int y = first; y < end; y++) {
                    row(motion, y, u, v);
                }
            });
        }
        return new Flow(u, v);
    }

    /** Each square takes the middle of those around it, so that a spot in one picture alone does not lead the motion around it. */
    private static MotionBetween steadied(MotionBetween found, Work work) {
        float[] u = new float[found.u().length];
        float[] v = new float[u.length];
        work.bands(found.rows(), STEADY, (first, end) -> {
            float[] some = new float[(2 * STEADY + 1) * (2 * STEADY + 1)];
            for (int row = first; row < end; row++) {
                for (int column = 0; column < found.columns(); column++) {
                    int at = row * found.columns() + column;
                    u[at] = middle(found, found.u(), column, row, some);
                    v[at] = middle(found, found.v(), column, row, some);
                }
            }
        });
        return new MotionBetween(
                found.columns(), found.rows(), found.side(), u, v, found.misfit(), found.cameraMisfit());
    }

    private static float middle(MotionBetween found, float[] all, int column, int row, float[] some) {
        int count = 0;
        for (int i = Math.max(0, row - STEADY); i <= Math.min(found.rows() - 1, row + STEADY); i++) {
            for (int j = Math.max(0, column - STEADY); j <= Math.min(found.columns() - 1, column + STEADY); j++) {
                some[count++] = all[i * found.columns() + j];
            }
        }
        Arrays.sort(some, 0, count);
        return some[count / 2];
    }

    private static void row(MotionBetween motion, int y, Plane u, Plane v) {
        int stride = motion.stride();
        int above = y / stride;
        float lower = (y % stride + 0.5f) / stride;
        for (int x = 0; x < u.width(); x++) {
            int left = x / stride;
            float right = (x % stride + 0.5f) / stride;
            float sum = 0;
            float sumU = 0;
            float sumV = 0;
            for (int k = 0; k < 4; k++) {
                // squares overlap by half: four are over each sample
                int at = Math.min(above + k / 2, motion.rows() - 1) * motion.columns()
                        + Math.min(left + k % 2, motion.columns() - 1);
                float weight = (k / 2 == 0 ? 1 - lower : lower)
                        * (k % 2 == 0 ? 1 - right : right)
                        / Math.max(FITS, motion.misfit()[at]);
                sum += weight;
                sumU += weight * motion.u()[at];
                sumV += weight * motion.v()[at];
            }
            u.set(x, y, sumU / sum);
            v.set(x, y, sumV / sum);
        }
    }
}
