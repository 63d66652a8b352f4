package awlsmith.core.light;

import awlsmith.core.picture.Plane;

/**
 * What of a frame's light matters here: the levels that fixed shares of its samples lie below, and a picture of a few
 * samples that tells one scene from another whatever their exposure.
 */
final class LightLook {
    /** Levels told. */
    static final int LEVELS = 17;

    /** Light is counted from -0.25 to 1.25. */
    static final double FLOOR = -0.25;

    static final double SPAN = 1.5;

    private static final int BINS = 1536;
    /** Looked at of a picture, about: levels are as good from these as from all, and every frame is looked at for many. */
    private static final int SAMPLES = 60_000;

    private static final int ACROSS = 16;
    private static final int DOWN = 12;
    /** Likeness of two small pictures below which they are of two scenes. */
    private static final double ALIKE = 0.6;
    /** Below this deviation a small picture shows nothing. */
    private static final double PLAIN = 0.004;

    private final float[] levels;
    private final double[] small;
    private final double deviation;

    private LightLook(float[] levels, double[] small, double deviation) {
        this.levels = levels;
        this.small = small;
        this.deviation = deviation;
    }

    /** @param luma of the whole picture; of a large one only every so manieth row and column is looked at */
    static LightLook of(Plane luma) {
        int step = Math.max(1, (int) Math.sqrt((double) luma.width() * luma.height() / SAMPLES));
        int[] bins = new int[BINS];
        double[] small = new double[ACROSS * DOWN];
        int[] counts = new int[ACROSS * DOWN];
        int count = 0;
        for (int y = 0; y < luma.height(); y += step) {
            int row = luma.row(y);
            int cellRow = y * DOWN / luma.height() * ACROSS;
            for (int x = 0; x < luma.width(); x += step) {
                float v = luma.data()[row + x];
                bins[(int) Math.clamp((v - FLOOR) / SPAN * BINS, 0, BINS - 1)]++;
                int cell = cellRow + x * ACROSS / luma.width();
                small[cell] += v;
                counts[cell]++;
                count++;
            }
        }
        double mean = 0;
        for (int i = 0; i < small.length; i++) {
            small[i] = counts[i] == 0 ? 0 : small[i] / counts[i];
            mean += small[i] / small.length;
        }
        double square = 0;
        for (int i = 0; i < small.length; i++) {
            small[i] -= mean;
            square += small[i] * small[i];
        }
        return new LightLook(levels(bins, count), small, Math.sqrt(square / small.length));
    }

    /** Between bins as if their samples lay evenly in them. */
    private static float[] levels(int[] bins, int count) {
        float[] levels = new float[LEVELS];
        long below = 0;
        int bin = 0;
        for (int k = 0; k < LEVELS; k++) {
            double share = Math.clamp((double) k / (LEVELS - 1), 0.005, 0.995) * count;
            while (bin < BINS - 1 && below + bins[bin] < share) {
                below += bins[bin];
                bin++;
            }
            double inside = bins[bin] == 0 ? 0 : (share - below) / bins[bin];
            levels[k] = (float) (FLOOR + SPAN * (bin + inside) / BINS);
        }
        return levels;
    }

    float level(int k) {
        return levels[k];
    }

    /** Whether two frames that follow each other show one scene. */
    boolean isSameScene(LightLook next) {
        if (deviation < PLAIN || next.deviation < PLAIN) {
            return true;
        }
        double product = 0;
        for (int i = 0; i < small.length; i++) {
            product += small[i] * next.small[i];
        }
        return product / small.length > ALIKE * deviation * next.deviation;
    }
}
