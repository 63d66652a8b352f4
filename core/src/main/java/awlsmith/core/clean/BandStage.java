package awlsmith.core.clean;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.TapRows;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/**
 * Makes slopes of the steps that few code values or a codec made of them. Where a plane consists of level pieces with small steps between, it is
 * smoothed from ever farther samples, as far as these differ by no more than a step; where it has texture of its own, it stays as it is. The
 * slopes lie between code values, so that what writes the file has to dither them, and does.
 *
 * <p>Shape: any planes, each at its own size. Units: 0..1. Border: samples beyond the picture's edges count for nothing. Source: smoothing with
 * holes, from samples twice as far each time, weighed by how little they differ: H. Dammertz et al., "Edge-avoiding a-trous wavelet transform
 * for fast global illumination filtering", High Performance Graphics 2010, here along rows and columns one after the other; that level pieces
 * tell bands from texture is our own. Cost: O(area * log reach).
 */
public final class BandStage implements Stage {
    /** Doublings of the distance at most. */
    public static final int MOST_ROUNDS = 7;

    /** Half a side of the square that is asked for level pieces. */
    private static final int AROUND = 5;
    /** Samples that differ by less than this share of a code value are level. */
    private static final float LEVEL = 0.35f;
    /** Code values of 8 bits between black and white. */
    private static final int CODES = 219;

    private final Format format;
    private final BandRows rows;
    private final int rounds;

    /**
     * @param step how many code values high the steps are, of the depth the pictures came in, above 0
     * @param rounds so many times the distance is doubled, 1..7: steps up to 2^rounds samples apart become slopes
     */
    public BandStage(Format format, double step, int rounds) {
        if (!(step > 0) || rounds < 1 || rounds > MOST_ROUNDS) {
            throw new IllegalArgumentException("step is " + step + " and rounds " + rounds);
        }
        this.format = format;
        float code = 1f / (CODES << format.depth() - 8);
        this.rows = new BandRows((float) step * code, LEVEL * code, Lanes.chosen());
        this.rounds = rounds;
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        int by = reach() * Math.max(format.chroma().stepX(), format.chroma().stepY());
        return wanted.grown(by, format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    private int reach() {
        return Math.max((1 << rounds) - 1, AROUND + 1);
    }

    @Override
    public long sharedBytes() {
        return 4L * Float.BYTES * format.width() * format.height();
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Frame in = input.at(0).cut(needs(wanted));
        Frame out = Frame.blank(format, wanted, in.number(), in.time(), pool);
        Chroma chroma = format.chroma();
        for (int p = 0; p < out.planes().size(); p++) {
            int left = (wanted.x() - in.window().x()) / chroma.stepX(p);
            int top = (wanted.y() - in.window().y()) / chroma.stepY(p);
            plane(in.plane(p), left, top, out.plane(p), pool, work);
        }
        return out;
    }

    private void plane(Plane in, int left, int top, Plane out, PlanePool pool, Work work) {
        Plane smooth = pool.borrow(in.width(), in.height());
        Plane other = pool.borrow(in.width(), in.height());
        for (int y = 0; y < in.height(); y++) {
            smooth.takeRow(y, in, y);
        }
        for (int round = 0; round < rounds; round++) {
            int far = 1 << round;
            along(smooth, other, far, 0, work);
            along(other, smooth, 0, far, work);
        }
        Plane level = level(in, pool, work);
        work.bands(out.height(), 16, (from, to) -> {
            for (int y = from; y < to; y++) {
                rows.mixed(
                        in.data(),
                        in.row(top + y) + left,
                        smooth.data(),
                        smooth.row(top + y) + left,
                        level.data(),
                        level.row(top + y) + left,
                        out.data(),
                        out.row(y),
                        out.width());
            }
        });
        pool.giveBack(level);
        pool.giveBack(other);
        pool.giveBack(smooth);
    }

    /** Each sample becomes a mean of itself and the two that lie so far off, as far as these differ by less than a step. */
    private void along(Plane from, Plane to, int across, int down, Work work) {
        int width = from.width();
        work.bands(from.height(), 16, (first, end) -> {
            work.cancel().check();
            for (int y = first; y < end; y++) {
                int own = from.row(y);
                int before = y - down >= 0 ? from.row(y - down) - across : BandRows.NONE;
                int after = y + down < from.height() ? from.row(y + down) + across : BandRows.NONE;
                rows.mean(from.data(), own, before, after, across, width, to.data(), to.row(y));
            }
        });
    }

    /** Share of the pairs of neighbours around each sample that are level. */
    private Plane level(Plane in, PlanePool pool, Work work) {
        int width = in.width();
        Plane across = pool.borrow(width, in.height());
        float all = 2 * (2 * AROUND + 1) * (2 * AROUND + 1);
        var ones = new float[2 * AROUND + 1];
        Arrays.fill(ones, 1);
        var sums = new TapRows(ones);
        work.bands(in.height(), 16, (first, end) -> {
            var pairs = Plane.of(width, 1);
            float[] around = new float[width + 2 * AROUND];
            int[] starts = new int[ones.length];
            Arrays.setAll(starts, k -> k);
            for (int y = first; y < end; y++) {
                // at the last row and column the pair before it
                int next = in.row(y + 1 < in.height() ? y + 1 : Math.max(0, y - 1));
                rows.level(in.data(), in.row(y), next, width, pairs.data());
                pairs.rowAround(0, -AROUND, around);
                sums.sum(around, starts, across.data(), across.row(y), width);
            }
        });
        Plane out = pool.borrow(width, in.height());
        Arrays.fill(ones, 1 / all);
        var share = new TapRows(ones);
        work.bands(in.height(), 16, (first, end) -> {
            int[] starts = new int[ones.length];
            for (int y = first; y < end; y++) {
                for (int k = 0; k < starts.length; k++) {
                    starts[k] = across.row(Math.clamp(y + k - (long) AROUND, 0, in.height() - 1));
                }
                share.sum(across.data(), starts, out.data(), out.row(y), width);
            }
        });
        pool.giveBack(across);
        return out;
    }
}
