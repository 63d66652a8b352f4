package awlsmith.core.detail;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/** The least or the greatest sample of squares around samples, as far as the picture goes. */
final class Extremes {
    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final int STEP = SPECIES.length();

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
            int[] starts = new int[2 * radius + 1];
            Arrays.setAll(starts, k -> k);
            for (int y = from; y < to; y++) {
                in.rowAround(first + y, part.x() - radius, row);
                best(row, starts, greatest, across.data(), across.row(y), part.width());
            }
        });
        work.bands(part.height(), 16, (from, to) -> {
            int[] starts = new int[2 * radius + 1];
            for (int y = from; y < to; y++) {
                for (int k = 0; k < starts.length; k++) {
                    starts[k] = across.row(Math.clamp(part.y() + y + k - (long) radius, 0, in.height() - 1) - first);
                }
                best(across.data(), starts, greatest, out.data(), out.row(y), part.width());
            }
        });
        pool.giveBack(across);
    }

    /** Of rows that begin anywhere in one array the least or greatest, sample by sample. */
    private static void best(float[] data, int[] starts, boolean greatest, float[] to, int at, int count) {
        int x = 0;
        if (Lanes.chosen() == Lanes.VECTOR) {
            for (; x + STEP <= count; x += STEP) {
                FloatVector best = FloatVector.fromArray(SPECIES, data, starts[0] + x);
                for (int k = 1; k < starts.length; k++) {
                    FloatVector other = FloatVector.fromArray(SPECIES, data, starts[k] + x);
                    best = greatest ? best.max(other) : best.min(other);
                }
                best.intoArray(to, at + x);
            }
        }
        for (; x < count; x++) {
            float best = data[starts[0] + x];
            for (int k = 1; k < starts.length; k++) {
                float other = data[starts[k] + x];
                best = greatest ? Math.max(best, other) : Math.min(best, other);
            }
            to[at + x] = best;
        }
    }
}
