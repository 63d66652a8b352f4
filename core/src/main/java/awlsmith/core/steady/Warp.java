package awlsmith.core.steady;

/**
 * A way to lay a plane picture over another: where a place x, y of one lies in the other. Places are counted from the picture's middle, right and
 * down, in widths of the picture as it is shown, so that a turn is one whatever the pixels' shape and one warp serves all sizes.
 *
 * <p>{@code x' = (a x + b y + c) / (g x + h y + 1)}, {@code y' = (d x + e y + f) / (g x + h y + 1)}
 */
public record Warp(double a, double b, double c, double d, double e, double f, double g, double h) {
    /** All stays where it is. */
    public static final Warp NONE = new Warp(1, 0, 0, 0, 1, 0, 0, 0);

    /** Corners of a picture, as signs of half its sides. */
    static final int[][] CORNERS = {{-1, -1}, {1, -1}, {1, 1}, {-1, 1}};

    /** Everything goes by as much. */
    public static Warp shift(double x, double y) {
        return new Warp(1, 0, x, 0, 1, y, 0, 0);
    }

    /** @param angle radians clockwise; @param zoom 1 keeps the size; both about the middle, and then shifted */
    public static Warp similar(double x, double y, double angle, double zoom) {
        double cos = zoom * Math.cos(angle);
        double sin = zoom * Math.sin(angle);
        return new Warp(cos, -sin, x, sin, cos, y, 0, 0);
    }

    /** Where a place lies, across. */
    public double x(double x, double y) {
        return (a * x + b * y + c) / (g * x + h * y + 1);
    }

    /** Where a place lies, down. */
    public double y(double x, double y) {
        return (d * x + e * y + f) / (g * x + h * y + 1);
    }

    /** This first, then the other. */
    public Warp then(Warp next) {
        double w = next.g * c + next.h * f + 1;
        return new Warp(
                (next.a * a + next.b * d + next.c * g) / w,
                (next.a * b + next.b * e + next.c * h) / w,
                (next.a * c + next.b * f + next.c) / w,
                (next.d * a + next.e * d + next.f * g) / w,
                (next.d * b + next.e * e + next.f * h) / w,
                (next.d * c + next.e * f + next.f) / w,
                (next.g * a + next.h * d + g) / w,
                (next.g * b + next.h * e + h) / w);
    }

    /** The way back. @throws ArithmeticException where there is none, as for a picture seen from its edge */
    public Warp inverse() {
        double whole = a * (e - f * h) - b * (d - f * g) + c * (d * h - e * g);
        double last = a * e - b * d;
        if (!(Math.abs(whole) > 1e-12 && Math.abs(last) > 1e-12)) {
            throw new ArithmeticException(this + " has no way back");
        }
        return new Warp(
                (e - f * h) / last,
                (c * h - b) / last,
                (b * f - c * e) / last,
                (f * g - d) / last,
                (a - c * g) / last,
                (c * d - a * f) / last,
                (d * h - e * g) / last,
                (b * g - a * h) / last);
    }

    /** The way back, or NONE where there is none. */
    Warp back() {
        try {
            return inverse();
        } catch (ArithmeticException e) {
            return NONE;
        }
    }

    /** Whether no corner of a picture goes farther than a part of its width: what goes farther was not found but guessed wrongly. */
    boolean isWithin(double part, double height) {
        double[] was = NONE.corners(height);
        double[] is = corners(height);
        for (int k = 0; k < is.length; k++) {
            if (!(Math.abs(is[k] - was[k]) < part)) {
                return false;
            }
        }
        return true;
    }

    /**
     * Where the corners lie, x and y of each in turn, from the upper left on clockwise.
     *
     * @param height of the picture, in its widths
     */
    double[] corners(double height) {
        double[] places = new double[8];
        for (int k = 0; k < 4; k++) {
            double x = CORNERS[k][0] / 2.0;
            double y = CORNERS[k][1] * height / 2;
            places[2 * k] = x(x, y);
            places[2 * k + 1] = y(x, y);
        }
        return places;
    }

    /** The warp that lays the corners there; NONE where they lie in no plane's view. */
    static Warp ofCorners(double[] places, double height) {
        double[][] rows = new double[8][];
        double[] right = new double[8];
        for (int k = 0; k < 4; k++) {
            double x = CORNERS[k][0] / 2.0;
            double y = CORNERS[k][1] * height / 2;
            double u = places[2 * k];
            double v = places[2 * k + 1];
            rows[2 * k] = new double[] {x, y, 1, 0, 0, 0, -u * x, -u * y};
            rows[2 * k + 1] = new double[] {0, 0, 0, x, y, 1, -v * x, -v * y};
            right[2 * k] = u;
            right[2 * k + 1] = v;
        }
        double[] found = Solving.solve(rows, right);
        return found == null
                ? NONE
                : new Warp(found[0], found[1], found[2], found[3], found[4], found[5], found[6], found[7]);
    }

    /** How much of the way it turns, radians clockwise, at the middle. */
    public double angle() {
        return Math.atan2(d - b, a + e);
    }

    /** How much larger things get, at the middle. */
    public double zoom() {
        return Math.hypot(a + e, d - b) / 2;
    }
}
