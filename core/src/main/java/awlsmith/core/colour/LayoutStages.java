package awlsmith.core.colour;

import awlsmith.core.alpha.AlphaStage;
import awlsmith.core.alpha.WithAlpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Brings treated pictures into the plane layout a file needs. */
public final class LayoutStages {
    private LayoutStages() {}

    /**
     * Stages from one layout to another, also from luma and chroma to red, green and blue or to another matrix; sides made even by one repeated pixel if asked; empty when there is nothing to do. Colour tags of the target
     * decide the matrix when RGB becomes luma and chroma. Transparency that the target does not hold is laid over black.
     */
    public static List<Stage> between(Format from, Format to) {
        var stages = new ArrayList<Stage>(AlphaStage.between(from, to.alpha()));
        Format now = stages.isEmpty() ? from : stages.getLast().output();
        stages.addAll(WithAlpha.around(now, opaque(now.opaque(), to.opaque())));
        return stages;
    }

    private static List<Stage> opaque(Format from, Format to) {
        var stages = new ArrayList<Stage>();
        Format now = from;
        boolean toRgb = to.chroma() == Chroma.RGB && from.chroma() != Chroma.RGB;
        if (toRgb || isOfAnotherMatrix(from, to)) {
            stages.addAll(SpaceStages.toRgb(from));
            now = stages.isEmpty() ? from : stages.getLast().output();
        }
        if (toRgb) {
            if (from.chroma() == Chroma.GREY) {
                stages.add(new GreyToRgb(from.withChroma(Chroma.RGB).withColour(to.colour())));
            }
            return stages;
        }
        if (now.chroma() == Chroma.RGB && to.chroma() != Chroma.RGB) {
            var full = new Format(
                    from.width(),
                    from.height(),
                    Chroma.S444,
                    to.siting(),
                    to.depth(),
                    to.colour(),
                    from.sar(),
                    from.scan());
            stages.add(new RgbToLumaChroma(full));
            now = full;
        }
        if (now.chroma() != to.chroma() || !now.siting().isSame(to.siting(), to.chroma())) {
            stages.add(new ChromaStage(
                    now,
                    new Format(
                            now.width(),
                            now.height(),
                            to.chroma(),
                            to.siting(),
                            to.depth(),
                            to.colour(),
                            now.sar(),
                            now.scan())));
        }
        if (from.width() != to.width() || from.height() != to.height()) {
            stages.add(new EdgeRepeat(stages.isEmpty() ? from : stages.getLast().output(), to));
        }
        return stages;
    }

    /** Whether luma and chroma are weighed otherwise, and both say how. */
    private static boolean isOfAnotherMatrix(Format from, Format to) {
        return isLumaChroma(from)
                && isLumaChroma(to)
                && from.colour().matrix() != to.colour().matrix();
    }

    private static boolean isLumaChroma(Format format) {
        return format.chroma() != Chroma.RGB
                && format.chroma() != Chroma.GREY
                && format.colour().matrix() != ColourTags.Matrix.UNSPECIFIED
                && format.colour().matrix() != ColourTags.Matrix.RGB;
    }

    /** Three planes of what one had. */
    private record GreyToRgb(Format output) implements Stage {
        @Override
        public Region needs(Region wanted) {
            return wanted;
        }

