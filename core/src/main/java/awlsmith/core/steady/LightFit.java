package awlsmith.core.steady;

import awlsmith.core.detail.Bells;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/**
 * Leads a warp to where the light of two pictures agrees best, to some hundredths of a sample.
 *
 * <p>Source: B. D. Lucas and T. Kanade, "An iterative image registration technique", IJCAI 1981, for Gauss and Newton's steps on differences of light;
 * weights after J. W. Tukey keep what goes its own way from pulling (both from memory). Same bits for any number of threads.
 */
final class LightFit {
    /** Samples that are asked, about. */
    private static final int ASKED = 15_000;
    /** Beyond this bell light is nearly straight between samples. */
    private static final double SOFT = 1;
    /** Squared slope of a sample below which it tells nothing, luma. */
    private static final float FLAT = 4e-6f;

    private static final int PASSES = 8;
    /** Deviations at which a sample is of something else, and the least deviation, luma. */
    private static final double OTHER = 4.7;

    private static final double LEAST = 0.5 / 255;
    /** Fewer samples tell nothing. */
    private static final int ENOUGH = 200;
    /** Widths that a corner may be led: beyond, it has lost its way; and less than which nothing is to gain. */
    private static final double ASTRAY = 0.01;

    private static final double DONE = 2e-6;
    /** Pieces that are summed each by itself, so that threads do not change the sum. */
    private static final int PIECES = 16;

    private final Plane from;
    private final Plane to;
    private final double shape;
    private final Work work;
    private final int count;
    private final float[] x;
    private final float[] y;
    private final float[] light;
    private final float[] across;
    private final float[] down;

    /** @param shape width of a pixel in its heights */
    LightFit(Plane from, Plane to, double shape, Work work) {
        this.from = soft(from, work);
        this.to = soft(to, work);
        this.shape = shape;
        this.work = work;
        int step = Math.max(1, (int) Math.round(Math.sqrt((double) from.width() * from.height() / ASKED)));
        int most = Math.ceilDiv(from.width(), step) * Math.ceilDiv(from.height(), step);
        x = new float[most];
        y = new float[most];
        light = new float[most];
        across = new float[most];
        down = new float[most];
        count = ask(step);
    }

    private static Plane soft(Plane p, Work work) {
        Plane out = Plane.of(p.width(), p.height());
        new Bells(SOFT).blur(p, Region.whole(p.width(), p.height()), out, new PlanePool(0), work);
        return out;
    }

    private int ask(int step) {
        int n = 0;
        for (int row = 1; row < from.height() - 1; row += step) {
            for (int column = 1; column < from.width() - 1; column += step) {
                float gx = (from.at(column + 1, row) - from.at(column - 1, row)) / 2;
                float gy = (from.at(column, row + 1) - from.at(column, row - 1)) / 2;
                if (gx * gx + gy * gy >= FLAT) {
                    x[n] = (float) ((column - (from.width() - 1) / 2.0) / from.width());
                    y[n] = (float) ((row - (from.height() - 1) / 2.0) / (from.width() * shape));
                    light[n] = from.at(column, row);
                    across[n] = gx * from.width();
                    down[n] = (float) (gy * from.width() * shape);
                    n++;
                }
            }
        }
        return n;
    }

    /** @return start where the pictures tell no better */
    Warp refined(Warp start, boolean perspective) {
        if (count < ENOUGH) {
            return start;
        }
        Warp now = start;
        float[] differs = new float[count];
        for (int pass = 0; pass < PASSES; pass++) {
            Warp warp = now;
            work.bands(
                    PIECES,
                    1,
                    (first, end) -> differences(warp, differs, count * first / PIECES, count * end / PIECES));
            double deviation = deviation(differs);
            double[] step = step(differs, OTHER * deviation, warp, perspective);
            if (step == null) {
                return start;
            }
            now = perspective
                    ? new Warp(
                            now.a() + step[0],
                            now.b() + step[1],
                            now.c() + step[2],
                            now.d() + step[3],
                            now.e() + step[4],
                            now.f() + step[5],
                            now.g() + step[6],
                            now.h() + step[7])
                    : new Warp(
                            now.a() + step[0],
                            now.b() - step[1],
                            now.c() + step[2],
                            now.d() + step[1],
                            now.e() + step[0],
                            now.f() + step[3],
                            0,
                            0);
            if (Arrays.stream(step).map(Math::abs).max().orElseThrow() < DONE) {
                break;
            }
        }
        double height = from.height() / (from.width() * shape);
        double[] was = start.corners(height);
        double[] is = now.corners(height);
        for (int k = 0; k < 8; k++) {
            if (!(Math.abs(was[k] - is[k]) < ASTRAY)) {
                return start;
            }
        }
        return now;
    }

