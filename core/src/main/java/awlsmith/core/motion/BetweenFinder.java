package awlsmith.core.motion;

import awlsmith.core.motion.SquarePair.Place;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;

/**
 * Finds motion as it is seen at a moment between two pictures, from coarse to fine: each square of 8x8 is led to where the two pictures are
 * alike on either side of it, so that what is made there has neither holes nor two answers.
 *
 * <p>Shape: both pictures w x h. Units: luma 0 black, 1 white; motion samples, right and down. Border: its samples go on outside. Source: T.
 * Kroeger et al., "Fast optical flow using dense inverse search", ECCV 2016, for squares led by Gauss-Newton steps from coarse to fine; T.-H. Ha
 * et al., "Motion compensated frame interpolation by new block-based motion estimation algorithm", IEEE Trans. Consumer Electronics 50, 2004, for
 * squares of the picture between (from memory); that neighbours' motion is tried, and what is their middle where it fits about as well, is common
 * practice. Cost: O(w h). Same bits for any number of threads and any form of the kernel.
 */
public final class BetweenFinder {
    private static final int SIDE = SquarePair.SIDE;
    private static final int STRIDE = SIDE / 2;
    /** Pictures are made no smaller than this on their shorter side. */
    private static final int LEAST = 16;
    /** Wider than this, half the size tells as much (docs/decisions)... */
    private static final int HALVED_FROM = 400;
    /** ...and wider than this, what is left is halved again, for time's sake. */
    private static final int FINEST_WIDTH = 640;

    /** Rows of squares that are gone through one after the other; fixed, so that threads do not change the result. */
    private static final int STRIPE = 8;

    private static final int STEPS = 4;
    /** A step that ends so far from where it began has lost its way, samples. */
    private static final float ASTRAY = 4;
    /** Smaller steps change nothing that is seen, squared samples. */
    private static final float DONE = 1e-4f;
    /** Mean difference of a square that is as good as the same, luma: half a level of 255. */
    private static final float STILL = 0.5f / 255;
    /** Keeps flat squares where they are. */
    private static final float STEADY = 1e-4f;
    /** What motion unlike that of the coarser picture costs: luma for a sample, and at most. */
    private static final float UNLIKE = 0.00075f;

    private static final float UNLIKE_MOST = 0.006f;
    /** The middle of the squares around is taken where it fits this much worse at most. */
    private static final float CALM = 1.5f;

    private static final float CALM_BY = 0.002f;

    /** Mean light of both is as good as the same, luma. */
    private static final double FADED = 3.0 / 255;

    private static final double MOST_GAIN = 3;
    /** In the first picture no wider than this all places up to so many of its samples away are tried... */
    private static final int SEARCHED_WIDTH = 100;

    private static final int ALL = 3;
    /** ...where nothing else fits this well, luma. */
    private static final float LOST = 0.01f;

    private static final SquarePair PAIR = SquarePair.of(Lanes.chosen());

    /** Both pictures, the finest that is looked at first, each next one half as large. */
    private final List<Padded> first = new ArrayList<>();

    private final List<Padded> second = new ArrayList<>();
    private final int scale;
    private final Work work;

    /** @param from the earlier picture; @param to the later one, as large */
    public BetweenFinder(Plane from, Plane to, Work work) {
        this(from, to, FINEST_WIDTH, work);
    }

    /** @param finestWidth of the largest picture that is looked at */
    public BetweenFinder(Plane from, Plane to, int finestWidth, Work work) {
        if (from.width() != to.width() || from.height() != to.height()) {
            throw new IllegalArgumentException(
                    "motion between " + from.width() + "x" + from.height() + " and " + to.width() + "x" + to.height());
        }
        this.work = work;
        int finest = 1;
        Padded a = even(from);
        Padded b = even(to);
        while (a.width() > finestWidth || finest == 1 && a.width() > HALVED_FROM) {
            a = halved(a);
            b = halved(b);
            finest *= 2;
        }
        scale = finest;
        b = lit(a, b);
        first.add(a);
        second.add(b);
        while (Math.min(a.width(), a.height()) >= 2 * LEAST) {
            a = halved(a);
            b = halved(b);
            first.add(a);
            second.add(b);
        }
    }

