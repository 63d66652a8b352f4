package awlsmith.core.resample;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorShuffle;
import jdk.incubator.vector.VectorSpecies;

/** {@link TapBlend} over whole lanes, with the scalar form for the rest of each row. */
final class VectorTapBlend implements TapBlend {
    private static final VectorSpecies<Float> LANES = FloatVector.SPECIES_PREFERRED;

    private static final VectorShuffle<Float> ZIP_LOW = VectorShuffle.makeZip(LANES, 0);
    private static final VectorShuffle<Float> ZIP_HIGH = VectorShuffle.makeZip(LANES, 1);

    /** Lanes must divide the block of rows; wider machines than 512 bits would not. */
    static boolean isPossible() {
        return ROWS % LANES.length() == 0;
    }

    @Override
    public void down(
            float[] src, int[] rowAt, int taps, float[] weights, int weightAt, float[] dst, int dstAt, int width) {
        int end = LANES.loopBound(width);
        // the usual tap counts are written out, which keeps the weights in registers for the whole row
        switch (taps) {
            case 2 -> down2(src, rowAt, weights, weightAt, dst, dstAt, end);
            case 4 -> down4(src, rowAt, weights, weightAt, dst, dstAt, end);
            case 6 -> down6(src, rowAt, weights, weightAt, dst, dstAt, end);
            default -> downAny(src, rowAt, taps, weights, weightAt, dst, dstAt, end);
        }
        ScalarTapBlend.span(src, rowAt, taps, weights, weightAt, dst, dstAt, end, width);
    }

    private static FloatVector at(float[] src, int at) {
        return FloatVector.fromArray(LANES, src, at);
    }

    private static void down2(float[] src, int[] rowAt, float[] w, int at, float[] dst, int dstAt, int end) {
        int r0 = rowAt[0];
        int r1 = rowAt[1];
        float w0 = w[at];
        float w1 = w[at + 1];
        for (int x = 0; x < end; x += LANES.length()) {
            at(src, r0 + x).mul(w0).add(at(src, r1 + x).mul(w1)).intoArray(dst, dstAt + x);
        }
    }

    private static void down4(float[] src, int[] rowAt, float[] w, int at, float[] dst, int dstAt, int end) {
        int r0 = rowAt[0];
        int r1 = rowAt[1];
        int r2 = rowAt[2];
        int r3 = rowAt[3];
        float w0 = w[at];
        float w1 = w[at + 1];
        float w2 = w[at + 2];
        float w3 = w[at + 3];
        for (int x = 0; x < end; x += LANES.length()) {
            at(src, r0 + x)
                    .mul(w0)
                    .add(at(src, r1 + x).mul(w1))
                    .add(at(src, r2 + x).mul(w2))
                    .add(at(src, r3 + x).mul(w3))
                    .intoArray(dst, dstAt + x);
        }
    }

    private static void down6(float[] src, int[] rowAt, float[] w, int at, float[] dst, int dstAt, int end) {
        int r0 = rowAt[0];
        int r1 = rowAt[1];
        int r2 = rowAt[2];
        int r3 = rowAt[3];
        int r4 = rowAt[4];
        int r5 = rowAt[5];
        float w0 = w[at];
        float w1 = w[at + 1];
        float w2 = w[at + 2];
        float w3 = w[at + 3];
        float w4 = w[at + 4];
        float w5 = w[at + 5];
        for (int x = 0; x < end; x += LANES.length()) {
            at(src, r0 + x)
                    .mul(w0)
                    .add(at(src, r1 + x).mul(w1))
                    .add(at(src, r2 + x).mul(w2))
                    .add(at(src, r3 + x).mul(w3))
                    .add(at(src, r4 + x).mul(w4))
                    .add(at(src, r5 + x).mul(w5))
                    .intoArray(dst, dstAt + x);
        }
    }

    private static void downAny(
            float[] src, int[] rowAt, int taps, float[] w, int at, float[] dst, int dstAt, int end) {
        for (int x = 0; x < end; x += LANES.length()) {
            var sum = at(src, rowAt[0] + x).mul(w[at]);
            for (int k = 1; k < taps; k++) {
                sum = sum.add(at(src, rowAt[k] + x).mul(w[at + k]));
            }
            sum.intoArray(dst, dstAt + x);
        }
    }

    @Override
    public void across(
            float[] src, int[] first, int origin, int from, int count, int taps, float[] weights, float[] dst) {
        for (int i = 0; i < count; i++) {
            int at = (first[from + i] - origin) * ROWS;
            int w = (from + i) * taps;
            for (int r = 0; r < ROWS; r += LANES.length()) {
                var sum = at(src, at + r).mul(weights[w]);
                for (int k = 1; k < taps; k++) {
                    sum = sum.add(at(src, at + k * ROWS + r).mul(weights[w + k]));
                }
                sum.intoArray(dst, i * ROWS + r);
            }
        }
    }

    @Override
    public void zip(float[] a, float[] b, float[] dst, int dstAt, int count) {
        int end = LANES.loopBound(count);
        for (int i = 0; i < end; i += LANES.length()) {
            var left = at(a, i);
            var right = at(b, i);
            left.rearrange(ZIP_LOW, right).intoArray(dst, dstAt + 2 * i);
            left.rearrange(ZIP_HIGH, right).intoArray(dst, dstAt + 2 * i + LANES.length());
        }
        ScalarTapBlend.zipSpan(a, b, dst, dstAt, end, count);
    }
}
