package awlsmith.core.colour;

import java.util.function.DoubleUnaryOperator;

/**
 * A curve of one sample, tabled so that it is quick for whole pictures: {@value #STEPS} steps to every doubling, so that curves which
 * are steep near black are as exact there; straight between, and below 2^-{@value #OCTAVES} straight to zero. Samples up to
 * 64, either way, are tabled, six stops beyond white; what lies beyond follows the last step.
 */
public final class PointCurve {
    private static final int STEPS = 128;
    private static final int OCTAVES = 18;
    private static final int SHIFT = 16;
    private static final int FIRST = Float.floatToIntBits(Math.scalb(1f, -OCTAVES)) >> SHIFT;
    private static final int BEYOND = 6;
    private static final int COUNT = (OCTAVES + BEYOND) * STEPS;
    /** No picture holds more; keeps curves that grow without end within numbers. */
    private static final double MOST = 1e30;

    private static final float PART = 1f / (1 << SHIFT);

    private final float zero;
    private final float[] above;
    private final float[] below;

    private PointCurve(float zero, float[] above, float[] below) {
        this.zero = zero;
        this.above = above;
        this.below = below;
    }

    /** @param curve defined from -64 to 64 */
    public static PointCurve of(DoubleUnaryOperator curve) {
        return new PointCurve((float) curve.applyAsDouble(0), side(curve, 1), side(curve, -1));
    }

    private static float[] side(DoubleUnaryOperator curve, int sign) {
        float[] table = new float[COUNT + 1];
        for (int i = 0; i <= COUNT; i++) {
            double at = Float.intBitsToFloat(FIRST + i << SHIFT);
            table[i] = (float) Math.clamp(curve.applyAsDouble(sign * at), -MOST, MOST);
        }
        return table;
    }

    /** The curve at one sample. */
    public float at(float value) {
        float[] table = value < 0 ? below : above;
        float size = Math.abs(value);
        int bits = Float.floatToRawIntBits(size);
        int step = (bits >> SHIFT) - FIRST;
        if (step < 0) {
            return zero + size * (1 << OCTAVES) * (table[0] - zero);
        }
        if (step >= COUNT) {
            float last = Float.intBitsToFloat(FIRST + COUNT << SHIFT);
            float before = Float.intBitsToFloat(FIRST + COUNT - 1 << SHIFT);
            return table[COUNT] + (size - last) / (last - before) * (table[COUNT] - table[COUNT - 1]);
        }
        float part = (bits & (1 << SHIFT) - 1) * PART;
        return table[step] + part * (table[step + 1] - table[step]);
    }

    /** Every sample of a row. */
    public void row(float[] from, int at, float[] to, int toAt, int count) {
        for (int i = 0; i < count; i++) {
            to[toAt + i] = at(from[at + i]);
        }
    }
}
