package awlsmith.core.motion;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;

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
    private static final int COARSE = 4;

    private static final int COARSE_SIDE = 6;
    private static final int SHRINK = 4;
    private static final int COARSE_SQUARE = SQUARE * 2;
    private static final int PAD = 32;
    /** A moved square must fit better than the still one by this much; grain alone lets one of many fit better by chance. */
    private static final float STILL = 0.85f;

    /** Misfit of a square that is as good as the same: half a level of 255 at each sample. */
    private static final float SAME = 256 * 0.25f / (255 * 255);

    private static final int PARTS = 8;
    private static final float[] CUBIC = cubic();
    private static final SquareMisfit MISFIT = SquareMisfit.chosen();

    private final Region part;
    private final Region held;
    private final Padded here;
    private final Padded small;

    /** A packed plane with its edge samples repeated around it. */
    private record Padded(float[] data, int stride, int width, int height) {
        static Padded of(Plane p, int width, int height) {
            int stride = width + 2 * PAD;
            float[] data = new float[stride * (height + 2 * PAD)];
            for (int y = -PAD; y < height + PAD; y++) {
                int row = p.row(Math.clamp(y, 0, p.height() - 1));
                int at = (y + PAD) * stride;
                int inner = Math.min(width, p.width());
                for (int x = 0; x < PAD; x++) {
                    data[at + x] = p.data()[row];
                }
                System.arraycopy(p.data(), row, data, at + PAD, inner);
                for (int x = PAD + inner; x < stride; x++) {
                    data[at + x] = p.data()[row + p.width() - 1];
                }
            }
            return new Padded(data, stride, width, height);
        }

        int at(int x, int y) {
            return (y + PAD) * stride + x + PAD;
        }

        /** Means of 4x4. */
        Padded shrunk() {
            Plane small = Plane.of(Math.ceilDiv(width, SHRINK), Math.ceilDiv(height, SHRINK));
            for (int y = 0; y < small.height(); y++) {
                for (int x = 0; x < small.width(); x++) {
                    float sum = 0;
                    for (int j = 0; j < SHRINK; j++) {
                        int at = at(x * SHRINK, y * SHRINK + j);
                        sum += data[at] + data[at + 1] + data[at + 2] + data[at + 3];
                    }
                    small.set(x, y, sum / (SHRINK * SHRINK));
                }
            }
            return of(small, small.width(), small.height());
        }
    }

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
        this.part = part;
        held = needs(part, width, height);
        if (!hold.contains(held)) {
            throw new IllegalArgumentException(part + " needs " + held + ", and there is " + hold);
        }
        this.here = piece(here, hold);
        small = this.here.shrunk();
    }

    private Padded piece(Plane plane, Region hold) {
        Plane window = plane.window(new Region(held.x() - hold.x(), held.y() - hold.y(), held.width(), held.height()));
        // whole squares of the small picture, at the picture's own edge too
        return Padded.of(
                window,
                Math.ceilDiv(held.width(), COARSE_SQUARE) * COARSE_SQUARE,
                Math.ceilDiv(held.height(), COARSE_SQUARE) * COARSE_SQUARE);
    }

    /**
     * Lays a neighbour over the part.
     *
     * @param there the neighbour, as large as the plane this was made with
     * @param out gets the part, its size
     */
    public void lay(Plane there, Region hold, Plane out, Work work) {
        Padded other = piece(there, hold);
        int[] coarse = coarse(other.shrunk(), work);
        int columns = here.width / SQUARE;
        int left = (part.x() - held.x()) / SQUARE;
        int right = Math.ceilDiv(part.right() - held.x(), SQUARE);
        int top = (part.y() - held.y()) / SQUARE;
        int bottom = Math.ceilDiv(part.bottom() - held.y(), SQUARE);
        work.bands(bottom - top, 1, (first, end) -> {
            float[] rows = new float[(SQUARE + 3) * SQUARE];
            for (int j = top + first; j < top + end; j++) {
                for (int i = left; i < Math.min(right, columns); i++) {
                    int motion = motion(other, coarse, i, j);
                    fill(other, i, j, motion >> 16, (short) motion, rows, out);
                }
            }
        });
    }

    /** Motion of squares of 16x16 in samples of the small pictures, x and y in turn. */
    private int[] coarse(Padded other, Work work) {
        int columns = here.width / COARSE_SQUARE;
        int rows = here.height / COARSE_SQUARE;
        int[] found = new int[2 * columns * rows];
        int margin = (COARSE_SIDE - COARSE_SQUARE / SHRINK) / 2;
        work.bands(rows, 1, (first, end) -> {
            for (int j = first; j < end; j++) {
                for (int i = 0; i < columns; i++) {
                    int x = i * COARSE_SQUARE / SHRINK - margin;
                    int y = j * COARSE_SQUARE / SHRINK - margin;
                    float least = STILL * smallMisfit(other, x, y, 0, 0);
                    for (int v = -COARSE; v <= COARSE; v++) {
                        for (int u = -COARSE; u <= COARSE; u++) {
                            float misfit = smallMisfit(other, x, y, u, v);
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
                float d = small.data[a + k] - other.data[b + k];
                sum += d * d;
            }
        }
        return sum;
    }

    /** Motion of a square in eighths: across in the upper half of the number, down in the lower. */
    private int motion(Padded other, int[] coarse, int i, int j) {
        int columns = here.width / COARSE_SQUARE;
        int rows = here.height / COARSE_SQUARE;
        int x = i * SQUARE - SQUARE / 2;
        int y = j * SQUARE - SQUARE / 2;
        float still = misfit(other, x, y, 0, 0);
        if (still < SAME) {
            return 0;
        }
        // small motion falls between the small pictures' samples, so it is looked for by itself
        var near = new Best(other, x, y, STILL * still);
        near.around(4);
        near.around(2);
        near.around(1);
        var far = new Best(other, x, y, still);
        for (int k = 0; k < 5; k++) {
            int ci = Math.clamp(i / 2 + (k == 1 ? -1 : k == 2 ? 1 : 0), 0, columns - 1);
            int cj = Math.clamp(j / 2 + (k == 3 ? -1 : k == 4 ? 1 : 0), 0, rows - 1);
            int at = 2 * (cj * columns + ci);
            far.attempt(coarse[at] * SHRINK, coarse[at + 1] * SHRINK);
        }
        if (far.isStill()) {
            return near.eighths();
        }
        far.around(2);
        far.around(1);
        return (far.least < near.least ? far : near).eighths();
    }

    private float misfit(Padded other, int x, int y, int u, int v) {
        return MISFIT.of(here.data, here.at(x, y), here.stride, other.data, other.at(x + u, y + v), other.stride);
    }

    /** The best place found so far for one square. */
    private final class Best {
        private final Padded other;
        private final int x;
        private final int y;
        private int u;
        private int v;
        private float least;

        /** @param least what a moved square has to fit better than */
        Best(Padded other, int x, int y, float least) {
            this.other = other;
            this.x = x;
            this.y = y;
            this.least = least;
        }

        private float misfit(int u, int v) {
            return Alignment.this.misfit(other, x, y, u, v);
        }

        void attempt(int u, int v) {
            if (u == 0 && v == 0 || u == this.u && v == this.v) {
                return;
            }
            float misfit = misfit(u, v);
            if (misfit < least) {
                least = misfit;
                this.u = u;
                this.v = v;
            }
        }

        boolean isStill() {
            return u == 0 && v == 0;
        }

        void around(int step) {
            int cu = u;
            int cv = v;
            attempt(cu - step, cv);
            attempt(cu + step, cv);
            attempt(cu, cv - step);
            attempt(cu, cv + step);
        }

        int eighths() {
            float middle = misfit(u, v);
            int across = PARTS * u + lowest(misfit(u - 1, v), middle, misfit(u + 1, v));
            int down = PARTS * v + lowest(misfit(u, v - 1), middle, misfit(u, v + 1));
            return across << 16 | down & 0xFFFF;
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
        int x = i * SQUARE + Math.floorDiv(across, PARTS);
        int y = j * SQUARE + Math.floorDiv(down, PARTS);
        int cx = 4 * Math.floorMod(across, PARTS);
        int cy = 4 * Math.floorMod(down, PARTS);
        for (int row = 0; row < SQUARE + 3; row++) {
            int at = other.at(x - 1, y - 1 + row);
            for (int k = 0; k < SQUARE; k++) {
                rows[row * SQUARE + k] = CUBIC[cx] * other.data[at + k]
                        + CUBIC[cx + 1] * other.data[at + k + 1]
                        + CUBIC[cx + 2] * other.data[at + k + 2]
                        + CUBIC[cx + 3] * other.data[at + k + 3];
            }
        }
        int left = held.x() + i * SQUARE - part.x();
        int top = held.y() + j * SQUARE - part.y();
        for (int row = Math.max(0, -top); row < Math.min(SQUARE, part.height() - top); row++) {
            int to = out.row(top + row) + left;
            for (int k = Math.max(0, -left); k < Math.min(SQUARE, part.width() - left); k++) {
                int at = row * SQUARE + k;
                out.data()[to + k] = CUBIC[cy] * rows[at]
                        + CUBIC[cy + 1] * rows[at + SQUARE]
                        + CUBIC[cy + 2] * rows[at + 2 * SQUARE]
                        + CUBIC[cy + 3] * rows[at + 3 * SQUARE];
            }
        }
    }

    /** Catmull-Rom's four weights for each eighth. */
    private static float[] cubic() {
        float[] all = new float[4 * PARTS];
        for (int i = 0; i < PARTS; i++) {
            for (int k = 0; k < 4; k++) {
                all[4 * i + k] = (float) Kernel.CATMULL_ROM.at(k - 1 - (double) i / PARTS);
            }
        }
        return all;
    }
}
