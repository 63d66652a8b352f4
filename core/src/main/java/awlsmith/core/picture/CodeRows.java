package awlsmith.core.picture;

/**
 * Turns one row of code values into floats and back. The scalar and the vector form give the same bits: the sums are
 * taken in the order written here and never fused.
 */
sealed interface CodeRows permits ScalarCodeRows, VectorCodeRows {

    /** {@code dst[dstAt + i] = (byte i of src as 0..255 - zero) * (1 / span)}. */
    void fromBytes(byte[] src, int at, float[] dst, int dstAt, int width, CodeScale scale);

    /** The same for little-endian 16-bit samples; {@code at} counts bytes. */
    void fromShorts(byte[] src, int at, float[] dst, int dstAt, int width, CodeScale scale);

    /** {@code src * span + zero + 0.5 + dither} cut to a whole number and clamped to 0..top; dither may be null. */
    void toBytes(float[] src, int srcAt, byte[] dst, int at, int width, CodeScale scale, float[] dither, int ditherAt);

    /** The same for little-endian 16-bit samples; {@code at} counts bytes. */
    void toShorts(float[] src, int srcAt, byte[] dst, int at, int width, CodeScale scale, float[] dither, int ditherAt);
}
