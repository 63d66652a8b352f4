package awlsmith.core.motion;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;

/**
 * Motion: from(x, y) is seen again at to(x + u, y + v).
 *
 * @param u samples to the right, as large as the picture
 * @param v samples down, as large
 */
public record Flow(Plane u, Plane v) {
    /** Samples across of the picture whose motion it is. */
    public int width() {
        return u.width();
    }

    /** Samples down of the picture whose motion it is. */
    public int height() {
        return u.height();
    }

    /**
     * The other picture as it would look from here: made(x, y) = to(x + u, y + v), bilinear, the border's samples going on outside.
     *
     * @param to as large as the flow, or smaller by whole steps for halved chroma; motion is made smaller by the same
     */
    public Plane warp(Plane to, Work work) {
        int stepX = Math.ceilDiv(width(), to.width());
        int stepY = Math.ceilDiv(height(), to.height());
        Plane made = Plane.of(to.width(), to.height());
        work.bands(made.height(), 16, (first, end) -> {
            for (int y = first; y < end; y++) {
                for (int x = 0; x < made.width(); x++) {
                    int fx = Math.min(x * stepX, width() - 1);
                    int fy = Math.min(y * stepY, height() - 1);
                    made.set(x, y, sample(to, x + u.at(fx, fy) / stepX, y + v.at(fx, fy) / stepY));
                }
            }
        });
        return made;
    }

    /** Between four samples, bilinear; the border's samples go on outside. */
    public static float sample(Plane p, float x, float y) {
        return x >= 0 && y >= 0 && x < p.width() - 1 && y < p.height() - 1 ? inside(p, x, y) : atEdge(p, x, y);
    }

    private static float atEdge(Plane p, float x, float y) {
        float inX = Math.clamp(x, 0, p.width() - 1);
        float inY = Math.clamp(y, 0, p.height() - 1);
        int x0 = Math.min((int) inX, Math.max(0, p.width() - 2));
        int y0 = Math.min((int) inY, Math.max(0, p.height() - 2));
        int x1 = Math.min(x0 + 1, p.width() - 1);
        int y1 = Math.min(y0 + 1, p.height() - 1);
        float right = inX - x0;
        float down = inY - y0;
        // so that a sample's own place gives the sample itself, to the bit
        float upper = (1 - right) * p.at(x0, y0) + right * p.at(x1, y0);
        float lower = (1 - right) * p.at(x0, y1) + right * p.at(x1, y1);
        return (1 - down) * upper + down * lower;
    }

    private static float inside(Plane p, float x, float y) {
        int left = (int) x;
        int top = (int) y;
        float right = x - left;
        float down = y - top;
        float[] data = p.data();
        int at = p.row(top) + left;
        int below = at + p.stride();
        float upper = (1 - right) * data[at] + right * data[at + 1];
        float lower = (1 - right) * data[below] + right * data[below + 1];
        return (1 - down) * upper + down * lower;
    }
}
