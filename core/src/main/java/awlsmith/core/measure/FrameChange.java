package awlsmith.core.measure;

import awlsmith.core.picture.Plane;
import java.util.Arrays;

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
        // how far apart the columns are in the rows of one line of blocks
        float[] apart = new float[here.width()];
        for (int y = 0; y < here.height(); y++) {
            RowSums.CHOSEN.addApart(apart, here.data(), here.row(y), before.data(), before.row(y), here.width());
            if (y % BLOCK == BLOCK - 1 || y == here.height() - 1) {
                int lines = y % BLOCK + 1;
                for (int x = 0; x < here.width(); x += BLOCK) {
                    int wide = Math.min(BLOCK, here.width() - x);
                    float sum = 0;
                    for (int k = x; k < x + wide; k++) {
                        sum += apart[k];
                    }
                    worst = Math.max(worst, (double) sum / (lines * wide));
                    total += sum;
                }
                Arrays.fill(apart, 0);
            }
        }
        return new FrameChange(total / ((double) here.width() * here.height()), worst);
    }
}
