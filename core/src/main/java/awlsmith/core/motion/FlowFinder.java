package awlsmith.core.motion;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/**
 * Finds motion: from(x, y) is seen again at to(x + u, y + v).
 *
 * <p>Shape: both pictures w x h, at least 16 x 16. Units: luma 0 black, 1 white; u, v samples, right and down. Border: its samples
 * go on outside. Source: T. Kroeger et al., "Fast optical flow using dense inverse search", ECCV 2016: from coarse to fine, squares of
 * 8x8 are led to where they fit best by Gauss-Newton steps whose slopes are those of the first picture, and each sample takes the mean
 * of the squares over it, weighed by how well they fit there. Differs: squares also try their neighbours' motion, twice over; instead
 * of a variational refinement each square takes the median of those around it, so that a spot which is in one picture alone does not
 * lead the motion around it. Cost: O(w h). Same bits for any number of threads.
 */
public final class FlowFinder {
    private static final int SIDE = 8;
    private static final int STRIDE = 4;
    private static final int STEPS = 10;
    private static final int LEAST = 14;
    /** Squares wider than this finest picture cost more than they tell. */
    private static final int FINEST_WIDTH = 400;
    /** Rows of squares that are gone through one after the other; fixed, so that threads do not change the result. */
    private static final int STRIPE = 6;
    /** Of a level of luma: below it, all fits are as good. */
    private static final float FITS = 1 / 255f;

    private FlowFinder() {}

    /** @param median squares on each side that the median is taken over, 0..3; more is steadier, less follows small things */
    public static Flow find(Plane from, Plane to, int median, Work work) {
        if (from.width() != to.width() || from.height() != to.height()) {
            throw new IllegalArgumentException(
                    "motion between " + from.width() + "x" + from.height() + " and " + to.width() + "x" + to.height());
        }
        if (Math.min(from.width(), from.height()) < 2 * SIDE) {
            return new Flow(Plane.of(from.width(), from.height()), Plane.of(from.width(), from.height()));
        }
        int levels = 1;
        while (Math.min(from.width(), from.height()) >> levels >= LEAST) {
            levels++;
        }
        var a = new Plane[levels];
        var b = new Plane[levels];
        a[0] = packed(from);
        b[0] = packed(to);
        for (int k = 1; k < levels; k++) {
            a[k] = halved(a[k - 1], work);
            b[k] = halved(b[k - 1], work);
        }
        int finest = 0;
        while (finest + 1 < levels && a[finest].width() > FINEST_WIDTH) {
            finest++;
        }
        Flow flow = null;
        for (int k = levels - 1; k >= finest; k--) {
            Flow start = flow == null ? null : grown(flow, a[k].width(), a[k].height(), work);
            flow = new Level(a[k], b[k], start, median).found(work);
        }
        while (flow.width() < from.width() || flow.height() < from.height()) {
            finest--;
            flow = grown(flow, a[finest].width(), a[finest].height(), work);
        }
        return flow;
    }

    private static Plane packed(Plane p) {
        return new Plane(p.packed(), 0, p.width(), p.height(), p.width());
    }

    /** Means of 2x2; an odd last row or column goes in with its neighbour. */
    private static Plane halved(Plane p, Work work) {
        Plane half = Plane.of(Math.ceilDiv(p.width(), 2), Math.ceilDiv(p.height(), 2));
        work.bands(half.height(), 16, (first, end) -> {
            for (int y = first; y < end; y++) {
                int y1 = Math.min(2 * y + 1, p.height() - 1);
                for (int x = 0; x < half.width(); x++) {
                    int x1 = Math.min(2 * x + 1, p.width() - 1);
                    half.set(x, y, (p.at(2 * x, 2 * y) + p.at(x1, 2 * y) + p.at(2 * x, y1) + p.at(x1, y1)) / 4);
                }
            }
        });
        return half;
    }

    /** The same motion in a picture about twice as large. */
    private static Flow grown(Flow flow, int width, int height, Work work) {
        Plane u = Plane.of(width, height);
        Plane v = Plane.of(width, height);
        work.bands(height, 16, (first, end) -> {
            for (int y = first; y < end; y++) {
                for (int x = 0; x < width; x++) {
                    float sx = (x - 0.5f) / 2;
                    float sy = (y - 0.5f) / 2;
                    u.set(x, y, 2 * Flow.sample(flow.u(), sx, sy));
                    v.set(x, y, 2 * Flow.sample(flow.v(), sx, sy));
                }
            }
        });
        return new Flow(u, v);
    }

    /** One size of both pictures; squares are numbered by column and row. */
    private static final class Level {
        private final Plane from;
        private final Plane to;
        private final int median;
        private final int columns;
        private final int rows;
        private final Plane slopeX;
        private final Plane slopeY;
        private final Plane startU;
        private final Plane startV;
        private float[] u;
        private float[] v;
        private final float[] misfit;

