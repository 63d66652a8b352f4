package awlsmith.core.mark;

import awlsmith.core.colour.LumaChroma;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

/**
 * Lays a mark over every frame. Source: T. Porter and T. Duff, "Compositing digital images", SIGGRAPH 1984 (over), on coded values, as editing
 * programs do (common practice, no source).
 */
public final class MarkStage implements Stage {
    /** Codes of graphics white. Source: ITU-R BT.2408, table 1 (203 cd/m2). */
    private static final float PQ_WHITE = 0.58f;

    private static final float HLG_WHITE = 0.75f;

    private static final LumaChroma WEIGHTS = LumaChroma.of(ColourTags.Matrix.BT709);

    private final Format format;
    private final Plane[] planes;
    private final Plane opacity;
    private final int left;
    private final int top;

    /**
     * @param format of opaque R'G'B' or grey pictures
     * @param mark in the size it is shown in
     * @param left, top where its first pixel lies; it may lie partly outside
     */
    public MarkStage(Format format, MarkPicture mark, int left, int top) {
        if (format.chroma() != Chroma.RGB && format.chroma() != Chroma.GREY) {
            throw new IllegalArgumentException("marks are laid over RGB or grey, not over " + format.chroma());
        }
        this.format = format;
        this.left = left;
        this.top = top;
        MarkPicture fit = mark.dimmed(white(format.colour().transfer()));
        this.opacity = fit.opacity();
        this.planes = format.chroma() == Chroma.GREY
                ? new Plane[] {grey(fit)}
                : fit.colours().toArray(Plane[]::new);
    }

    static float white(ColourTags.Transfer transfer) {
        return switch (transfer) {
            case SMPTE2084 -> PQ_WHITE;
            case ARIB_STD_B67 -> HLG_WHITE;
            default -> 1;
        };
    }

    private static Plane grey(MarkPicture mark) {
        Plane luma = Plane.of(mark.width(), mark.height());
        for (int i = 0; i < luma.data().length; i++) {
            luma.data()[i] = (float) WEIGHTS.luma(
                    mark.colours().get(0).data()[i],
                    mark.colours().get(1).data()[i],
                    mark.colours().get(2).data()[i]);
        }
        return luma;
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region output) {
        return output;
    }

    @Override
    public long sharedBytes() {
        return 4L * (planes.length + 1) * opacity.width() * opacity.height();
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Frame in = input.at(0).cut(wanted);
        Frame out = Frame.blank(format, wanted, in.number(), in.time(), pool);
        work.bands(wanted.height(), 16, (from, to) -> {
            for (int y = from; y < to; y++) {
                for (int p = 0; p < planes.length; p++) {
                    row(in.plane(p), out.plane(p), planes[p], wanted, y);
                }
            }
        });
        return out;
    }

    private void row(Plane in, Plane out, Plane colour, Region wanted, int y) {
        int width = wanted.width();
        System.arraycopy(in.data(), in.row(y), out.data(), out.row(y), width);
        int markY = wanted.y() + y - top;
        if (markY < 0 || markY >= opacity.height()) {
            return;
        }
        float[] to = out.data();
        int begin = Math.max(0, left - wanted.x());
        int end = Math.min(width, left + opacity.width() - wanted.x());
        for (int x = begin; x < end; x++) {
            int markX = wanted.x() + x - left;
            float a = opacity.at(markX, markY);
            int at = out.row(y) + x;
            to[at] = to[at] * (1 - a) + colour.at(markX, markY);
        }
    }
}
