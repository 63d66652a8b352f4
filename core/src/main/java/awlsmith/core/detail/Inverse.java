package awlsmith.core.detail;

/**
 * Taps that undo a spread as well as noise allows: the least sum of squares of what the spread makes of the answer less the picture, and of a
 * price times the answer's steps, or times the answer itself.
 *
 * <p>Source: N. Wiener, "Extrapolation, interpolation, and smoothing of stationary time series", 1949, the noise's share constant; B. R. Hunt,
 * "The application of constrained least squares estimation to image restoration by digital computer", IEEE Transactions on Computers C-22(9),
 * 1973, with steps. Found on a circle of {@value #SIDE} samples, far larger than what is kept.
 */
final class Inverse {
    private static final int SIDE = 128;

    private Inverse() {}

    /**
     * @param price of the answer's steps, above 0
     * @param reach of the taps
     */
    static Taps ofSteps(PointSpread spread, double price, int reach) {
        return taps(spread, price, true, reach);
    }

    /** The same where the answer itself has the price, for corrections that should be small. */
    static Taps ofAnswer(PointSpread spread, double price, int reach) {
        return taps(spread, price, false, reach);
    }

    private static Taps taps(PointSpread spread, double price, boolean steps, int reach) {
        double[] real = new double[SIDE * SIDE];
        double[] imaginary = new double[SIDE * SIDE];
        double[] taps = spread.taps();
        int side = 2 * spread.reach() + 1;
        for (int i = 0; i < taps.length; i++) {
            int x = Math.floorMod(i % side - spread.reach(), SIDE);
            int y = Math.floorMod(i / side - spread.reach(), SIDE);
            real[y * SIDE + x] += taps[i];
        }
        transform(real, imaginary, -1);
        for (int i = 0; i < real.length; i++) {
            double u = 2 * Math.PI * folded(i % SIDE) / SIDE;
            double v = 2 * Math.PI * folded(i / SIDE) / SIDE;
            double cost = price * (steps ? u * u + v * v : 1);
            double power = real[i] * real[i] + imaginary[i] * imaginary[i] + cost;
            real[i] /= power;
            imaginary[i] /= -power;
        }
        transform(real, imaginary, 1);
        int kept = 2 * reach + 1;
        double[] inverse = new double[kept * kept];
        double sum = 0;
        for (int i = 0; i < inverse.length; i++) {
            int x = Math.floorMod(i % kept - reach, SIDE);
            int y = Math.floorMod(i / kept - reach, SIDE);
            inverse[i] = real[y * SIDE + x]
                    / (SIDE * SIDE)
                    * tapered(i % kept - reach, reach)
                    * tapered(i / kept - reach, reach);
            sum += inverse[i];
        }
        if (steps) {
            // even surfaces keep their light
            for (int i = 0; i < inverse.length; i++) {
                inverse[i] /= sum;
            }
        }
        return Taps.of(reach, inverse);
    }

    /** Taps end softly: what is cut off bluntly rings for as far as they reach. */
    private static double tapered(int i, int reach) {
        double beyond = Math.max(0, Math.abs(i) - 0.5 * reach) / (0.5 * reach + 1);
        return 0.5 + 0.5 * Math.cos(Math.PI * beyond);
    }

    private static int folded(int i) {
        return i <= SIDE / 2 ? i : i - SIDE;
    }

    /**
     * Fourier's sums along rows, then along columns; a treatment is made anew for every look, so they are made quickly.
     *
     * @param sign -1 there, 1 back
     */
    private static void transform(double[] real, double[] imaginary, int sign) {
        for (int line = 0; line < SIDE; line++) {
            along(real, imaginary, line * SIDE, 1, sign);
        }
        for (int line = 0; line < SIDE; line++) {
            along(real, imaginary, line, SIDE, sign);
        }
    }

    /** Source: J. W. Cooley and J. W. Tukey, "An algorithm for the machine calculation of complex Fourier series", 1965, by halves. */
    private static void along(double[] real, double[] imaginary, int first, int step, int sign) {
        double[] a = new double[SIDE];
        double[] b = new double[SIDE];
        for (int i = 0; i < SIDE; i++) {
            int from = first + (Integer.reverse(i) >>> Integer.SIZE - Integer.numberOfTrailingZeros(SIDE)) * step;
            a[i] = real[from];
            b[i] = imaginary[from];
        }
        for (int half = 1; half < SIDE; half *= 2) {
            for (int turn = 0; turn < half; turn++) {
                double angle = sign * Math.PI * turn / half;
                double cos = Math.cos(angle);
                double sin = Math.sin(angle);
                for (int i = turn; i < SIDE; i += 2 * half) {
                    double r = a[i + half] * cos - b[i + half] * sin;
                    double m = a[i + half] * sin + b[i + half] * cos;
                    a[i + half] = a[i] - r;
                    b[i + half] = b[i] - m;
                    a[i] += r;
                    b[i] += m;
                }
            }
        }
        for (int i = 0; i < SIDE; i++) {
            real[first + i * step] = a[i];
            imaginary[first + i * step] = b[i];
        }
    }
}
