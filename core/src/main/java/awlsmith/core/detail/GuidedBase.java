package awlsmith.core.detail;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;

/**
 * A plane without its texture: surfaces smoothed, edges as firm as they were. What is smaller than the window and weaker than an edge is left
 * out; the plane without its base is its texture.
 *
 * <p>Source: K. He, J. Sun and X. Tang, "Guided image filtering", ECCV 2010, equations 5, 6 and 8, the picture as its own guide. Windows end at
 * the picture's edges. Samples count to 1/65536 within the sums. Cost: O(area), whatever the radius.
 */
public final class GuidedBase {
    private static final float STEPS = 1 << 16;
    private static final float FINE_STEPS = 1 << 20;

    private final int width;
    private final int height;
    private final int radius;
    private final double surface;

    /**
     * @param width of the whole plane; @param height of it
     * @param radius of the windows, in samples, at least 1
     * @param surface deviation within a window, 0..1, of which half is smoothed: less is surface, more is edge
     */
    public GuidedBase(int width, int height, int radius, double surface) {
        if (radius < 1 || !(surface > 0)) {
            throw new IllegalArgumentException("radius is " + radius + ", surface " + surface);
        }
        this.width = width;
        this.height = height;
        this.radius = radius;
        this.surface = surface * surface;
    }

    /** The part that a part of the base is made from. */
    public Region needs(Region part) {
        return part.grown(2 * radius, width, height);
    }

    /**
     * @param held part that in has, at least what is needed
     * @param part that out gets the base of
     */
    public void of(Plane in, Region held, Region part, Plane out, PlanePool pool, Work work) {
        Region around = part.grown(radius, width, height);
        Plane slope = pool.borrow(around.width(), around.height());
        Plane level = pool.borrow(around.width(), around.height());
        work.bands(around.height(), 4 * radius, (from, to) -> fit(in, held, around, slope, level, from, to, work));
        work.bands(
                part.height(),
                4 * radius,
                (from, to) -> mean(in, held, around, slope, level, part, out, from, to, work));
        pool.giveBack(slope);
        pool.giveBack(level);
    }

    private int top(int y) {
        return Math.max(0, y - radius);
    }

    private int end(int y) {
        return Math.min(height, y + radius + 1);
    }

    private int across(int x) {
        return Math.min(width, x + radius + 1) - Math.max(0, x - radius);
    }

    /** Equations 5 and 6: of each window the straight line from the guide to the base. */
    private void fit(Plane in, Region held, Region around, Plane slope, Plane level, int from, int to, Work work) {
        var sums = new BoxSums(around.x(), around.width(), radius, width);
        var squares = new BoxSums(around.x(), around.width(), radius, width);
        long[] sum = new long[around.width()];
        long[] square = new long[around.width()];
        int column = sums.first() - held.x();
        for (int y = from; y < to; y++) {
            work.cancel().check();
            int here = around.y() + y;
            int added = y == from ? top(here) : end(here - 1);
            for (int v = added; v < end(here); v++) {
                sums.add(in.data(), in.row(v - held.y()) + column, STEPS, 1);
                squares.addSquares(in.data(), in.row(v - held.y()) + column, STEPS, 1);
            }
            if (y > from && top(here) > top(here - 1)) {
                sums.add(in.data(), in.row(top(here - 1) - held.y()) + column, STEPS, -1);
                squares.addSquares(in.data(), in.row(top(here - 1) - held.y()) + column, STEPS, -1);
            }
            sums.across(around.x(), sum);
            squares.across(around.x(), square);
            int down = end(here) - top(here);
            for (int x = 0; x < sum.length; x++) {
                double one = 1.0 / ((long) across(around.x() + x) * down);
                double mean = sum[x] * one / STEPS;
                double variance = Math.max(0, square[x] * one / STEPS / STEPS - mean * mean);
                double a = variance / (variance + surface);
                slope.set(x, y, (float) a);
                level.set(x, y, (float) ((1 - a) * mean));
            }
        }
    }

    /** Equation 8: the mean of what all windows around a sample say of it. */
    private void mean(
            Plane in,
            Region held,
            Region around,
            Plane slope,
            Plane level,
            Region part,
            Plane out,
            int from,
            int to,
            Work work) {
        var slopes = new BoxSums(part.x(), part.width(), radius, width);
        var levels = new BoxSums(part.x(), part.width(), radius, width);
        long[] a = new long[part.width()];
        long[] b = new long[part.width()];
        int column = slopes.first() - around.x();
        for (int y = from; y < to; y++) {
            work.cancel().check();
            int here = part.y() + y;
            int added = y == from ? top(here) : end(here - 1);
            for (int v = added; v < end(here); v++) {
                slopes.add(slope.data(), slope.row(v - around.y()) + column, FINE_STEPS, 1);
                levels.add(level.data(), level.row(v - around.y()) + column, FINE_STEPS, 1);
            }
            if (y > from && top(here) > top(here - 1)) {
                int gone = top(here - 1) - around.y();
                slopes.add(slope.data(), slope.row(gone) + column, FINE_STEPS, -1);
                levels.add(level.data(), level.row(gone) + column, FINE_STEPS, -1);
            }
            slopes.across(part.x(), a);
            levels.across(part.x(), b);
            int own = in.row(here - held.y()) + part.x() - held.x();
            int down = end(here) - top(here);
            for (int x = 0; x < a.length; x++) {
                double one = 1.0 / ((double) FINE_STEPS * across(part.x() + x) * down);
                out.set(x, y, (float) ((a[x] * (double) in.data()[own + x] + b[x]) * one));
            }
        }
    }
}
