package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/** Peak signal to noise ratio between two planes of one size, peak 1.0. */
public final class Psnr {
    private Psnr() {}

    /** Mean squared difference, leaving out {@code border} samples along each edge. */
    public static double meanSquare(Plane a, Plane b, int border) {
        sameShape(a, b, border);
        double sum = 0;
        for (int y = border; y < a.height() - border; y++) {
            for (int x = border; x < a.width() - border; x++) {
                double d = a.at(x, y) - b.at(x, y);
                sum += d * d;
            }
        }
        return sum / ((double) (a.width() - 2 * border) * (a.height() - 2 * border));
    }

    /** In dB; infinite for equal planes. */
    public static double of(Plane a, Plane b, int border) {
        return decibels(meanSquare(a, b, border));
    }

    /** Peak signal to noise for samples of 0..1; infinite where there is no error. */
    public static double decibels(double meanSquare) {
        return -10 * Math.log10(meanSquare);
    }

    static void sameShape(Plane a, Plane b, int border) {
        if (a.width() != b.width() || a.height() != b.height()) {
            throw new IllegalArgumentException(
                    "planes differ in size: " + a.width() + "x" + a.height() + " and " + b.width() + "x" + b.height());
        }
        if (a.width() <= 2 * border || a.height() <= 2 * border || border < 0) {
            throw new IllegalArgumentException(
                    "border is " + border + ", leaves nothing of " + a.width() + "x" + a.height());
        }
    }
}
