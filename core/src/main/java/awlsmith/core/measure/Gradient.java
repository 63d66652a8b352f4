package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/** How strong a plane's edges and texture are. Common practice, no source. */
public final class Gradient {
    private Gradient() {}

    /**
     * Mean absolute step from a sample to its right and to its lower neighbour, added, in units of the plane.
     *
     * @param border samples left out along each edge, at least 1
     */
    public static double mean(Plane p, int border) {
        if (border < 1) {
            throw new IllegalArgumentException("border is " + border + ", must be at least 1");
        }
        Psnr.sameShape(p, p, border);
        double sum = 0;
        for (int y = border; y < p.height() - border; y++) {
            for (int x = border; x < p.width() - border; x++) {
                sum += Math.abs(p.at(x + 1, y) - p.at(x, y)) + Math.abs(p.at(x, y + 1) - p.at(x, y));
            }
        }
        return sum / ((double) (p.width() - 2 * border) * (p.height() - 2 * border));
    }
}
