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
 * Makes thin dark lines darker, which resizing and codecs paled: how deep a line is, is the difference to what is left of the picture when all
 * that is dark and narrower than a square is closed.
 *
 * <p>Source: the closing's residue (black top hat) of F. Meyer, "Contrast feature extraction", in "Quantitative analysis of microstructures",
 * 1977. Light alone is changed.
 */
public final class LineStage implements Stage {
    private final Format format;
    private final int radius;
    private final float amount;
    private final float least;

    /**
     * @param width lines are at most so many samples wide, 1..8
     * @param amount of their depth that is added, 0..3
     * @param least depth from which on they count, 0..1; the threshold begins softly
     */
    public LineStage(Format format, int width, double amount, double least) {
        this.format = format;
        this.radius = (width + 1) / 2;
        this.amount = (float) amount;
        this.least = (float) least;
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region wanted) {
        return wanted.grown(2 * radius, format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
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
        int lights = format.chroma() == Chroma.RGB ? 3 : 1;
        Region around = wanted.grown(radius, format.width(), format.height());
        Plane widened = pool.borrow(around.width(), around.height());
        Plane closed = pool.borrow(wanted.width(), wanted.height());
        for (int p = 0; p < lights; p++) {
            Extremes.of(in.plane(p), radius, true, around.inside(held), widened, pool, work);
            Extremes.of(widened, radius, false, wanted.inside(around), closed, pool, work);
            Plane to = out.plane(p);
            work.bands(wanted.height(), 32, (from, end) -> {
                for (int y = from; y < end; y++) {
                    int c = closed.row(y);
                    int t = to.row(y);
                    for (int x = 0; x < wanted.width(); x++) {
                        float depth = closed.data()[c + x] - to.data()[t + x];
                        to.data()[t + x] -= amount * Math.max(0, depth - least);
                    }
                }
            });
        }
        pool.giveBack(widened);
        pool.giveBack(closed);
        return out;
    }
}
