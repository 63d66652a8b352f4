package awlsmith.core.recipe;

import java.util.ArrayList;
import java.util.List;

/**
 * Pairs of numbers by rising first ones, as a person sets them: points of a curve, or values at times. Between them a curve goes smoothly
 * or straight; before the first and behind the last it keeps their value.
 *
 * @param list at least one
 */
public record Points(List<Point> list) {
    /** More than anyone sets by hand. */
    public static final int MOST = 256;

    /** @param x of a curve its input, of values over time seconds */
    public record Point(double x, double y) {}

    public Points {
        list = List.copyOf(list);
        if (list.isEmpty() || list.size() > MOST) {
            throw new IllegalArgumentException(list.size() + " points, must be 1.." + MOST);
        }
        for (int i = 0; i < list.size(); i++) {
            Point point = list.get(i);
            if (!Double.isFinite(point.x()) || !Double.isFinite(point.y())) {
                throw new IllegalArgumentException("a point is no number");
            }
            if (i > 0 && point.x() <= list.get(i - 1).x()) {
                throw new IllegalArgumentException("points must rise from left to right, " + Words.number(point.x())
                        + " comes behind " + Words.number(list.get(i - 1).x()));
            }
        }
    }

    /** @throws IllegalArgumentException when it is not written {@code 0:0,0.5:0.6,1:1} */
    public static Points parse(String text) {
        var points = new ArrayList<Point>();
        for (String pair : text.trim().split(",", -1)) {
            String[] two = pair.trim().split(":", -1);
            try {
                if (two.length != 2) {
                    throw new NumberFormatException(pair);
                }
                points.add(new Point(Double.parseDouble(two[0].trim()), Double.parseDouble(two[1].trim())));
            } catch (NumberFormatException e) {
                throw new IllegalArgumentException("not written like 0:0,0.5:0.6,1:1");
            }
        }
        return new Points(points);
    }

    /** Straight from point to point. */
    public double straight(double x) {
        int i = below(x);
        if (i < 0) {
            return list.getFirst().y();
        }
        if (i == list.size() - 1) {
            return list.getLast().y();
        }
        Point a = list.get(i);
        Point b = list.get(i + 1);
        return a.y() + (x - a.x()) / (b.x() - a.x()) * (b.y() - a.y());
    }

    /**
     * A smooth curve through the points that never swings beyond two neighbours; outside it goes on straight. Source: F. N. Fritsch and
     * J. Butland, "A method for constructing local monotone piecewise cubic interpolants", SIAM Journal on Scientific and
     * Statistical Computing 5(2), 1984 (weighted harmonic means of slopes).
     */
    public double smooth(double x) {
        int last = list.size() - 1;
        if (last == 0) {
            return list.getFirst().y();
        }
        int i = Math.clamp(below(x), 0, last - 1);
        Point a = list.get(i);
        Point b = list.get(i + 1);
        double step = b.x() - a.x();
        if (x <= list.getFirst().x()) {
            return a.y() + (x - a.x()) * slopeAt(0);
        }
        if (x >= list.getLast().x()) {
            return b.y() + (x - b.x()) * slopeAt(last);
        }
        double t = (x - a.x()) / step;
        double s = 1 - t;
        return a.y() * (1 + 2 * t) * s * s
                + b.y() * (1 + 2 * s) * t * t
                + step * t * s * (slopeAt(i) * s - slopeAt(i + 1) * t);
    }

    private double slope(int i) {
        Point a = list.get(i);
        Point b = list.get(i + 1);
        return (b.y() - a.y()) / (b.x() - a.x());
    }

    private double slopeAt(int i) {
        int last = list.size() - 1;
        if (i == 0 || i == last) {
            return slope(i == 0 ? 0 : last - 1);
        }
        double left = slope(i - 1);
        double right = slope(i);
        if (left * right <= 0) {
            return 0;
        }
        double before = list.get(i).x() - list.get(i - 1).x();
        double after = list.get(i + 1).x() - list.get(i).x();
        double share = (before + 2 * after) / (3 * (before + after));
        return left * right / (share * right + (1 - share) * left);
    }

    /** The last point at or before x, or -1. */
    private int below(double x) {
        int i = -1;
        while (i + 1 < list.size() && list.get(i + 1).x() <= x) {
            i++;
        }
        return i;
    }

    /** {@code 0:0,0.5:0.6,1:1}. */
    @Override
    public String toString() {
        var text = new StringBuilder();
        for (Point point : list) {
            text.append(text.isEmpty() ? "" : ",")
                    .append(Words.number(point.x()))
                    .append(':')
                    .append(Words.number(point.y()));
        }
        return text.toString();
    }
}
