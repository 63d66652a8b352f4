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
        int wholeX = (int) Math.floor(u);
        int wholeY = (int) Math.floor(v);
        int x = wholeX - left;
        int y = wholeY - top;
        float[] wx = WEIGHTS[(int) Math.round((u - wholeX) * PHASES)];
        float[] wy = WEIGHTS[(int) Math.round((v - wholeY) * PHASES)];
        float[] d = plane.data();
        float sum = 0;
        boolean inside = x >= 2 && x + 3 < plane.width();
        for (int j = 0; j < TAPS; j++) {
            int row = plane.row(Math.clamp(y - 2 + j, 0, plane.height() - 1));
            float line = 0;
            if (inside) {
                int at = row + x - 2;
                line = wx[0] * d[at]
                        + wx[1] * d[at + 1]
                        + wx[2] * d[at + 2]
                        + wx[3] * d[at + 3]
                        + wx[4] * d[at + 4]
                        + wx[5] * d[at + 5];
            } else {
                for (int i = 0; i < TAPS; i++) {
                    line += wx[i] * d[row + Math.clamp(x - 2 + i, 0, plane.width() - 1)];
                }
            }
            sum += wy[j] * line;
        }
        return sum;
    }
}
