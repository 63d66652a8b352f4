package awlsmith.core.detail;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

/**
 * Takes away haloes: the bright and dark seams that too much sharpening leaves beside strong edges, by {@link HaloRule}.
 */
public final class HaloStage implements Stage {
    private final Format format;
    private final HaloRule rule;

    /** @param width samples that haloes are wide at most, 1..8 */
    public HaloStage(Format format, int width) {
        this.format = format;
        rule = new HaloRule(width, Lanes.chosen());
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        return wanted.grown(rule.reach(), format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Region held = needs(wanted);
        Frame in = input.at(0).cut(held);
        Frame out = in.copy(wanted, in.number(), in.time(), pool);
        Region within = wanted.inside(held);
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        for (int p = 0; p < lights; p++) {
            Plane from = in.plane(p);
            Plane to = out.plane(p);
            work.bands(to.height(), 8, (first, end) -> {
                for (int y = first; y < end; y++) {
                    work.cancel().check();
                    rule.row(from, within.x(), within.y() + y, to, y);
                }
            });
        }
        return out;
    }
}
