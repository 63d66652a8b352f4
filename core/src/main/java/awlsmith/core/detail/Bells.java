package awlsmith.core.detail;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/** Blurs by a bell, across and then down; beyond the picture's edges its edge samples go on. */
public final class Bells {
    private final float[] taps;
    private final int reach;

    /** @param sigma standard deviation in samples, above 0 */
    public Bells(double sigma) {
        reach = Math.max(1, (int) Math.ceil(3 * sigma));
        taps = new float[2 * reach + 1];
        double sum = 0;
        double[] all = new double[taps.length];
        for (int i = 0; i < all.length; i++) {
            all[i] = Math.exp(-(i - reach) * (i - reach) / (2 * sigma * sigma));
            sum += all[i];
        }
        for (int i = 0; i < all.length; i++) {
            taps[i] = (float) (all[i] / sum);
        }
    }

    /** Samples each way that a blurred one depends on. */
    public int reach() {
        return reach;
    }

    /**
     * @param in over at least what part needs, all of the plane where that ends at the plane's edges
     * @param part of in, that out gets
     */
    public void blur(Plane in, Region part, Plane out, PlanePool pool, Work work) {
        int first = Math.max(0, part.y() - reach);
        int end = Math.min(in.height(), part.bottom() + reach);
        Plane across = pool.borrow(part.width(), end - first);
        work.bands(across.height(), 16, (from, to) -> {
            float[] row = new float[part.width() + 2 * reach];
            float[] sums = new float[part.width()];
            for (int y = from; y < to; y++) {
                int at = in.row(first + y);
                for (int i = 0; i < row.length; i++) {
                    row[i] = in.data()[at + Math.clamp(part.x() + i - (long) reach, 0, in.width() - 1)];
                }
                Arrays.fill(sums, 0);
                for (int k = 0; k < taps.length; k++) {
                    add(taps[k], row, k, sums);
                }
                System.arraycopy(sums, 0, across.data(), across.row(y), sums.length);
            }
        });
        work.bands(part.height(), 16, (from, to) -> {
            float[] sums = new float[part.width()];
            for (int y = from; y < to; y++) {
                work.cancel().check();
                Arrays.fill(sums, 0);
                for (int k = 0; k < taps.length; k++) {
                    int row = Math.clamp(part.y() + y + k - (long) reach, 0, in.height() - 1) - first;
                    add(taps[k], across.data(), across.row(row), sums);
                }
                System.arraycopy(sums, 0, out.data(), out.row(y), sums.length);
            }
        });
        pool.giveBack(across);
    }

    private static void add(float tap, float[] from, int at, float[] sums) {
        for (int x = 0; x < sums.length; x++) {
            sums[x] += tap * from[at + x];
        }
    }
}
