package awlsmith.core.detail;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;

/** The least or the greatest sample of squares around samples, as far as the picture goes. */
final class Extremes {
    private Extremes() {}

    /**
     * @param radius of the squares
     * @param greatest whether the greatest is wanted
     * @param part of in, that out gets
     */
    static void of(Plane in, int radius, boolean greatest, Region part, Plane out, PlanePool pool, Work work) {
        int first = Math.max(0, part.y() - radius);
        int end = Math.min(in.height(), part.bottom() + radius);
        Plane across = pool.borrow(part.width(), end - first);
        work.bands(across.height(), 16, (from, to) -> {
            float[] row = new float[part.width() + 2 * radius];
            for (int y = from; y < to; y++) {
                int at = in.row(first + y);
                for (int i = 0; i < row.length; i++) {
                    row[i] = in.data()[at + Math.clamp(part.x() + i - (long) radius, 0, in.width() - 1)];
                }
                int to1 = across.row(y);
                System.arraycopy(row, 0, across.data(), to1, part.width());
                for (int k = 1; k <= 2 * radius; k++) {
                    meet(row, k, across.data(), to1, part.width(), greatest);
                }
            }
        });
        work.bands(part.height(), 16, (from, to) -> {
            for (int y = from; y < to; y++) {
                for (int k = -radius; k <= radius; k++) {
                    int row = Math.clamp(part.y() + y + (long) k, 0, in.height() - 1) - first;
                    if (k == -radius) {
                        out.takeRow(y, across, row);
                    } else {
                        meet(across.data(), across.row(row), out.data(), out.row(y), part.width(), greatest);
                    }
                }
            }
        });
        pool.giveBack(across);
    }

    private static void meet(float[] from, int at, float[] best, int to, int count, boolean greatest) {
        if (greatest) {
            for (int x = 0; x < count; x++) {
                best[to + x] = Math.max(best[to + x], from[at + x]);
            }
        } else {
            for (int x = 0; x < count; x++) {
                best[to + x] = Math.min(best[to + x], from[at + x]);
            }
        }
    }
}
