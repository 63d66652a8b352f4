package awlsmith.core.motion;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;

/**
 * Makes what is seen at a moment between two pictures: every square brings what lies along its motion from both, squares overlap, and each
 * sample is the mean of what they bring, weighed by how well both pictures fit there.
 *
 * <p>Shape: whole pictures in, any part out; every plane by luma's motion. Units: luma 0 black, 1 white. Border: its samples go on outside.
 * Source: M. T. Orchard and G. J. Sullivan, "Overlapped block motion compensation", IEEE Trans. Image Processing 3, 1994 (from memory); that fit
 * weighs is our own. Cost: O(part). Same bits for any number of threads, any form of the kernel and any part.
 */
public final class PictureBetween {
    /** What is done where both pictures do not show the same along the motion. */
    public enum Doubt {
        /** The motion is followed all the same. */
        MOTION,
        /** Both pictures are mixed as they are. */
        BLEND,
        /** The nearer picture is shown as it is. */
        NEARER
    }

    /** Planes that {@link #led} gives. */
    public static final int LED = 3;

    private static final int APART = 2;

    private static final int EIGHT = BetweenRows.COUNT;
    private static final int TAPS = 4;
    private static final int PARTS = 32;
    private static final int BAND = 16;
    private static final float[] SPLINE = EightBetween.spline(PARTS);
    /** Added to a square's misfit, luma, before what it is divided by: fits better than this are all as good. */
    private static final float FITS = 0.02f;
    /** Both pictures this far apart are in doubt, luma, and wholly so beyond the other. */
    private static final float DOUBT_FROM = 0.05f;

    private static final float DOUBT_ALL = 0.15f;

    /** Misfit, luma, at which what goes with most of the picture is a quarter as likely as what was found. */
    private static final float LOST = 0.005f;
    /** Weights below this change nothing that is seen. */
    private static final float LEAST_WEIGHT = 0.02f;

    /** Squares whose motions differ by less, samples, go as one; beyond the other each its own way. */
    private static final float APART_LEAST = 0.5f;

    private static final float APART_MOST = 2;

    private static final int FIRST = CellMotions.FIRST;

    private static final int LAST = CellMotions.LAST;

    private static final EightBetween BETWEEN = EightBetween.of(Lanes.chosen());
    private static final BetweenRows ROWS = BetweenRows.of(Lanes.chosen());

    private final MotionBetween motion;
    private final float share;
    private final float[] bend;
    private final Doubt doubt;
    private final float[] camera;

    /**
     * @param share of the time from the first picture to the second
     * @param bend samples across and down that everything is beside its straight way then, as a shaken camera's path has it
     */
    public PictureBetween(MotionBetween motion, float share, float[] bend, Doubt doubt) {
        this.motion = motion;
        this.share = share;
        this.bend = bend;
        this.doubt = doubt;
        camera = motion.camera();
    }

    /** A plane, and the splines that go through its samples. */
    private record Splined(Padded samples, Padded spline) {
        static Splined of(Plane plane) {
            Padded samples = Padded.of(plane);
            return new Splined(samples, samples.splined());
        }
    }

    /** A frame's planes with their edges around them, made once for all that is led from it. */
    public static final class Around {
        private final List<Splined> planes;

        private Around(List<Splined> planes) {
            this.planes = planes;
        }

        /** @param frame a whole picture */
        public static Around of(Frame frame) {
            return of(frame.planes());
        }

        /** @param planes of a whole picture */
        public static Around of(List<Plane> planes) {
            return new Around(planes.stream().map(Splined::of).toList());
        }
    }

    /**
     * @param first the earlier picture; @param second the later one
     * @param out part of the picture, gets what is made
     */
    public void make(Around first, Around second, Frame out, Work work) {
        for (int p = 0; p < out.planes().size(); p++) {
            make(first, second, out, p, work);
        }
    }

    private void make(Around first, Around second, Frame out, int p, Work work) {
        Chroma chroma = out.format().chroma();
        Region own = chroma.own(p, out.window());
        new PlaneMaker(
                        first.planes.get(p),
                        second.planes.get(p),
                        new Given(out.plane(p), null, null, doubt),
                        own.x(),
                        own.y(),
                        chroma.stepX(p),
                        chroma.stepY(p))
                .make(work);
    }

    /**
     * Of a plane as large as the picture: what the motion makes, by how much the later picture is lighter along the motion, and how far both are apart
     * along all the motions that lead there.
     *
     * @return {@link #LED} planes of the part's size, from the pool
     */
    public List<Plane> led(Around first, Around second, int p, Region part, PlanePool pool, Work work) {
        var led = new ArrayList<Plane>();
        for (int i = 0; i < LED; i++) {
            led.add(pool.borrow(part.width(), part.height()));
        }
        var given = new Given(led.get(0), led.get(1), led.get(APART), Doubt.MOTION);
        new PlaneMaker(first.planes.get(p), second.planes.get(p), given, part.x(), part.y(), 1, 1).make(work);
        return led;
    }

