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
 * Undoes a blur that is known, in the light: first by the taps that do it with the least error as far as noise allows, then, {@value #ROUNDS}
 * times, calmed where it rings and mended by what a blur of that would lack of the picture.
 *
 * <p>Source: {@link Inverse} and {@link TotalVariation}; going to and fro between the two after Y. Wang, J. Yang, W. Yin and Y. Zhang, "A new
 * alternating minimization algorithm for total variation image reconstruction", SIAM Journal on Imaging Sciences 1(3), 2008. Shape: planes of
 * any size; excursions are kept.
 */
public final class DeblurStage implements Stage {
    private static final int ROUNDS = 2;
    /** Price of steps to a noise of one code value; found on photographs blurred by 1.5 samples with noise of 0 to 3. */
    private static final double PRICE = 0.003;

    private static final double CALM = 0.015;
    /** Rounding to eight bits is noise too. */
    private static final double ROUNDING = 0.3;

    private static final int LEAST_REACH = 8;
    private static final int MOST_REACH = 24;

    private final Format format;
    private final Taps spread;
    private final Taps inverse;
    private final Taps mending;
    private final float calm;

    /**
     * @param noise deviation of the light's noise, of 255
     * @param calm how much ringing is held down, 1 as measured best, 0 not at all
     */
    public DeblurStage(Format format, PointSpread spread, double noise, double calm) {
        this.format = format;
        double sigma = Math.hypot(noise, ROUNDING);
        double price = PRICE * sigma * sigma;
        int reach = Math.clamp(spread.inverseReach(), LEAST_REACH, MOST_REACH);
        this.spread = Taps.of(spread.reach(), spread.taps());
        inverse = Inverse.ofSteps(spread, price, reach);
        mending = Inverse.ofAnswer(spread, 2 * price, reach);
        this.calm = (float) (calm * CALM * Math.sqrt(sigma));
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        int round = TotalVariation.REACH + spread.reach() + mending.reach();
        int by = inverse.reach() + (calm > 0 ? ROUNDS * round + TotalVariation.REACH : 0);
        return wanted.grown(by, format.width(), format.height())
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
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        Region within = wanted.inside(held);
        for (int p = 0; p < lights; p++) {
            Plane sharp = sharp(in.plane(p), pool, work);
            for (int y = 0; y < wanted.height(); y++) {
                out.plane(p).takeRow(y, sharp.window(within), y);
            }
            pool.giveBack(sharp);
        }
        return out;
    }

    /** Right within what {@link #needs} leaves at edges that are not the picture's. */
    private Plane sharp(Plane blurred, PlanePool pool, Work work) {
        int width = blurred.width();
        int height = blurred.height();
        Plane sharp = pool.borrow(width, height);
        inverse.sum(blurred, sharp, pool, work);
        if (calm == 0) {
            return sharp;
        }
        Plane calmed = pool.borrow(width, height);
        Plane lacks = pool.borrow(width, height);
        for (int round = 0; round < ROUNDS; round++) {
            TotalVariation.calm(sharp, calm, calmed, pool, work);
            spread.sum(calmed, lacks, pool, work);
            combine(blurred, lacks, -1, lacks, work);
            mending.sum(lacks, sharp, pool, work);
            combine(calmed, sharp, 1, sharp, work);
        }
        TotalVariation.calm(sharp, calm / 2, calmed, pool, work);
        pool.giveBack(lacks);
        pool.giveBack(sharp);
        return calmed;
    }

    /** @param out gets a and sign times b; may be one of them */
    static void combine(Plane a, Plane b, float sign, Plane out, Work work) {
        work.bands(out.height(), 32, (from, to) -> {
            for (int y = from; y < to; y++) {
                int i = a.row(y);
                int j = b.row(y);
                int o = out.row(y);
                for (int x = 0; x < out.width(); x++) {
                    out.data()[o + x] = a.data()[i + x] + sign * b.data()[j + x];
                }
            }
        });
    }
}
