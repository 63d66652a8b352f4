package awlsmith.core.colour;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;

/** Brings opaque pictures from one {@link Space} to another. */
public final class SpaceStages {
    private SpaceStages() {}

    /**
     * @param now of the pictures as they are
     * @param from the space they are in
     * @param to the space wanted
     * @param home how they are coded, which is what they come back to; of their size
     */
    public static List<Stage> between(Format now, Space from, Space to, Format home) {
        var stages = new ArrayList<Stage>();
        if (from == to) {
            return stages;
        }
        Format at = now;
        if (from == Space.CODED) {
            stages.addAll(toRgb(at));
            at = stages.isEmpty() ? at : stages.getLast().output();
        }
        var curve = TransferCurve.of(home);
        if (from == Space.LIGHT && curve != TransferCurve.LINEAR) {
            stages.add(new Curved(at, PointCurve.of(curve.encoding())));
        }
        if (to == Space.LIGHT && curve != TransferCurve.LINEAR) {
            stages.add(new Curved(at, PointCurve.of(curve.decoding())));
        }
        if (to == Space.CODED) {
            stages.addAll(LayoutStages.between(at, home));
        }
        return stages;
    }

    /** To red, green and blue as they are coded; none where the picture is grey or has them already. */
    static List<Stage> toRgb(Format from) {
        if (from.chroma() == Chroma.GREY || from.chroma() == Chroma.RGB) {
            return List.of();
        }
        var stages = new ArrayList<Stage>();
        Format full = from.withChroma(Chroma.S444);
        if (from.chroma() != Chroma.S444) {
            stages.addAll(LayoutStages.between(from, full));
        }
        var tags = from.colour();
        // told from here on, as for R'G'B' another is usual
        var transfer = tags.transfer() == ColourTags.Transfer.UNSPECIFIED ? ColourTags.Transfer.BT709 : tags.transfer();
        stages.add(new LumaChromaToRgb(
                full,
                full.withChroma(Chroma.RGB)
                        .withColour(new ColourTags(
                                ColourTags.Matrix.RGB, ColourTags.Range.FULL, transfer, tags.primaries()))));
        return stages;
    }

    /** One curve on every sample. */
    private record Curved(Format output, PointCurve curve) implements Stage {
        @Override
        public Region needs(Region wanted) {
            return wanted;
        }

        @Override
        public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
            Frame in = input.at(0).cut(wanted);
            Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
            for (int p = 0; p < out.planes().size(); p++) {
                Plane from = in.plane(p);
                Plane to = out.plane(p);
                work.bands(to.height(), 32, (first, end) -> {
                    for (int y = first; y < end; y++) {
                        curve.row(from.data(), from.row(y), to.data(), to.row(y), to.width());
                    }
                });
            }
            return out;
        }
    }

    /** Pointwise: luma and two colour differences of full size to three planes of light. */
    private record LumaChromaToRgb(Format input, Format output) implements Stage {
        @Override
        public Region needs(Region wanted) {
            return wanted;
        }

        @Override
        public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
            Frame in = neighbours.at(0).cut(wanted);
            Frame out = Frame.blank(output, wanted, in.number(), in.time(), pool);
            var matrix = LumaChroma.of(input.colour().matrixFor(input.height()));
            float rv = (float) matrix.crToR();
            float gu = (float) matrix.cbToG();
            float gv = (float) matrix.crToG();
            float bu = (float) matrix.cbToB();
            work.bands(wanted.height(), 32, (from, to) -> {
                for (int y = from; y < to; y++) {
                    row(in, out, y, rv, gu, gv, bu);
                }
            });
            return out;
        }

        private static void row(Frame in, Frame out, int y, float rv, float gu, float gv, float bu) {
            float[] luma = in.plane(0).data();
            float[] cb = in.plane(1).data();
            float[] cr = in.plane(2).data();
            float[] red = out.plane(0).data();
            float[] green = out.plane(1).data();
            float[] blue = out.plane(2).data();
            int l = in.plane(0).row(y);
            int u = in.plane(1).row(y);
            int v = in.plane(2).row(y);
            int r = out.plane(0).row(y);
            int g = out.plane(1).row(y);
            int b = out.plane(2).row(y);
            for (int x = 0; x < out.window().width(); x++) {
                red[r + x] = luma[l + x] + rv * cr[v + x];
                green[g + x] = luma[l + x] - gu * cb[u + x] - gv * cr[v + x];
                blue[b + x] = luma[l + x] + bu * cb[u + x];
            }
        }
    }
}
