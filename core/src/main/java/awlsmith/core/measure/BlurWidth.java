package awlsmith.core.measure;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.TapRows;
import java.util.Arrays;

/**
 * How wide the bell is that a picture was blurred by: at the ridges of its edges the slope is compared with the slope once the picture is blurred
 * by a bell of one sample more. Of a step blurred by s the slopes' ratio is sqrt(1 + 1 / s²), which tells s.
 *
 * <p>Source: S. Zhuo and T. Sim, "Defocus map estimation from a single image", Pattern Recognition 44(9), 2011, equation 7. Edges along rows and
 * columns are asked, the middle of their answers is told.
 */
public final class BlurWidth {
    /** Least slope of an edge, from sample to sample: 12 of 255. */
    private static final float STEEP = 12f / 255;
    /** Share of the edges that is among the sharpest: softer ones lie out of focus, or were soft in the scene. */
    private static final double SHARPEST = 0.1;
    /** Edges without which nothing is said. */
    private static final int ENOUGH = 60;
    /** Slopes one way are this many times those across, or more. */
    private static final float PLAIN = 2;

    /** A bell of one sample. */
    private static final float[] BELL = bell();

    private BlurWidth() {}

    /**
     * Standard deviations in samples; 0.3 to 0.6 of a picture as sharp as can be. Of a single step the square is a third too large, as slopes
     * are taken over two samples; of pictures the middle is as wide as the blur that was added (by hand, eleven pictures blurred by 0.8 to 2: within
     * 0.2 of nine).
     *
     * @param across of edges met going along rows; @param down along columns; NaN where there are too few
     * @param sharpest of the sharpest tenth of edges, both ways; NaN likewise
     */
    public record Widths(double across, double down, double sharpest) {
        /** Both in one; NaN where there are too few edges. */
        public double both() {
            return BlurWidth.both(across, down);
        }
    }

    private static double both(double across, double down) {
        return Double.isNaN(across)
                ? down
                : Double.isNaN(down) ? across : Math.sqrt((across * across + down * down) / 2);
    }

    /** @param p at least 16x16 */
    public static Widths of(Plane p) {
        Plane soft = blurred(p);
        var across = new Answers();
        var down = new Answers();
        for (int y = 2; y < p.height() - 2; y++) {
            int at = p.row(y);
            int above = p.row(y - 1);
            int below = p.row(y + 1);
            float[] data = p.data();
            for (int x = 2; x < p.width() - 2; x++) {
                float gx = Math.abs(data[at + x + 1] - data[at + x - 1]) / 2;
                float gy = Math.abs(data[below + x] - data[above + x]) / 2;
                if (gx >= STEEP && gx >= PLAIN * gy && isRidge(p, x, y, gx, 1, 0)) {
                    across.add(gx, Math.abs(soft.at(x + 1, y) - soft.at(x - 1, y)) / 2);
                } else if (gy >= STEEP && gy >= PLAIN * gx && isRidge(p, x, y, gy, 0, 1)) {
                    down.add(gy, Math.abs(soft.at(x, y + 1) - soft.at(x, y - 1)) / 2);
                }
            }
        }
        return new Widths(across.share(0.5), down.share(0.5), both(across.share(SHARPEST), down.share(SHARPEST)));
    }

    private static boolean isRidge(Plane p, int x, int y, float slope, int dx, int dy) {
        float before = Math.abs(p.at(x, y) - p.at(x - 2 * dx, y - 2 * dy)) / 2;
        float after = Math.abs(p.at(x + 2 * dx, y + 2 * dy) - p.at(x, y)) / 2;
        return slope >= before && slope >= after;
    }

    /** Widths that single edges told. */
    private static final class Answers {
        private double[] all = new double[256];
        private int count;

        void add(double slope, double softer) {
            double ratio = slope / Math.max(softer, 1e-6);
            if (ratio <= 1.001) {
                return;
            }
            if (count == all.length) {
                all = Arrays.copyOf(all, 2 * count);
            }
            all[count++] = 1 / Math.sqrt(ratio * ratio - 1);
        }

        /** So large a share of the edges is narrower. */
        double share(double share) {
            if (count < ENOUGH) {
                return Double.NaN;
            }
            double[] sorted = Arrays.copyOf(all, count);
            Arrays.sort(sorted);
            return sorted[(int) (share * count)];
        }
    }

    private static float[] bell() {
        float[] taps = new float[9];
        double sum = 0;
        for (int i = 0; i < taps.length; i++) {
            sum += Math.exp(-(i - 4) * (i - 4) / 2.0);
        }
        for (int i = 0; i < taps.length; i++) {
            taps[i] = (float) (Math.exp(-(i - 4) * (i - 4) / 2.0) / sum);
        }
        return taps;
    }

    private static Plane blurred(Plane p) {
        int reach = BELL.length / 2;
        var taps = new TapRows(BELL);
        int[] starts = new int[BELL.length];
        Arrays.setAll(starts, k -> k);
        Plane middle = Plane.of(p.width(), p.height());
        float[] row = new float[p.width() + 2 * reach];
        for (int y = 0; y < p.height(); y++) {
            p.rowAround(y, -reach, row);
            taps.sum(row, starts, middle.data(), middle.row(y), p.width());
        }
        Plane out = Plane.of(p.width(), p.height());
        for (int y = 0; y < p.height(); y++) {
            for (int k = 0; k < starts.length; k++) {
                starts[k] = middle.row(Math.clamp(y + k - (long) reach, 0, p.height() - 1));
            }
            taps.sum(middle.data(), starts, out.data(), out.row(y), p.width());
        }
        return out;
    }
}
