package awlsmith.core.detail;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

/**
 * Makes slopes of the stairs that slanting edges climb in where they were sampled too coarsely: every sample of an edge becomes a weighed mean
 * of those along it, so that the steps of the stairs run into each other and the edge stays as steep as it was. Where edges meet, where there is
 * texture, and on surfaces nothing is done.
 *
 * <p>The direction of edges is the one that light changes least in, by the sums of products of its slopes: M. Kass and A. Witkin, "Analyzing
 * oriented patterns", Computer Vision, Graphics, and Image Processing 37, 1987; means along directions: B. Cabral and L. Leedom, "Imaging
 * vector fields using line integral convolution", SIGGRAPH 1993, here along straight lines; that edges alone are treated, and how far, is ours.
 */
public final class StairStage implements Stage {
    /** Slope, of a sample, from which on something is an edge by half. */
    private static final float EDGE = 6f / 255;
    /** Less than this is left as it is. */
    private static final float LEAST = 0.02f;

    private final Format format;
    private final int reach;
    private final float amount;
    private final Bells around;
    private final float[] weights;

    /**
     * @param reach samples each way along the edge, 1..12
     * @param amount share of the mean, 0..1
     */
    public StairStage(Format format, int reach, double amount) {
        this.format = format;
        this.reach = reach;
        this.amount = (float) amount;
        around = new Bells(Math.max(1, reach / 2.0));
        weights = new float[reach + 1];
        double sum = 0;
        for (int k = -reach; k <= reach; k++) {
            sum += bell(k);
        }
        for (int k = 0; k <= reach; k++) {
            weights[k] = (float) (bell(k) / sum);
        }
    }

    private double bell(int k) {
        double sigma = (reach + 1) / 2.0;
        return Math.exp(-k * k / (2 * sigma * sigma));
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        return wanted.grown(Math.max(around.reach() + 1, reach + 1), format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    @Override
    public long sharedBytes() {
        return 7L * Float.BYTES * format.width() * format.height();
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Region held = needs(wanted);
        Frame in = input.at(0).cut(held);
        Frame out = in.copy(wanted, in.number(), in.time(), pool);
        Region within = wanted.inside(held);
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        for (int p = 0; p < lights; p++) {
            smooth(in.plane(p), within, out.plane(p), pool, work);
        }
        return out;
    }

    private void smooth(Plane in, Region within, Plane out, PlanePool pool, Work work) {
        Plane[] sums = new Plane[3];
        Plane products = pool.borrow(in.width(), in.height());
        for (int k = 0; k < sums.length; k++) {
            int which = k;
            work.bands(in.height(), 16, (from, to) -> {
                for (int y = from; y < to; y++) {
                    products(in, y, which, products);
                }
            });
            sums[k] = pool.borrow(within.width(), within.height());
            around.blur(products, within, sums[k], pool, work);
        }
        pool.giveBack(products);
        work.bands(out.height(), 8, (from, to) -> {
            for (int y = from; y < to; y++) {
                work.cancel().check();
                row(in, within, sums, y, out);
            }
        });
        for (Plane sum : sums) {
            pool.giveBack(sum);
        }
    }

    /** Products of the slopes across and down: across squared, down squared, both. */
    private static void products(Plane in, int y, int which, Plane out) {
        int above = in.row(Math.max(0, y - 1));
        int here = in.row(y);
        int below = in.row(Math.min(in.height() - 1, y + 1));
        float[] d = in.data();
        int to = out.row(y);
        int last = in.width() - 1;
        for (int x = 0; x <= last; x++) {
            float across = (d[here + Math.min(last, x + 1)] - d[here + Math.max(0, x - 1)]) / 2;
            float down = (d[below + x] - d[above + x]) / 2;
            out.data()[to + x] = which == 0 ? across * across : which == 1 ? down * down : across * down;
        }
    }

    private void row(Plane in, Region within, Plane[] sums, int y, Plane out) {
        int to = out.row(y);
        for (int x = 0; x < out.width(); x++) {
            float xx = sums[0].at(x, y);
            float yy = sums[1].at(x, y);
            float xy = sums[2].at(x, y);
            float both = xx + yy;
            float spread = (float) Math.sqrt((xx - yy) * (xx - yy) + 4 * xy * xy);
            float strong = (both + spread) / 2;
            // one direction alone: 1 of straight edges, 0 where edges meet and of texture
            float straight = both > 0 ? spread / both : 0;
            float share = amount * straight * straight * strong / (strong + EDGE * EDGE);
            if (!(share > LEAST)) {
                continue;
            }
            // across the edge is half the angle of the sums'; the edge runs square to that
            double angle = 0.5 * Math.atan2(2 * xy, xx - yy);
            float own = out.data()[to + x];
            float mean = along(in, within.x() + x, within.y() + y, (float) -Math.sin(angle), (float) Math.cos(angle));
            out.data()[to + x] = own + share * (mean - own);
        }
    }

    private float along(Plane in, int x, int y, float dx, float dy) {
        float sum = weights[0] * in.at(x, y);
        for (int k = 1; k <= reach; k++) {
            sum += weights[k] * (between(in, x, y, k * dx, k * dy) + between(in, x, y, -k * dx, -k * dy));
        }
        return sum;
    }

    /** Between samples, straight lines; beyond the edges the edge samples. What is added to whole places is rounded alike in every part. */
    private static float between(Plane in, int x, int y, float dx, float dy) {
        int across = (int) Math.floor(dx);
        int down = (int) Math.floor(dy);
        float right = dx - across;
        float below = dy - down;
        int left = Math.clamp(x + across, 0, in.width() - 1);
        int next = Math.clamp(x + across + 1, 0, in.width() - 1);
        int top = in.row(Math.clamp(y + down, 0, in.height() - 1));
        int under = in.row(Math.clamp(y + down + 1, 0, in.height() - 1));
        float[] d = in.data();
        float one = d[top + left] + right * (d[top + next] - d[top + left]);
        float other = d[under + left] + right * (d[under + next] - d[under + left]);
        return one + below * (other - one);
    }
}
