package awlsmith.core.detail;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * Weighed sums of squares of samples. Beyond a plane's edges its samples lie mirrored, the edge sample itself twice. Both forms give the same
 * bits: every product is added without rounding in between.
 *
 * @param reach samples each way; @param weights by rows, (2 reach + 1) squared
 */
record Taps(int reach, float[] weights, Lanes lanes) {
    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final int STEP = SPECIES.length();

    static Taps of(int reach, double[] weights) {
        float[] all = new float[weights.length];
        for (int i = 0; i < all.length; i++) {
            all[i] = (float) weights[i];
        }
        return new Taps(reach, all, Lanes.chosen());
    }

    private int side() {
        return 2 * reach + 1;
    }

    /** @param out as large as in */
    void sum(Plane in, Plane out, PlanePool pool, Work work) {
        Plane around = pool.borrow(in.width() + 2 * reach, in.height() + 2 * reach);
        work.bands(around.height(), 32, (from, to) -> {
            for (int y = from; y < to; y++) {
                mirrored(in, mirror(y - reach, in.height()), around, y);
            }
        });
        work.bands(out.height(), 8, (from, to) -> {
            for (int y = from; y < to; y++) {
                work.cancel().check();
                row(around, y, out);
            }
        });
        pool.giveBack(around);
    }

    /** Where a sample beyond the edges is taken from. */
    private static int mirror(int i, int count) {
        int at = Math.floorMod(i, 2 * count);
        return at < count ? at : 2 * count - 1 - at;
    }

    private void mirrored(Plane in, int row, Plane around, int y) {
        int to = around.row(y);
        int from = in.row(row);
        System.arraycopy(in.data(), from, around.data(), to + reach, in.width());
        for (int k = 1; k <= reach; k++) {
            around.data()[to + reach - k] = in.data()[from + mirror(-k, in.width())];
            around.data()[to + reach + in.width() - 1 + k] = in.data()[from + mirror(in.width() - 1 + k, in.width())];
        }
    }

    private void row(Plane around, int y, Plane out) {
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            for (; x + 4 * STEP <= out.width(); x += 4 * STEP) {
                four(around, y, x, out);
            }
            for (; x + STEP <= out.width(); x += STEP) {
                one(around, y, x, out);
            }
        }
        float[] data = around.data();
        for (; x < out.width(); x++) {
            float sum = 0;
            for (int j = 0; j < side(); j++) {
                int at = around.row(y + j) + x;
                for (int i = 0; i < side(); i++) {
                    sum = Math.fma(weights[j * side() + i], data[at + i], sum);
                }
            }
            out.set(x, y, sum);
        }
    }

    private void one(Plane around, int y, int x, Plane out) {
        FloatVector sum = FloatVector.zero(SPECIES);
        for (int j = 0; j < side(); j++) {
            int at = around.row(y + j) + x;
            for (int i = 0; i < side(); i++) {
                sum = FloatVector.fromArray(SPECIES, around.data(), at + i)
                        .fma(FloatVector.broadcast(SPECIES, weights[j * side() + i]), sum);
            }
        }
        sum.intoArray(out.data(), out.row(y) + x);
    }

    private void four(Plane around, int y, int x, Plane out) {
        float[] data = around.data();
        FloatVector a = FloatVector.zero(SPECIES);
        FloatVector b = a;
        FloatVector c = a;
        FloatVector d = a;
        int side = side();
        for (int j = 0; j < side; j++) {
            int at = around.row(y + j) + x;
            for (int i = 0; i < side; i++) {
                FloatVector weight = FloatVector.broadcast(SPECIES, weights[j * side + i]);
                a = FloatVector.fromArray(SPECIES, data, at + i).fma(weight, a);
                b = FloatVector.fromArray(SPECIES, data, at + i + STEP).fma(weight, b);
                c = FloatVector.fromArray(SPECIES, data, at + i + 2 * STEP).fma(weight, c);
                d = FloatVector.fromArray(SPECIES, data, at + i + 3 * STEP).fma(weight, d);
            }
        }
        int to = out.row(y) + x;
        a.intoArray(out.data(), to);
        b.intoArray(out.data(), to + STEP);
        c.intoArray(out.data(), to + 2 * STEP);
        d.intoArray(out.data(), to + 3 * STEP);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Taps taps && reach == taps.reach && Arrays.equals(weights, taps.weights);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(weights);
    }

    @Override
    public String toString() {
        return "taps of " + side() + "x" + side();
    }
}