    /** @param apart how far both pictures differ along the motion; @param before and after: as they lie there */
    private float doubted(float made, float apart, float before, float after) {
        float doubted = Math.clamp((apart - DOUBT_FROM) / (DOUBT_ALL - DOUBT_FROM), 0, 1);
        if (doubted == 0) {
            return made;
        }
        float plain = doubt == Doubt.BLEND ? before + share * (after - before) : share < 0.5f ? before : after;
        return made + doubted * (plain - made);
    }

    /**
     * The nearer of both pictures led by one motion a sample, which changes evenly from the middle of one square to the next: nothing is averaged, so
     * fine detail is as strong as in the picture itself; but where squares go different ways what lies between them is bent.
     *
     * @param p number of a plane as large as the picture
     * @return it, and how far squares around go the same way: 1 as one, 0 apart; planes of the part's size, from the pool
     */
    public List<Plane> nearer(Around first, Around second, int p, Region part, PlanePool pool, Work work) {
        boolean isFirst = share <= 0.5f;
        Padded from = (isFirst ? first : second).planes.get(p).spline;
        float along = isFirst ? -share : 1 - share;
        Plane out = pool.borrow(part.width(), part.height());
        Plane alike = pool.borrow(part.width(), part.height());
        work.bands(part.height(), BAND, (begin, end) -> {
            for (int y = begin; y < end; y++) {
                work.cancel().check();
                int to = out.row(y);
                int line = part.y() + y;
                MotionBetween.Row motions = motion.row((line + 0.5f) / motion.stride());
                for (int x = 0; x < part.width(); x++) {
                    int at = part.x() + x;
                    motions.to((at + 0.5f) / motion.stride());
                    float together = (APART_MOST - motions.spread()) / (APART_MOST - APART_LEAST);
                    alike.set(x, y, Math.clamp(together, 0, 1));
                    out.data()[to + x] = spline(
                            from, at + along * motions.across() - bend[0], line + along * motions.down() - bend[1]);
                }
            }
        });
        return List.of(out, alike);
    }

    private static float spline(Padded p, float x, float y) {
        int right = Math.round(Math.clamp(x, -Padded.PAD + 1, p.width() + Padded.PAD - TAPS) * PARTS);
        int down = Math.round(Math.clamp(y, -Padded.PAD + 1, p.height() + Padded.PAD - TAPS) * PARTS);
        int at = p.at(Math.floorDiv(right, PARTS) - 1, Math.floorDiv(down, PARTS) - 1);
        int across = TAPS * Math.floorMod(right, PARTS);
        int below = TAPS * Math.floorMod(down, PARTS);
        float sum = 0;
        for (int k = 0; k < TAPS; k++) {
            sum += SPLINE[below + k]
                    * (SPLINE[across] * p.data()[at]
                            + SPLINE[across + 1] * p.data()[at + 1]
                            + SPLINE[across + 2] * p.data()[at + 2]
                            + SPLINE[across + 3] * p.data()[at + 3]);
            at += p.stride();
        }
        return sum;
    }

    /** Planes that are filled; lighter and apart only where they are asked for, else null. */
    private record Given(Plane made, Plane lighter, Plane apart, Doubt doubt) {}

    /** One plane; cells are what squares have in common, a quarter of a square, numbered by column and row. */
    private final class PlaneMaker {
        private final Splined a;
        private final Splined b;
        private final Given given;
        private final Plane out;
        private final int left;
        private final int top;
        private final int stepX;
        private final int stepY;
        private final int cellX;
        private final int cellY;

        PlaneMaker(Splined a, Splined b, Given given, int left, int top, int stepX, int stepY) {
            this.a = a;
            this.b = b;
            this.given = given;
            out = given.made;
            this.left = left;
            this.top = top;
            this.stepX = stepX;
            this.stepY = stepY;
            cellX = motion.stride() / stepX;
            cellY = motion.stride() / stepY;
        }

        void make(Work work) {
            int from = top / cellY;
            int end = Math.ceilDiv(top + out.height(), cellY);
            work.bands(end - from, 1, (first, last) -> {
                var row = new CellRow();
                for (int r = first; r < last; r++) {
                    work.cancel().check();
                    row.make(from + r);
                }
            });
        }

        /** One row of cells as wide as the part; one a thread. */
        private final class CellRow {
            private final int firstCell = left / cellX;
            private final int cells = Math.ceilDiv(left + out.width(), cellX) - firstCell;
            private final int stride = cells * cellX + EIGHT;
            private final BetweenRows.Sums sums = new BetweenRows.Sums(stride * cellY, given.lighter != null);
            private final float[] ofA = new float[cellY * EIGHT];
            private final float[] ofB = new float[cellY * EIGHT];
            /** Motions that squares around a cell bring, those nearly alike as one, and how much each of its samples counts. */
            private final CellMotions motions = new CellMotions(cellX, cellY);

