package awlsmith.core.clean;

import awlsmith.core.picture.Lanes;
import java.util.List;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/**
 * Rows of samples as {@link GrainStage} works on them; both forms give the same bits.
 *
 * @param start strength of grain at black
 * @param ramps by how much its slope changes at each place of the light: sums of ramps and not a table, which would not run along vectors
 */
record GrainRows(float start, float[] ramps, Lanes lanes) {
    /** One by the deviation of four uniform numbers of 16 bits added up, and their mean. */
    private static final float FOUR = (float) (1 / (65536 * Math.sqrt(4.0 / 12)));

    private static final int MIDDLE = 2 * 65535;

    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final VectorSpecies<Integer> WHOLE = VectorSpecies.of(int.class, SPECIES.vectorShape());
    private static final int STEP = SPECIES.length();

    /** @param levels deviation at evenly spaced places of the light from black to white */
    static GrainRows of(List<Double> levels) {
        float[] ramps = new float[levels.size() - 1];
        for (int i = 0; i < ramps.length; i++) {
            double before = i == 0 ? 0 : levels.get(i) - levels.get(i - 1);
            ramps[i] = (float) (levels.get(i + 1) - levels.get(i) - before);
        }
        return new GrainRows(levels.getFirst().floatValue(), ramps, Lanes.chosen());
    }

    /**
     * Chance by place, about normally distributed, deviation 1.
     *
     * @param left the first sample's column; @param line what the row's chance hangs on
     */
    void noise(float[] row, int left, long line) {
        int one = (int) line;
        int other = (int) (line >>> 32);
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            IntVector places = IntVector.broadcast(WHOLE, left).addIndex(1).mul(0x9E3779B1);
            for (; x + STEP <= row.length; x += STEP) {
                IntVector a = mixed(places.add(x * 0x9E3779B1 + one));
                IntVector b = mixed(a.lanewise(VectorOperators.XOR, other).mul(0x9E3779B1));
                IntVector sum = a.and(0xffff)
                        .add(a.lanewise(VectorOperators.LSHR, 16))
                        .add(b.and(0xffff))
                        .add(b.lanewise(VectorOperators.LSHR, 16))
                        .sub(MIDDLE);
                ((FloatVector) sum.convert(VectorOperators.I2F, 0)).mul(FOUR).intoArray(row, x);
            }
        }
        for (; x < row.length; x++) {
            int a = mixed((left + x) * 0x9E3779B1 + one);
            int b = mixed((a ^ other) * 0x9E3779B1);
            row[x] = ((a & 0xffff) + (a >>> 16) + (b & 0xffff) + (b >>> 16) - MIDDLE) * FOUR;
        }
    }

    /** Shifts, exclusive ors and products in turn, with constants found by search for an even spread (by others, from memory). */
    private static int mixed(int x) {
        int a = (x ^ x >>> 16) * 0x7FEB352D;
        a = (a ^ a >>> 15) * 0x846CA68B;
        return a ^ a >>> 16;
    }

    private static IntVector mixed(IntVector x) {
        IntVector a = x.lanewise(VectorOperators.XOR, x.lanewise(VectorOperators.LSHR, 16))
                .mul(0x7FEB352D);
        a = a.lanewise(VectorOperators.XOR, a.lanewise(VectorOperators.LSHR, 15))
                .mul(0x846CA68B);
        return a.lanewise(VectorOperators.XOR, a.lanewise(VectorOperators.LSHR, 16));
    }

    /** The picture and its grain, as strong as it is at each sample's light. */
    void added(float[] from, int i, float[] grain, float[] to, int at) {
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            for (; x + STEP <= grain.length; x += STEP) {
                FloatVector light = FloatVector.fromArray(SPECIES, from, i + x);
                FloatVector place = light.min(1).max(0).mul(ramps.length);
                FloatVector strength =
                        place.fma(FloatVector.broadcast(SPECIES, ramps[0]), FloatVector.broadcast(SPECIES, start));
                for (int k = 1; k < ramps.length; k++) {
                    strength = place.sub(k).max(0).fma(FloatVector.broadcast(SPECIES, ramps[k]), strength);
                }
                strength.fma(FloatVector.fromArray(SPECIES, grain, x), light).intoArray(to, at + x);
            }
        }
        for (; x < grain.length; x++) {
            float place = Math.clamp(from[i + x], 0f, 1f) * ramps.length;
            float strength = Math.fma(place, ramps[0], start);
            for (int k = 1; k < ramps.length; k++) {
                strength = Math.fma(Math.max(0, place - k), ramps[k], strength);
            }
            to[at + x] = Math.fma(strength, grain[x], from[i + x]);
        }
    }

    /** The picture and grain that is equally strong everywhere. */
    void added(float[] from, int i, float strength, float[] grain, float[] to, int at) {
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            for (; x + STEP <= grain.length; x += STEP) {
                FloatVector.fromArray(SPECIES, grain, x)
                        .fma(FloatVector.broadcast(SPECIES, strength), FloatVector.fromArray(SPECIES, from, i + x))
                        .intoArray(to, at + x);
            }
        }
        for (; x < grain.length; x++) {
            to[at + x] = Math.fma(strength, grain[x], from[i + x]);
        }
    }
}
