package awlsmith.core.clean;

import awlsmith.core.model.Correction;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelStage;
import awlsmith.core.model.NetRunner;
import awlsmith.core.motion.Alignment;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.upscale.FramesAround;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Takes noise out: first over time, as the mean of the frame and its neighbours laid over it along the motion as far as they agree, then what
 * is left of it in the picture, by the cosines of small blocks. How much noise each sample has is told by a {@link NoiseModel}, and what the
 * first takes away is known to the second. A net may then put back into the light what went with the noise, and take away what was left of it:
 * it is shown {@link #SHOWN} planes, the result so far, the frame, the mean, four neighbours laid over the frame, the deviation before and
 * after the mean, and how fine the noise is.
 */
public final class DenoiseStage implements ModelStage {
    /** Frames on each side that may be read. */
    public static final int MOST_FRAMES = 3;

    /** Planes that a net is shown. */
    public static final int SHOWN = 10;

    /** Neighbours among them. */
    private static final int NEIGHBOURS = 4;
    /** Deviations are shown to a net this many times as large, so that they are of the light's order. */
    private static final float TOLD = 4;

    /** Luma samples around a part that the two passes over blocks read, of halved planes too. */
    private static final int AROUND = 2 * 2 * BlockShrink.REACH;
    /** Squares of the alignment lie on this grid. */
    private static final int GRID = 16;

    private final Format format;
    private final NoiseModel noise;
    private final int radius;
    private final float strength;
    private final float colour;
    private final float[] levels;
    private final float[] shape;
    private final float[] colourShape;
    private final ModelCard card;
    private final Correction correction;

    /** Without a net. */
    public DenoiseStage(Format format, NoiseModel noise, int radius, double strength, double colour) {
        this(format, noise, radius, strength, colour, null, null);
    }

    /**
     * @param radius frames read on each side, 0..3; 0 works on each frame alone
     * @param strength how many times the noise told is taken out, 0..4
     * @param colour the same of the colour differences
     * @param net corrects the light; null for none
     */
    public DenoiseStage(
            Format format,
            NoiseModel noise,
            int radius,
            double strength,
            double colour,
            ModelCard card,
            NetRunner net) {
        if (radius < 0 || radius > MOST_FRAMES || !(strength >= 0 && strength <= 4) || !(colour >= 0 && colour <= 4)) {
            throw new IllegalArgumentException(
                    "radius is " + radius + ", strength " + strength + " and colour " + colour);
        }
        this.format = format;
        this.noise = noise;
        this.radius = radius;
        this.strength = (float) strength;
        this.colour = (float) colour;
        this.levels = NoiseModel.floats(noise.levels());
        this.shape = NoiseModel.floats(noise.shape());
        this.colourShape = NoiseModel.floats(noise.colourShape());
        this.card = card;
        // without noise there is nothing to correct, and the picture stays as it is
        boolean isClean = strength == 0 || noise.levels().stream().allMatch(level -> level == 0);
        this.correction = net == null || isClean ? null : new Correction(card, net, 1, format.width(), format.height());
    }

    @Override
    public Optional<ModelCard> model() {
        return Optional.ofNullable(card).filter(one -> correction != null);
    }

    @Override
    public long workBytes() {
        return correction == null ? 0 : correction.bytes();
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public int before() {
        return radius;
    }

    @Override
    public int after() {
        return radius;
    }

    @Override
    public Region needs(Region wanted) {
        Region part = around(seen(wanted));
        Region held = radius == 0 ? part : Alignment.needs(part, format.width(), format.height());
        return held.aligned(format.chroma(), format.width(), format.height());
    }

    /** The part that the blocks have to have done: what a net is shown, or what is wanted. */
    private Region seen(Region wanted) {
        return correction == null ? wanted : correction.around(wanted);
    }

    /** A part with what the blocks read around it, on the alignment's grid. */
    private Region around(Region wanted) {
        int by = AROUND + 2 * TimeMean.REACH;
        int x = Math.max(0, wanted.x() - by) / GRID * GRID;
        int y = Math.max(0, wanted.y() - by) / GRID * GRID;
        int right = Math.min(format.width(), Math.ceilDiv(wanted.right() + by, GRID) * GRID);
        int bottom = Math.min(format.height(), Math.ceilDiv(wanted.bottom() + by, GRID) * GRID);
        return new Region(x, y, right - x, bottom - y);
    }

    @Override
    public long sharedBytes() {
        // padded copies that the laying works on, neighbours, weights and deviations
        return (long) Float.BYTES * format.width() * format.height() * (6 * radius + (correction == null ? 6 : 10));
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        Frame out = Frame.blank(format, wanted, in.number(), here.time(), pool);
        Region part = around(seen(wanted));
        var lent = new ArrayList<Plane>();
        var around = new Around(in, part, pool, work, lent);
        int light = format.chroma() == Chroma.RGB ? 1 : 0;
        Plane fast = null;
        Made made = null;
        for (int p = 0; p < out.planes().size(); p++) {
            if (p == light && correction != null) {
                Region seen = seen(wanted);
                fast = pool.borrow(seen.width(), seen.height());
                made = plane(p, around, seen, fast);
                Plane to = out.plane(p);
                Plane from = fast.window(wanted.inside(seen));
                for (int y = 0; y < to.height(); y++) {
                    to.takeRow(y, from, y);
                }
            } else {
                plane(p, around, format.chroma().own(p, wanted), out.plane(p)).giveBack(pool);
            }
        }
        if (made != null) {
            correct(fast, made, around, out);
            pool.giveBack(fast);
            made.giveBack(pool);
        }
        lent.forEach(pool::giveBack);
        return out;
    }

    private boolean isLight(int p) {
        return p == 0 || format.chroma() == Chroma.RGB;
    }

    /** What a plane was made of, over the whole part. @param sigma the noise's deviation before, the same plane as left where no net asks for it */
    private record Made(Plane here, Plane sigma, Plane mean, Plane left, List<Plane> laid) {
        void giveBack(PlanePool pool) {
            if (sigma != left) {
                pool.giveBack(sigma);
            }
            pool.giveBack(mean);
            pool.giveBack(left);
            laid.forEach(pool::giveBack);
        }
    }

    /** Adds to the light what the net gives. @param fast the result so far over what the net sees */
    private void correct(Plane fast, Made made, Around around, Frame out) {
        Region seen = seen(out.window());
        Region within = seen.inside(around.part);
        var shown = new ArrayList<>(List.of(fast, made.here.window(within), made.mean.window(within)));
        for (int k = 0; k < NEIGHBOURS; k++) {
            int own = around.neighbour(k);
            shown.add((own < 0 ? made.here : made.laid.get(own)).window(within));
        }
        scale(made.sigma);
        scale(made.left);
        shown.add(made.sigma.window(within));
        shown.add(made.left.window(within));
        Plane fine = around.pool.borrow(seen.width(), seen.height()).fill(fineness());
        shown.add(fine);
        correction.add(shown, seen, out.window(), out, around.pool, around.work);
        around.pool.giveBack(fine);
    }

    private static void scale(Plane deviations) {
        for (int i = 0; i < deviations.data().length; i++) {
            deviations.data()[i] *= TOLD;
        }
    }

    /** Deviation of the finest frequencies by what it would be of white noise: 1 of white noise, less of coarser. */
    private float fineness() {
        float sum = 0;
        int count = 0;
        for (int i = 0; i < Blocks.SIZE; i++) {
            if (i % Blocks.SIDE >= Blocks.SIDE / 2 || i / Blocks.SIDE >= Blocks.SIDE / 2) {
                sum += shape[i];
                count++;
            }
        }
        return (float) Math.sqrt(sum / count);
    }

    /**
     * @param target in the plane's own samples
     * @param out gets it
     */
    private Made plane(int p, Around around, Region target, Plane out) {
        PlanePool pool = around.pool;
        Work work = around.work;
        Region part = format.chroma().own(p, around.part);
        Plane left = sigma(p, around, pool);
        Plane sigma = left;
        if (correction != null) {
            sigma = pool.borrow(part.width(), part.height());
            for (int y = 0; y < part.height(); y++) {
                sigma.takeRow(y, left, y);
            }
        }
        Plane mean = pool.borrow(part.width(), part.height());
        List<Plane> laid = around.mean(p, left, mean);
        int width = format.chroma().planeWidth(p, format.width());
        int height = format.chroma().planeHeight(p, format.height());
        var shrink = new BlockShrink(width, height, isLight(p) ? shape : colourShape);
        var held = new BlockShrink.Held(mean, part);
        var deviation = new BlockShrink.Held(left, part);
        Region first = target.grown(BlockShrink.REACH, width, height);
        Plane pilot = pool.borrow(first.width(), first.height());
        shrink.pass(held, deviation, null, first, pilot, work);
        shrink.pass(held, deviation, new BlockShrink.Held(pilot, first), target, out, work);
        pool.giveBack(pilot);
        return new Made(around.own(p), sigma, mean, left, laid);
    }

    /** Deviation of the noise of each sample of a plane, over the part. */
    private Plane sigma(int p, Around around, PlanePool pool) {
        Region part = format.chroma().own(p, around.part);
        Plane sigma = pool.borrow(part.width(), part.height());
        if (!isLight(p)) {
            return sigma.fill((float) noise.colour() * colour);
        }
        if (noise.isEven()) {
            return sigma.fill(strength * levels[0]);
        }
        Plane light = around.own(p);
        around.work.bands(sigma.height(), 16, (from, to) -> {
            float[] columns = new float[sigma.width()];
            for (int y = from; y < to; y++) {
                row(light, sigma, y, columns);
            }
        });
        return sigma;
    }

    /** By the mean of the nine samples around each: the noise itself should not choose how much there is of it. */
    private void row(Plane light, Plane sigma, int y, float[] columns) {
        float[] data = light.data();
        int above = light.row(Math.max(0, y - 1));
        int own = light.row(y);
        int below = light.row(Math.min(light.height() - 1, y + 1));
        int last = columns.length - 1;
        for (int x = 0; x <= last; x++) {
            columns[x] = (data[above + x] + data[own + x] + data[below + x]) * (1 / 9f);
        }
        int to = sigma.row(y);
        for (int x = 0; x <= last; x++) {
            float mean = columns[Math.max(0, x - 1)] + columns[x] + columns[Math.min(last, x + 1)];
            sigma.data()[to + x] = strength * NoiseModel.sigma(levels, mean);
        }
    }

    /** The frames around, and how they lie over this one. */
    private final class Around {
        private final Neighbours in;
        private final Region part;
        private final PlanePool pool;
        private final Work work;
        private final List<Plane> lent;
        private final List<Frame> others = new ArrayList<>();
        private final List<Alignment.Motions> motions = new ArrayList<>();
        private final List<Plane> weights = new ArrayList<>();
        /** The same for planes of halved size. */
        private final List<Plane> reduced = new ArrayList<>();

        private Alignment alignment;

        Around(Neighbours in, Region part, PlanePool pool, Work work, List<Plane> lent) {
            this.in = in;
            this.part = part;
            this.pool = pool;
            this.work = work;
            this.lent = lent;
            Frame here = in.at(0);
            for (int d = 1; d <= radius; d++) {
                for (int side = -1; side <= 1; side += 2) {
                    Frame other = in.at(side * d);
                    if (other.number() == here.number() + (long) side * d) {
                        others.add(other);
                    }
                }
            }
            if (others.isEmpty()) {
                return;
            }
            Region hold = here.window();
            alignment = new Alignment(here.light(), hold, format.width(), format.height(), part, noise.least());
            for (Frame other : others) {
                work.cancel().check();
                motions.add(alignment.find(other.light(), hold, work));
            }
        }

        /** A plane of this frame over the part, the samples shared. */
        Plane own(int p) {
            return in.at(0).cut(part).plane(p);
        }

        /** Which of the others lies at the place of a neighbour, in the order of {@link FramesAround}; below 0 when there is none. */
        int neighbour(int k) {
            long number = in.at(0).number() + FramesAround.distance(k + 1);
            for (int i = 0; i < others.size(); i++) {
                if (others.get(i).number() == number) {
                    return i;
                }
            }
            return -1;
        }

        /** @param sigma becomes what is left of the noise; @return neighbours as they are laid, the caller's to give back */
        List<Plane> mean(int p, Plane sigma, Plane out) {
            Plane here = own(p);
            var laid = new ArrayList<Plane>();
            var shares = new ArrayList<Plane>();
            for (int k = 0; k < others.size(); k++) {
                work.cancel().check();
                Plane over = pool.borrow(out.width(), out.height());
                lay(p, k, over);
                Plane share;
                if (p == 0) {
                    share = pool.borrow(out.width(), out.height()).fill(1);
                    weights.add(share);
                    lent.add(share);
                } else {
                    share = pool.borrow(out.width(), out.height());
                    Plane known = reduced(k, p, out);
                    for (int y = 0; y < share.height(); y++) {
                        share.takeRow(y, known, y);
                    }
                }
                TimeMean.weigh(here, over, sigma, share, work);
                laid.add(over);
                shares.add(share);
            }
            TimeMean.mean(here, laid, shares, sigma, out, work);
            if (p > 0) {
                shares.forEach(pool::giveBack);
            }
            return laid;
        }

        private Plane reduced(int k, int p, Plane like) {
            if (k == reduced.size()) {
                Chroma chroma = format.chroma();
                Plane small = TimeMean.reduced(
                        weights.get(k), chroma.stepX(p), chroma.stepY(p), like.width(), like.height(), pool);
                reduced.add(small);
                lent.add(small);
            }
            return reduced.get(k);
        }

        private void lay(int p, int k, Plane over) {
            Frame other = others.get(k);
            int stepX = format.chroma().stepX(p);
            int stepY = format.chroma().stepY(p);
            if (p == 0 && format.chroma() != Chroma.RGB) {
                alignment.lay(motions.get(k), over, work);
            } else {
                alignment.layOther(motions.get(k), other.plane(p), other.window(), stepX, stepY, over, work);
            }
        }
    }
}
