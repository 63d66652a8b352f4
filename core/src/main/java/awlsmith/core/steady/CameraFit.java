package awlsmith.core.steady;

import awlsmith.core.motion.BetweenFinder;
import awlsmith.core.motion.MotionBetween;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/**
 * What the camera did between two frames: the motion that most of the picture agrees on, whatever else goes its own way before it.
 *
 * <p>Motion of squares, each weighed by how surely its picture tells both ways (the smaller eigenvalue of its gradients, J. Shi and C. Tomasi,
 * "Good features to track", CVPR 1994), is fitted by least squares that are repeated with less and less weight for what does not agree (P. J. Huber's
 * way; the weights are J. W. Tukey's; both from memory), and what is found is led to where the light itself agrees. Cost: O(w h).
 *
 * @param turned shift, turn and zoom
 * @param seen the same with perspective
 * @param lean how far rows lean beyond a turn: widths across for a height of one width
 * @param stretch how much more rows go apart than columns
 * @param agreed share of the weight of all squares that agrees
 * @param torn how torn the motion is, as {@link MotionBetween#torn} counts
 */
public record CameraFit(Warp turned, Warp seen, double lean, double stretch, double agreed, double torn) {
    /** Too little agrees, or nothing can be told. */
    public static final CameraFit NONE = new CameraFit(Warp.NONE, Warp.NONE, 0, 0, 0, 0);

    /** Mean squared gradient at which a square tells its motion half as surely as it could, luma. */
    private static final double SURE = 2e-5;

    /** Squares need tell no more than where the light is to be led from. */
    private static final int FINEST_WIDTH = 320;

    private static final int PASSES = 12;
    /** Widths that squares may be off at first and at last, as the passes go on; beyond they have no weight. */
    private static final double LOOSE = 0.02;

    /** The same where perspective is looked for, which lies off the turn near the edges. */
    private static final double LEANING = 0.008;

    private static final double TIGHT = 0.0015;
    /** Fewer squares' weight tell nothing. */
    private static final double LEAST_WEIGHT = 4;
    /** Share of the weight that must agree for perspective to be told, and for anything. */
    private static final double LEAST_AGREED = 0.2;

    private static final double FOR_PERSPECTIVE = 0.4;
    /** Widths that a corner may go from frame to frame. */
    private static final double FARTHEST = 0.5;

    /** @param from luma of a frame, at least 32x32; @param to of the next, as large; @param shape width of a pixel, in its heights */
    public static CameraFit between(Plane from, Plane to, double shape, Work work) {
        CameraFit squares = new Fit(from, new BetweenFinder(from, to, FINEST_WIDTH, work).at(0), shape).fit();
        if (squares.agreed < LEAST_AGREED) {
            return squares;
        }
        var light = new LightFit(from, to, shape, work);
        double height = from.height() / (from.width() * shape);
        Warp turned = sane(light.refined(squares.turned, false), Warp.NONE, height);
        Warp seen = light.refined(squares.seen.equals(squares.turned) ? turned : squares.seen, true);
        return new CameraFit(
                turned, sane(seen, turned, height), squares.lean, squares.stretch, squares.agreed, squares.torn);
    }

    private static Warp sane(Warp found, Warp otherwise, double height) {
        return found.isWithin(FARTHEST, height) ? found : otherwise;
    }

    private static final class Fit {
        private final double[] x;
        private final double[] y;
        private final double[] u;
        private final double[] v;
        private final double[] sure;
        private final double torn;
        private double limit;

        Fit(Plane from, MotionBetween motion, double shape) {
            int count = motion.columns() * motion.rows();
            torn = motion.torn();
            x = new double[count];
            y = new double[count];
            u = new double[count];
            v = new double[count];
            sure = new double[count];
            int n = 0;
            for (int row = 1; row < motion.rows() - 1; row++) {
                for (int column = 1; column < motion.columns() - 1; column++) {
                    int at = row * motion.columns() + column;
                    int left = column * motion.stride() - motion.side() / 2;
                    int top = row * motion.stride() - motion.side() / 2;
                    if (left < 1
                            || top < 1
                            || left + motion.side() >= from.width()
                            || top + motion.side() >= from.height()) {
                        continue;
                    }
                    double tells = tells(from, left, top, motion.side());
                    double middle = motion.side() / 2.0 - 0.5;
                    x[n] = (left + middle - (from.width() - 1) / 2.0) / from.width();
                    y[n] = (top + middle - (from.height() - 1) / 2.0) / (from.width() * shape);
                    u[n] = motion.u()[at] / from.width();
                    v[n] = motion.v()[at] / (from.width() * shape);
                    sure[n] = tells / (tells + SURE) / (1 + 60 * motion.misfit()[at]);
                    n++;
                }
            }
            Arrays.fill(sure, n, count, 0);
        }

        /** The smaller eigenvalue of a square's mean products of gradients. */
        private static double tells(Plane p, int left, int top, int side) {
            double xx = 0;
            double yy = 0;
            double xy = 0;
            int step = side > 16 ? 2 : 1;
            int count = 0;
            for (int j = top; j < top + side; j += step) {
                for (int i = left; i < left + side; i += step) {
                    double gx = (p.at(i + 1, j) - p.at(i - 1, j)) / 2;
                    double gy = (p.at(i, j + 1) - p.at(i, j - 1)) / 2;
                    xx += gx * gx;
                    yy += gy * gy;
                    xy += gx * gy;
                    count++;
                }
            }
            return ((xx + yy) / 2 - Math.hypot((xx - yy) / 2, xy)) / count;
        }

