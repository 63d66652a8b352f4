package awlsmith.core.film;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Scratches along the film: upright lines one to three samples wide over nearly the whole height, lighter or darker than both sides by
 * about the same all along. They stand in one place for many frames, so their neighbours in time do not show what was there; their
 * neighbours beside them do. The profile that a line is known by is that of A. C. Kokaram, "Motion Picture Restoration", 1998 (from
 * memory); the way to find it is ours.
 */
public final class Scratches {
    /** Share of the rows in which a line stands out to the same side. */
    private static final double ALONG = 0.7;
    /** Samples from a line's middle to the picture beside it. */
    private static final int BESIDE = 2;
    /** A row counts where the line stands out this share of its usual height. */
    private static final float COUNTS = 0.3f;

    private static final int ROWS = 9;

    /** @param left first column, @param right last one, @param height how far it stands out, lighter above 0 */
    public record Line(int left, int right, float height) {}

    private Scratches() {}

    /** @param least how far a line stands out, luma */
    public static List<Line> find(Plane luma, float least, Work work) {
        int width = luma.width();
        float[] heights = new float[width];
        work.bands(width, 32, (first, end) -> {
            float[] column = new float[luma.height()];
            for (int x = Math.max(first, BESIDE); x < Math.min(end, width - BESIDE); x++) {
                heights[x] = height(luma, x, column);
            }
        });
        var lines = new ArrayList<Line>();
        for (int x = BESIDE; x < width - BESIDE; x++) {
            float h = heights[x];
            boolean peak = Math.abs(h) >= least
                    && Math.abs(h) > Math.abs(heights[x - 1])
                    && Math.abs(h) >= Math.abs(heights[x + 1]);
            if (peak && along(luma, x, h) >= ALONG) {
                int left = x;
                int right = x;
                while (left > x - 1 && heights[left - 1] * Math.signum(h) > Math.abs(h) / 4) {
                    left--;
                }
                while (right < x + 1 && heights[right + 1] * Math.signum(h) > Math.abs(h) / 4) {
                    right++;
                }
                lines.add(new Line(left, right, h));
            }
        }
        return lines;
    }

    /** How far it stands out of the mean of both sides in a row. */
    private static float out(Plane p, int x, int y) {
        return p.at(x, y) - (p.at(x - BESIDE, y) + p.at(x + BESIDE, y)) / 2;
    }

    /** The middle of all rows; nothing where one side is as light as the line, as an edge's is. */
    private static float height(Plane p, int x, float[] column) {
        float before = middle(p, x, -BESIDE, column);
        float after = middle(p, x, BESIDE, column);
        if (before > 0 != after > 0) {
            return 0;
        }
        for (int y = 0; y < p.height(); y++) {
            column[y] = out(p, x, y);
        }
        Arrays.sort(column);
        float both = column[column.length / 2];
        return Math.min(Math.abs(before), Math.abs(after)) < Math.abs(both) / 2 ? 0 : both;
    }

    /** The middle of what a column stands out of one beside it. */
    private static float middle(Plane p, int x, int beside, float[] column) {
        for (int y = 0; y < p.height(); y++) {
            column[y] = p.at(x, y) - p.at(x + beside, y);
        }
        Arrays.sort(column);
        return column[column.length / 2];
    }

    private static double along(Plane p, int x, float height) {
        int rows = 0;
        for (int y = 0; y < p.height(); y++) {
            if (out(p, x, y) * Math.signum(height) > COUNTS * Math.abs(height)) {
                rows++;
            }
        }
        return (double) rows / p.height();
    }

    /**
     * Draws the picture beside a line across it, where the line is there.
     *
     * @param luma where lines were found, unchanged
     * @param plane whole plane of the picture, or a halved one; gets the result
     * @param stepX luma samples to one of the plane's
     */
    static void fill(Line line, Plane luma, Plane plane, int stepX, int stepY) {
        int left = line.left() / stepX;
        int right = Math.min(line.right() / stepX, plane.width() - 1);
        int a = left - 1;
        int b = right + 1;
        int middle = (line.left() + line.right()) / 2;
        for (int y = 0; y < plane.height(); y++) {
            if (!isThere(line, luma, middle, y * stepY)) {
                continue;
            }
            float from = plane.at(Math.max(a, 0), y);
            float to = plane.at(Math.min(b, plane.width() - 1), y);
            for (int x = left; x <= right; x++) {
                plane.set(x, y, from + (to - from) * (x - a) / (b - a));
            }
        }
    }

    /** In most of the rows around: grain alone makes it neither come nor go. */
    private static boolean isThere(Line line, Plane luma, int x, int y) {
        int rows = 0;
        int there = 0;
        for (int i = Math.max(0, y - ROWS / 2); i <= Math.min(luma.height() - 1, y + ROWS / 2); i++) {
            rows++;
            if (out(luma, x, i) * Math.signum(line.height()) > COUNTS * Math.abs(line.height())) {
                there++;
            }
        }
        return 2 * there > rows;
    }
}
