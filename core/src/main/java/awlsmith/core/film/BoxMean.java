package awlsmith.core.film;

import awlsmith.core.picture.Plane;

/** Means over squares, by running sums; at the border over what there is. */
final class BoxMean {
    private BoxMean() {}

    /** @param radius samples on each side */
    static Plane of(Plane p, int radius) {
        return across(turned(across(turned(p), radius)), radius);
    }

    private static Plane turned(Plane p) {
        Plane t = Plane.of(p.height(), p.width());
        for (int y = 0; y < p.height(); y++) {
            for (int x = 0; x < p.width(); x++) {
                t.set(y, x, p.at(x, y));
            }
        }
        return t;
    }

    private static Plane across(Plane p, int radius) {
        Plane mean = Plane.of(p.width(), p.height());
        for (int y = 0; y < p.height(); y++) {
            double sum = 0;
            int count = 0;
            for (int x = -radius; x < p.width(); x++) {
                if (x + radius < p.width()) {
                    sum += p.at(x + radius, y);
                    count++;
                }
                if (x - radius - 1 >= 0) {
                    sum -= p.at(x - radius - 1, y);
                    count--;
                }
                if (x >= 0) {
                    mean.set(x, y, (float) (sum / count));
                }
            }
        }
        return mean;
    }
}
