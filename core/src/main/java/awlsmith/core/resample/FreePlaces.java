package awlsmith.core.resample;

import awlsmith.core.picture.Plane;

/** Samples at any place between those of a plane, by Lanczos with three lobes; beyond the picture its edge goes on. */
public final class FreePlaces {
    /** Samples each way that one depends on. */
    public static final int REACH = 3;

    private static final int TAPS = 2 * REACH;
    private static final int PHASES = 256;
    /** Weights of the samples around a place, by the place's part of a sample. */
    private static final float[][] WEIGHTS = weights();

    private FreePlaces() {}

    private static float[][] weights() {
        float[][] all = new float[PHASES + 1][TAPS];
        for (int phase = 0; phase <= PHASES; phase++) {
            double sum = 0;
            for (int i = 0; i < TAPS; i++) {
                all[phase][i] = (float) Kernel.LANCZOS3.at(i - 2 - (double) phase / PHASES);
                sum += all[phase][i];
            }
            for (int i = 0; i < TAPS; i++) {
                all[phase][i] /= (float) sum;
            }
        }
        return all;
    }

    /**
     * @param plane a window of the picture; where it ends within the picture, the place must lie REACH samples and one inside
     * @param left column of the picture that the plane begins with; @param top its line
     * @param u column of the picture, 0 the first; @param v line
     */
    public static float at(Plane plane, int left, int top, double u, double v) {
        // whole and broken part are taken in the picture, so that every window rounds alike
        int wholeX = floor(u);
        int wholeY = floor(v);
        int x = wholeX - left;
        int y = wholeY - top;
        float[] wx = WEIGHTS[(int) ((u - wholeX) * PHASES + 0.5)];
        float[] wy = WEIGHTS[(int) ((v - wholeY) * PHASES + 0.5)];
        return x >= 2 && x + 3 < plane.width() && y >= 2 && y + 3 < plane.height()
                ? inside(plane.data(), plane.row(y - 2) + x - 2, plane.stride(), wx, wy)
                : atEdge(plane, x, y, wx, wy);
    }

    private static int floor(double value) {
        int cut = (int) value;
        return cut > value ? cut - 1 : cut;
    }

    private static float inside(float[] d, int first, int stride, float[] wx, float[] wy) {
        float w0 = wx[0];
        float w1 = wx[1];
        float w2 = wx[2];
        float w3 = wx[3];
        float w4 = wx[4];
        float w5 = wx[5];
        float sum = 0;
        int at = first;
        for (int j = 0; j < TAPS; j++) {
            sum += wy[j]
                    * (w0 * d[at] + w1 * d[at + 1] + w2 * d[at + 2] + w3 * d[at + 3] + w4 * d[at + 4] + w5 * d[at + 5]);
            at += stride;
        }
        return sum;
    }

    private static float atEdge(Plane plane, int x, int y, float[] wx, float[] wy) {
        float[] d = plane.data();
        float sum = 0;
        for (int j = 0; j < TAPS; j++) {
            int row = plane.row(Math.clamp(y - 2L + j, 0, plane.height() - 1));
            float line = wx[0] * d[row + Math.clamp(x - 2L, 0, plane.width() - 1)];
            for (int i = 1; i < TAPS; i++) {
                line += wx[i] * d[row + Math.clamp(x - 2L + i, 0, plane.width() - 1)];
            }
            sum += wy[j] * line;
        }
        return sum;
    }
}
