package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;

/**
 * Lays neighbouring pictures over a part of this one, square by square, for nets that read several frames: each square of 8x8 shows
 * what the neighbour has where the motion leads.
 *
 * <p>Shape: planes hold {@link #needs} of the part or more. Units: luma, nominally 0..1; motion up to 20 samples a frame both ways, in
 * eighths of a sample. Border: the picture's edge samples go on outside. Source: matching of squares in two sizes is common practice, no
 * source; the eighths are where a parabola through the misfit of three places has its lowest point. Cost: O(area). Same bits for any
 * number of threads, any form of the kernel, and any part: a square's motion hangs on the samples within {@link #REACH} alone. For dense
 * and exact motion see {@link FlowFinder}, which looks at whole pictures.
 */
public final class Alignment {
    /** Samples around a part that its answer may hang on. */
    public static final int REACH = 64;

    private static final int SQUARE = 8;
    /** Squares of the small pictures are searched for this many of their samples each way. */
    private static final int COARSE = RowMisfits.PLACES / 2;

    private static final int COARSE_SIDE = RowMisfits.SIDE;
    private static final int SHRINK = 4;
    private static final int COARSE_SQUARE = SQUARE * 2;
    /** A moved square must fit better than the still one by this much; grain alone lets one of many fit better by chance. */
    private static final float STILL = 0.85f;

    /** Misfit of a square that is as good as the same: half a level of 255 at each sample. */
    private static final float SAME = 256 * 0.25f / (255 * 255);

    /** Of what the noise of two pictures makes on average; the mean of 256 squares seldom passes it by chance. */
    private static final double STILL_NOISE = 1.06;

    private static final int PARTS = 8;
    private static final float[] CUBIC = EightBetween.cubic(PARTS);
    /** For planes of halved size, where an eighth is a sixteenth. */
    private static final float[] FINER = EightBetween.cubic(2 * PARTS);

    private static final SquareMisfit MISFIT = SquareMisfit.chosen();
    private static final EightBetween BETWEEN = EightBetween.of(Lanes.chosen());
    private static final RowMisfits ROW = RowMisfits.of(Lanes.chosen());

    private final Region part;
    private final Region held;
    private final float same;
    /** The same of squares of the small pictures, whose samples are means of sixteen. */
    private final float smallSame;

    private final Padded here;
    private final Padded small;

    /** The part of both pictures that laying over a part reads. */
    public static Region needs(Region part, int width, int height) {
        int x = Math.max(0, part.x() - REACH) / COARSE_SQUARE * COARSE_SQUARE;
        int y = Math.max(0, part.y() - REACH) / COARSE_SQUARE * COARSE_SQUARE;
        int right = Math.min(width, part.right() + REACH);
        int bottom = Math.min(height, part.bottom() + REACH);
        return new Region(x, y, right - x, bottom - y);
    }

    /**
     * @param here this picture, or the piece of it that is in hand
     * @param hold which part of the picture the planes hold
     * @param width of the whole picture, @param height of it
     * @param part what is to be laid over
     */
    public Alignment(Plane here, Region hold, int width, int height, Region part) {
        this(here, hold, width, height, part, 0);
    }

    /** @param noise deviation of each picture's noise: squares that differ by no more than that lie still */
    public Alignment(Plane here, Region hold, int width, int height, Region part, double noise) {
        this.part = part;
        this.same = Math.max(SAME, (float) (STILL_NOISE * 256 * 2 * noise * noise));
        this.smallSame = (float) (COARSE_SIDE * COARSE_SIDE * 2 * noise * noise / (SHRINK * SHRINK));
        held = needs(part, width, height);
        if (!hold.contains(held)) {
            throw new IllegalArgumentException(part + " needs " + held + ", and there is " + hold);
        }
        this.here = piece(here, hold);
        small = this.here.shrunk(SHRINK);
    }

    private Padded piece(Plane plane, Region hold) {
        Plane window = plane.window(held.inside(hold));
        // whole squares of the small picture, at the picture's own edge too
        return Padded.of(
                window,
                Math.ceilDiv(held.width(), COARSE_SQUARE) * COARSE_SQUARE,
                Math.ceilDiv(held.height(), COARSE_SQUARE) * COARSE_SQUARE);
    }

    /** Where each square of the part lies in a neighbour. */
    public static final class Motions {
        /** In eighths of a sample: across in the upper half of the number, down in the lower; by rows of squares. */
        private final int[] packed;
        /** The neighbour's luma, with its edge samples around it. */
        private final Padded luma;

