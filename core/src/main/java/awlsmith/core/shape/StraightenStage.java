package awlsmith.core.shape;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.FreePlaces;
import java.util.Optional;

/**
 * Turns a picture by a small angle about its middle and keeps the largest part of its own shape that has no empty corner.
 * The scale stays as it was.
 */
public final class StraightenStage implements Stage {
    /** Most degrees either way. */
    public static final double MOST = 15;

    private final Format input;
    private final Format output;
    private final double sin;
    private final double cos;
    private final double shape;

    /** @param degrees clockwise, -15..15 */
    public StraightenStage(Format input, double degrees) {
        if (!(Math.abs(degrees) <= MOST)) {
            throw new IllegalArgumentException("angle is " + degrees + " degrees, must be in -15..15");
        }
        this.input = input;
        sin = Math.sin(Math.toRadians(degrees));
        cos = Math.cos(Math.toRadians(degrees));
        shape = input.sar().toDouble();
        double w = input.width() * shape;
        double h = input.height();
        double s = Math.abs(sin);
        double share = Math.min(w / (w * cos + h * s), h / (w * s + h * cos));
        int stepX = input.chroma().stepX();
        int stepY = input.chroma().stepY();
        int width = Math.max(stepX, (int) Math.floor(input.width() * share / stepX) * stepX);
        int height = Math.max(stepY, (int) Math.floor(input.height() * share / stepY) * stepY);
        output = input.withSize(Math.min(width, input.width()), Math.min(height, input.height()), input.sar());
    }

    private StraightenStage(Format input, Format output, double sin, double cos) {
        this.input = input;
        this.output = output;
        this.sin = sin;
        this.cos = cos;
        this.shape = input.sar().toDouble();
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public boolean isAligned() {
        return false;
    }

    /** Column of the input, in luma pixels, that a place of the output comes from. */
    private double column(double x, double y) {
        double dx = (x - (output.width() - 1) / 2.0) * shape;
        double dy = y - (output.height() - 1) / 2.0;
        return (input.width() - 1) / 2.0 + (cos * dx + sin * dy) / shape;
    }

    private double line(double x, double y) {
        double dx = (x - (output.width() - 1) / 2.0) * shape;
        double dy = y - (output.height() - 1) / 2.0;
        return (input.height() - 1) / 2.0 - sin * dx + cos * dy;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new StraightenStage(plane, output.alphaAlone(), sin, cos));
    }

    @Override
    public Region needs(Region wanted) {
        double left = Double.MAX_VALUE;
        double top = Double.MAX_VALUE;
        double right = -Double.MAX_VALUE;
        double bottom = -Double.MAX_VALUE;
        for (int x : new int[] {wanted.x(), wanted.right()}) {
            for (int y : new int[] {wanted.y(), wanted.bottom()}) {
                left = Math.min(left, column(x, y));
                right = Math.max(right, column(x, y));
                top = Math.min(top, line(x, y));
                bottom = Math.max(bottom, line(x, y));
            }
        }
        // chroma reaches twice as far in luma pixels
        int reach = 4 * FreePlaces.REACH;
        int x0 = Math.clamp((int) Math.floor(left) - reach, 0, input.width() - 1);
        int y0 = Math.clamp((int) Math.floor(top) - reach, 0, input.height() - 1);
        int x1 = Math.clamp((int) Math.ceil(right) + reach, x0 + 1, input.width());
        int y1 = Math.clamp((int) Math.ceil(bottom) + reach, y0 + 1, input.height());
        return new Region(x0, y0, x1 - x0, y1 - y0).aligned(input.chroma(), input.width(), input.height());
    }

    @Override
    public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
        Frame in = neighbours.at(0);
        Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
        for (int p = 0; p < out.planes().size(); p++) {
            int plane = p;
            work.bands(out.plane(p).height(), 16, (from, to) -> rows(in, out, plane, wanted, from, to));
        }
        return out;
    }

    private void rows(Frame in, Frame out, int p, Region wanted, int from, int to) {
        Chroma chroma = input.chroma();
        int sx = chroma.stepX(p);
        int sy = chroma.stepY(p);
        double across = input.siting().across(sx);
        double down = input.siting().down(sy);
        Plane target = out.plane(p);
        Plane source = in.plane(p);
        int left = in.window().x() / sx;
        int top = in.window().y() / sy;
        for (int row = from; row < to; row++) {
            double y = (wanted.y() / sy + row) * (double) sy + down;
            for (int i = 0; i < target.width(); i++) {
                double x = (wanted.x() / sx + i) * (double) sx + across;
                double u = (column(x, y) - across) / sx;
                double v = (line(x, y) - down) / sy;
                target.set(i, row, FreePlaces.at(source, left, top, u, v));
            }
        }
    }
}
