package awlsmith.core.detail;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.TapRows;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/** Blurs by a bell, across and then down; beyond the picture's edges its edge samples go on. */
public final class Bells {
    private final TapRows taps;
    private final int reach;

    /** @param sigma standard deviation in samples, above 0 */
    public Bells(double sigma) {
        reach = Math.max(1, (int) Math.ceil(3 * sigma));
        double sum = 0;
        double[] all = new double[2 * reach + 1];
        for (int i = 0; i < all.length; i++) {
            all[i] = Math.exp(-(i - reach) * (i - reach) / (2 * sigma * sigma));
            sum += all[i];
        }
        float[] weights = new float[all.length];
        for (int i = 0; i < all.length; i++) {
            weights[i] = (float) (all[i] / sum);
        }
        taps = new TapRows(weights);
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
            int[] starts = new int[2 * reach + 1];
            Arrays.setAll(starts, k -> k);
            for (int y = from; y < to; y++) {
                in.rowAround(first + y, part.x() - reach, row);
                taps.sum(row, starts, across.data(), across.row(y), part.width());
            }
        });
        work.bands(part.height(), 16, (from, to) -> {
            int[] starts = new int[2 * reach + 1];
            for (int y = from; y < to; y++) {
                work.cancel().check();
                for (int k = 0; k < starts.length; k++) {
                    starts[k] = across.row(Math.clamp(part.y() + y + k - (long) reach, 0, in.height() - 1) - first);
                }
                taps.sum(across.data(), starts, out.data(), out.row(y), part.width());
            }
        });
        pool.giveBack(across);
    }
}
