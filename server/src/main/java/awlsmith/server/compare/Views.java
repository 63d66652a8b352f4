package awlsmith.server.compare;

import awlsmith.core.compare.Figures;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What comparing answers with. */
final class Views {
    private Views() {}

    /** Figures; what could not be measured is missing. */
    record FiguresView(
            double noise, @Nullable Double edges, @Nullable Double halo, double blocks, double light) {
        static FiguresView of(Figures figures) {
            return new FiguresView(
                    figures.noise(), known(figures.edges()), known(figures.halo()), figures.blocks(), figures.light());
        }
    }

    static @Nullable Double known(double value) {
        return Double.isFinite(value) ? value : null;
    }

    /**
     * What each step did to a part of a frame.
     *
     * @param source before the first step
     * @param steps behind each step of the recipe; a step that is off passes on what it got
     * @param taken of each step, how much of the fine structure that it took away runs one way, 0..1, noise alone 0.08; missing where it moves
     *     pixels or changed next to nothing
     */
    record StepsView(FiguresView source, List<FiguresView> steps, List<@Nullable Double> taken) {}

    /**
     * What a take did, measured at the pins' frames.
     *
     * @param flicker restlessness of what rests in the source, of 255; missing at a clip's only frame
     * @param sourceShake source pixels by which a frame lies beside its steady place; missing where no motion can be told
     * @param shake the same of the treated picture
     * @param change root mean square of treated less source at the source's scale, of 255
     * @param against luma held against the reference, where there is one
     * @param secondsAFrame treating a whole frame took here just now, without reading and encoding
     * @param harm places where it likely did harm, the pin they lie in where they lie in one
     */
    record TakeFigures(
            FiguresView source,
            FiguresView treated,
            @Nullable Double sourceFlicker,
            @Nullable Double flicker,
            @Nullable Double sourceShake,
            @Nullable Double shake,
            double change,
            double secondsAFrame,
            @Nullable AgainstView against,
            List<PlaceView> harm) {}

    /** @param psnr missing for equal pictures; @param ssim of the same; both for luma */
    record AgainstView(@Nullable Double psnr, double ssim) {}

    /** @param x middle in source pixels; @param why what makes it worth looking at; @param amount of 255 */
    record PlaceView(int frame, int x, int y, String why, boolean harm, double amount) {}

    /**
     * One side under the pointer.
     *
     * @param values of each plane as floats: luma 0..1 and differences -0.5..0.5, or R'G'B' 0..1
     * @param codes the same as code values of the picture's depth and range
     * @param excursion whether any lies outside of the nominal range
     * @param rgb as shown, 8 bits each
     * @param patch rgb of the pixels around, row by row, 3 numbers each
     * @param side pixels to a row of the patch
     * @param at which of the patch's pixels it is itself, from 0
     */
    record PixelView(
            int x,
            int y,
            List<String> names,
            float[] values,
            int[] codes,
            int depth,
            boolean excursion,
            int[] rgb,
            int[] patch,
            int side,
            int at) {}

    /** See {@link awlsmith.core.compare.Scopes}; only vectors that occur: index, count, index, count. */
    record ScopesView(
            int[] histogram,
            int columns,
            int[] waveform,
            int[] vectors,
            long below,
            long above,
            long samples,
            String matrix) {}
}
