package awlsmith.core.colour;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

/** Colours by a lookup table; what is grey stays one plane, and becomes as light as the table makes it. */
public final class TableStage implements Stage {
    private static final LumaChroma WEIGHTS = LumaChroma.of(ColourTags.Matrix.BT709);

    private final Format format;
    private final LookupTable table;

    /** @param format of R'G'B' or grey pictures */
    public TableStage(Format format, LookupTable table) {
        if (format.chroma() != Chroma.RGB && format.chroma() != Chroma.GREY) {
            throw new IllegalArgumentException("tables work on RGB or grey, not on " + format.chroma());
        }
        this.format = format;
        this.table = table;
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
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Frame in = input.at(0).cut(wanted);
        Frame out = Frame.blank(format, wanted, in.number(), in.time(), pool);
        boolean grey = format.chroma() == Chroma.GREY;
        work.bands(wanted.height(), 16, (from, to) -> {
            float[][] made = new float[3][wanted.width()];
            for (int y = from; y < to; y++) {
                row(in, out, y, made, grey);
            }
        });
        return out;
    }

    private void row(Frame in, Frame out, int y, float[][] made, boolean grey) {
        float[][] rgb = new float[3][];
        int[] at = new int[3];
        for (int c = 0; c < 3; c++) {
            var plane = in.plane(grey ? 0 : c);
            rgb[c] = plane.data();
            at[c] = plane.row(y);
        }
        int width = out.window().width();
        table.row(rgb, at, made, new int[3], width);
        for (int p = 0; p < out.planes().size(); p++) {
            float[] to = out.plane(p).data();
            int row = out.plane(p).row(y);
            for (int x = 0; x < width; x++) {
                to[row + x] = grey ? (float) WEIGHTS.luma(made[0][x], made[1][x], made[2][x]) : made[p][x];
            }
        }
    }
}
