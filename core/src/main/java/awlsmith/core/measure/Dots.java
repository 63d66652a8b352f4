package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * How many single dots stand in flat surfaces, as a palette of few colours makes them to stand for more. Noise is everywhere and leaves no
 * surface flat; dust is rare. Our own measure, no source.
 */
public final class Dots {
    /** Samples around one that lie this near to their median belong to one surface. */
    private static final float SAME = 1.2f / 255;
    /** A dot stands out of them by more than this. */
    private static final float DOT = 10 / 255f;

    private static final int AROUND = 8;
    /** So many of the eight around a sample must lie in one surface: another dot or two may stand there. */
    private static final int ENOUGH = 6;

    private Dots() {}

    /**
     * @param flat share of samples around which the picture is flat, 0..1
     * @param dots share of these that stand out of it, 0..1
     */
    public record Found(double flat, double dots) {}

    /** In a plane of luma, 0..1. */
    public static Found of(Plane luma) {
        long flat = 0;
        long dots = 0;
        long all = 0;
        float[] ring = new float[AROUND];
        float[] d = luma.data();
        for (int y = 1; y + 1 < luma.height(); y++) {
            int above = luma.row(y - 1);
            int own = luma.row(y);
            int below = luma.row(y + 1);
            for (int x = 1; x + 1 < luma.width(); x++) {
                ring[0] = d[above + x - 1];
                ring[1] = d[above + x];
                ring[2] = d[above + x + 1];
                ring[3] = d[own + x - 1];
                ring[4] = d[own + x + 1];
                ring[5] = d[below + x - 1];
                ring[6] = d[below + x];
                ring[7] = d[below + x + 1];
                float middle = surface(ring);
                all++;
                if (!Float.isNaN(middle)) {
                    flat++;
                    dots += Math.abs(d[own + x] - middle) > DOT ? 1 : 0;
                }
            }
        }
        return new Found(all == 0 ? 0 : (double) flat / all, flat == 0 ? 0 : (double) dots / flat);
    }

    /** The one of the eight that enough of them are like; NaN when there is none. */
    private static float surface(float[] ring) {
        // at most two may differ, so one of the first three is of the surface if there is one
        for (int i = 0; i <= AROUND - ENOUGH; i++) {
            int like = 0;
            for (float other : ring) {
                like += Math.abs(other - ring[i]) < SAME ? 1 : 0;
            }
            if (like >= ENOUGH) {
                return ring[i];
            }
        }
        return Float.NaN;
    }
}
