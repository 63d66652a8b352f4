package awlsmith.core.picture;

/** The plain form of {@link CodeRows}. */
final class ScalarCodeRows implements CodeRows {

    @Override
    public void fromBytes(byte[] src, int at, float[] dst, int dstAt, int width, CodeScale scale) {
        bytesIn(src, at, dst, dstAt, 0, width, scale);
    }

    @Override
    public void fromShorts(byte[] src, int at, float[] dst, int dstAt, int width, CodeScale scale) {
        shortsIn(src, at, dst, dstAt, 0, width, scale);
    }

    @Override
    public void toBytes(
            float[] src, int srcAt, byte[] dst, int at, int width, CodeScale scale, float[] dither, int ditherAt) {
        bytesOut(src, srcAt, dst, at, 0, width, scale, dither, ditherAt);
    }

    @Override
    public void toShorts(
            float[] src, int srcAt, byte[] dst, int at, int width, CodeScale scale, float[] dither, int ditherAt) {
        shortsOut(src, srcAt, dst, at, 0, width, scale, dither, ditherAt);
    }

    static void bytesIn(byte[] src, int at, float[] dst, int dstAt, int from, int to, CodeScale scale) {
        float zero = scale.zero();
        float inverse = 1 / scale.span();
        for (int i = from; i < to; i++) {
            dst[dstAt + i] = ((src[at + i] & 0xff) - zero) * inverse;
        }
    }

    static void shortsIn(byte[] src, int at, float[] dst, int dstAt, int from, int to, CodeScale scale) {
        float zero = scale.zero();
        float inverse = 1 / scale.span();
        for (int i = from; i < to; i++) {
            int b = at + 2 * i;
            dst[dstAt + i] = ((src[b] & 0xff | (src[b + 1] & 0xff) << 8) - zero) * inverse;
        }
    }

    static void bytesOut(
            float[] src,
            int srcAt,
            byte[] dst,
            int at,
            int from,
            int to,
            CodeScale scale,
            float[] dither,
            int ditherAt) {
        for (int i = from; i < to; i++) {
            dst[at + i] = (byte) code(src[srcAt + i], scale, offset(dither, ditherAt, i));
        }
    }

    static void shortsOut(
            float[] src,
            int srcAt,
            byte[] dst,
            int at,
            int from,
            int to,
            CodeScale scale,
            float[] dither,
            int ditherAt) {
        for (int i = from; i < to; i++) {
            int code = code(src[srcAt + i], scale, offset(dither, ditherAt, i));
            dst[at + 2 * i] = (byte) code;
            dst[at + 2 * i + 1] = (byte) (code >> 8);
        }
    }

    private static float offset(float[] dither, int ditherAt, int i) {
        return dither == null ? 0 : dither[ditherAt + (i & (Dither.SIDE - 1))];
    }

    private static int code(float value, CodeScale scale, float dither) {
        float level = value * scale.span() + (scale.zero() + 0.5f) + dither;
        return Math.clamp((int) level, 0, scale.top());
    }
}
