package awlsmith.core.clean;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.TapRows;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;
import java.util.List;

/**
 * Adds grain: noise of a chosen strength at every light and a chosen coarseness, another in every frame. It hangs on the frame's number and the sample's place alone, so that
 * every part and every range has the same.
 */
public final class GrainStage implements Stage {
    private static final int MOST_REACH = 6;
    /** Taps fainter than this are left out. */
    private static final double FAINT = 1e-4;

    private static final double LEAST = 1 / 3.0;

    private final Format format;
    private final float colour;
    private final TapRows taps;
    private final int reach;
    private final GrainRows rows;

    /** How coarse grain can be. */
    public static final double COARSEST = 4;

    /** Width of the bell that grain is blurred by, samples, for each step of its coarseness above 1. */
    private static final double WIDTH = 0.75;

    /**
     * @param levels deviation of the grain at {@link NoiseModel#LEVELS} places of the light from black to white, 0..1
     * @param colour of the colour differences' grain, likewise
     * @param coarseness 1 changes from sample to sample, 2 is about two samples wide, up to 4
     */
    public GrainStage(Format format, List<Double> levels, double colour, double coarseness) {
        if (levels.size() != NoiseModel.LEVELS
                || !levels.stream().allMatch(level -> level >= 0)
                || !(colour >= 0)
                || !(coarseness >= 1 && coarseness <= COARSEST)) {
            throw new IllegalArgumentException(
                    "levels are " + levels + ", colour " + colour + ", coarseness " + coarseness + ", must be 1..4");
        }
        this.format = format;
        this.colour = (float) colour;
        float[] kernel = kernel(coarseness);
        taps = new TapRows(kernel);
        reach = kernel.length / 2;
        rows = GrainRows.of(levels);
    }

    /**
     * Strongest in the middle of the light, a third of that at black and white, as film has it (common practice, no source).
     *
     * @param sigma deviation where it is strongest
     */
    public static List<Double> film(double sigma) {
        return java.util.stream.IntStream.range(0, NoiseModel.LEVELS)
                .mapToObj(i -> {
                    double light = i / (NoiseModel.LEVELS - 1.0);
                    return sigma * (LEAST + (1 - LEAST) * 4 * light * (1 - light));
                })
                .toList();
    }

    /**
     * How coarse grain looks like noise that was measured before the picture was enlarged: its width grows with the picture, and a sample
     * becomes a blot.
     *
     * @param factor times the picture was made larger
     */
    public static double coarseness(NoiseModel noise, double factor) {
        double width = noise.width() * factor;
        double blot = Math.max(0, factor * factor - 1) / 12;
        return Math.clamp(1 + Math.sqrt(width * width + blot) / WIDTH, 1, COARSEST);
    }

    /** A Gaussian over at most 13 samples whose squares add up to 1, so that grain is as strong at every width. */
    private static float[] kernel(double coarseness) {
        double width = Math.max(1e-3, WIDTH * (coarseness - 1));
        int reach = 0;
        while (reach < MOST_REACH && Math.exp(-(reach + 1) * (reach + 1) / (2 * width * width)) > FAINT) {
            reach++;
        }
        double[] all = new double[2 * reach + 1];
        double squares = 0;
        for (int i = -reach; i <= reach; i++) {
            all[i + reach] = Math.exp(-i * i / (2 * width * width));
            squares += all[i + reach] * all[i + reach];
        }
        float[] kernel = new float[all.length];
        for (int i = 0; i < kernel.length; i++) {
            kernel[i] = (float) (all[i] / Math.sqrt(squares));
        }
        return kernel;
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
        Chroma chroma = format.chroma();
        for (int p = 0; p < out.planes().size(); p++) {
            boolean light = !chroma.isDifference(p);
            // of R'G'B' all planes get the same, so that it stays without colour
            long seed = mixed(input.number() * 0x9E3779B97F4A7C15L + (light ? 0 : p));
            Plane from = in.plane(p);
            Plane to = out.plane(p);
            int left = wanted.x() / chroma.stepX(p);
            int top = wanted.y() / chroma.stepY(p);
            work.bands(to.height(), 32, (first, end) -> rows(from, to, first, end, left, top, seed, light));
        }
        return out;
    }

    private void rows(Plane from, Plane to, int first, int end, int left, int top, long seed, boolean light) {
        int width = to.width();
        int side = 2 * reach + 1;
        float[] across = new float[side * width];
        float[] raw = new float[width + 2 * reach];
        float[] grain = new float[width];
        int[] starts = new int[side];
        for (int y = first - reach; y < end + reach; y++) {
            rows.noise(raw, left - reach, mixed(seed + (top + y) * 0xBF58476D1CE4E5B9L));
            Arrays.setAll(starts, k -> k);
            taps.sum(raw, starts, across, Math.floorMod(y, side) * width, width);
            int done = y - reach;
            if (done >= first) {
                for (int k = 0; k < side; k++) {
                    starts[k] = Math.floorMod(done - reach + k, side) * width;
                }
                taps.sum(across, starts, grain, 0, width);
                if (light) {
                    rows.added(from.data(), from.row(done), grain, to.data(), to.row(done));
                } else {
                    rows.added(from.data(), from.row(done), colour, grain, to.data(), to.row(done));
                }
            }
        }
    }

    /** Source: S. Vigna, splitmix64's last steps, 2015 (public domain); a row's chance hangs on it. */
    private static long mixed(long x) {
        long z = (x ^ x >>> 30) * 0xBF58476D1CE4E5B9L;
        z = (z ^ z >>> 27) * 0x94D049BB133111EBL;
        return z ^ z >>> 31;
    }
}
