package awlsmith.core.measure;

import awlsmith.core.picture.Plane;
import java.util.Arrays;

/**
 * How far light overshoots where an edge stands alone between two even surfaces. There nothing in the scene does so, and what does was made by
 * sharpening; beside edges in general much overshoots that is texture. Our own measure, no source; by hand, eleven clips and pictures: -0.04 to
 * 0.02 as they are, 0.02 to 0.09 sharpened a little, 0.1 to 0.28 sharpened much.
 */
public final class Seams {
    /** Samples of the surfaces on both sides, and of what lies between them. */
    private static final int SURFACE = 4;

    private static final int BETWEEN = 7;
    private static final int LENGTH = 2 * SURFACE + BETWEEN;
    /** Least height of an edge: 30 of 255. */
    private static final float EDGE = 30f / 255;
    /** Surfaces vary by at most this share of the edge's height, and by some. */
    private static final float UNEVEN = 0.06f;

    private static final float EVEN = 2f / 255;
    /** Edges without which nothing is said. */
    private static final int ENOUGH = 60;

    private Seams() {}

    /** The middle of all such edges, as a share of their height, the mean of both sides; NaN where there are too few. */
    public static double of(Plane luma) {
        double[] all = new double[1024];
        int count = 0;
        for (int way = 0; way < 2; way++) {
            boolean across = way == 0;
            int lines = across ? luma.height() : luma.width();
            float[] line = new float[across ? luma.width() : luma.height()];
            for (int i = 0; i < lines; i++) {
                read(luma, across, i, line);
                for (int x = 0; x + LENGTH <= line.length; x++) {
                    double seam = seam(line, x);
                    if (!Double.isNaN(seam)) {
                        all = count == all.length ? Arrays.copyOf(all, 2 * count) : all;
                        all[count++] = seam;
                    }
                }
            }
        }
        if (count < ENOUGH) {
            return Double.NaN;
        }
        Arrays.sort(all, 0, count);
        return all[count / 2];
    }

    private static void read(Plane luma, boolean across, int i, float[] line) {
        if (across) {
            System.arraycopy(luma.data(), luma.row(i), line, 0, line.length);
            return;
        }
        for (int y = 0; y < line.length; y++) {
            line[y] = luma.at(i, y);
        }
    }

    /** NaN where these samples are no edge that stands alone. */
    private static double seam(float[] line, int x) {
        int right = x + LENGTH - SURFACE;
        float one = mean(line, x);
        float other = mean(line, right);
        float height = Math.abs(one - other);
        float even = Math.max(EVEN, UNEVEN * height);
        if (height < EDGE || range(line, x) > even || range(line, right) > even) {
            return Double.NaN;
        }
        float middle = (one + other) / 2;
        float least = Float.MAX_VALUE;
        float most = -Float.MAX_VALUE;
        int crossed = 0;
        for (int k = x + SURFACE - 1; k < right; k++) {
            least = Math.min(least, line[k]);
            most = Math.max(most, line[k]);
            crossed += (line[k] - middle) * (line[k + 1] - middle) < 0 ? 1 : 0;
        }
        return crossed == 1 ? (most - Math.max(one, other) + Math.min(one, other) - least) / 2 / height : Double.NaN;
    }

    private static float mean(float[] line, int x) {
        return (line[x] + line[x + 1] + line[x + 2] + line[x + 3]) / SURFACE;
    }

    private static float range(float[] line, int x) {
        float least = Math.min(Math.min(line[x], line[x + 1]), Math.min(line[x + 2], line[x + 3]));
        float most = Math.max(Math.max(line[x], line[x + 1]), Math.max(line[x + 2], line[x + 3]));
        return most - least;
    }
}