    /** The second as light and as rich in contrast as the first, where light changes: in a fade nothing else tells what moved. */
    private static Padded lit(Padded a, Padded b) {
        double[] of = light(a);
        double[] other = light(b);
        if (Math.abs(of[0] - other[0]) < FADED) {
            return b;
        }
        float gain = (float) Math.clamp(of[1] / Math.max(1e-6, other[1]), 1 / MOST_GAIN, MOST_GAIN);
        float[] data = b.data().clone();
        for (int i = 0; i < data.length; i++) {
            data[i] = (float) of[0] + gain * (data[i] - (float) other[0]);
        }
        return new Padded(data, b.stride(), b.width(), b.height());
    }

    /** Mean and deviation. */
    private static double[] light(Padded p) {
        double sum = 0;
        double squares = 0;
        for (int y = 0; y < p.height(); y++) {
            for (int x = 0; x < p.width(); x++) {
                double value = p.data()[p.at(x, y)];
                sum += value;
                squares += value * value;
            }
        }
        double count = (double) p.width() * p.height();
        double mean = sum / count;
        return new double[] {mean, Math.sqrt(Math.max(0, squares / count - mean * mean))};
    }

    private static Padded even(Plane p) {
        return Padded.of(p, p.width() + 1 & -2, p.height() + 1 & -2);
    }

    private static Padded halved(Padded p) {
        Padded half = p.shrunk(2);
        int width = half.width() + 1 & -2;
        int height = half.height() + 1 & -2;
        return width == half.width() && height == half.height()
                ? half
                : Padded.of(
                        new Plane(half.data(), half.at(0, 0), half.width(), half.height(), half.stride()),
                        width,
                        height);
    }

    /** The motion seen at a moment. @param share of the time from the first to the second, 0..1 */
    public MotionBetween at(float share) {
        Level level = null;
        int searched = 0;
        while (searched < first.size() - 1 && first.get(searched).width() > SEARCHED_WIDTH) {
            searched++;
        }
        for (int k = first.size() - 1; k >= 0; k--) {
            level = new Level(first.get(k), second.get(k), share, level, k == searched);
            level.find();
        }
        return level.result();
    }

    /** The same, led by what was found for another moment. */
    public MotionBetween at(float share, MotionBetween known, float knownShare) {
        var level = new Level(first.getFirst(), second.getFirst(), share, null, false);
        level.begin(known, share - knownShare);
        level.find();
        return level.result();
    }

    /** One size of both pictures; squares are numbered by column and row. */
    private final class Level {
        private final Padded a;
        private final Padded b;
        private final float share;
        private final int columns;
        private final int rows;
        /** What the coarser picture or another moment tells. */
        private final float[] startU;

        private final float[] startV;
        private float[] u;
        private float[] v;
        private float[] misfit;
        private final boolean isSearched;

        Level(Padded a, Padded b, float share, Level coarser, boolean isSearched) {
            this.isSearched = isSearched;
            this.a = a;
            this.b = b;
            this.share = share;
            columns = Math.ceilDiv(a.width(), STRIDE) + 1;
            rows = Math.ceilDiv(a.height(), STRIDE) + 1;
            int count = columns * rows;
            u = new float[count];
            v = new float[count];
            misfit = new float[count];
            startU = new float[count];
            startV = new float[count];
            if (coarser != null) {
                for (int row = 0; row < rows; row++) {
                    for (int column = 0; column < columns; column++) {
                        int from = Math.min(row / 2, coarser.rows - 1) * coarser.columns
                                + Math.min(column / 2, coarser.columns - 1);
                        startU[row * columns + column] = 2 * coarser.u[from];
                        startV[row * columns + column] = 2 * coarser.v[from];
                    }
                }
            }
        }

        /** Each square's motion goes on to where it is seen later, or earlier. */
        void begin(MotionBetween known, float later) {
            var seen = new boolean[columns * rows];
            for (int row = 0; row < rows; row++) {
                for (int column = 0; column < columns; column++) {
                    int at = row * columns + column;
                    float du = known.u()[at] / scale;
                    float dv = known.v()[at] / scale;
                    int x = Math.clamp(column + Math.round(later * du / STRIDE), 0, columns - 1);
                    int y = Math.clamp(row + Math.round(later * dv / STRIDE), 0, rows - 1);
                    int to = y * columns + x;
                    if (!seen[to] || known.misfit()[at] < misfit[to]) {
                        seen[to] = true;
                        startU[to] = du;
                        startV[to] = dv;
                        misfit[to] = known.misfit()[at];
                    }
                    if (!seen[at]) {
                        startU[at] = du;
                        startV[at] = dv;
                    }
                }
            }
        }

