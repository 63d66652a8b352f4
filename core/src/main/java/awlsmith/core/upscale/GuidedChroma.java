package awlsmith.core.upscale;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import java.util.List;

/**
 * Sharpens halved chroma planes after a plain enlargement, from the luma beside them, which is finer. Around each chroma
 * sample a line is fitted, chroma = a x luma + b (the guided filter: He, Sun and Tang, "Guided image filtering", IEEE PAMI
 * 2013, equations 5 and 6, used for upsampling); then a times what the luma loses on the chroma's grid is added. The
 * slope counts as far as luma explains the chroma at all: it is weighed by the square of the share of variance explained,
 * so that unlike textures do not leak.
 */
final class GuidedChroma {
    /** Samples around one that the line is fitted to; with its neighbours' slopes averaged in, twice this matters. */
    private static final int RADIUS = 1;

    private static final float SQUARE = (2 * RADIUS + 1) * (2 * RADIUS + 1);

    /** Added to luma's variance: (0.03 of the range)², below which a slope would be noise. Chosen by trial, see the decisions. */
    private static final float STEADY = 1e-3f;

    private static final float NOTHING = 1e-7f;

    private final Format input;
    private final Format output;
    /** Luma to the small chroma grid, luma to the large one, small chroma to large, slopes to large. */
    private final PlaneResampler toSmall;

    private final PlaneResampler toLarge;
    private final PlaneResampler enlarge;
    private final PlaneResampler spread;

    /** @param output the input's layout at a larger size */
    GuidedChroma(Format input, Format output, Kernel base) {
        this.input = input;
        this.output = output;
        int sx = input.chroma().stepX();
        int sy = input.chroma().stepY();
        double left = input.siting().across(sx);
        double top = input.siting().down(sy);
        toSmall = new PlaneResampler(
                onto(Kernel.BILINEAR, input.width(), input.width(), sx, left),
                onto(Kernel.BILINEAR, input.height(), input.height(), sy, top));
        toLarge = new PlaneResampler(
                onto(Kernel.CATMULL_ROM, input.width(), output.width(), sx, left),
                onto(Kernel.CATMULL_ROM, input.height(), output.height(), sy, top));
        enlarge = chroma(base, sx, left, sy, top);
        spread = chroma(Kernel.BILINEAR, sx, left, sy, top);
    }

    static boolean isOf(Format format) {
        return format.chroma().isSubsampled();
    }

    private PlaneResampler chroma(Kernel kernel, int sx, double left, int sy, double top) {
        return new PlaneResampler(
                TapTable.forAxis(kernel, input.width(), output.width(), sx, left),
                TapTable.forAxis(kernel, input.height(), output.height(), sy, top));
    }

    /** From luma samples of a picture onto the chroma samples of the same picture at another size. */
    private static TapTable onto(Kernel kernel, int from, int to, int chromaStep, double offset) {
        double lumaStep = (double) from / to;
        double step = chromaStep * lumaStep;
        double atZero = (offset + 0.5) * lumaStep - 0.5;
        return TapTable.of(kernel, from, Math.ceilDiv(to, chromaStep), step, atZero - (0.5 * step - 0.5));
    }

    /** The part of the input picture that a part of the output is made from. */
    Region needs(Region wanted) {
        Region large = large(wanted);
        Region fitted = grown(small(large), 2 * RADIUS);
        Region luma = from(toSmall, fitted).around(from(toLarge, large));
        int sx = input.chroma().stepX();
        int sy = input.chroma().stepY();
        var chroma = new Region(fitted.x() * sx, fitted.y() * sy, fitted.width() * sx, fitted.height() * sy);
        return luma.around(chroma.within(input.width(), input.height()))
                .aligned(input.chroma(), input.width(), input.height());
    }

    /** Adds to the chroma planes of a plainly enlarged frame. */
    void add(Frame in, Frame out, float strength, PlanePool pool, Work work) {
        Region large = large(out.window());
        Region spreadFrom = small(large);
        Region sloped = grown(spreadFrom, RADIUS);
        Region fitted = grown(spreadFrom, 2 * RADIUS);
        Region held = in.window();
        Plane luma = in.plane(0);

        Plane coarse = borrow(fitted, pool);
        toSmall.resample(luma, held.x(), held.y(), coarse, fitted.x(), fitted.y(), work);
        // what luma loses on the chroma's grid
        Plane lost = borrow(large, pool);
        toLarge.resample(luma, held.x(), held.y(), lost, large.x(), large.y(), work);
        Plane kept = borrow(large, pool);
        enlarge.resample(coarse, fitted.x(), fitted.y(), kept, large.x(), large.y(), work);
        subtract(lost, kept, work);

        int heldX = held.x() / input.chroma().stepX();
        int heldY = held.y() / input.chroma().stepY();
        Plane raw = borrow(sloped, pool);
        Plane slope = borrow(spreadFrom, pool);
        for (int p = 1; p <= 2; p++) {
            Plane chroma = in.plane(p)
                    .window(new Region(fitted.x() - heldX, fitted.y() - heldY, fitted.width(), fitted.height()));
            fit(coarse, chroma, fitted, raw, sloped, work);
            average(raw, sloped, slope, spreadFrom, work);
            spread.resample(slope, spreadFrom.x(), spreadFrom.y(), kept, large.x(), large.y(), work);
            addProducts(out.plane(p), kept, lost, strength, work);
        }
        List.of(coarse, lost, kept, raw, slope).forEach(pool::giveBack);
    }