        CameraFit fit() {
            double all = Arrays.stream(sure).sum();
            if (all < LEAST_WEIGHT) {
                return new CameraFit(Warp.NONE, Warp.NONE, 0, 0, 0, torn);
            }
            double[] weights = new double[sure.length];
            Warp now = Warp.shift(middle(u), middle(v));
            for (int pass = 0; pass < PASSES; pass++) {
                limit = TIGHT + (LOOSE - TIGHT) * Math.pow(1 - (double) pass / (PASSES - 1), 2);
                weigh(now, weights);
                now = similar(weights, now);
            }
            weigh(now, weights);
            double agreed = Arrays.stream(weights).sum() / all;
            if (agreed < LEAST_AGREED) {
                return new CameraFit(Warp.NONE, Warp.NONE, 0, 0, agreed, torn);
            }
            Warp turned = now;
            // what leans lies off the turn near the edges: it may come back first
            limit = LEANING;
            weigh(turned, weights);
            double[] lean = lean(weights);
            for (int pass = 0; pass < PASSES && now != null; pass++) {
                limit = TIGHT + (LEANING - TIGHT) * Math.pow(1 - (double) pass / (PASSES - 1), 2);
                weigh(now, weights);
                now = perspective(weights);
            }
            if (now != null) {
                weigh(now, weights);
            }
            boolean isLeaning = now != null && Arrays.stream(weights).sum() / all >= Math.max(agreed, FOR_PERSPECTIVE);
            return new CameraFit(turned, isLeaning ? now : turned, lean[0], lean[1], agreed, torn);
        }

        /** The middle by weight. */
        private double middle(double[] values) {
            Integer[] order = new Integer[values.length];
            Arrays.setAll(order, i -> i);
            Arrays.sort(order, (i, j) -> Double.compare(values[i], values[j]));
            double half = Arrays.stream(sure).sum() / 2;
            double sum = 0;
            for (int i : order) {
                sum += sure[i];
                if (sum >= half) {
                    return values[i];
                }
            }
            return 0;
        }

        private void weigh(Warp warp, double[] weights) {
            for (int i = 0; i < sure.length; i++) {
                double off = Math.hypot(warp.x(x[i], y[i]) - x[i] - u[i], warp.y(x[i], y[i]) - y[i] - v[i]) / limit;
                double near = Math.max(0, 1 - off * off);
                weights[i] = sure[i] * near * near;
            }
        }

        /** Least squares of a shift, a turn and a zoom; as it was where nothing has weight. */
        private Warp similar(double[] weights, Warp before) {
            double sum = 0;
            double mx = 0;
            double my = 0;
            double mu = 0;
            double mv = 0;
            for (int i = 0; i < weights.length; i++) {
                sum += weights[i];
                mx += weights[i] * x[i];
                my += weights[i] * y[i];
                mu += weights[i] * (x[i] + u[i]);
                mv += weights[i] * (y[i] + v[i]);
            }
            if (sum < LEAST_WEIGHT / 2) {
                return before;
            }
            mx /= sum;
            my /= sum;
            mu /= sum;
            mv /= sum;
            double along = 0;
            double beside = 0;
            double spread = 0;
            for (int i = 0; i < weights.length; i++) {
                double px = x[i] - mx;
                double py = y[i] - my;
                double qx = x[i] + u[i] - mu;
                double qy = y[i] + v[i] - mv;
                along += weights[i] * (px * qx + py * qy);
                beside += weights[i] * (px * qy - py * qx);
                spread += weights[i] * (px * px + py * py);
            }
            if (!(spread > 0)) {
                return before;
            }
            double cos = along / spread;
            double sin = beside / spread;
            return new Warp(cos, -sin, mu - cos * mx + sin * my, sin, cos, mv - sin * mx - cos * my, 0, 0);
        }

        /** Least squares of what is straight: how far rows lean beyond a turn, and how much more they go apart than columns. */
        private double[] lean(double[] weights) {
            double[] across = plane(weights, x, u);
            double[] down = plane(weights, y, v);
            return across == null || down == null
                    ? new double[2]
                    : new double[] {across[1] + down[0], down[1] - across[0]};
        }

        private double[] plane(double[] weights, double[] place, double[] moved) {
            double[][] rows = new double[3][3];
            double[] right = new double[3];
            for (int i = 0; i < weights.length; i++) {
                if (weights[i] > 0) {
                    add(rows, right, weights[i], place[i] + moved[i], x[i], y[i], 1);
                }
            }
            return Solving.solve(rows, right);
        }

        /** Least squares of all eight numbers, each square's equations multiplied out; null where they do not settle it. */
        private Warp perspective(double[] weights) {
            double[][] rows = new double[8][8];
            double[] right = new double[8];
            for (int i = 0; i < weights.length; i++) {
                if (weights[i] > 0) {
                    double px = x[i] + u[i];
                    double py = y[i] + v[i];
                    add(rows, right, weights[i], px, x[i], y[i], 1, 0, 0, 0, -px * x[i], -px * y[i]);
                    add(rows, right, weights[i], py, 0, 0, 0, x[i], y[i], 1, -py * x[i], -py * y[i]);
                }
            }
            double[] w = Solving.solve(rows, right);
            return w == null ? null : new Warp(w[0], w[1], w[2], w[3], w[4], w[5], w[6], w[7]);
        }

        private static void add(double[][] rows, double[] right, double weight, double value, double... factors) {
            for (int i = 0; i < right.length; i++) {
                for (int j = 0; j < right.length; j++) {
                    rows[i][j] += weight * factors[i] * factors[j];
                }
                right[i] += weight * factors[i] * value;
            }
        }
    }
}
