package awlsmith.core.detail;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Optional;

/**
 * Gives treated pictures back what the source had: all of it in part, its fine texture where there are no edges, or the light of its larger
 * surfaces. The source is brought to the same size and place by a chain of its own.
 *
 * <p>Texture is what a picture has beyond its {@link GuidedBase}; the treated picture's own makes way for it. The light of surfaces is a base
 * of wide windows. Both are done to luma, or to each of R'G'B'.
 */
public final class OriginalStage implements Stage {
    /** Deviations, 0..1, up to which a window is rather surface than edge: of texture, and of light. */
    private static final double TEXTURE = 0.04;

    private static final double LIGHT = 0.1;
    /** Windows of the light's surfaces are this part of the picture's height. */
    private static final int PART = 24;

    private final Format format;
    private final Chain source;
    private final float blend;
    private final float texture;
    private final float light;
    private final GuidedBase fine;
    private final GuidedBase wide;

    /**
     * @param source from the clip to pictures of the same size as those that reach this
     * @param blend share of the source in all that comes out, 0..1
     * @param texture share of the source's texture; @param light of the light of its surfaces
     */
    public OriginalStage(Format format, Chain source, double blend, double texture, double light) {
        if (source.output().width() != format.width()
                || source.output().height() != format.height()
                || source.output().chroma() != format.chroma()) {
            throw new IllegalArgumentException(source.output() + " is not like " + format);
        }
        this.format = format;
        this.source = source;
        this.blend = (float) blend;
        this.texture = (float) texture;
        this.light = (float) light;
        // what was fine in the source is wider here
        double scale = Math.max(1, source.placement().width() / source.source().width());
        fine = new GuidedBase(format.width(), format.height(), (int) Math.round(2 * scale), TEXTURE);
        wide = new GuidedBase(format.width(), format.height(), Math.max(2, format.height() / PART), LIGHT);
    }

    @Override
    public Optional<Chain> beside() {
        return Optional.of(source);
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        Region part = texture == 0 ? wanted : wanted.around(fine.needs(wanted));
        part = light == 0 ? part : part.around(wide.needs(wanted));
        return part.aligned(format.chroma(), format.width(), format.height());
    }

    @Override
    public long sharedBytes() {
        return 4L * Float.BYTES * format.width() * format.height();
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Region held = needs(wanted);
        Frame here = input.at(0).cut(held);
        Frame there = input.beside().cut(held);
        Frame out = here.copy(wanted, here.number(), here.time(), pool);
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        for (int p = 0; p < lights; p++) {
            if (light > 0) {
                lead(wide, light, false, here.plane(p), there.plane(p), held, wanted, out.plane(p), pool, work);
            }
            if (texture > 0) {
                lead(fine, texture, true, here.plane(p), there.plane(p), held, wanted, out.plane(p), pool, work);
            }
        }
        if (blend > 0) {
            Frame own = there.cut(wanted);
            for (int p = 0; p < out.planes().size(); p++) {
                blend(own.plane(p), out.plane(p), work);
            }
        }
        return out;
    }

    /** Adds a share of what the source's base, or what it has beyond it, has more than the treated picture's. */
    private static void lead(
            GuidedBase base,
            float share,
            boolean beyond,
            Plane here,
            Plane there,
            Region held,
            Region wanted,
            Plane out,
            PlanePool pool,
            Work work) {
        Plane own = pool.borrow(wanted.width(), wanted.height());
        Plane sources = pool.borrow(wanted.width(), wanted.height());
        base.of(here, held, wanted, own, pool, work);
        base.of(there, held, wanted, sources, pool, work);
        Region within = wanted.inside(held);
        work.bands(wanted.height(), 32, (from, to) -> {
            for (int y = from; y < to; y++) {
                int h = here.row(y + within.y()) + within.x();
                int t = there.row(y + within.y()) + within.x();
                int a = own.row(y);
                int b = sources.row(y);
                int o = out.row(y);
                for (int x = 0; x < wanted.width(); x++) {
                    float more = sources.data()[b + x] - own.data()[a + x];
                    out.data()[o + x] += share * (beyond ? there.data()[t + x] - here.data()[h + x] - more : more);
                }
            }
        });
        pool.giveBack(own);
        pool.giveBack(sources);
    }

    private void blend(Plane from, Plane to, Work work) {
        work.bands(to.height(), 32, (first, end) -> {
            for (int y = first; y < end; y++) {
                int f = from.row(y);
                int t = to.row(y);
                for (int x = 0; x < to.width(); x++) {
                    // in this form all of the source is the source, to the bit
                    to.data()[t + x] = from.data()[f + x] + (1 - blend) * (to.data()[t + x] - from.data()[f + x]);
                }
            }
        });
    }
}
