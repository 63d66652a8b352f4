package awlsmith.core.film;

import awlsmith.core.motion.Flow;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.List;

/**
 * Takes dust of single frames and upright scratches out of film scans. Dust is replaced by what the frame before or after shows there,
 * along the motion; a scratch by what stands beside it. All else stays as it is, to the bit. The first and the last frame of a clip
 * have a neighbour on one side only and keep their dust.
 */
public final class DustStage implements Stage {
    private final Format format;
    private final float least;
    private final int largest;
    private final boolean scratches;

    /**
     * @param least how far a spot stands out, luma, 0.01..0.5
     * @param largest width or height of the largest spot, samples, 2..128; 0 leaves dust alone
     * @param scratches whether upright lines are taken out too
     */
    public DustStage(Format format, double least, int largest, boolean scratches) {
        if (!(least >= 0.01 && least <= 0.5) || largest < 0 || largest > 128) {
            throw new IllegalArgumentException("least is " + least + " and largest " + largest);
        }
        this.format = format;
        this.least = (float) least;
        this.largest = largest;
        this.scratches = scratches;
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public int before() {
        return 1;
    }

    @Override
    public int after() {
        return 1;
    }

    /** Motion and lines are found in whole pictures, so that every part of a frame is treated alike. */
    @Override
    public Region needs(Region output) {
        return format.whole();
    }

    @Override
    public long sharedBytes() {
        // both motions, warped neighbours, what stands out, marks, and the pyramids
        return 20L * Float.BYTES * format.width() * format.height();
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        Frame from = here.cut(wanted);
        Frame out = Frame.blank(format, wanted, in.number(), here.time(), pool);
        for (int p = 0; p < out.planes().size(); p++) {
            copy(from.plane(p), out.plane(p));
        }
        Plane luma = whole(here.light());
        if (scratches) {
            takeOutScratches(here, luma, out, wanted, work);
        }
        Frame before = in.at(-1);
        Frame after = in.at(1);
        if (largest > 0 && before.number() != here.number() && after.number() != here.number()) {
            Spots spots = Spots.find(before.light(), luma, after.light(), least, largest, work);
            if (spots.count() > 0) {
                replace(spots, before, after, out, wanted, work);
            }
        }
        return out;
    }

    private static Plane whole(Plane p) {
        return new Plane(p.packed(), 0, p.width(), p.height(), p.width());
    }

    private static void copy(Plane from, Plane to) {
        for (int y = 0; y < to.height(); y++) {
            to.takeRow(y, from, y);
        }
    }

    /** Luma samples to one of a plane's; the chroma tells, as the size of a narrow part at an odd edge does not. */
    private int stepX(int p) {
        return format.chroma().isDifference(p) ? format.chroma().stepX() : 1;
    }

    private int stepY(int p) {
        return format.chroma().isDifference(p) ? format.chroma().stepY() : 1;
    }

    /**
     * Lines go out of the luma that dust is looked for in, too. What stands beside a line may lie outside the part wanted, so they are
     * filled in whole planes.
     */
    private void takeOutScratches(Frame here, Plane luma, Frame out, Region wanted, Work work) {
        List<Scratches.Line> lines = Scratches.find(luma, least / 2, work);
        if (lines.isEmpty()) {
            return;
        }
        Plane seen = whole(luma);
        for (int p = 0; p < out.planes().size(); p++) {
            Plane filled = here.plane(p) == here.light() ? luma : whole(here.plane(p));
            for (Scratches.Line line : lines) {
                Scratches.fill(line, seen, filled, stepX(p), stepY(p));
            }
            Plane to = out.plane(p);
            copy(filled.window(new Region(wanted.x() / stepX(p), wanted.y() / stepY(p), to.width(), to.height())), to);
        }
    }

    private void replace(Spots spots, Frame before, Frame after, Frame out, Region wanted, Work work) {
        boolean rgb = format.chroma() == Chroma.RGB;
        for (int p = 0; p < out.planes().size(); p++) {
            Plane to = out.plane(p);
            int stepX = stepX(p);
            int stepY = stepY(p);
            boolean luma = p == 0 && !rgb;
            Plane a = before.plane(p);
            Plane b = after.plane(p);
            work.bands(to.height(), 16, (first, end) -> {
                for (int y = first; y < end; y++) {
                    int fullY = y * stepY + wanted.y();
                    for (int x = 0; x < to.width(); x++) {
                        int fullX = x * stepX + wanted.x();
                        float share = share(spots.share(), fullX, fullY, stepX, stepY);
                        if (share > 0) {
                            float fill = luma
                                    ? spots.filling().at(fullX, fullY)
                                    : filling(spots, a, b, fullX, fullY, stepX, stepY);
                            to.set(x, y, to.at(x, y) + share * (fill - to.at(x, y)));
                        }
                    }
                }
            });
        }
    }

    /** The largest of the luma samples that a sample of a halved plane stands for. */
    private static float share(Plane share, int x, int y, int stepX, int stepY) {
        float most = 0;
        for (int i = y; i < Math.min(y + stepY, share.height()); i++) {
            for (int j = x; j < Math.min(x + stepX, share.width()); j++) {
                most = Math.max(most, share.at(j, i));
            }
        }
        return most;
    }

    private static float filling(Spots spots, Plane a, Plane b, int x, int y, int stepX, int stepY) {
        boolean after = spots.after()[y * spots.share().width() + x];
        Flow flow = after ? spots.toAfter() : spots.toBefore();
        float u = flow.u().at(x, y);
        float v = flow.v().at(x, y);
        return Flow.sample(after ? b : a, (x + u) / stepX, (y + v) / stepY);
    }
}
