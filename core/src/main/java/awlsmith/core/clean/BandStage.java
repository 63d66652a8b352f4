package awlsmith.core.clean;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

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
    /** Share of level pairs from which on a square counts as banded, and from which on wholly. */
    private static final float SOME = 0.55f;

    private static final float MOST = 0.8f;
    /** Code values of 8 bits between black and white. */
    private static final int CODES = 219;

    private final Format format;
    private final float code;
    private final float step;
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
        this.code = 1f / (CODES << format.depth() - 8);
        this.step = (float) step * code;
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
                for (int x = 0; x < out.width(); x++) {
                    float own = in.at(left + x, top + y);
                    float share = Math.clamp((level.at(left + x, top + y) - SOME) / (MOST - SOME), 0f, 1f);
                    out.set(x, y, own + share * (smooth.at(left + x, top + y) - own));
                }
            }
        });
        pool.giveBack(level);
        pool.giveBack(other);
        pool.giveBack(smooth);
    }

    /** Each sample becomes a mean of itself and the two that lie so far off, as far as these differ by less than a step. */
    private void along(Plane from, Plane to, int across, int down, Work work) {
        float slope = 1 / (step * step);
        int width = from.width();
        work.bands(from.height(), 16, (first, end) -> {
            work.cancel().check();
            float[] sum = new float[width];
            float[] all = new float[width];
            for (int y = first; y < end; y++) {
                int own = from.row(y);
                for (int x = 0; x < width; x++) {
                    sum[x] = 2 * from.data()[own + x];
                    all[x] = 2;
                }
                if (y - down >= 0) {
                    add(from.data(), own, from.row(y - down) - across, sum, all, across, width, slope);
                }
                if (y + down < from.height()) {
                    add(from.data(), own, from.row(y + down) + across, sum, all, 0, width - across, slope);
                }
                int at = to.row(y);
                for (int x = 0; x < width; x++) {
                    to.data()[at + x] = sum[x] / all[x];
                }
            }
        });
    }

    private static void add(float[] data, int own, int there, float[] sum, float[] all, int from, int to, float slope) {
        for (int x = from; x < to; x++) {
            float d = data[there + x] - data[own + x];
            float weight = Math.max(0f, 1 - d * d * slope);
            sum[x] += weight * data[there + x];
            all[x] += weight;
        }
    }

    /** Share of the pairs of neighbours around each sample that are level. */
    private Plane level(Plane in, PlanePool pool, Work work) {
        int width = in.width();
        Plane rows = pool.borrow(width, in.height());
        float most = LEVEL * code;
        work.bands(in.height(), 16, (first, end) -> {
            float[] pairs = new float[width];
            for (int y = first; y < end; y++) {
                int own = in.row(y);
                // at the last row and column the pair before it
                int next = in.row(y + 1 < in.height() ? y + 1 : Math.max(0, y - 1));
                for (int x = 0; x < width; x++) {
                    int beside = x + 1 < width ? x + 1 : Math.max(0, x - 1);
                    float right = in.data()[own + beside] - in.data()[own + x];
                    float down = in.data()[next + x] - in.data()[own + x];
                    pairs[x] = (Math.abs(right) < most ? 1 : 0) + (Math.abs(down) < most ? 1 : 0);
                }
                for (int x = 0; x < width; x++) {
                    float sum = 0;
                    for (int k = -AROUND; k <= AROUND; k++) {
                        sum += pairs[Math.clamp(x + k, 0, width - 1)];
                    }
                    rows.set(x, y, sum);
                }
            }
        });
        Plane out = pool.borrow(width, in.height());
        float all = 2 * (2 * AROUND + 1) * (2 * AROUND + 1);
        work.bands(in.height(), 16, (first, end) -> {
            for (int y = first; y < end; y++) {
                for (int x = 0; x < width; x++) {
                    float sum = 0;
                    for (int k = -AROUND; k <= AROUND; k++) {
                        sum += rows.at(x, Math.clamp(y + k, 0, in.height() - 1));
                    }
                    out.set(x, y, sum / all);
                }
            }
        });
        pool.giveBack(rows);
        return out;
    }
}
