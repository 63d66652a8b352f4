package awlsmith.core.resample;

/** The plain form of {@link TapBlend}. */
final class ScalarTapBlend implements TapBlend {

    @Override
    public void down(
            float[] src, int[] rowAt, int taps, float[] weights, int weightAt, float[] dst, int dstAt, int width) {
        span(src, rowAt, taps, weights, weightAt, dst, dstAt, 0, width);
    }

    @Override
    public void across(
            float[] src, int[] first, int origin, int from, int count, int taps, float[] weights, float[] dst) {
        for (int i = 0; i < count; i++) {
            int at = (first[from + i] - origin) * ROWS;
            for (int r = 0; r < ROWS; r++) {
                float sum = weights[(from + i) * taps] * src[at + r];
                for (int k = 1; k < taps; k++) {
                    sum += weights[(from + i) * taps + k] * src[at + k * ROWS + r];
                }
                dst[i * ROWS + r] = sum;
            }
        }
    }

    @Override
    public void zip(float[] a, float[] b, float[] dst, int dstAt, int count) {
        zipSpan(a, b, dst, dstAt, 0, count);
    }

    static void zipSpan(float[] a, float[] b, float[] dst, int dstAt, int from, int to) {
        for (int i = from; i < to; i++) {
            dst[dstAt + 2 * i] = a[i];
            dst[dstAt + 2 * i + 1] = b[i];
        }
    }

    static void span(
            float[] src,
            int[] rowAt,
            int taps,
            float[] weights,
            int weightAt,
            float[] dst,
            int dstAt,
            int from,
            int to) {
        for (int x = from; x < to; x++) {
            float sum = weights[weightAt] * src[rowAt[0] + x];
            for (int k = 1; k < taps; k++) {
                sum += weights[weightAt + k] * src[rowAt[k] + x];
            }
            dst[dstAt + x] = sum;
        }
    }
}
