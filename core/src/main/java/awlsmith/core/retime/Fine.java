package awlsmith.core.retime;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/** The fine part of a plane: what a bell that reaches four samples each way takes away. */
final class Fine {
    /** Samples around one that it depends on. */
    static final int REACH = 4;

    /** Binomial, standard deviation 1.41 samples. */
    private static final float[] BELL = {
        1 / 256f, 8 / 256f, 28 / 256f, 56 / 256f, 70 / 256f, 56 / 256f, 28 / 256f, 8 / 256f, 1 / 256f
    };

    /** Coarse parts that differ by less, luma, show the same; beyond the other they do not. */
    private static final float ALIKE = 0.008f;

    private static final float DIFFERS = 0.03f;

    private static final int BAND = 16;

    private Fine() {}

    /**
     * Gives a plane another's fine part where their other part is the same: where it is not, they show different things.
     *
     * @param fine of whose fine part; @param coarse whose other part stays, as large
     * @param share of the fine part that is taken, 0..1, as large
     * @param within the part of both that out is; beyond it REACH samples are held, or the picture ends there
     */
    static void take(Plane fine, Plane coarse, Plane share, Region within, Plane out, Work work) {
        work.bands(out.height(), BAND, (from, end) -> {
            float[] column = new float[within.width() + 2 * REACH];
            for (int y = from; y < end; y++) {
                int row = within.y() + y;
                Arrays.fill(column, 0);
                for (int k = -REACH; k <= REACH; k++) {
                    int line = Math.clamp(row + k, 0, fine.height() - 1);
                    int f = fine.row(line);
                    int c = coarse.row(line);
                    for (int x = 0; x < column.length; x++) {
                        int at = Math.clamp(within.x() + x - REACH, 0, fine.width() - 1);
                        column[x] += BELL[k + REACH] * (coarse.data()[c + at] - fine.data()[f + at]);
                    }
                }
                int to = out.row(y);
                int own = fine.row(row) + within.x();
                for (int x = 0; x < within.width(); x++) {
                    float apart = 0;
                    for (int k = 0; k <= 2 * REACH; k++) {
                        apart += BELL[k] * column[x + k];
                    }
                    float alike = Math.clamp((DIFFERS - Math.abs(apart)) / (DIFFERS - ALIKE), 0, 1);
                    float made = coarse.at(within.x() + x, row);
                    out.data()[to + x] =
                            made + alike * share.at(within.x() + x, row) * (fine.data()[own + x] + apart - made);
                }
            }
        });
    }
}