            void make(int row) {
                sums.clear();
                for (int i = 0; i < cells; i++) {
                    cell(firstCell + i, row, i);
                }
                write(row);
            }

            private void cell(int column, int row, int cell) {
                motions.clear();
                for (int down = FIRST; down <= LAST; down++) {
                    for (int across = FIRST; across <= LAST; across++) {
                        if (CellMotions.isOfCell(across) || CellMotions.isOfCell(down)) {
                            square(column, row, across, down);
                        }
                    }
                }
                for (int i = 0; i < motions.count(); i++) {
                    add(column, row, cell, i);
                }
            }

            private int square(int column, int row) {
                return Math.clamp(row, 0, motion.rows() - 1) * motion.columns()
                        + Math.clamp(column, 0, motion.columns() - 1);
            }

            private static float weight(float misfit) {
                float fit = FITS / (FITS + misfit);
                return fit * fit;
            }

            /** Where nothing fits, as on water, what goes with the picture is as likely. */
            private float common(int square) {
                float misfit = motion.misfit()[square];
                float lost = misfit / (misfit + LOST);
                return lost * lost * weight(motion.cameraMisfit()[square]);
            }

            private void square(int column, int row, int across, int down) {
                int at = square(column + across, row + down);
                motions.take(motion.u()[at], motion.v()[at], weight(motion.misfit()[at]), across, down);
                float common = common(at);
                if (common > LEAST_WEIGHT) {
                    motions.take(camera[0], camera[1], common, across, down);
                }
            }

            /** What one motion brings to a cell. */
            private void add(int column, int row, int cell, int number) {
                float du = motions.across(number);
                float dv = motions.down(number);
                float[] counts = motions.counts(number);
                float fromX = column * cellX - (share * du + bend[0]) / stepX;
                float fromY = row * cellY - (share * dv + bend[1]) / stepY;
                float toX = column * cellX + ((1 - share) * du - bend[0]) / stepX;
                float toY = row * cellY + ((1 - share) * dv - bend[1]) / stepY;
                int step = motions.step();
                for (int x = 0; x < cellX; x += EIGHT) {
                    led(a, fromX + x, fromY, ofA);
                    led(b, toX + x, toY, ofB);
                    ROWS.add(ofA, ofB, cellY, counts, x, step, share, sums, cell * cellX + x, stride);
                }
            }

            /** Rows of eight samples, between samples across and down; what goes by whole samples stays to the bit. */
            private void led(Splined from, float x, float y, float[] into) {
                Padded p = from.samples;
                float px = Math.clamp(x, -Padded.PAD + 1, p.width() + Padded.PAD - EIGHT - TAPS);
                float py = Math.clamp(y, -Padded.PAD + 1, p.height() + Padded.PAD - cellY - TAPS);
                int right = Math.round(px * PARTS);
                int down = Math.round(py * PARTS);
                int column = Math.floorDiv(right, PARTS);
                int line = Math.floorDiv(down, PARTS);
                int across = Math.floorMod(right, PARTS);
                int below = Math.floorMod(down, PARTS);
                if (across == 0 && below == 0) {
                    for (int row = 0; row < cellY; row++) {
                        System.arraycopy(p.data(), p.at(column, line + row), into, row * EIGHT, EIGHT);
                    }
                    return;
                }
                BETWEEN.rows(
                        from.spline.data(),
                        p.at(column - 1, line - 1),
                        p.stride(),
                        SPLINE,
                        TAPS * across,
                        TAPS * below,
                        cellY,
                        into);
            }

            private void write(int row) {
                int begin = Math.max(top, row * cellY);
                int end = Math.min(top + out.height(), (row + 1) * cellY);
                int off = left - firstCell * cellX;
                for (int y = begin; y < end; y++) {
                    int from = (y - row * cellY) * stride + off;
                    int to = out.row(y - top);
                    if (given.lighter != null) {
                        seen(from, y - top);
                        continue;
                    }
                    for (int x = 0; x < out.width(); x++) {
                        float weight = sums.weights()[from + x];
                        float made = sums.samples()[from + x] / weight;
                        out.data()[to + x] = given.doubt == Doubt.MOTION
                                ? made
                                : doubted(
                                        made,
                                        sums.apart()[from + x] / weight,
                                        a.samples.data()[a.samples.at(left + x, y)],
                                        b.samples.data()[b.samples.at(left + x, y)]);
                    }
                }
            }

            private void seen(int from, int row) {
                for (int x = 0; x < out.width(); x++) {
                    float weight = sums.weights()[from + x];
                    out.data()[out.row(row) + x] = sums.samples()[from + x] / weight;
                    given.lighter.data()[given.lighter.row(row) + x] = sums.lighter()[from + x] / weight;
                    given.apart.data()[given.apart.row(row) + x] = sums.apart()[from + x] / weight;
                }
            }
        }
    }
}