        void find() {
            int stripes = Math.ceilDiv(rows, STRIPE);
            work.bands(stripes, 1, (from, end) -> {
                for (int s = from; s < end; s++) {
                    work.cancel().check();
                    int low = s * STRIPE;
                    int high = Math.min(rows, low + STRIPE);
                    var square = new Square();
                    for (int row = low; row < high; row++) {
                        for (int column = 0; column < columns; column++) {
                            square.forth(column, row, low);
                        }
                    }
                    for (int row = high - 1; row >= low; row--) {
                        for (int column = columns - 1; column >= 0; column--) {
                            square.back(column, row, high);
                        }
                    }
                }
            });
            calm();
        }

        /** The vector median of the squares around each, where that fits. */
        private void calm() {
            float[] calmU = new float[u.length];
            float[] calmV = new float[u.length];
            float[] calmMisfit = new float[u.length];
            work.bands(rows, 4, (from, end) -> {
                var square = new Square();
                for (int row = from; row < end; row++) {
                    for (int column = 0; column < columns; column++) {
                        int at = row * columns + column;
                        int middle = middle(column, row);
                        square.take(column, row);
                        float fit = middle == at ? misfit[at] : square.misfit(u[middle], v[middle]);
                        int taken = fit <= CALM * misfit[at] + CALM_BY ? middle : at;
                        calmU[at] = u[taken];
                        calmV[at] = v[taken];
                        calmMisfit[at] = taken == at ? misfit[at] : fit;
                    }
                }
            });
            u = calmU;
            v = calmV;
            misfit = calmMisfit;
        }

        private int middle(int column, int row) {
            int best = row * columns + column;
            float least = Float.MAX_VALUE;
            int top = Math.max(0, row - 1);
            int bottom = Math.min(rows - 1, row + 1);
            int left = Math.max(0, column - 1);
            int right = Math.min(columns - 1, column + 1);
            for (int y = top; y <= bottom; y++) {
                for (int x = left; x <= right; x++) {
                    int at = y * columns + x;
                    float sum = 0;
                    for (int j = top; j <= bottom; j++) {
                        for (int i = left; i <= right; i++) {
                            int other = j * columns + i;
                            sum += Math.abs(u[at] - u[other]) + Math.abs(v[at] - v[other]);
                        }
                    }
                    if (sum < least) {
                        least = sum;
                        best = at;
                    }
                }
            }
            return best;
        }

        /** How well the squares fit if all of them go with most of the picture. */
        private float[] withCamera() {
            float du = MotionBetween.middle(u);
            float dv = MotionBetween.middle(v);
            float[] fits = new float[u.length];
            work.bands(rows, 4, (from, end) -> {
                var square = new Square();
                for (int row = from; row < end; row++) {
                    for (int column = 0; column < columns; column++) {
                        square.take(column, row);
                        fits[row * columns + column] = square.misfit(du, dv);
                    }
                }
            });
            return fits;
        }

        MotionBetween result() {
            float[] wholeU = u.clone();
            float[] wholeV = v.clone();
            for (int i = 0; i < wholeU.length; i++) {
                wholeU[i] *= scale;
                wholeV[i] *= scale;
            }
            return new MotionBetween(columns, rows, SIDE * scale, wholeU, wholeV, misfit.clone(), withCamera());
        }

        /** The square being led; one a thread. */
        private final class Square {
            private final float[] sums = new float[5];
            private int x;
            private int y;
            private float likeU;
            private float likeV;
            private float bestU;
            private float bestV;
            /** Misfit of the best, and with what being unlike costs. */
            private float bestFit;

            private float best;

            void take(int column, int row) {
                x = (column - 1) * STRIDE;
                y = (row - 1) * STRIDE;
                likeU = startU[row * columns + column];
                likeV = startV[row * columns + column];
            }

            private Place place(Padded p, float du, float dv) {
                float px = Math.clamp(x + du, -Padded.PAD, p.width() + Padded.PAD - SIDE - 2);
                float py = Math.clamp(y + dv, -Padded.PAD, p.height() + Padded.PAD - SIDE - 2);
                int left = (int) Math.floor(px);
                int top = (int) Math.floor(py);
                return new Place(p.data(), p.at(left, top), p.stride(), px - left, py - top);
            }