    /** NaN where the other picture does not reach. */
    private void differences(Warp warp, float[] differs, int first, int end) {
        double middleX = (to.width() - 1) / 2.0;
        double middleY = (to.height() - 1) / 2.0;
        double high = to.width() * shape;
        float[] data = to.data();
        for (int i = first; i < end; i++) {
            double u = middleX + to.width() * warp.x(x[i], y[i]);
            double v = middleY + high * warp.y(x[i], y[i]);
            if (!(u >= 0 && v >= 0 && u < to.width() - 1 && v < to.height() - 1)) {
                differs[i] = Float.NaN;
                continue;
            }
            int at = to.row((int) v) + (int) u;
            float right = (float) (u - (int) u);
            float lower = (float) (v - (int) v);
            float upper = data[at] + right * (data[at + 1] - data[at]);
            int below = at + to.stride();
            float under = data[below] + right * (data[below + 1] - data[below]);
            differs[i] = light[i] - upper - lower * (under - upper);
        }
    }

    private double deviation(float[] differs) {
        float[] sizes = new float[count];
        int n = 0;
        for (int i = 0; i < count; i += 3) {
            if (!Float.isNaN(differs[i])) {
                sizes[n++] = Math.abs(differs[i]);
            }
        }
        if (n == 0) {
            return LEAST;
        }
        Arrays.sort(sizes, 0, n);
        return Math.max(LEAST, 1.4826 * sizes[n / 2]);
    }

    private double[] step(float[] differs, double other, Warp warp, boolean perspective) {
        int size = perspective ? 8 : 4;
        double[][][] rows = new double[PIECES][size][size];
        double[][] right = new double[PIECES][size];
        work.bands(PIECES, 1, (first, end) -> {
            double[] slope = new double[size];
            for (int piece = first; piece < end; piece++) {
                for (int i = count * piece / PIECES; i < count * (piece + 1) / PIECES; i++) {
                    double off = differs[i] / other;
                    double near = 1 - off * off;
                    if (near > 0) {
                        slope(i, warp, slope);
                        add(rows[piece], right[piece], slope, near * near, differs[i]);
                    }
                }
            }
        });
        for (int piece = 1; piece < PIECES; piece++) {
            for (int k = 0; k < size; k++) {
                right[0][k] += right[piece][k];
                for (int j = 0; j < size; j++) {
                    rows[0][k][j] += rows[piece][k][j];
                }
            }
        }
        for (int k = 0; k < size; k++) {
            for (int j = 0; j < k; j++) {
                rows[0][k][j] = rows[0][j][k];
            }
        }
        return Solving.solve(rows[0], right[0]);
    }

    private static void add(double[][] rows, double[] right, double[] slope, double weight, double differs) {
        for (int k = 0; k < slope.length; k++) {
            double weighed = weight * slope[k];
            right[k] += weighed * differs;
            for (int j = k; j < slope.length; j++) {
                rows[k][j] += weighed * slope[j];
            }
        }
    }

    /** How the light changes with each number of the warp; the warp is near NONE, so that the first picture's slopes serve. */
    private void slope(int i, Warp warp, double[] slope) {
        if (slope.length == 4) {
            slope[0] = across[i] * x[i] + down[i] * y[i];
            slope[1] = down[i] * x[i] - across[i] * y[i];
            slope[2] = across[i];
            slope[3] = down[i];
            return;
        }
        double lean = -(across[i] * warp.x(x[i], y[i]) + down[i] * warp.y(x[i], y[i]));
        slope[0] = across[i] * x[i];
        slope[1] = across[i] * y[i];
        slope[2] = across[i];
        slope[3] = down[i] * x[i];
        slope[4] = down[i] * y[i];
        slope[5] = down[i];
        slope[6] = lean * x[i];
        slope[7] = lean * y[i];
    }
}