        @Override
        public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
            Frame in = input.at(0).cut(wanted);
            Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
            Plane from = in.plane(0);
            for (Plane to : out.planes()) {
                for (int y = 0; y < to.height(); y++) {
                    System.arraycopy(from.data(), from.row(y), to.data(), to.row(y), to.width());
                }
            }
            return out;
        }
    }

    /** One more column or row, the same as the last, where a codec wants even sides. */
    private record EdgeRepeat(Format input, Format output) implements Stage {
        EdgeRepeat {
            if (output.width() - input.width() >>> 1 != 0 || output.height() - input.height() >>> 1 != 0) {
                throw new IllegalArgumentException("edges are repeated by one pixel at most, asked for " + input.width()
                        + "x" + input.height() + " to " + output.width() + "x" + output.height());
            }
        }

        @Override
        public Optional<Stage> onAlpha(Format plane) {
            return Optional.of(new EdgeRepeat(plane, output.alphaAlone()));
        }

        @Override
        public Region needs(Region wanted) {
            return wanted.within(input.width(), input.height()).aligned(input.chroma(), input.width(), input.height());
        }

        @Override
        public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
            Frame in = neighbours.at(0);
            Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
            for (int p = 0; p < output.chroma().planes(); p++) {
                int sx = output.chroma().stepX(p);
                int sy = output.chroma().stepY(p);
                Plane from = in.plane(p);
                Plane to = out.plane(p);
                int dx = wanted.x() / sx - in.window().x() / sx;
                int dy = wanted.y() / sy - in.window().y() / sy;
                for (int y = 0; y < to.height(); y++) {
                    int row = from.row(Math.min(y + dy, from.height() - 1));
                    for (int x = 0; x < to.width(); x++) {
                        to.set(x, y, from.data()[row + Math.min(x + dx, from.width() - 1)]);
                    }
                }
            }
            return out;
        }
    }

    /** Pointwise: three planes of light to luma and two colour differences. */
    private record RgbToLumaChroma(Format output) implements Stage {
        @Override
        public Region needs(Region wanted) {
            return wanted;
        }

        @Override
        public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
            Frame whole = input.at(0);
            Frame in = whole.cut(wanted);
            Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
            var matrix = LumaChroma.of(output.colour().matrixFor(output.height()));
            work.bands(wanted.height(), 32, (from, to) -> {
                for (int y = from; y < to; y++) {
                    for (int x = 0; x < wanted.width(); x++) {
                        double r = in.plane(0).at(x, y);
                        double b = in.plane(2).at(x, y);
                        double luma = matrix.luma(r, in.plane(1).at(x, y), b);
                        out.plane(0).set(x, y, (float) luma);
                        out.plane(1).set(x, y, (float) matrix.cb(luma, b));
                        out.plane(2).set(x, y, (float) matrix.cr(luma, r));
                    }
                }
            });
            return out;
        }
    }

    /**
     * Luma as it is, chroma resampled to another subsampling or place; a grey picture gets neutral chroma. Lines of two fields are
     * never mixed: where chroma changes down the picture, each field of interlaced footage is resampled by itself.
     */
    private static final class ChromaStage implements Stage {
        private final Format input;
        private final Format output;
        /** One for whole frames, or one a field. */
        private final List<PlaneResampler> resamplers;

        ChromaStage(Format input, Format output) {
            if (output.chroma() == Chroma.GREY || output.chroma() == Chroma.RGB) {
                throw new IllegalArgumentException("cannot bring " + input.chroma() + " to " + output.chroma());
            }
            this.input = input;
            this.output = output;
            int inY = input.chroma().stepY();
            int outY = output.chroma().stepY();
            boolean byField = input.scan().isInterlaced()
                    && (inY != outY
                            || input.siting().down(inY) != output.siting().down(outY))
                    && input.height() > 2 * Math.max(inY, outY);
            if (input.chroma() == Chroma.GREY) {
                this.resamplers = List.of();
            } else if (byField) {
                this.resamplers = List.of(resampler(0), resampler(1));
            } else {
                this.resamplers = List.of(new PlaneResampler(
                        across(), axis(lines(inY), lines(outY), inY, outY, input.siting(), output.siting())));
            }
        }

        private int lines(int step) {
            return Math.ceilDiv(input.height(), step);
        }

        private TapTable across() {
            int in = input.chroma().stepX();
            int out = output.chroma().stepX();
            return table(
                    Math.ceilDiv(input.width(), in),
                    Math.ceilDiv(input.width(), out),
                    in,
                    out,
                    input.siting().across(in),
                    output.siting().across(out));
        }

        private static TapTable axis(int inLines, int outLines, int inStep, int outStep, Siting from, Siting to) {
            return table(inLines, outLines, inStep, outStep, from.down(inStep), to.down(outStep));
        }

        /** Output sample i lies on luma i * outStep + outOffset, which is (luma - inOffset) / inStep in input samples. */
        private static TapTable table(
                int inSamples, int outSamples, int inStep, int outStep, double inOffset, double outOffset) {
            double step = (double) outStep / inStep;
            double atZero = (outOffset - inOffset) / inStep;
            return TapTable.of(Kernel.CATMULL_ROM, inSamples, outSamples, step, atZero - (0.5 * step - 0.5));
        }

        /**
         * For every second line from line {@code field} on. A chroma line c of a plane halved down lies on luma 2c + offset of the frame;
         * it belongs to the field of its own number's parity, whose luma line n lies on 2n + field. Source: ITU-T H.264 figure 6-2
         * (chroma of fields lies a quarter of a field's line off).
         */
        private PlaneResampler resampler(int field) {
            int inY = input.chroma().stepY();
            int outY = output.chroma().stepY();
            return new PlaneResampler(
                    across(),
                    table(
                            (lines(inY) - field + 1) / 2,
                            (lines(outY) - field + 1) / 2,
                            inY,
                            outY,
                            inField(inY, input.siting(), field),
                            inField(outY, output.siting(), field)));
        }

        private static double inField(int step, Siting siting, int field) {
            // the field's first line is line `field` of the plane: step * field + offset of the frame's luma, in lines
            // of the field
            return (step * field + siting.down(step) - field) / 2.0;
        }

        @Override
        public Format output() {
            return output;
        }

        @Override
        public Region needs(Region wanted) {
            if (resamplers.isEmpty()) {
                return wanted;
            }
            TapTable across = resamplers.getFirst().across();
            int sx = output.chroma().stepX();
            int sy = output.chroma().stepY();
            int ix = input.chroma().stepX();
            int iy = input.chroma().stepY();
            int x1 = wanted.x() / sx + output.chroma().planeWidth(1, wanted.width());
            int y1 = wanted.y() / sy + output.chroma().planeHeight(1, wanted.height());
            int left = Math.min(wanted.x(), across.needsFrom(wanted.x() / sx, x1) * ix);
            int right = Math.max(wanted.right(), across.needsTo(wanted.x() / sx, x1) * ix);
            int top = 0;
            int bottom = input.height();
            if (resamplers.size() == 1) {
                TapTable down = resamplers.getFirst().down();
                top = Math.min(wanted.y(), down.needsFrom(wanted.y() / sy, y1) * iy);
                bottom = Math.max(wanted.bottom(), down.needsTo(wanted.y() / sy, y1) * iy);
            }
            return new Region(left, top, Math.min(right, input.width()) - left, Math.min(bottom, input.height()) - top)
                    .aligned(input.chroma(), input.width(), input.height());
        }

        @Override
        public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
            Frame in = neighbours.at(0);
            Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
            copy(in, out, wanted);
            for (int p = 1; p < 3; p++) {
                Plane dst = out.plane(p);
                if (resamplers.isEmpty()) {
                    dst.fill(0);
                    continue;
                }
                int fromX = in.window().x() / input.chroma().stepX();
                int fromY = in.window().y() / input.chroma().stepY();
                int toX = wanted.x() / output.chroma().stepX();
                int toY = wanted.y() / output.chroma().stepY();
                if (resamplers.size() == 1) {
                    resamplers.getFirst().resample(in.plane(p), fromX, fromY, dst, toX, toY, work);
                    continue;
                }
                for (int field = 0; field < 2; field++) {
                    int skip = toY + field & 1;
                    if (skip < dst.height()) {
                        resamplers
                                .get(field)
                                .resample(
                                        everySecond(in.plane(p), field),
                                        fromX,
                                        0,
                                        everySecond(dst, skip),
                                        toX,
                                        (toY + skip - field) / 2,
                                        work);
                    }
                }
            }
            return out;
        }

        /** The lines of one field as a plane of their own; the samples are shared. */
        private static Plane everySecond(Plane plane, int first) {
            return new Plane(
                    plane.data(),
                    plane.row(first),
                    plane.width(),
                    (plane.height() - first + 1) / 2,
                    2 * plane.stride());
        }

        private static void copy(Frame in, Frame out, Region wanted) {
            Plane from = in.plane(0);
            Plane to = out.plane(0);
            int dx = wanted.x() - in.window().x();
            int dy = wanted.y() - in.window().y();
            for (int y = 0; y < to.height(); y++) {
                System.arraycopy(from.data(), from.row(y + dy) + dx, to.data(), to.row(y), to.width());
            }
        }
    }
}
