package awlsmith.core.motion;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
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

    private static final int EIGHT = BetweenRows.COUNT;
    private static final int TAPS = 4;
    private static final int PARTS = 32;
    private static final float[] CUBIC = EightBetween.cubic(PARTS);
    /** Added to a square's misfit, luma, before what it is divided by: fits better than this are all as good. */
    private static final float FITS = 0.02f;
    /** Both pictures this far apart are in doubt, luma, and wholly so beyond the other. */
    private static final float DOUBT_FROM = 0.05f;

    private static final float DOUBT_ALL = 0.15f;

    /** Misfit, luma, at which what goes with most of the picture is a quarter as likely as what was found. */
    private static final float LOST = 0.005f;
    /** Weights below this change nothing that is seen. */
    private static final float LEAST_WEIGHT = 0.02f;

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

    /** A frame's planes with their edges around them, made once for all that is led from it. */
    public static final class Around {
        private final List<Padded> planes;

        private Around(List<Padded> planes) {
            this.planes = planes;
        }

        /** @param frame a whole picture */
        public static Around of(Frame frame) {
            return new Around(frame.planes().stream().map(Padded::of).toList());
        }
    }

    /**
     * @param first the earlier picture; @param second the later one
     * @param out part of the picture, gets what is made
     */
    public void make(Around first, Around second, Frame out, Work work) {
        Chroma chroma = out.format().chroma();
        Region part = out.window();
        for (int p = 0; p < out.planes().size(); p++) {
            var plane = new PlaneMaker(
                    first.planes.get(p),
                    second.planes.get(p),
                    out.plane(p),
                    part.x() / chroma.stepX(p),
                    part.y() / chroma.stepY(p),
                    chroma.stepX(p),
                    chroma.stepY(p));
            plane.make(work);
        }
    }

    /** One plane; cells are what squares have in common, a quarter of a square, numbered by column and row. */
    private final class PlaneMaker {
        private final Padded a;
        private final Padded b;
        private final Plane out;
        private final int left;
        private final int top;
        private final int stepX;
        private final int stepY;
        private final int cellX;
        private final int cellY;

        PlaneMaker(Padded a, Padded b, Plane out, int left, int top, int stepX, int stepY) {
            this.a = a;
            this.b = b;
            this.out = out;
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
            private final BetweenRows.Sums sums = new BetweenRows.Sums(stride * cellY);
            private final float[] ofA = new float[cellY * EIGHT];
            private final float[] ofB = new float[cellY * EIGHT];
            /** Motions that squares around a cell bring, those nearly alike as one, and how much each of its samples counts. */
            private final CellMotions motions = new CellMotions(cellX, cellY);

            void make(int row) {
                java.util.Arrays.fill(sums.samples(), 0);
                java.util.Arrays.fill(sums.weights(), 0);
                java.util.Arrays.fill(sums.apart(), 0);
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

            /** Rows of eight samples, between samples across and down. */
            private void led(Padded p, float x, float y, float[] into) {
                float px = Math.clamp(x, -Padded.PAD + 1, p.width() + Padded.PAD - EIGHT - TAPS);
                float py = Math.clamp(y, -Padded.PAD + 1, p.height() + Padded.PAD - cellY - TAPS);
                int right = Math.round(px * PARTS);
                int down = Math.round(py * PARTS);
                BETWEEN.rows(
                        p.data(),
                        p.at(Math.floorDiv(right, PARTS) - 1, Math.floorDiv(down, PARTS) - 1),
                        p.stride(),
                        CUBIC,
                        TAPS * Math.floorMod(right, PARTS),
                        TAPS * Math.floorMod(down, PARTS),
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
                    for (int x = 0; x < out.width(); x++) {
                        float weight = sums.weights()[from + x];
                        float made = sums.samples()[from + x] / weight;
                        out.data()[to + x] = doubt == Doubt.MOTION
                                ? made
                                : doubted(made, sums.apart()[from + x] / weight, left + x, y);
                    }
                }
            }

            private float doubted(float made, float apart, int x, int y) {
                float doubted = Math.clamp((apart - DOUBT_FROM) / (DOUBT_ALL - DOUBT_FROM), 0, 1);
                if (doubted == 0) {
                    return made;
                }
                float before = a.data()[a.at(x, y)];
                float after = b.data()[b.at(x, y)];
                float plain = doubt == Doubt.BLEND ? before + share * (after - before) : share < 0.5f ? before : after;
                return made + doubted * (plain - made);
            }
        }
    }
}