        Level(Plane from, Plane to, Flow start, int median) {
            this.from = from;
            this.to = to;
            this.median = median;
            columns = Math.ceilDiv(from.width() - SIDE, STRIDE) + 1;
            rows = Math.ceilDiv(from.height() - SIDE, STRIDE) + 1;
            slopeX = Plane.of(from.width(), from.height());
            slopeY = Plane.of(from.width(), from.height());
            startU = start == null ? null : start.u();
            startV = start == null ? null : start.v();
            u = new float[columns * rows];
            v = new float[columns * rows];
            misfit = new float[columns * rows];
        }

        private int left(int column) {
            return Math.min(column * STRIDE, from.width() - SIDE);
        }

        private int top(int row) {
            return Math.min(row * STRIDE, from.height() - SIDE);
        }

        Flow found(Work work) {
            slopes(work);
            int stripes = Math.ceilDiv(rows, STRIPE);
            work.bands(stripes, 1, (first, end) -> {
                for (int s = first; s < end; s++) {
                    int low = s * STRIPE;
                    int high = Math.min(rows, low + STRIPE);
                    var square = new Square();
                    for (int row = low; row < high; row++) {
                        for (int column = 0; column < columns; column++) {
                            forth(square, column, row, low);
                        }
                    }
                    for (int row = high - 1; row >= low; row--) {
                        for (int column = columns - 1; column >= 0; column--) {
                            back(square, column, row, high);
                        }
                    }
                }
            });
            if (median > 0) {
                u = steadied(u, work);
                v = steadied(v, work);
            }
            return spread(work);
        }

        private void slopes(Work work) {
            work.bands(from.height(), 16, (first, end) -> {
                for (int y = first; y < end; y++) {
                    int above = Math.max(0, y - 1);
                    int below = Math.min(from.height() - 1, y + 1);
                    for (int x = 0; x < from.width(); x++) {
                        int before = Math.max(0, x - 1);
                        int after = Math.min(from.width() - 1, x + 1);
                        slopeX.set(x, y, (from.at(after, y) - from.at(before, y)) / 2);
                        slopeY.set(x, y, (from.at(x, below) - from.at(x, above)) / 2);
                    }
                }
            });
        }

        private void forth(Square square, int column, int row, int low) {
            int at = row * columns + column;
            square.take(left(column), top(row));
            float bestU = 0;
            float bestV = 0;
            if (startU != null) {
                int x = left(column) + SIDE / 2;
                int y = top(row) + SIDE / 2;
                bestU = startU.at(x, y);
                bestV = startV.at(x, y);
            }
            float best = square.misfit(bestU, bestV);
            for (int other : new int[] {column > 0 ? at - 1 : -1, row > low ? at - columns : -1}) {
                if (other >= 0) {
                    float now = square.misfit(u[other], v[other]);
                    if (now < best) {
                        best = now;
                        bestU = u[other];
                        bestV = v[other];
                    }
                }
            }
            square.search(bestU, bestV, best);
            square.put(at);
        }

        private void back(Square square, int column, int row, int high) {
            int at = row * columns + column;
            square.take(left(column), top(row));
            float best = misfit[at];
            int from = -1;
            for (int other : new int[] {column + 1 < columns ? at + 1 : -1, row + 1 < high ? at + columns : -1}) {
                if (other >= 0) {
                    float now = square.misfit(u[other], v[other]);
                    if (now < best) {
                        best = now;
                        from = other;
                    }
                }
            }
            if (from >= 0) {
                square.search(u[from], v[from], best);
                square.put(at);
            }
        }

        /** The square being led; one a thread. */
        private final class Square {
            private final float[] own = new float[SIDE * SIDE];
            private final float[] gx = new float[SIDE * SIDE];
            private final float[] gy = new float[SIDE * SIDE];
            private final float[] off = new float[SIDE * SIDE];
            private int x;
            private int y;
            private float xx;
            private float xy;
            private float yy;
            private float foundU;
            private float foundV;
            private float foundMisfit;

            void take(int left, int top) {
                x = left;
                y = top;
                float sum = 0;
                xx = 0;
                xy = 0;
                yy = 0;
                float sumX = 0;
                float sumY = 0;
                for (int i = 0; i < SIDE; i++) {
                    for (int j = 0; j < SIDE; j++) {
                        int k = i * SIDE + j;
                        own[k] = from.at(x + j, y + i);
                        gx[k] = slopeX.at(x + j, y + i);
                        gy[k] = slopeY.at(x + j, y + i);
                        sum += own[k];
                        sumX += gx[k];
                        sumY += gy[k];
                    }
                }
                // without the means: a square that only grows brighter has not moved
                int n = SIDE * SIDE;
                for (int k = 0; k < n; k++) {
                    own[k] -= sum / n;
                    gx[k] -= sumX / n;
                    gy[k] -= sumY / n;
                    xx += gx[k] * gx[k];
                    xy += gx[k] * gy[k];
                    yy += gy[k] * gy[k];
                }
                // a flat square stays where it is
                float steady = 1e-4f;
                xx += steady;
                yy += steady;
            }