    /** The part of the large chroma grid that a part of the output picture holds. */
    private Region large(Region wanted) {
        return new Region(
                wanted.x() / output.chroma().stepX(),
                wanted.y() / output.chroma().stepY(),
                output.chroma().planeWidth(1, wanted.width()),
                output.chroma().planeHeight(1, wanted.height()));
    }

    /** The part of the small chroma grid that a part of the large one is enlarged from, by either kernel. */
    private Region small(Region large) {
        return from(enlarge, large).around(from(spread, large));
    }

    /** What a resampler reads for a part of what it makes. */
    private static Region from(PlaneResampler table, Region to) {
        int x = table.across().needsFrom(to.x(), to.right());
        int y = table.down().needsFrom(to.y(), to.bottom());
        return new Region(
                x,
                y,
                table.across().needsTo(to.x(), to.right()) - x,
                table.down().needsTo(to.y(), to.bottom()) - y);
    }

    /** Larger by so many small chroma samples, inside the picture. */
    private Region grown(Region part, int by) {
        int width = input.chroma().planeWidth(1, input.width());
        int height = input.chroma().planeHeight(1, input.height());
        int x = Math.max(0, part.x() - by);
        int y = Math.max(0, part.y() - by);
        return new Region(x, y, Math.min(width, part.right() + by) - x, Math.min(height, part.bottom() + by) - y);
    }

    private static Plane borrow(Region part, PlanePool pool) {
        return pool.borrow(part.width(), part.height());
    }

    private static void subtract(Plane from, Plane what, Work work) {
        work.bands(from.height(), 32, (first, end) -> {
            for (int y = first; y < end; y++) {
                int a = from.row(y);
                int b = what.row(y);
                for (int x = 0; x < from.width(); x++) {
                    from.data()[a + x] -= what.data()[b + x];
                }
            }
        });
    }

    private static void addProducts(Plane to, Plane slope, Plane lost, float strength, Work work) {
        work.bands(to.height(), 32, (first, end) -> {
            for (int y = first; y < end; y++) {
                int t = to.row(y);
                int s = slope.row(y);
                int l = lost.row(y);
                for (int x = 0; x < to.width(); x++) {
                    to.data()[t + x] += strength * slope.data()[s + x] * lost.data()[l + x];
                }
            }
        });
    }

    /** The slope of chroma over luma in the 3x3 around each sample, as far as it explains the chroma. */
    private static void fit(Plane luma, Plane chroma, Region held, Plane slope, Region wanted, Work work) {
        work.bands(wanted.height(), 16, (first, end) -> {
            for (int row = first; row < end; row++) {
                for (int column = 0; column < wanted.width(); column++) {
                    int x0 = wanted.x() + column - held.x();
                    int y0 = wanted.y() + row - held.y();
                    float sumL = 0;
                    float sumC = 0;
                    float sumLL = 0;
                    float sumLC = 0;
                    float sumCC = 0;
                    // about the middle sample, so that the squares keep their digits
                    float midL = luma.at(x0, y0);
                    float midC = chroma.at(x0, y0);
                    for (int dy = -RADIUS; dy <= RADIUS; dy++) {
                        int y = Math.clamp(y0 + dy, 0, luma.height() - 1);
                        for (int dx = -RADIUS; dx <= RADIUS; dx++) {
                            int x = Math.clamp(x0 + dx, 0, luma.width() - 1);
                            float l = luma.at(x, y) - midL;
                            float c = chroma.at(x, y) - midC;
                            sumL += l;
                            sumC += c;
                            sumLL += l * l;
                            sumLC += l * c;
                            sumCC += c * c;
                        }
                    }
                    float varL = sumLL / SQUARE - sumL / SQUARE * (sumL / SQUARE);
                    float varC = sumCC / SQUARE - sumC / SQUARE * (sumC / SQUARE);
                    float both = sumLC / SQUARE - sumL / SQUARE * (sumC / SQUARE);
                    float explained = Math.min(1, both * both / ((varL + NOTHING) * (varC + NOTHING)));
                    slope.set(column, row, both / (varL + STEADY) * explained * explained);
                }
            }
        });
    }

    /** The mean of the 3x3 around each sample. */
    private static void average(Plane raw, Region held, Plane to, Region wanted, Work work) {
        work.bands(wanted.height(), 16, (first, end) -> {
            for (int row = first; row < end; row++) {
                for (int column = 0; column < wanted.width(); column++) {
                    float sum = 0;
                    for (int dy = -RADIUS; dy <= RADIUS; dy++) {
                        int y = Math.clamp(wanted.y() + row - held.y() + dy, 0, raw.height() - 1);
                        for (int dx = -RADIUS; dx <= RADIUS; dx++) {
                            sum += raw.at(Math.clamp(wanted.x() + column - held.x() + dx, 0, raw.width() - 1), y);
                        }
                    }
                    to.set(column, row, sum / SQUARE);
                }
            }
        });
    }
}
