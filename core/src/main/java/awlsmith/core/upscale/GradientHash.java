package awlsmith.core.upscale;

/**
 * Sorts samples of a picture into buckets by what surrounds them: direction, strength and coherence of the gradient in a
 * 5x5 window, and whether the sample lies on a bright line, a dark line or neither.
 *
 * <p>Source of the first three: Romano, Isidoro and Milanfar, "RAISR: Rapid and accurate image super resolution", 2016,
 * section III-A, from the eigenvalues of the structure tensor. The last is ours: an edge and a thin line have the same
 * tensor and want other filters.
 */
public final class GradientHash {
    public static final int ANGLES = 16;
    public static final int COHERENCES = 4;
    public static final int LINES = 3;

    /** Upper bounds of the gradient's root mean square over the window, in light 0..1 a sample. */
    private static final float[] STRENGTHS = {0.003f, 0.009f, 0.022f, 0.055f};

    public static final int BUCKETS = ANGLES * (STRENGTHS.length + 1) * COHERENCES * LINES;

    /** How far a sample must stand out from its 3x3 mean, in gradient strengths, to count as a line. */
    private static final float STANDS_OUT = 0.3f;

    /** Nothing smaller is a line: rounding, or less than a step of eight bits. */
    private static final float LEAST_LINE = 0.001f;

    /** Samples around a sample that are looked at: two of the window, one of the gradient. */
    public static final int REACH = 3;

    /** Weights of the window's five rows and columns: binomial, so near samples count more. */
    static final float[] WINDOW = {1 / 16f, 4 / 16f, 6 / 16f, 4 / 16f, 1 / 16f};

    private GradientHash() {}

    /**
     * @param xx weighted mean of the squared gradient across
     * @param xy weighted mean of the gradient across times that down
     * @param yy weighted mean of the squared gradient down
     * @param standsOut the sample less the mean of the 3x3 around it
     * @return 0 to BUCKETS - 1
     */
    public static int bucket(float xx, float xy, float yy, float standsOut) {
        float half = (xx - yy) * 0.5f;
        float root = (float) Math.sqrt(half * half + xy * xy);
        float mean = (xx + yy) * 0.5f;
        float large = (float) Math.sqrt(mean + root);
        float small = (float) Math.sqrt(Math.max(0, mean - root));
        float coherence = large > 1e-9f ? (large - small) / (large + small) : 0;
        int strength = 0;
        while (strength < STRENGTHS.length && large >= STRENGTHS[strength]) {
            strength++;
        }
        int coherent = Math.min(COHERENCES - 1, (int) (coherence * COHERENCES));
        float least = STANDS_OUT * large + LEAST_LINE;
        int line = standsOut > least ? 2 : standsOut < -least ? 0 : 1;
        int angle = angle(xy, half);
        return ((angle * (STRENGTHS.length + 1) + strength) * COHERENCES + coherent) * LINES + line;
    }

    /** Direction of the gradient, half of the angle of (half, xy), in steps of pi / ANGLES. */
    private static int angle(float xy, float half) {
        float a = Math.abs(half);
        float b = Math.abs(xy);
        float most = Math.max(a, b);
        if (most < 1e-12f) {
            return 0;
        }
        float t = Math.min(a, b) / most;
        // arc tangent in 0..1, within 0.0015 radians: far finer than a bucket
        float arc = (float) (Math.PI / 4) * t + t * (1 - t) * (0.2447f + 0.0663f * t);
        float full = b > a ? (float) (Math.PI / 2) - arc : arc;
        if (half < 0) {
            full = (float) Math.PI - full;
        }
        if (xy < 0) {
            full = (float) (2 * Math.PI) - full;
        }
        return Math.min(ANGLES - 1, (int) (full * (float) (ANGLES / (2 * Math.PI))));
    }
}