        private Motions(int[] packed, Padded luma) {
            this.packed = packed;
            this.luma = luma;
        }
    }

    /**
     * Lays a neighbour over the part.
     *
     * @param there the neighbour, as large as the plane this was made with
     * @param out gets the part, its size
     */
    public void lay(Plane there, Region hold, Plane out, Work work) {
        lay(find(there, hold, work), out, work);
    }

    /** Finds where the squares of the part lie in a neighbour. @param there as large as the plane this was made with */
    public Motions find(Plane there, Region hold, Work work) {
        Padded other = piece(there, hold);
        int[] coarse = coarse(other.shrunk(SHRINK), work);
        Squares squares = squares();
        int[] packed = new int[squares.columns() * squares.rows()];
        work.bands(squares.rows(), 1, (first, end) -> {
            for (int j = first; j < end; j++) {
                for (int i = 0; i < squares.columns(); i++) {
                    packed[j * squares.columns() + i] = motion(other, coarse, squares.left() + i, squares.top() + j);
                }
            }
        });
        return new Motions(packed, other);
    }

    /** Lays a neighbour's luma over the part, by motions found before. */
    public void lay(Motions motions, Plane out, Work work) {
        Padded other = motions.luma;
        Squares squares = squares();
        work.bands(squares.rows(), 1, (first, end) -> {
            float[] rows = new float[(SQUARE + 3) * SQUARE];
            for (int j = first; j < end; j++) {
                for (int i = 0; i < squares.columns(); i++) {
                    int motion = motions.packed[j * squares.columns() + i];
                    fill(other, squares.left() + i, squares.top() + j, motion >> 16, (short) motion, rows, out);
                }
            }
        });
    }

    /**
     * Lays another plane of the neighbour over the part, by luma's motions.
     *
     * @param there the plane, over what hold is in its own samples
     * @param stepX luma samples to one of the plane's across, 1 or 2; @param stepY down
     * @param out gets the part, in the plane's samples
     */
    public void layOther(Motions motions, Plane there, Region hold, int stepX, int stepY, Plane out, Work work) {
        int x0 = (held.x() - hold.x()) / stepX;
        int y0 = (held.y() - hold.y()) / stepY;
        Plane window =
                there.window(new Region(x0, y0, Math.ceilDiv(held.width(), stepX), Math.ceilDiv(held.height(), stepY)));
        Padded other = Padded.of(window, window.width(), window.height());
        Squares squares = squares();
        int across = SQUARE / stepX;
        int down = SQUARE / stepY;
        int left = (part.x() - held.x()) / stepX;
        int top = (part.y() - held.y()) / stepY;
        work.bands(squares.rows(), 1, (first, end) -> {
            float[] rows = new float[(SQUARE + 3) * SQUARE];
            for (int j = first; j < end; j++) {
                for (int i = 0; i < squares.columns(); i++) {
                    int motion = motions.packed[j * squares.columns() + i];
                    int u = motion >> 16;
                    int v = (short) motion;
                    int x = (squares.left() + i) * across;
                    int y = (squares.top() + j) * down;
                    if (motion == 0) {
                        copy(other, x, y, across, down, left, top, out);
                        continue;
                    }
                    int dx = Math.floorDiv(u, PARTS * stepX);
                    int dy = Math.floorDiv(v, PARTS * stepY);
                    int cx = 4 * (Math.floorMod(u, PARTS * stepX) * 2 / stepX);
                    int cy = 4 * (Math.floorMod(v, PARTS * stepY) * 2 / stepY);
                    between(other, x + dx, y + dy, FINER, cx, cy, rows, x - left, y - top, across, down, out);
                }
            }
        });
    }

    /** The squares that touch the part, counted from the corner of what is held. */
    private record Squares(int left, int top, int columns, int rows) {}

    private Squares squares() {
        int left = (part.x() - held.x()) / SQUARE;
        int right = Math.min(Math.ceilDiv(part.right() - held.x(), SQUARE), here.width() / SQUARE);
        int top = (part.y() - held.y()) / SQUARE;
        int bottom = Math.ceilDiv(part.bottom() - held.y(), SQUARE);
        return new Squares(left, top, right - left, bottom - top);
    }

