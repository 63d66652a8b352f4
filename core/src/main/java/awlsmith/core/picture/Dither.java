package awlsmith.core.picture;

import java.util.Random;

/**
 * A fixed tile of offsets added before rounding to fewer levels, so that slow gradients turn into fine noise instead of
 * bands. The tile is blue noise: neighbouring offsets differ as much as they can, so the noise is the least visible.
 *
 * <p>Source: Ulichney, "The void-and-cluster method for dither array generation", Proc. SPIE 1913, 1993. The tile lies
 * still from frame to frame: a moving one would make flat areas boil and would cost the encoder bits.
 */
public final class Dither {
    /** Side of the square tile in samples; a power of two. */
    public static final int SIDE = 64;

    /** Just under half a code value: a sample that is already a whole code comes back as itself. */
    private static final float HALF = 0.49f;

    private static final double SPREAD = 1.5;
    private static final float[] TILE = voidAndCluster();

    private Dither() {}

    /**
     * Offsets in code values, -0.49..0.49, row-major. Each row is given twice side by side, so that a span of up to SIDE
     * samples can be read from any column without wrapping.
     */
    static float[] doubledRows() {
        float[] out = new float[SIDE * SIDE * 2];
        for (int y = 0; y < SIDE; y++) {
            System.arraycopy(TILE, y * SIDE, out, y * 2 * SIDE, SIDE);
            System.arraycopy(TILE, y * SIDE, out, y * 2 * SIDE + SIDE, SIDE);
        }
        return out;
    }

    /** Offset at a sample of a plane, in code values. */
    public static float at(int x, int y) {
        return TILE[(y & (SIDE - 1)) * SIDE + (x & (SIDE - 1))];
    }

    private static float[] voidAndCluster() {
        int n = SIDE * SIDE;
        double[] bell = new double[n];
        for (int i = 0; i < n; i++) {
            int dx = Math.min(i % SIDE, SIDE - i % SIDE);
            int dy = Math.min(i / SIDE, SIDE - i / SIDE);
            bell[i] = Math.exp(-(dx * dx + dy * dy) / (2 * SPREAD * SPREAD));
        }
        var field = new Field(bell);
        var random = new Random(1993);
        int ones = n / 10;
        for (int placed = 0; placed < ones; ) {
            int at = random.nextInt(n);
            if (!field.on[at]) {
                field.flip(at);
                placed++;
            }
        }
        for (int cluster = field.tightest(), gap = -1; cluster != gap; cluster = field.tightest()) {
            field.flip(cluster);
            gap = field.emptiest();
            field.flip(gap);
            if (gap == cluster) {
                break;
            }
        }
        int[] rank = new int[n];
        boolean[] start = field.on.clone();
        for (int r = ones - 1; r >= 0; r--) {
            int at = field.tightest();
            rank[at] = r;
            field.flip(at);
        }
        for (int at = 0; at < n; at++) {
            if (start[at] != field.on[at]) {
                field.flip(at);
            }
        }
        for (int r = ones; r < n; r++) {
            int at = field.emptiest();
            rank[at] = r;
            field.flip(at);
        }
        float[] tile = new float[n];
        for (int i = 0; i < n; i++) {
            tile[i] = ((rank[i] + 0.5f) / n - 0.5f) * 2 * HALF;
        }
        return tile;
    }

    /** Points on a torus and the crowding each of them causes around it. */
    private static final class Field {
        private final double[] bell;
        private final boolean[] on = new boolean[SIDE * SIDE];
        private final double[] crowd = new double[SIDE * SIDE];

        Field(double[] bell) {
            this.bell = bell;
        }

        void flip(int at) {
            double sign = on[at] ? -1 : 1;
            on[at] = !on[at];
            int ax = at % SIDE;
            int ay = at / SIDE;
            for (int y = 0; y < SIDE; y++) {
                int bellRow = ((y - ay) & (SIDE - 1)) * SIDE;
                for (int x = 0; x < SIDE; x++) {
                    crowd[y * SIDE + x] += sign * bell[bellRow + ((x - ax) & (SIDE - 1))];
                }
            }
        }

        int tightest() {
            int best = -1;
            for (int i = 0; i < on.length; i++) {
                if (on[i] && (best < 0 || crowd[i] > crowd[best])) {
                    best = i;
                }
            }
            return best;
        }

        int emptiest() {
            int best = -1;
            for (int i = 0; i < on.length; i++) {
                if (!on[i] && (best < 0 || crowd[i] < crowd[best])) {
                    best = i;
                }
            }
            return best;
        }
    }
}
