package awlsmith.core.measure;

import awlsmith.core.detail.Bells;
import awlsmith.core.motion.Flow;
import awlsmith.core.motion.FlowFinder;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/**
 * How well fine texture follows what it lies on. On what a camera saw it goes where the coarser light goes; on what a program made from a
 * picture or a phrase, and where a codec drew it anew, it is another after a few frames (common practice, no source; the measure is ours).
 *
 * <p>Squares of 16 samples are asked whose fine light is texture and no edge, stronger than the noise, and whose coarser light agrees in both
 * frames, so that their motion is known: water, leaves and what was lost from sight are not.
 *
 * @param follows correlation of both frames' fine light in the middle one of the squares, 1 where all of it follows; NaN where none was asked
 * @param asked share of the picture's squares that were asked
 */
public record Swim(double follows, double asked) {
    private static final int SIDE = 16;
    /** Squares looked at, at most, spread evenly. */
    private static final int MOST_SQUARES = 400;
    /** Fine is what a bell of this many samples takes away, coarse what a second one takes away of the rest. */
    private static final double FINE = 1.5;

    private static final double COARSE = 6;
    /** Deviation of fine light, luma: less is lost in any codec, more is no mere texture. */
    private static final double LEAST = 1.0 / 255;

    private static final double MOST = 8.0 / 255;
    /** Times the noise that it must be. */
    private static final double OVER_NOISE = 1.7;
    /** Largest over deviation: beyond, it is an edge or a line. */
    private static final double EVEN = 4;
    /** Correlation of coarse light from which on the motion counts as known. */
    private static final double KNOWN = 0.7;
    /** Samples each way, in steps of half a sample, that the motion is tried around what was found. */
    private static final int AROUND = 2;

    /** Nothing was asked. */
    public static final Swim NONE = new Swim(Double.NaN, 0);

    /**
     * @param before luma of a frame some tenths of a second earlier; @param here as large
     * @param noise standard deviation of here, 0..1
     */
    public static Swim between(Plane before, Plane here, double noise, Work work) {
        int columns = here.width() / SIDE - 2;
        int rows = here.height() / SIDE - 2;
        if (columns < 1 || rows < 1) {
            return NONE;
        }
        Flow flow = FlowFinder.find(here, before, work);
        var pair = new Pair(new Side(here, work), new Side(before, work), flow, noise);
        int step = Math.max(1, columns * rows / MOST_SQUARES);
        double[] follow = new double[columns * rows];
        Arrays.fill(follow, Double.NaN);
        work.bands(rows, 1, (first, end) -> {
            for (int row = first; row < end; row++) {
                for (int column = 0; column < columns; column++) {
                    int at = row * columns + column;
                    if (at % step == 0) {
                        follow[at] = pair.follows(SIDE * (column + 1), SIDE * (row + 1));
                    }
                }
            }
        });
        double[] asked =
                Arrays.stream(follow).filter(one -> !Double.isNaN(one)).sorted().toArray();
        return asked.length == 0
                ? NONE
                : new Swim(asked[asked.length / 2], (double) asked.length * step / (columns * rows));
    }

    /** One frame's fine and coarse light. */
    private record Side(Plane fine, Plane coarse) {
        Side(Plane luma, Work work) {
            this(Plane.of(luma.width(), luma.height()), Plane.of(luma.width(), luma.height()));
            Region whole = Region.whole(luma.width(), luma.height());
            Plane soft = Plane.of(luma.width(), luma.height());
            Plane softer = Plane.of(luma.width(), luma.height());
            new Bells(FINE).blur(luma, whole, soft, new PlanePool(0), work);
            new Bells(COARSE).blur(luma, whole, softer, new PlanePool(0), work);
            for (int y = 0; y < luma.height(); y++) {
                for (int x = 0; x < luma.width(); x++) {
                    fine.set(x, y, luma.at(x, y) - soft.at(x, y));
                    coarse.set(x, y, soft.at(x, y) - softer.at(x, y));
                }
            }
        }
    }

    private record Pair(Side here, Side before, Flow flow, double noise) {
        /** @return NaN where the square is not asked */
        double follows(int x, int y) {
            double squares = 0;
            float largest = 0;
            for (int j = y; j < y + SIDE; j++) {
                for (int i = x; i < x + SIDE; i++) {
                    float one = here.fine.at(i, j);
                    squares += one * one;
                    largest = Math.max(largest, Math.abs(one));
                }
            }
            double deviation = Math.sqrt(squares / (SIDE * SIDE));
            if (deviation < Math.max(LEAST, OVER_NOISE * noise) || deviation > MOST || largest > EVEN * deviation) {
                return Double.NaN;
            }
            float u = flow.u().at(x + SIDE / 2, y + SIDE / 2);
            float v = flow.v().at(x + SIDE / 2, y + SIDE / 2);
            double best = -1;
            float bestU = u;
            float bestV = v;
            for (int down = -AROUND; down <= AROUND; down++) {
                for (int right = -AROUND; right <= AROUND; right++) {
                    double fits = correlation(here.fine, before.fine, x, y, u + right / 2f, v + down / 2f);
                    if (fits > best) {
                        best = fits;
                        bestU = u + right / 2f;
                        bestV = v + down / 2f;
                    }
                }
            }
            if (correlation(here.coarse, before.coarse, x, y, bestU, bestV) < KNOWN) {
                return Double.NaN;
            }
            // noise follows nothing and is no texture
            double texture = 1 - noise * noise / (deviation * deviation);
            return Math.min(1, best / texture);
        }

        private static double correlation(Plane a, Plane b, int x, int y, float u, float v) {
            double ab = 0;
            double aa = 0;
            double bb = 0;
            for (int j = y; j < y + SIDE; j++) {
                for (int i = x; i < x + SIDE; i++) {
                    float one = a.at(i, j);
                    float other = Flow.sample(b, i + u, j + v);
                    ab += one * other;
                    aa += one * one;
                    bb += other * other;
                }
            }
            return aa * bb == 0 ? 0 : ab / Math.sqrt(aa * bb);
        }
    }
}