    /** Motion of squares of 16x16 in samples of the small pictures, x and y in turn. */
    private int[] coarse(Padded other, Work work) {
        int columns = here.width() / COARSE_SQUARE;
        int rows = here.height() / COARSE_SQUARE;
        int[] found = new int[2 * columns * rows];
        int margin = (COARSE_SIDE - COARSE_SQUARE / SHRINK) / 2;
        work.bands(rows, 1, (first, end) -> {
            float[] misfits = new float[RowMisfits.PLACES];
            for (int j = first; j < end; j++) {
                for (int i = 0; i < columns; i++) {
                    int x = i * COARSE_SQUARE / SHRINK - margin;
                    int y = j * COARSE_SQUARE / SHRINK - margin;
                    float still = smallMisfit(other, x, y, 0, 0);
                    if (still < smallSame) {
                        continue;
                    }
                    float least = STILL * still;
                    for (int v = -COARSE; v <= COARSE; v++) {
                        int at = small.at(x, y);
                        int there = other.at(x - COARSE, y + v);
                        ROW.of(small.data(), at, small.stride(), other.data(), there, other.stride(), misfits);
                        for (int u = -COARSE; u <= COARSE; u++) {
                            float misfit = misfits[u + COARSE];
                            if (misfit < least) {
                                least = misfit;
                                found[2 * (j * columns + i)] = u;
                                found[2 * (j * columns + i) + 1] = v;
                            }
                        }
                    }
                }
            }
        });
        return found;
    }

    private float smallMisfit(Padded other, int x, int y, int u, int v) {
        float sum = 0;
        for (int row = 0; row < COARSE_SIDE; row++) {
            int a = small.at(x, y + row);
            int b = other.at(x + u, y + v + row);
            for (int k = 0; k < COARSE_SIDE; k++) {
                float d = small.data()[a + k] - other.data()[b + k];
                sum += d * d;
            }
        }
        return sum;
    }

    /** Motion of a square in eighths: across in the upper half of the number, down in the lower. */
    private int motion(Padded other, int[] coarse, int i, int j) {
        int columns = here.width() / COARSE_SQUARE;
        int rows = here.height() / COARSE_SQUARE;
        int x = i * SQUARE - SQUARE / 2;
        int y = j * SQUARE - SQUARE / 2;
        float still = misfit(other, x, y, 0, 0);
        if (still < same) {
            return 0;
        }
        // small motion falls between the small pictures' samples, so it is looked for by itself
        var near = new Best(other, x, y, still, STILL * still);
        near.around(4);
        near.around(2);
        near.around(1);
        var far = new Best(other, x, y, still, still);
        int[] tried = new int[10];
        for (int k = 0; k < 5; k++) {
            int ci = Math.clamp(i / 2 + (k == 1 ? -1 : k == 2 ? 1 : 0), 0, columns - 1);
            int cj = Math.clamp(j / 2 + (k == 3 ? -1 : k == 4 ? 1 : 0), 0, rows - 1);
            int at = 2 * (cj * columns + ci);
            tried[2 * k] = coarse[at];
            tried[2 * k + 1] = coarse[at + 1];
            if (!isAmong(tried, k)) {
                far.attempt(coarse[at] * SHRINK, coarse[at + 1] * SHRINK);
            }
        }
        if (far.isStill()) {
            return near.eighths();
        }
        far.around(2);
        far.around(1);
        return (far.least < near.least ? far : near).eighths();
    }

    /** Whether pair k is the same as one before it: neighbours mostly move alike. */
    private static boolean isAmong(int[] pairs, int k) {
        for (int i = 0; i < 2 * k; i += 2) {
            if (pairs[i] == pairs[2 * k] && pairs[i + 1] == pairs[2 * k + 1]) {
                return true;
            }
        }
        return false;
    }

    private float misfit(Padded other, int x, int y, int u, int v) {
        return MISFIT.of(
                here.data(), here.at(x, y), here.stride(), other.data(), other.at(x + u, y + v), other.stride());
    }

    /** The best place found so far for one square. */
    private final class Best {
        private final Padded other;
        private final int x;
        private final int y;
        private int u;
        private int v;
        private float least;
        /** The misfit there; above {@code least} only as long as nothing fitted better than the square that lies still. */
        private float own;
        /** What was looked at last, around one place: that place, left of it, right, above and below. */
        private int aroundU;

        private int aroundV;
        private final float[] cross = new float[5];
        private final float still;

        /** @param still misfit of the square that lies still; @param least what a moved square has to fit better than */
        Best(Padded other, int x, int y, float still, float least) {
            this.other = other;
            this.x = x;
            this.y = y;
            this.own = still;
            this.still = still;
            this.least = least;
        }

