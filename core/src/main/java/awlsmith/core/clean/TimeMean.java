package awlsmith.core.clean;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Work;
import java.util.List;

/**
 * The weighed mean of a plane and its neighbours laid over it. A neighbour's sample counts as far as the squares around the two differ by no
 * more than noise would make them; so what moves otherwise than it was laid, or was not there, leaves no ghost.
 *
 * <p>Source: A. Buades, B. Coll and J.-M. Morel, "Denoising image sequences does not require motion estimation", AVSS 2005, for weights
 * by the distance of small squares; that the mean of the squared distance of two noisy ones is twice the noise's square is their
 * equation for non-local means.
 */
final class TimeMean {
    /** Samples around one that its weight hangs on. */
    static final int REACH = 2;

    private static final int SIDE = 2 * REACH + 1;
    /** Distance, in what noise alone makes on average, up to which a neighbour counts wholly, and from which not at all. */
    static final float SAME = 1.15f;

    static final float OTHER = 2.2f;

    private TimeMean() {}

    /**
     * How much each sample of a neighbour counts.
     *
     * @param sigma deviation of the noise of each sample, over the same part
     * @param weights gets 0..1; multiplied with what is there already
     */
    static void weigh(Plane here, Plane laid, Plane sigma, Plane weights, Work work) {
        int width = here.width();
        int height = here.height();
        work.bands(height, 16, (from, to) -> {
            // sums of columns, two more on each side
            float[] columns = new float[width + 2 * REACH];
            float[] sums = new float[width];
            // the squares of five rows, each made once
            float[][] squares = new float[SIDE][width];
            float[][] five = new float[SIDE][];
            for (int j = -REACH; j < REACH; j++) {
                squared(here, laid, from + j, squares[Math.floorMod(from + j, SIDE)]);
            }
            for (int y = from; y < to; y++) {
                squared(here, laid, y + REACH, squares[Math.floorMod(y + REACH, SIDE)]);
                for (int j = 0; j < SIDE; j++) {
                    five[j] = squares[Math.floorMod(y + j - REACH, SIDE)];
                }
                TimeRows.CHOSEN.five(five, sums, width);
                System.arraycopy(sums, 0, columns, REACH, width);
                for (int i = 0; i < REACH; i++) {
                    columns[i] = sums[0];
                    columns[width + REACH + i] = sums[width - 1];
                }
                TimeRows.CHOSEN.share(columns, sigma.data(), sigma.row(y), weights.data(), weights.row(y), width);
            }
        });
    }

    /** Of a row beyond the edge the row at the edge. */
    private static void squared(Plane a, Plane b, int y, float[] into) {
        int row = Math.clamp(y, 0, a.height() - 1);
        TimeRows.CHOSEN.squared(a.data(), a.row(row), b.data(), b.row(row), into, 0, into.length);
    }

    /**
     * The mean.
     *
     * @param laid neighbours; @param weights theirs, as many
     * @param sigma deviation of the noise before, becomes what is left of it
     */
    static void mean(Plane here, List<Plane> laid, List<Plane> weights, Plane sigma, Plane out, Work work) {
        work.bands(here.height(), 16, (from, to) -> {
            float[] sum = new float[here.width()];
            float[] all = new float[here.width()];
            float[] squares = new float[here.width()];
            for (int y = from; y < to; y++) {
                System.arraycopy(here.data(), here.row(y), sum, 0, sum.length);
                java.util.Arrays.fill(all, 1);
                java.util.Arrays.fill(squares, 1);
                for (int k = 0; k < laid.size(); k++) {
                    Plane over = laid.get(k);
                    Plane share = weights.get(k);
                    TimeRows.CHOSEN.add(over.data(), over.row(y), share.data(), share.row(y), sum, all, squares);
                }
                int into = out.row(y);
                int own = sigma.row(y);
                for (int x = 0; x < sum.length; x++) {
                    out.data()[into + x] = sum[x] / all[x];
                    sigma.data()[own + x] *= (float) Math.sqrt(squares[x]) / all[x];
                }
            }
        });
    }

    /** Weights of a halved plane's samples out of luma's: the least of those that a sample stands for. */
    static Plane reduced(Plane weights, int stepX, int stepY, int width, int height, PlanePool pool) {
        Plane small = pool.borrow(width, height);
        float[] from = weights.data();
        for (int y = 0; y < height; y++) {
            int a = weights.row(Math.min(y * stepY, weights.height() - 1));
            int b = weights.row(Math.min(y * stepY + stepY - 1, weights.height() - 1));
            int to = small.row(y);
            for (int x = 0; x < width; x++) {
                int left = Math.min(x * stepX, weights.width() - 1);
                int right = Math.min(x * stepX + stepX - 1, weights.width() - 1);
                small.data()[to + x] =
                        Math.min(Math.min(from[a + left], from[a + right]), Math.min(from[b + left], from[b + right]));
            }
        }
        return small;
    }
}
