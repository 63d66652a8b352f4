package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * Structural similarity between two planes with white at 1.0: 1 for equal planes.
 *
 * <p>Source: Wang, Bovik, Sheikh and Simoncelli, "Image quality assessment: from error visibility to structural
 * similarity", IEEE Trans. Image Processing 13, 2004: 11x11 Gaussian window of sigma 1.5, K1 0.01, K2 0.03; only windows
 * that lie wholly inside count. Differs: none.
 */
public final class Ssim {
    /** Samples on a side of the least that is compared. */
    public static final int WINDOW = 11;

    private static final double SIGMA = 1.5;
    private static final double C1 = 0.01 * 0.01;
    private static final double C2 = 0.03 * 0.03;
    private static final double[] BELL = bell();

    private Ssim() {}

    /** Mean over all windows, leaving out {@code border} samples along each edge first. */
    public static double of(Plane a, Plane b, int border) {
        Psnr.sameShape(a, b, border);
        int width = a.width() - 2 * border;
        int height = a.height() - 2 * border;
        int across = width - WINDOW + 1;
        int down = height - WINDOW + 1;
        if (across < 1 || down < 1) {
            throw new IllegalArgumentException(
                    "picture is " + width + "x" + height + " inside its border, must be at least 11x11");
        }
        // running rows of the five means, each already blurred across
        double[][][] ring = new double[WINDOW][5][across];
        double sum = 0;
        for (int y = 0; y < height; y++) {
            blurAcross(a, b, border, y + border, across, ring[y % WINDOW]);
            if (y >= WINDOW - 1) {
                sum += row(ring, y, across);
            }
        }
        return sum / ((double) across * down);
    }

    private static void blurAcross(Plane a, Plane b, int left, int y, int across, double[][] out) {
        for (int x = 0; x < across; x++) {
            double ma = 0;
            double mb = 0;
            double aa = 0;
            double bb = 0;
            double ab = 0;
            for (int k = 0; k < WINDOW; k++) {
                double u = a.at(left + x + k, y);
                double v = b.at(left + x + k, y);
                double w = BELL[k];
                ma += w * u;
                mb += w * v;
                aa += w * u * u;
                bb += w * v * v;
                ab += w * u * v;
            }
            out[0][x] = ma;
            out[1][x] = mb;
            out[2][x] = aa;
            out[3][x] = bb;
            out[4][x] = ab;
        }
    }

    private static double row(double[][][] ring, int last, int across) {
        double sum = 0;
        double[] m = new double[5];
        for (int x = 0; x < across; x++) {
            java.util.Arrays.fill(m, 0);
            for (int k = 0; k < WINDOW; k++) {
                double[][] line = ring[(last - WINDOW + 1 + k) % WINDOW];
                for (int q = 0; q < 5; q++) {
                    m[q] += BELL[k] * line[q][x];
                }
            }
            sum += similarity(m[0], m[1], m[2] - m[0] * m[0], m[3] - m[1] * m[1], m[4] - m[0] * m[1]);
        }
        return sum;
    }

    /** Equation 13 of the paper. */
    static double similarity(double ma, double mb, double va, double vb, double covariance) {
        return ((2 * ma * mb + C1) * (2 * covariance + C2)) / ((ma * ma + mb * mb + C1) * (va + vb + C2));
    }

    private static double[] bell() {
        double[] w = new double[WINDOW];
        double sum = 0;
        for (int i = 0; i < WINDOW; i++) {
            double d = i - WINDOW / 2;
            w[i] = Math.exp(-d * d / (2 * SIGMA * SIGMA));
            sum += w[i];
        }
        for (int i = 0; i < WINDOW; i++) {
            w[i] /= sum;
        }
        return w;
    }
}
