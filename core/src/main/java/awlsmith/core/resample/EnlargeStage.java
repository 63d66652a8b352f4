package awlsmith.core.resample;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Optional;

/** Resamples every plane of a frame to a new size, chroma in its right place. Enlarges or reduces, any ratio. */
public final class EnlargeStage implements Stage {
    private final Format input;
    private final Format output;
    private final Kernel kernel;
    private final PlaneResampler[] planes;

    /** @param output same layout and siting as input, any size */
    public EnlargeStage(Format input, Format output, Kernel kernel) {
        if (input.chroma() != output.chroma() || !input.siting().equals(output.siting())) {
            throw new IllegalArgumentException("resampling keeps the plane layout: " + input.chroma() + " to "
                    + output.chroma() + " was asked for");
        }
        this.input = input;
        this.output = output;
        this.kernel = kernel;
        Chroma chroma = input.chroma();
        planes = new PlaneResampler[chroma.planes()];
        for (int p = 0; p < planes.length; p++) {
            int sx = chroma.stepX(p);
            int sy = chroma.stepY(p);
            double left = p == 0 ? 0 : input.siting().across(sx);
            double top = p == 0 ? 0 : input.siting().down(sy);
            planes[p] = new PlaneResampler(
                    TapTable.forAxis(kernel, input.width(), output.width(), sx, left),
                    TapTable.forAxis(kernel, input.height(), output.height(), sy, top));
        }
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new EnlargeStage(plane, output.alphaAlone(), kernel));
    }

    @Override
    public Region needs(Region wanted) {
        int left = input.width();
        int top = input.height();
        int right = 0;
        int bottom = 0;
        for (int p = 0; p < planes.length; p++) {
            int sx = input.chroma().stepX(p);
            int sy = input.chroma().stepY(p);
            var across = planes[p].across();
            var down = planes[p].down();
            int x0 = wanted.x() / sx;
            int y0 = wanted.y() / sy;
            int x1 = x0 + output.chroma().planeWidth(p, wanted.width());
            int y1 = y0 + output.chroma().planeHeight(p, wanted.height());
            left = Math.min(left, across.needsFrom(x0, x1) * sx);
            top = Math.min(top, down.needsFrom(y0, y1) * sy);
            right = Math.max(right, Math.min(input.width(), across.needsTo(x0, x1) * sx));
            bottom = Math.max(bottom, Math.min(input.height(), down.needsTo(y0, y1) * sy));
        }
        return new Region(left, top, right - left, bottom - top).aligned(input.chroma(), input.width(), input.height());
    }

    @Override
    public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
        Frame in = neighbours.at(0);
        Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
        for (int p = 0; p < planes.length; p++) {
            int sx = input.chroma().stepX(p);
            int sy = input.chroma().stepY(p);
            Plane dst = out.plane(p);
            planes[p].resample(
                    in.plane(p),
                    in.window().x() / sx,
                    in.window().y() / sy,
                    dst,
                    wanted.x() / sx,
                    wanted.y() / sy,
                    work);
        }
        return out;
    }
}