        private float misfit(int u, int v) {
            return u == 0 && v == 0 ? still : Alignment.this.misfit(other, x, y, u, v);
        }

        float attempt(int u, int v) {
            if (u == this.u && v == this.v) {
                return own;
            }
            float misfit = misfit(u, v);
            if (misfit < least && (u != 0 || v != 0)) {
                least = misfit;
                own = misfit;
                this.u = u;
                this.v = v;
            }
            return misfit;
        }

        boolean isStill() {
            return u == 0 && v == 0;
        }

        void around(int step) {
            aroundU = u;
            aroundV = v;
            cross[0] = own;
            cross[1] = attempt(aroundU - step, aroundV);
            cross[2] = attempt(aroundU + step, aroundV);
            cross[3] = attempt(aroundU, aroundV - step);
            cross[4] = attempt(aroundU, aroundV + step);
        }

        /** Behind {@code around(1)}: between whole samples. */
        int eighths() {
            int across = PARTS * u + lowest(beside(-1, 0), own, beside(1, 0));
            int down = PARTS * v + lowest(beside(0, -1), own, beside(0, 1));
            return across << 16 | down & 0xFFFF;
        }

        /** Beside the best place; most of it was looked at already. */
        private float beside(int du, int dv) {
            int fromU = u + du - aroundU;
            int fromV = v + dv - aroundV;
            if (fromU == 0 && fromV == 0) {
                return cross[0];
            }
            if (Math.abs(fromU) + Math.abs(fromV) == 1) {
                return cross[fromU == -1 ? 1 : fromU == 1 ? 2 : fromV == -1 ? 3 : 4];
            }
            return misfit(u + du, v + dv);
        }
    }

    /** Where a parabola through three places is lowest, in eighths from the middle, at most half a sample. */
    private static int lowest(float before, float middle, float after) {
        float bend = before + after - 2 * middle;
        if (bend <= 1e-9f) {
            return 0;
        }
        return Math.clamp(Math.round(PARTS * (before - after) / (2 * bend)), -PARTS / 2, PARTS / 2);
    }

    /** Writes what of a square lies in the part. */
    private void fill(Padded other, int i, int j, int across, int down, float[] rows, Plane out) {
        if (across == 0 && down == 0) {
            copy(other, i * SQUARE, j * SQUARE, SQUARE, SQUARE, part.x() - held.x(), part.y() - held.y(), out);
            return;
        }
        int x = i * SQUARE + Math.floorDiv(across, PARTS);
        int y = j * SQUARE + Math.floorDiv(down, PARTS);
        int cx = 4 * Math.floorMod(across, PARTS);
        int cy = 4 * Math.floorMod(down, PARTS);
        int left = held.x() + i * SQUARE - part.x();
        int top = held.y() + j * SQUARE - part.y();
        between(other, x, y, CUBIC, cx, cy, rows, left, top, SQUARE, SQUARE, out);
    }

    /**
     * Writes what out holds of a square that lies between samples.
     *
     * @param weights of all parts of a sample; those from cx on across, from cy on down
     * @param rows has room for {@link #SQUARE} and three rows of a square
     * @param left and top where the square lies in out, beyond its edges too
     */
    private static void between(
            Padded other,
            int x,
            int y,
            float[] weights,
            int cx,
            int cy,
            float[] rows,
            int left,
            int top,
            int across,
            int down,
            Plane out) {
        int from = Math.max(0, -left);
        int end = Math.min(across, out.width() - left);
        int last = Math.min(down, out.height() - top);
        if (end <= from) {
            return;
        }
        for (int row = 0; row < down + 3; row++) {
            BETWEEN.of(other.data(), other.at(x - 1, y - 1 + row), 1, weights, cx, rows, row * SQUARE);
        }
        float[] made = new float[SQUARE];
        for (int row = Math.max(0, -top); row < last; row++) {
            BETWEEN.of(rows, row * SQUARE, SQUARE, weights, cy, made, 0);
            System.arraycopy(made, from, out.data(), out.row(top + row) + left + from, end - from);
        }
    }

    /** A square that lies still: its samples as they are. @param left and top of what out covers */
    private static void copy(Padded other, int x, int y, int across, int down, int left, int top, Plane out) {
        int from = Math.max(x, left);
        int end = Math.min(x + across, left + out.width());
        for (int row = Math.max(y, top); row < Math.min(y + down, top + out.height()) && end > from; row++) {
            System.arraycopy(
                    other.data(), other.at(from, row), out.data(), out.row(row - top) + from - left, end - from);
        }
    }
}