            private Place ofFirst(float du, float dv) {
                return place(a, -share * du, -share * dv);
            }

            private Place ofSecond(float du, float dv) {
                return place(b, (1 - share) * du, (1 - share) * dv);
            }

            float misfit(float du, float dv) {
                return PAIR.misfit(ofFirst(du, dv), ofSecond(du, dv)) / (SIDE * SIDE);
            }

            private float cost(float fit, float du, float dv) {
                float away = Math.abs(du - likeU) + Math.abs(dv - likeV);
                return fit + Math.min(UNLIKE_MOST, UNLIKE * away);
            }

            private void begin(float fit, float du, float dv) {
                bestU = du;
                bestV = dv;
                bestFit = fit;
                best = cost(fit, du, dv);
            }

            private boolean attempt(float du, float dv) {
                if (du == bestU && dv == bestV) {
                    return false;
                }
                float fit = misfit(du, dv);
                float now = cost(fit, du, dv);
                if (now >= best) {
                    return false;
                }
                best = now;
                bestFit = fit;
                bestU = du;
                bestV = dv;
                return true;
            }

            private void put(int at) {
                u[at] = bestU;
                v[at] = bestV;
                misfit[at] = bestFit;
            }

            void forth(int column, int row, int low) {
                int at = row * columns + column;
                take(column, row);
                // what does not move stays to the sample: lettering, borders, a held camera
                begin(misfit(0, 0), 0, 0);
                attempt(likeU, likeV);
                attemptStart(column - 2, row);
                attemptStart(column + 2, row);
                attemptStart(column, row - 2);
                attemptStart(column, row + 2);
                attemptFound(column - 1, row, low, rows);
                attemptFound(column, row - 1, low, rows);
                attemptFound(column + 1, row - 1, low, rows);
                if (isSearched && best > LOST) {
                    searchAll();
                }
                refine();
                put(at);
            }

            /** All places around: spokes and ropes go another way than what lies behind them, which is all that the coarser picture sees. */
            private void searchAll() {
                for (int dv = -ALL; dv <= ALL; dv++) {
                    for (int du = -ALL; du <= ALL; du++) {
                        attempt(du, dv);
                    }
                }
            }

            void back(int column, int row, int high) {
                int at = row * columns + column;
                take(column, row);
                begin(misfit[at], u[at], v[at]);
                boolean moved = attemptFound(column + 1, row, 0, high);
                moved |= attemptFound(column, row + 1, 0, high);
                moved |= attemptFound(column - 1, row + 1, 0, high);
                if (moved) {
                    refine();
                    put(at);
                }
            }

            private void attemptStart(int column, int row) {
                if (column >= 0 && column < columns && row >= 0 && row < rows) {
                    attempt(startU[row * columns + column], startV[row * columns + column]);
                }
            }

            private boolean attemptFound(int column, int row, int low, int high) {
                return column >= 0
                        && column < columns
                        && row >= low
                        && row < high
                        && attempt(u[row * columns + column], v[row * columns + column]);
            }

            /** Gauss-Newton as long as it fits better. */
            private void refine() {
                if (bestU == 0 && bestV == 0 && best < STILL) {
                    return;
                }
                float du = bestU;
                float dv = bestV;
                for (int step = 0; step < STEPS; step++) {
                    PAIR.slopes(ofFirst(du, dv), ofSecond(du, dv), share, sums);
                    float xx = sums[0] + STEADY;
                    float yy = sums[2] + STEADY;
                    float determinant = xx * yy - sums[1] * sums[1];
                    float su = (yy * sums[3] - sums[1] * sums[4]) / determinant;
                    float sv = (xx * sums[4] - sums[1] * sums[3]) / determinant;
                    du -= su;
                    dv -= sv;
                    if (!(Math.abs(du - bestU) < ASTRAY && Math.abs(dv - bestV) < ASTRAY)) {
                        return;
                    }
                    float now = misfit(du, dv);
                    if (!(now < bestFit)) {
                        return;
                    }
                    bestFit = now;
                    bestU = du;
                    bestV = dv;
                    if (su * su + sv * sv < DONE) {
                        return;
                    }
                }
            }
        }
    }
}
