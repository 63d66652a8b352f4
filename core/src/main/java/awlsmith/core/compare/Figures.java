package awlsmith.core.compare;

import awlsmith.core.measure.Blocking;
import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.NoiseLevel;
import awlsmith.core.measure.Seams;
import awlsmith.core.picture.Plane;

/**
 * What is measured of one picture, by rules that do not depend on its size: noise at the source's scale, edges in source
 * pixels.
 *
 * @param noise standard deviation in steps of 255, at the source's scale
 * @param edges mean width of strong edges in source pixels; NaN where there are too few
 * @param halo overshoot of edges that stand alone, as a share of their height, as {@link Seams} tells it; NaN where there are too few
 * @param blocks how much larger steps on a lattice of blocks are than beside it; 1 without blocks
 * @param light mean luma, 0 black to 1 white: the exposure
 */
public record Figures(double noise, double edges, double halo, double blocks, double light) {
    private static final double CODES = 255;

    /**
     * @param atSource luma at the source's scale, at least 32x32
     * @param full luma at the picture's own scale, of the same part
     * @param factor its pixels to one of the source
     */
    public static Figures of(Plane atSource, Plane full, double factor) {
        var edges = EdgeWidth.of(full);
        return new Figures(
                CODES * NoiseLevel.of(atSource).sigma(),
                edges.width() / factor,
                halo(atSource, full),
                Blocking.of(atSource).strength(),
                light(atSource));
    }

    /** Where much larger edges are too wide to stand alone within a few samples, they are looked at as they are at the source's scale. */
    private static double halo(Plane atSource, Plane full) {
        double own = Seams.of(full);
        double seen = Double.isNaN(own) ? Seams.of(atSource) : own;
        return Double.isNaN(seen) ? seen : Math.max(0, seen);
    }

    private static double light(Plane luma) {
        double sum = 0;
        for (int y = 0; y < luma.height(); y++) {
            for (int x = 0; x < luma.width(); x++) {
                sum += luma.at(x, y);
            }
        }
        return sum / ((double) luma.width() * luma.height());
    }

    /** The mean of several places or frames; a figure that one of them lacks is the mean of the others. */
    public static Figures mean(java.util.List<Figures> all) {
        return new Figures(
                mean(all.stream().mapToDouble(Figures::noise)),
                mean(all.stream().mapToDouble(Figures::edges)),
                mean(all.stream().mapToDouble(Figures::halo)),
                mean(all.stream().mapToDouble(Figures::blocks)),
                mean(all.stream().mapToDouble(Figures::light)));
    }

    private static double mean(java.util.stream.DoubleStream values) {
        return values.filter(v -> !Double.isNaN(v)).average().orElse(Double.NaN);
    }
}
