package awlsmith.core.clean;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;

/**
 * Takes the dots away by which a picture of few colours stands in for more, and the grain of drawing paper: each sample becomes the mean of those
 * around it that lie in the same surface. What lies in the same surface is told by a softened picture, in which dots are faint and edges and
 * lines stay: so a line is averaged along itself. A second pass is told it by the first one's result, which has its edges firm again.
 *
 * <p>Shape: planes of one size, R'G'B' or grey. Units: 0..1; excursions are kept. Border: samples beyond the picture's edges count for nothing.
 * Source: weights from another picture than the one averaged: E. Eisemann and F. Durand, "Flash photography enhancement via intrinsic
 * relighting", and G. Petschnigg et al., "Digital photography with flash and no-flash image pairs", both ACM Transactions on Graphics 23(3),
 * 2004; a guide that is found anew from pass to pass: Q. Zhang et al., "Rolling guidance filter", ECCV 2014. Cost: O(area * radius^2).
 */
public final class DitherStage implements Stage {
    /** Samples each way that may be averaged. */
    public static final int MOST_RADIUS = 6;

    private static final int PASSES = 2;
    /** Weights of the softened picture, each way: a bell of one and a quarter samples. */
    private static final float[] SOFT = bell(1.25, 3);
    /** Share of a colour's difference that is left of a dot once it is softened. */
    private static final float LEFT = 0.5f;
    /** Steps of colour by which a sample may be moved at most. */
    private static final float FARTHEST = 1.3f;

    private final Format format;
    private final float step;
    private final int radius;

    /**
     * @param step difference of two colours that dots are made of, 0..1: what differs by more is an edge
     * @param radius samples each way that are averaged, 1..6
     */
    public DitherStage(Format format, double step, int radius) {
        if (!(step > 0 && step <= 1) || radius < 1 || radius > MOST_RADIUS) {
            throw new IllegalArgumentException("step is " + step + " and radius " + radius);
        }
        if (format.chroma().isSubsampled()) {
            throw new IllegalArgumentException("colours of " + format.chroma() + " have no samples of their own");
        }
        this.format = format;
        this.step = (float) step;
        this.radius = radius;
    }

    private static float[] bell(double sigma, int reach) {
        float[] taps = new float[2 * reach + 1];
        double sum = 0;
        for (int i = 0; i < taps.length; i++) {
            sum += Math.exp(-(i - reach) * (i - reach) / (2 * sigma * sigma));
        }
        for (int i = 0; i < taps.length; i++) {
            taps[i] = (float) (Math.exp(-(i - reach) * (i - reach) / (2 * sigma * sigma)) / sum);
        }
        return taps;
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        return grown(wanted, PASSES * radius + SOFT.length / 2);
    }

    private Region grown(Region part, int by) {
        return part.grown(by, format.width(), format.height());
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Region held = needs(wanted);
        Frame in = input.at(0).cut(held);
        Frame out = Frame.blank(format, wanted, in.number(), in.time(), pool);
        Region first = grown(wanted, radius);
        Region told = grown(first, radius);
        List<Plane> own = in.planes();
        List<Plane> soft = own.stream()
                .map(plane -> softened(plane, told.inside(held), pool, work))
                .toList();
        List<Plane> once = blank(first, own.size(), pool);
        pass(windows(own, told.inside(held)), soft, LEFT * step, first.inside(told), once, work);
        pass(windows(own, first.inside(held)), once, step, wanted.inside(first), out.planes(), work);
        soft.forEach(pool::giveBack);
        once.forEach(pool::giveBack);
        return out;
    }

    private static List<Plane> windows(List<Plane> planes, Region part) {
        return planes.stream().map(plane -> plane.window(part)).toList();
    }

    private static List<Plane> blank(Region part, int count, PlanePool pool) {
        var all = new ArrayList<Plane>();
        for (int i = 0; i < count; i++) {
            all.add(pool.borrow(part.width(), part.height()));
        }
        return all;
    }

    /** A part of a plane, blurred; at the picture's edges the edge samples go on. */
    private static Plane softened(Plane in, Region part, PlanePool pool, Work work) {
        Plane out = pool.borrow(part.width(), part.height());
        int reach = SOFT.length / 2;
        work.bands(part.height(), 16, (from, to) -> {
            float[] row = new float[in.width()];
            for (int y = from; y < to; y++) {
                java.util.Arrays.fill(row, 0);
                for (int k = -reach; k <= reach; k++) {
                    int at = in.row(Math.clamp(part.y() + y + k, 0, in.height() - 1));
                    float tap = SOFT[k + reach];
                    for (int x = 0; x < row.length; x++) {
                        row[x] += tap * in.data()[at + x];
                    }
                }
                for (int x = 0; x < part.width(); x++) {
                    float sum = 0;
                    for (int k = -reach; k <= reach; k++) {
                        sum += SOFT[k + reach] * row[Math.clamp(part.x() + x + k, 0, row.length - 1)];
                    }
                    out.set(x, y, sum);
                }
            }
        });
        return out;
    }

    /**
     * @param in what is averaged; @param guide tells surfaces apart, over the same part
     * @param most difference of the guide from which on a sample counts for nothing
     * @param wanted part of these that out gets
     */
    private void pass(List<Plane> in, List<Plane> guide, float most, Region wanted, List<Plane> out, Work work) {
        work.bands(wanted.height(), 8, (from, to) -> {
            work.cancel().check();
            var means = new SurfaceMeans(in, guide, radius, 1 / (most * most), Lanes.chosen());
            float[][] sums = new float[in.size()][wanted.width()];
            float[] all = new float[wanted.width()];
            for (int y = from; y < to; y++) {
                means.row(y + wanted.y(), wanted.x(), sums, all);
                put(in, y + wanted.y(), wanted.x(), sums, all, out, y);
            }
        });
    }

    /** What is further from its own colour than a dot can be was no dot, and stays. */
    private void put(List<Plane> in, int row, int left, float[][] sums, float[] all, List<Plane> out, int y) {
        for (int x = 0; x < all.length; x++) {
            float most = 0;
            for (int p = 0; p < sums.length; p++) {
                most = Math.max(most, Math.abs(sums[p][x] / all[x] - in.get(p).at(left + x, row)));
            }
            float share = Math.clamp((FARTHEST - most / step) * 2, 0f, 1f);
            for (int p = 0; p < sums.length; p++) {
                float own = in.get(p).at(left + x, row);
                out.get(p).set(x, y, own + share * (sums[p][x] / all[x] - own));
            }
        }
    }
}
