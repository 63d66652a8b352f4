package awlsmith.core.resample;

/**
 * The two loops that resampling spends its time in. The scalar and the vector form give the same bits: products are
 * added for k = 0, 1, ... and never fused.
 */
sealed interface TapBlend permits ScalarTapBlend, VectorTapBlend {
    /** Rows that are turned on their side and resampled together; lanes run across them. */
    int ROWS = 16;

    /**
     * {@code dst[dstAt + x] = sum over k of weights[weightAt + k] * src[rowAt[k] + x]} for x in 0..width. The rows must
     * not be dst.
     */
    void down(float[] src, int[] rowAt, int taps, float[] weights, int weightAt, float[] dst, int dstAt, int width);

    /**
     * For each target column i in 0..count and each r in 0..ROWS: {@code dst[i * ROWS + r] = sum over k of
     * weights[(from + i) * taps + k] * src[(first[from + i] - origin + k) * ROWS + r]}.
     */
    void across(float[] src, int[] first, int origin, int from, int count, int taps, float[] weights, float[] dst);

    /** {@code dst[dstAt + 2 * i] = a[i]} and {@code dst[dstAt + 2 * i + 1] = b[i]} for i in 0..count. */
    void zip(float[] a, float[] b, float[] dst, int dstAt, int count);
}
