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
 * Changes the light of larger surfaces and what lies on them by their own: dark surfaces lifted, all led away from the middle or towards it, and
 * the structure on them made stronger. Surfaces are a {@link GuidedBase} of wide windows, so that no halo lies along their edges. Colour goes
 * with the light, so that it stays as strong as it was.
 *
 * <p>Shape: R'G'B' or grey; excursions are kept. Source: base and detail apart after F. Durand and J. Dorsey, "Fast bilateral filtering for the
 * display of high-dynamic-range images", SIGGRAPH 2002; the curves are ours.
 */
public final class ContrastStage implements Stage {
    private static final double SURFACE = 0.07;
    /** Windows are this part of the picture's height. */
    private static final int PART = 24;
    /** Share of its own light that a dark surface gains at most. */
    private static final float LIFT = 3;
    /** Added to all light before it is multiplied, so that black has a measure too. */
    private static final float ROOM = 0.02f;

    /** Of R'G'B' in luma, ITU-R BT.709. */
    private static final float[] SHARES = {0.2126f, 0.7152f, 0.0722f};

    private final Format format;
    private final float shadows;
    private final float overall;
    private final float local;
    private final GuidedBase base;

    /**
     * @param shadows how much dark surfaces are lifted, 0..1
     * @param overall how far surfaces are led away from the middle, -1..1
     * @param local how much stronger the structure on surfaces gets, -1..2
     */
    public ContrastStage(Format format, double shadows, double overall, double local) {
        if (format.chroma().isDifference(1)) {
            throw new IllegalArgumentException("light and colour of " + format.chroma() + " lie apart");
        }
        this.format = format;
        this.shadows = (float) shadows;
        this.overall = (float) overall;
        this.local = (float) local;
        base = new GuidedBase(format.width(), format.height(), Math.max(2, format.height() / PART), SURFACE);
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        return base.needs(wanted);
    }

    @Override
    public long sharedBytes() {
        return 4L * Float.BYTES * format.width() * format.height();
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Region held = needs(wanted);
        Frame in = input.at(0).cut(held);
        Frame out = in.copy(wanted, in.number(), in.time(), pool);
        Plane luma = luma(in, pool, work);
        Plane surfaces = pool.borrow(wanted.width(), wanted.height());
        base.of(luma, held, wanted, surfaces, pool, work);
        Region within = wanted.inside(held);
        work.bands(wanted.height(), 16, (from, to) -> {
            for (int y = from; y < to; y++) {
                work.cancel().check();
                row(luma, luma.row(within.y() + y) + within.x(), surfaces, y, out);
            }
        });
        pool.giveBack(surfaces);
        pool.giveBack(luma);
        return out;
    }

    private Plane luma(Frame in, PlanePool pool, Work work) {
        Plane first = in.plane(0);
        Plane luma = pool.borrow(first.width(), first.height());
        work.bands(luma.height(), 32, (from, to) -> {
            for (int y = from; y < to; y++) {
                if (format.chroma() == Chroma.GREY) {
                    luma.takeRow(y, first, y);
                    continue;
                }
                for (int x = 0; x < luma.width(); x++) {
                    luma.set(
                            x,
                            y,
                            SHARES[0] * first.at(x, y)
                                    + SHARES[1] * in.plane(1).at(x, y)
                                    + SHARES[2] * in.plane(2).at(x, y));
                }
            }
        });
        return luma;
    }

    private void row(Plane luma, int at, Plane surfaces, int y, Frame out) {
        int s = surfaces.row(y);
        for (int x = 0; x < surfaces.width(); x++) {
            float light = luma.data()[at + x];
            float surface = surfaces.data()[s + x];
            float made = curve(surface) + (1 + local) * (light - surface);
            // below black there is no share of light to keep: there it is added
            float gain = light < 0 ? 1 : (made + ROOM) / (light + ROOM);
            float added = light < 0 ? made - light : 0;
            for (int p = 0; p < format.chroma().planes(); p++) {
                Plane plane = out.plane(p);
                plane.set(x, y, (plane.at(x, y) + ROOM) * gain - ROOM + added);
            }
        }
    }

    /** Black and white stay where they are, and what lies beyond. */
    private float curve(float light) {
        if (light <= 0 || light >= 1) {
            return light;
        }
        float dark = 1 - light;
        float lifted = light + shadows * LIFT * light * dark * dark * dark * dark;
        float middle = Math.min(lifted, 1) - 0.5f;
        return lifted + overall * 2 * middle * lifted * Math.max(0, 1 - lifted);
    }
}
