package awlsmith.core.resample;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;
import java.util.Optional;

/** Puts a picture somewhere into another of a given size, sample for sample: what overhangs is cut, what is left is black. */
public final class PlaceStage implements Stage {
    private final Format input;
    private final Format output;
    private final int x;
    private final int y;

    /**
     * @param output same layout as input
     * @param x of the input's left edge in the output, a multiple of the chroma step, may be negative
     * @param y of the input's top edge, likewise
     */
    public PlaceStage(Format input, Format output, int x, int y) {
        Chroma chroma = input.chroma();
        if (chroma != output.chroma() || x % chroma.stepX() != 0 || y % chroma.stepY() != 0) {
            throw new IllegalArgumentException(
                    "a " + chroma + " picture cannot be put at " + x + "," + y + " of a " + output.chroma() + " one");
        }
        if (x >= output.width() || y >= output.height() || x + input.width() <= 0 || y + input.height() <= 0) {
            throw new IllegalArgumentException("at " + x + "," + y + " nothing of the picture is seen");
        }
        this.input = input;
        this.output = output;
        this.x = x;
        this.y = y;
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public Placement placement() {
        return new Placement(x, y, input.width(), input.height());
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new PlaceStage(plane, output.alphaAlone(), x, y));
    }

    @Override
    public Region needs(Region wanted) {
        int left = Math.clamp(
                wanted.x() - (long) x, 0, last(input.width(), input.chroma().stepX()));
        int top = Math.clamp(
                wanted.y() - (long) y, 0, last(input.height(), input.chroma().stepY()));
        int right = Math.clamp(wanted.right() - (long) x, left + 1, input.width());
        int bottom = Math.clamp(wanted.bottom() - (long) y, top + 1, input.height());
        return new Region(left, top, right - left, bottom - top).aligned(input.chroma(), input.width(), input.height());
    }

    /** Where the last chroma sample begins. */
    private static int last(int side, int step) {
        return (side - 1) / step * step;
    }

    @Override
    public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
        Frame in = neighbours.at(0);
        Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
        Chroma chroma = input.chroma();
        for (int p = 0; p < chroma.planes(); p++) {
            int sx = chroma.stepX(p);
            int sy = chroma.stepY(p);
            // the input's window and the output's, in this plane's samples of the input picture
            int atX = (in.window().x() + x - wanted.x()) / sx;
            int atY = (in.window().y() + y - wanted.y()) / sy;
            put(in.plane(p), out.plane(p), atX, atY);
        }
        return out;
    }

    /** Black is 0 in every plane: no light, or no colour. */
    private static void put(Plane from, Plane to, int atX, int atY) {
        int left = Math.clamp(atX, 0, to.width());
        int right = Math.clamp((long) atX + from.width(), left, to.width());
        for (int row = 0; row < to.height(); row++) {
            int start = to.row(row);
            int source = row - atY;
            if (source < 0 || source >= from.height() || right == left) {
                Arrays.fill(to.data(), start, start + to.width(), 0);
                continue;
            }
            Arrays.fill(to.data(), start, start + left, 0);
            System.arraycopy(from.data(), from.row(source) + left - atX, to.data(), start + left, right - left);
            Arrays.fill(to.data(), start + right, start + to.width(), 0);
        }
    }
}
