package awlsmith.core.detail;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Work;

/**
 * Calms a plane while its edges stay: the least sum of half the squares of what changes and of a weight times all steps.
 *
 * <p>Source: A. Chambolle, "An algorithm for total variation minimization and applications", Journal of Mathematical Imaging and Vision 20,
 * 2004: the dual field is moved along the slopes, {@value #TIMES} times, by a quarter. Each time reaches one sample further.
 */
final class TotalVariation {
    static final int TIMES = 10;
    /** Samples around a part that it depends on. */
    static final int REACH = TIMES + 1;

    private static final float STEP = 0.25f;

    private TotalVariation() {}

    /** @param weight of steps; @param out as large as in */
    static void calm(Plane in, float weight, Plane out, PlanePool pool, Work work) {
        int width = in.width();
        int height = in.height();
        Plane across = pool.borrow(width, height).fill(0);
        Plane down = pool.borrow(width, height).fill(0);
        for (int time = 0; time <= TIMES; time++) {
            work.cancel().check();
            boolean isFirst = time == 0;
            work.bands(height, 16, (from, to) -> {
                for (int y = from; y < to; y++) {
                    if (isFirst) {
                        out.takeRow(y, in, y);
                    } else {
                        gather(in, across, down, out, y);
                    }
                }
            });
            if (time < TIMES) {
                work.bands(height, 16, (from, to) -> {
                    float[] right = new float[width];
                    float[] below = new float[width];
                    for (int y = from; y < to; y++) {
                        move(out, across, down, y, weight, right, below);
                    }
                });
            }
        }
        pool.giveBack(across);
        pool.giveBack(down);
    }

    /** The plane with the field's sources added. */
    private static void gather(Plane in, Plane across, Plane down, Plane out, int y) {
        float[] px = across.data();
        float[] py = down.data();
        int i = in.row(y);
        int o = out.row(y);
        int a = across.row(y);
        int d = down.row(y);
        int width = in.width();
        for (int x = 0; x < width; x++) {
            out.data()[o + x] = in.data()[i + x] - px[a + x] - py[d + x];
        }
        for (int x = 1; x < width; x++) {
            out.data()[o + x] += px[a + x - 1];
        }
        if (y > 0) {
            int above = down.row(y - 1);
            for (int x = 0; x < width; x++) {
                out.data()[o + x] += py[above + x];
            }
        }
    }

    /** Moves the field along the slopes of what it makes now, and holds its length. */
    private static void move(Plane now, Plane across, Plane down, int y, float weight, float[] right, float[] below) {
        float[] u = now.data();
        int width = now.width();
        int at = now.row(y);
        for (int x = 0; x + 1 < width; x++) {
            right[x] = u[at + x + 1] - u[at + x];
        }
        right[width - 1] = 0;
        if (y + 1 < now.height()) {
            int next = now.row(y + 1);
            for (int x = 0; x < width; x++) {
                below[x] = u[next + x] - u[at + x];
            }
        } else {
            java.util.Arrays.fill(below, 0);
        }
        float[] px = across.data();
        float[] py = down.data();
        int a = across.row(y);
        int d = down.row(y);
        float share = STEP / weight;
        for (int x = 0; x < width; x++) {
            float one = 1 / (1 + share * (float) Math.sqrt(right[x] * right[x] + below[x] * below[x]));
            px[a + x] = (px[a + x] - STEP * right[x]) * one;
            py[d + x] = (py[d + x] - STEP * below[x]) * one;
        }
    }
}
