package awlsmith.core.mark;

import awlsmith.core.colour.LumaChroma;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;

/**
 * A picture with transparency, laid over opaque frames of one format as they are coded: nothing beside it is touched. Source of the rule: T.
 * Porter and T. Duff, "Compositing digital images", SIGGRAPH 1984 (over), on coded values (common practice, no source). Colour differences are
 * those of the samples around each of theirs, weighed by a tent as wide as two of them.
 */
public final class Overlay {
    private static final LumaChroma GREY = LumaChroma.of(ColourTags.Matrix.BT709);

    private final Format format;
    /** What is added, and what is left of the frame, of each plane. */
    private final Plane[] added;

    private final Plane[] left;
    private final int fromX;
    private final int fromY;

    /**
     * @param format of opaque frames
     * @param mark in the size it is shown in, whole within the frame
     * @param x, y where its first pixel lies, on whole chroma samples
     */
    public Overlay(Format format, MarkPicture mark, int x, int y) {
        Chroma chroma = format.chroma();
        if (format.alpha().isThere()) {
            throw new IllegalArgumentException("an overlay wants opaque frames");
        }
        if (x < 0 || y < 0 || x % chroma.stepX() != 0 || y % chroma.stepY() != 0) {
            throw new IllegalArgumentException("an overlay begins on a whole chroma sample, not at " + x + ", " + y);
        }
        if (x + mark.width() > format.width() || y + mark.height() > format.height()) {
            throw new IllegalArgumentException("an overlay lies within the frame");
        }
        this.format = format;
        this.fromX = x;
        this.fromY = y;
        MarkPicture fit = mark.dimmed(MarkStage.white(format.colour().transfer()));
        int planes = chroma.planes();
        added = new Plane[planes];
        left = new Plane[planes];
        Plane[] full = components(format, fit);
        for (int p = 0; p < planes; p++) {
            int stepX = chroma.stepX(p);
            int stepY = chroma.stepY(p);
            double across = p == 0 ? 0 : format.siting().across(stepX);
            double down = p == 0 ? 0 : format.siting().down(stepY);
            added[p] = reduced(full[p], stepX, stepY, across, down);
            left[p] = rest(reduced(fit.opacity(), stepX, stepY, across, down));
        }
    }

    /** What shows of that behind it. */
    private static Plane rest(Plane opacity) {
        float[] left = opacity.packed();
        for (int i = 0; i < left.length; i++) {
            left[i] = 1 - left[i];
        }
        return new Plane(left, 0, opacity.width(), opacity.height(), opacity.width());
    }

    private static Plane[] components(Format format, MarkPicture mark) {
        if (format.chroma() == Chroma.RGB) {
            return mark.colours().toArray(Plane[]::new);
        }
        boolean isGrey = format.chroma() == Chroma.GREY;
        LumaChroma weights = isGrey ? GREY : LumaChroma.of(format.colour().matrixFor(format.height()));
        Plane luma = Plane.of(mark.width(), mark.height());
        Plane cb = Plane.of(mark.width(), mark.height());
        Plane cr = Plane.of(mark.width(), mark.height());
        for (int i = 0; i < luma.data().length; i++) {
            double r = mark.colours().get(0).data()[i];
            double g = mark.colours().get(1).data()[i];
            double b = mark.colours().get(2).data()[i];
            double y = weights.luma(r, g, b);
            luma.data()[i] = (float) y;
            cb.data()[i] = (float) weights.cb(y, b);
            cr.data()[i] = (float) weights.cr(y, r);
        }
        return isGrey ? new Plane[] {luma} : new Plane[] {luma, cb, cr};
    }

    /** @param across, down where a sample lies, in full samples from the first of its group */
    private static Plane reduced(Plane full, int stepX, int stepY, double across, double down) {
        if (stepX == 1 && stepY == 1) {
            return full;
        }
        int width = Math.ceilDiv(full.width(), stepX);
        int height = Math.ceilDiv(full.height(), stepY);
        Plane small = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                small.data()[small.row(y) + x] = mean(full, x * stepX + across, y * stepY + down, stepX, stepY);
            }
        }
        return small;
    }

    /** What lies beyond the mark is clear: it counts as 0. */
    private static float mean(Plane full, double centreX, double centreY, int reachX, int reachY) {
        double sum = 0;
        double weights = 0;
        for (int y = (int) Math.floor(centreY - reachY + 1e-9); y <= centreY + reachY; y++) {
            double down = Math.max(0, 1 - Math.abs(y - centreY) / reachY);
            for (int x = (int) Math.floor(centreX - reachX + 1e-9); x <= centreX + reachX; x++) {
                double weight = down * Math.max(0, 1 - Math.abs(x - centreX) / reachX);
                weights += weight;
                if (weight > 0 && x >= 0 && y >= 0 && x < full.width() && y < full.height()) {
                    sum += weight * full.at(x, y);
                }
            }
        }
        return (float) (sum / weights);
    }

    /** A frame with the mark over it. @param whole one, which stays the caller's */
    public Frame over(Frame whole, PlanePool pool) {
        Frame out = Frame.blank(format, whole.window(), whole.number(), whole.time(), pool);
        for (int p = 0; p < added.length; p++) {
            Plane in = whole.plane(p);
            Plane to = out.plane(p);
            for (int y = 0; y < in.height(); y++) {
                to.takeRow(y, in, y);
            }
            int left0 = fromX / format.chroma().stepX(p);
            int top0 = fromY / format.chroma().stepY(p);
            for (int y = 0; y < added[p].height() && top0 + y < to.height(); y++) {
                for (int x = 0; x < added[p].width() && left0 + x < to.width(); x++) {
                    int at = to.row(top0 + y) + left0 + x;
                    to.data()[at] = to.data()[at] * left[p].at(x, y) + added[p].at(x, y);
                }
            }
        }
        return out;
    }
}
