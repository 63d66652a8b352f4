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
 * Calms surfaces, skin and whatever else is rough, and leaves edges as firm as they are: the light's texture, what lies beyond its
 * {@link GuidedBase}, is made weaker. Nothing is rounded, so that no bands come of it.
 */
public final class SmoothStage implements Stage {
    private final Format format;
    private final float amount;
    private final GuidedBase base;

    /**
     * @param radius of the windows, in samples, 1..16
     * @param surface deviation, 0..1, up to which a window is rather surface than edge
     * @param amount share of the texture that goes, 0..1
     */
    public SmoothStage(Format format, int radius, double surface, double amount) {
        this.format = format;
        this.amount = (float) amount;
        base = new GuidedBase(format.width(), format.height(), radius, surface);
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        return base.needs(wanted).aligned(format.chroma(), format.width(), format.height());
    }

    @Override
    public long sharedBytes() {
        return 3L * Float.BYTES * format.width() * format.height();
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Region held = needs(wanted);
        Frame in = input.at(0).cut(held);
        Frame out = in.copy(wanted, in.number(), in.time(), pool);
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        Plane surfaces = pool.borrow(wanted.width(), wanted.height());
        for (int p = 0; p < lights; p++) {
            base.of(in.plane(p), held, wanted, surfaces, pool, work);
            Plane to = out.plane(p);
            work.bands(wanted.height(), 32, (from, end) -> {
                for (int y = from; y < end; y++) {
                    int s = surfaces.row(y);
                    int t = to.row(y);
                    for (int x = 0; x < wanted.width(); x++) {
                        to.data()[t + x] += amount * (surfaces.data()[s + x] - to.data()[t + x]);
                    }
                }
            });
        }
        pool.giveBack(surfaces);
        return out;
    }
}
