package awlsmith.demo.scene;

/**
 * The river's surface at height 0: slopes of travelling ripples from one tileable relief sampled at several sizes and
 * drifts.
 */
final class Water {
    private static final int SIDE = 256;
    private static final double[] SIZES = {23.0, 9.1, 3.6, 1.3};
    private static final double[] STRENGTH = {0.016, 0.020, 0.017, 0.013};
    private static final double[] PER_METRE = {1 / 23.0, 1 / 9.1, 1 / 3.6, 1 / 1.3};
    /** Metres a second; long ripples travel faster. */
    private static final double[] DRIFT_X = {2.6, -1.0, 0.50, -0.14};

    private static final double[] DRIFT_Z = {0.95, 1.3, -0.42, 0.19};

    /** Across and away, side by side. */
    private final float[] slopes;

    Water() {
        var noise = new Noise(5);
        float[] height = new float[SIDE * SIDE];
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                double sum = 0;
                double strength = 1;
                int period = 8;
                for (int i = 0; i < 3; i++) {
                    // ridged across the wind, which makes crests long and thin
                    double n =
                            noise.tiled(x * (double) period / SIDE, y * (double) period * 2 / SIDE + 7 * i, period * 2);
                    sum += strength * (1 - Math.abs(n) * 1.6);
                    strength *= 0.36;
                    period *= 2;
                }
                height[y * SIDE + x] = (float) sum;
            }
        }
        slopes = new float[2 * SIDE * SIDE];
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                int left = y * SIDE + (x - 1 & SIDE - 1);
                int right = y * SIDE + (x + 1 & SIDE - 1);
                int up = (y - 1 & SIDE - 1) * SIDE + x;
                int down = (y + 1 & SIDE - 1) * SIDE + x;
                slopes[2 * (y * SIDE + x)] = (height[right] - height[left]) * 4;
                slopes[2 * (y * SIDE + x) + 1] = (height[down] - height[up]) * 4;
            }
        }
    }

    /**
     * The surface's slope at a place and moment.
     *
     * @param footprint metres one ray covers; finer ripples than that are left out
     * @param slope across and away
     */
    void slope(double x, double z, double time, double footprint, double[] slope) {
        double sx = 0;
        double sz = 0;
        for (int i = 0; i < SIZES.length; i++) {
            double ripple = SIZES[i] / 24;
            double seen = STRENGTH[i] * Math.min(1, ripple / (footprint + 1e-9) * 0.9);
            if (seen < 0.002) {
                continue;
            }
            double u = (x + DRIFT_X[i] * time) * PER_METRE[i] + 0.37 * i;
            double v = (z + DRIFT_Z[i] * time) * PER_METRE[i] * 0.8 + 0.71 * i;
            u = (u - Math.floor(u)) * SIDE;
            v = (v - Math.floor(v)) * SIDE;
            int x0 = (int) u;
            int y0 = (int) v;
            float fx = (float) (u - x0);
            float fy = (float) (v - y0);
            int left = 2 * (x0 & SIDE - 1);
            int right = 2 * (x0 + 1 & SIDE - 1);
            int top = 2 * SIDE * (y0 & SIDE - 1);
            int low = 2 * SIDE * (y0 + 1 & SIDE - 1);
            float d = fx * fy;
            float c = fy - d;
            float b = fx - d;
            float a = 1 - fx - c;
            float[] f = slopes;
            sx += seen * (a * f[top + left] + b * f[top + right] + c * f[low + left] + d * f[low + right]);
            sz += seen
                    * (a * f[top + left + 1] + b * f[top + right + 1] + c * f[low + left + 1] + d * f[low + right + 1]);
        }
        slope[0] = sx;
        slope[1] = sz;
    }
}