            /** Fills off with to - from without the means; the mean square of it. */
            float misfit(float du, float dv) {
                float px = Math.clamp(x + du, -SIDE, to.width());
                float py = Math.clamp(y + dv, -SIDE, to.height());
                int x0 = (int) Math.floor(px);
                int y0 = (int) Math.floor(py);
                float right = px - x0;
                float down = py - y0;
                boolean inside = x0 >= 0 && y0 >= 0 && x0 + SIDE < to.width() && y0 + SIDE < to.height();
                float sum = 0;
                float[] data = to.data();
                for (int i = 0; i < SIDE; i++) {
                    int rowA = to.row(inside ? y0 + i : Math.clamp(y0 + i, 0, to.height() - 1));
                    int rowB = to.row(inside ? y0 + i + 1 : Math.clamp(y0 + i + 1, 0, to.height() - 1));
                    for (int j = 0; j < SIDE; j++) {
                        int c = inside ? x0 + j : Math.clamp(x0 + j, 0, to.width() - 1);
                        int d = inside ? c + 1 : Math.clamp(x0 + j + 1, 0, to.width() - 1);
                        float upper = data[rowA + c] + right * (data[rowA + d] - data[rowA + c]);
                        float lower = data[rowB + c] + right * (data[rowB + d] - data[rowB + c]);
                        float value = upper + down * (lower - upper);
                        off[i * SIDE + j] = value;
                        sum += value;
                    }
                }
                float mean = sum / (SIDE * SIDE);
                float squares = 0;
                for (int k = 0; k < SIDE * SIDE; k++) {
                    off[k] -= mean + own[k];
                    squares += off[k] * off[k];
                }
                return squares / (SIDE * SIDE);
            }

            /** Gauss-Newton from a start whose misfit is known; what ends worse or far away is not believed. */
            void search(float startU, float startV, float startMisfit) {
                foundU = startU;
                foundV = startV;
                foundMisfit = startMisfit;
                float du = startU;
                float dv = startV;
                float determinant = xx * yy - xy * xy;
                float now = misfit(du, dv);
                for (int step = 0; step < STEPS; step++) {
                    float bx = 0;
                    float by = 0;
                    for (int k = 0; k < SIDE * SIDE; k++) {
                        bx += gx[k] * off[k];
                        by += gy[k] * off[k];
                    }
                    float su = (yy * bx - xy * by) / determinant;
                    float sv = (xx * by - xy * bx) / determinant;
                    du -= su;
                    dv -= sv;
                    if (!(Math.abs(du - startU) < SIDE && Math.abs(dv - startV) < SIDE)) {
                        return;
                    }
                    now = misfit(du, dv);
                    if (now < foundMisfit) {
                        foundMisfit = now;
                        foundU = du;
                        foundV = dv;
                    }
                    if (su * su + sv * sv < 4e-4f) {
                        return;
                    }
                }
            }

            void put(int at) {
                u[at] = foundU;
                v[at] = foundV;
                misfit[at] = foundMisfit;
            }
        }

        /** The median of the squares around each. */
        private float[] steadied(float[] all, Work work) {
            float[] made = new float[all.length];
            work.bands(rows, 4, (first, end) -> {
                float[] some = new float[(2 * median + 1) * (2 * median + 1)];
                for (int row = first; row < end; row++) {
                    for (int column = 0; column < columns; column++) {
                        int n = 0;
                        for (int i = Math.max(0, row - median); i <= Math.min(rows - 1, row + median); i++) {
                            for (int j = Math.max(0, column - median);
                                    j <= Math.min(columns - 1, column + median);
                                    j++) {
                                some[n++] = all[i * columns + j];
                            }
                        }
                        Arrays.sort(some, 0, n);
                        made[row * columns + column] = some[n / 2];
                    }
                }
            });
            return made;
        }

        /** Each sample's motion from the squares over it. */
        private Flow spread(Work work) {
            Plane outU = Plane.of(from.width(), from.height());
            Plane outV = Plane.of(from.width(), from.height());
            work.bands(from.height(), 8, (first, end) -> {
                for (int y = first; y < end; y++) {
                    for (int x = 0; x < from.width(); x++) {
                        spread(outU, outV, x, y);
                    }
                }
            });
            return new Flow(outU, outV);
        }

        private void spread(Plane outU, Plane outV, int x, int y) {
            float sum = 0;
            float sumU = 0;
            float sumV = 0;
            int lastRow = y >= top(rows - 1) ? rows - 1 : y / STRIDE;
            int lastColumn = x >= left(columns - 1) ? columns - 1 : x / STRIDE;
            for (int row = Math.max(0, lastRow - SIDE / STRIDE); row <= lastRow; row++) {
                if (y >= top(row) + SIDE) {
                    continue;
                }
                for (int column = Math.max(0, lastColumn - SIDE / STRIDE); column <= lastColumn; column++) {
                    if (x >= left(column) + SIDE) {
                        continue;
                    }
                    int at = row * columns + column;
                    float off = Math.abs(Flow.sample(to, x + u[at], y + v[at]) - from.at(x, y));
                    float weight = 1 / Math.max(FITS, off);
                    sum += weight;
                    sumU += weight * u[at];
                    sumV += weight * v[at];
                }
            }
            outU.set(x, y, sumU / sum);
            outV.set(x, y, sumV / sum);
        }
    }
}
