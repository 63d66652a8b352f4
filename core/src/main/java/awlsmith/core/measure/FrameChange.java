package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * How far one picture is from the one before.
 *
 * @param mean absolute difference of luma, 0..1
 * @param worst the largest mean absolute difference of any block of 8x8
 */
public record FrameChange(double mean, double worst) {
    private static final int BLOCK = 8;

    /** Both of one size. */
    public static FrameChange between(Plane before, Plane here) {
        double total = 0;
        double worst = 0;
        int across = (here.width() + BLOCK - 1) / BLOCK;
        double[] sums = new double[across];
        for (int y = 0; y < here.height(); y++) {
            int row = here.row(y);
            int past = before.row(y);
            for (int b = 0; b < across; b++) {
                int end = Math.min(here.width(), (b + 1) * BLOCK);
                float sum = 0;
                for (int x = b * BLOCK; x < end; x++) {
                    sum += Math.abs(here.data()[row + x] - before.data()[past + x]);
                }
                sums[b] += sum;
            }
            if (y % BLOCK == BLOCK - 1 || y == here.height() - 1) {
                int lines = y % BLOCK + 1;
                for (int b = 0; b < across; b++) {
                    int wide = Math.min(BLOCK, here.width() - b * BLOCK);
                    worst = Math.max(worst, sums[b] / (lines * wide));
                    total += sums[b];
                    sums[b] = 0;
                }
            }
        }
        return new FrameChange(total / ((double) here.width() * here.height()), worst);
    }
}
