package awlsmith.core.clean;

import static awlsmith.core.clean.Cosines.A;
import static awlsmith.core.clean.Cosines.B;
import static awlsmith.core.clean.Cosines.C;
import static awlsmith.core.clean.Cosines.K1;
import static awlsmith.core.clean.Cosines.K3;
import static awlsmith.core.clean.Cosines.K5;
import static awlsmith.core.clean.Cosines.K7;

/** One block after the other. */
final class ScalarBlocks implements Blocks {
    private static final int ROW = SIDE * LANES;

    @Override
    public void forward(float[] x) {
        for (int b = 0; b < LANES; b++) {
            for (int i = 0; i < SIDE; i++) {
                forward(x, i * ROW + b, LANES);
            }
            for (int i = 0; i < SIDE; i++) {
                forward(x, i * LANES + b, ROW);
            }
        }
    }

    @Override
    public void inverse(float[] x) {
        for (int b = 0; b < LANES; b++) {
            for (int i = 0; i < SIDE; i++) {
                inverse(x, i * LANES + b, ROW);
            }
            for (int i = 0; i < SIDE; i++) {
                inverse(x, i * ROW + b, LANES);
            }
        }
    }

    @Override
    public void cut(float[] x, float[] least, float[] sigma, float[] weights) {
        for (int b = 0; b < LANES; b++) {
            float left = 1;
            for (int i = 1; i < SIZE; i++) {
                if (Math.abs(x[i * LANES + b]) >= sigma[b] * least[i]) {
                    left += 1;
                } else {
                    x[i * LANES + b] = 0;
                }
            }
            weights[b] = 1 / left;
        }
    }

    @Override
    public void weigh(float[] x, float[] pilot, float[] shape, float[] sigma, float[] weights) {
        for (int b = 0; b < LANES; b++) {
            float square = sigma[b] * sigma[b] + 1e-12f;
            float sum = 1;
            for (int i = 1; i < SIZE; i++) {
                float power = pilot[i * LANES + b] * pilot[i * LANES + b];
                float share = power / (power + square * shape[i]);
                x[i * LANES + b] *= share;
                sum += share * share;
            }
            weights[b] = 1 / sum;
        }
    }

    @Override
    public void load(float[][] rows, int group, float[] x) {
        for (int r = 0; r < SIDE; r++) {
            for (int k = 0; k < SIDE; k++) {
                System.arraycopy(
                        rows[r * COLUMNS + k % COLUMNS], group + k / COLUMNS, x, (r * SIDE + k) * LANES, LANES);
            }
        }
    }

    @Override
    public void add(float[] x, int r, float[] weights, float[][] sums, int row, int group) {
        for (int k = 0; k < SIDE; k++) {
            float[] sum = sums[row + k % COLUMNS];
            int own = (r * SIDE + k) * LANES;
            for (int b = 0; b < LANES; b++) {
                sum[group + k / COLUMNS + b] += weights[b] * x[own + b];
            }
        }
    }

    private static void forward(float[] x, int at, int step) {
        float a0 = x[at + 0 * step];
        float z0 = x[at + 7 * step];
        float a1 = x[at + 1 * step];
        float z1 = x[at + 6 * step];
        float a2 = x[at + 2 * step];
        float z2 = x[at + 5 * step];
        float a3 = x[at + 3 * step];
        float z3 = x[at + 4 * step];
        float s0 = (a0 + z0);
        float d0 = (a0 - z0);
        float s1 = (a1 + z1);
        float d1 = (a1 - z1);
        float s2 = (a2 + z2);
        float d2 = (a2 - z2);
        float s3 = (a3 + z3);
        float d3 = (a3 - z3);
        float outer = (s0 + s3);
        float inner = (s1 + s2);
        float across = (s0 - s3);
        float between = (s1 - s2);
        x[at + 0 * step] = ((outer + inner) * A);
        x[at + 4 * step] = ((outer - inner) * A);
        x[at + 2 * step] = ((across * B) + (between * C));
        x[at + 6 * step] = ((across * C) - (between * B));
        x[at + 1 * step] = ((((d0 * K1) + (d1 * K3)) + (d2 * K5)) + (d3 * K7));
        x[at + 3 * step] = ((((d0 * K3) - (d1 * K7)) - (d2 * K1)) - (d3 * K5));
        x[at + 5 * step] = ((((d0 * K5) - (d1 * K1)) + (d2 * K7)) + (d3 * K3));
        x[at + 7 * step] = ((((d0 * K7) - (d1 * K5)) + (d2 * K3)) - (d3 * K1));
    }

    private static void inverse(float[] x, int at, int step) {
        float c0 = x[at + 0 * step];
        float c1 = x[at + 1 * step];
        float c2 = x[at + 2 * step];
        float c3 = x[at + 3 * step];
        float c4 = x[at + 4 * step];
        float c5 = x[at + 5 * step];
        float c6 = x[at + 6 * step];
        float c7 = x[at + 7 * step];
        float e0 = ((c0 + c4) * A);
        float e1 = ((c0 - c4) * A);
        float f0 = ((c2 * B) + (c6 * C));
        float f1 = ((c2 * C) - (c6 * B));
        float s0 = (e0 + f0);
        float s1 = (e1 + f1);
        float s2 = (e1 - f1);
        float s3 = (e0 - f0);
        float d0 = ((((c1 * K1) + (c3 * K3)) + (c5 * K5)) + (c7 * K7));
        float d1 = ((((c1 * K3) - (c3 * K7)) - (c5 * K1)) - (c7 * K5));
        float d2 = ((((c1 * K5) - (c3 * K1)) + (c5 * K7)) + (c7 * K3));
        float d3 = ((((c1 * K7) - (c3 * K5)) + (c5 * K3)) - (c7 * K1));
        x[at + 0 * step] = (s0 + d0);
        x[at + 7 * step] = (s0 - d0);
        x[at + 1 * step] = (s1 + d1);
        x[at + 6 * step] = (s1 - d1);
        x[at + 2 * step] = (s2 + d2);
        x[at + 5 * step] = (s2 - d2);
        x[at + 3 * step] = (s3 + d3);
        x[at + 4 * step] = (s3 - d3);
    }
}
