package awlsmith.core.picture;

import java.util.Arrays;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * Weighed sums of rows that lie anywhere in one array: of neighbouring rows, or of one row and itself shifted. Both forms give the same
 * bits: every product is added without rounding in between, in the order of the taps.
 *
 * @param taps weights, one for each row
 */
public record TapRows(float[] taps, Lanes lanes) {
    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final int STEP = SPECIES.length();

    /** In the form that this process chose. */
    public TapRows(float[] taps) {
        this(taps, Lanes.chosen());
    }

    /**
     * @param data that rows lie in
     * @param starts where each row begins, as many as taps
     * @param to gets count sums from at on; not the array that is read
     */
    public void sum(float[] data, int[] starts, float[] to, int at, int count) {
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            for (; x + 4 * STEP <= count; x += 4 * STEP) {
                four(data, starts, x, to, at + x);
            }
            for (; x + STEP <= count; x += STEP) {
                one(data, starts, x, to, at + x);
            }
        }
        for (; x < count; x++) {
            float sum = 0;
            for (int k = 0; k < taps.length; k++) {
                sum = Math.fma(taps[k], data[starts[k] + x], sum);
            }
            to[at + x] = sum;
        }
    }

    private void one(float[] data, int[] starts, int x, float[] to, int at) {
        FloatVector sum = FloatVector.zero(SPECIES);
        for (int k = 0; k < taps.length; k++) {
            sum = FloatVector.fromArray(SPECIES, data, starts[k] + x).fma(FloatVector.broadcast(SPECIES, taps[k]), sum);
        }
        sum.intoArray(to, at);
    }

    private void four(float[] data, int[] starts, int x, float[] to, int at) {
        FloatVector a = FloatVector.zero(SPECIES);
        FloatVector b = a;
        FloatVector c = a;
        FloatVector d = a;
        for (int k = 0; k < taps.length; k++) {
            FloatVector tap = FloatVector.broadcast(SPECIES, taps[k]);
            int i = starts[k] + x;
            a = FloatVector.fromArray(SPECIES, data, i).fma(tap, a);
            b = FloatVector.fromArray(SPECIES, data, i + STEP).fma(tap, b);
            c = FloatVector.fromArray(SPECIES, data, i + 2 * STEP).fma(tap, c);
            d = FloatVector.fromArray(SPECIES, data, i + 3 * STEP).fma(tap, d);
        }
        a.intoArray(to, at);
        b.intoArray(to, at + STEP);
        c.intoArray(to, at + 2 * STEP);
        d.intoArray(to, at + 3 * STEP);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof TapRows rows && Arrays.equals(taps, rows.taps) && lanes == rows.lanes;
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(taps);
    }

    @Override
    public String toString() {
        return taps.length + " taps";
    }
}
