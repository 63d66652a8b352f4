package awlsmith.core.picture;

import java.lang.foreign.MemorySegment;
import java.nio.ByteOrder;
import jdk.incubator.vector.ByteVector;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.ShortVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorShape;
import jdk.incubator.vector.VectorSpecies;

/** {@link CodeRows} over whole lanes, with the scalar form for the rest of each row. */
final class VectorCodeRows implements CodeRows {
    private static final VectorSpecies<Float> LANES = FloatVector.SPECIES_PREFERRED;
    private static final VectorSpecies<Integer> INTS = IntVector.SPECIES_PREFERRED;
    private static final VectorSpecies<Byte> BYTES =
            VectorSpecies.of(byte.class, VectorShape.forBitSize(LANES.length() * 8));
    private static final VectorSpecies<Short> SHORTS =
            VectorSpecies.of(short.class, VectorShape.forBitSize(LANES.length() * 16));

    /** Byte vectors begin at 64 bits, so fewer than eight float lanes cannot be narrowed in one piece. */
    static boolean isPossible() {
        return FloatVector.SPECIES_PREFERRED.length() >= 8;
    }

    @Override
    public void fromBytes(byte[] src, int at, float[] dst, int dstAt, int width, CodeScale scale) {
        int end = LANES.loopBound(width);
        float inverse = 1 / scale.span();
        for (int i = 0; i < end; i += LANES.length()) {
            var codes = (IntVector)
                    ByteVector.fromArray(BYTES, src, at + i).convertShape(VectorOperators.ZERO_EXTEND_B2I, INTS, 0);
            write(codes, scale.zero(), inverse, dst, dstAt + i);
        }
        ScalarCodeRows.bytesIn(src, at, dst, dstAt, end, width, scale);
    }

    @Override
    public void fromShorts(byte[] src, int at, float[] dst, int dstAt, int width, CodeScale scale) {
        int end = LANES.loopBound(width);
        float inverse = 1 / scale.span();
        var from = MemorySegment.ofArray(src);
        for (int i = 0; i < end; i += LANES.length()) {
            var codes = (IntVector) ShortVector.fromMemorySegment(SHORTS, from, at + 2L * i, ByteOrder.LITTLE_ENDIAN)
                    .convertShape(VectorOperators.ZERO_EXTEND_S2I, INTS, 0);
            write(codes, scale.zero(), inverse, dst, dstAt + i);
        }
        ScalarCodeRows.shortsIn(src, at, dst, dstAt, end, width, scale);
    }

    @Override
    public void toBytes(
            float[] src, int srcAt, byte[] dst, int at, int width, CodeScale scale, float[] dither, int ditherAt) {
        int end = LANES.loopBound(width);
        for (int i = 0; i < end; i += LANES.length()) {
            var codes = codes(src, srcAt + i, scale, dither, ditherAt + (i & (Dither.SIDE - 1)));
            ((ByteVector) codes.convertShape(VectorOperators.I2B, BYTES, 0)).intoArray(dst, at + i);
        }
        ScalarCodeRows.bytesOut(src, srcAt, dst, at, end, width, scale, dither, ditherAt);
    }

    @Override
    public void toShorts(
            float[] src, int srcAt, byte[] dst, int at, int width, CodeScale scale, float[] dither, int ditherAt) {
        int end = LANES.loopBound(width);
        var to = MemorySegment.ofArray(dst);
        for (int i = 0; i < end; i += LANES.length()) {
            var codes = codes(src, srcAt + i, scale, dither, ditherAt + (i & (Dither.SIDE - 1)));
            ((ShortVector) codes.convertShape(VectorOperators.I2S, SHORTS, 0))
                    .intoMemorySegment(to, at + 2L * i, ByteOrder.LITTLE_ENDIAN);
        }
        ScalarCodeRows.shortsOut(src, srcAt, dst, at, end, width, scale, dither, ditherAt);
    }

    private static void write(IntVector codes, float zero, float inverse, float[] dst, int at) {
        ((FloatVector) codes.convert(VectorOperators.I2F, 0))
                .sub(zero)
                .mul(inverse)
                .intoArray(dst, at);
    }

    private static IntVector codes(float[] src, int at, CodeScale scale, float[] dither, int ditherAt) {
        var level = FloatVector.fromArray(LANES, src, at).mul(scale.span()).add(scale.zero() + 0.5f);
        if (dither != null) {
            level = level.add(FloatVector.fromArray(LANES, dither, ditherAt));
        }
        // whole numbers are clamped in one instruction each, floats with their signed zeros and NaNs are not
        return ((IntVector) level.convert(VectorOperators.F2I, 0)).max(0).min(scale.top());
    }
}
