package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * How soft a picture is: the width of its strong edges, from the sample where light begins to rise to the one where it
 * stops. After P. Marziliano, F. Dufaux, S. Winkler and T. Ebrahimi, "A no-reference perceptual blur metric", ICIP 2002.
 * Beside it how far light overshoots next to strong edges, as sharpening leaves it (our own measure, no source).
 */
public final class EdgeWidth {
    /** Total rise of an edge worth measuring: 40 of 255. */
    private static final float STRONG = 40f / 255;
    /** Steepest single step it must have, which excludes shading. */
    private static final float STEEP = 8f / 255;
    /** Runs longer than this are shading, not edges. */
    private static final int LONGEST = 24;
    /** Edges without which nothing is said. */
    private static final int ENOUGH = 40;
    /** Samples beside an edge in which an overshoot would lie, and behind them those of the level it came from. */
    private static final int LEVEL_FROM = 4;

    private static final int LEVEL_TO = 7;
    /** Share of the edge's height by which a level may vary from sample to sample. */
    private static final float UNEVEN = 0.03f;

    /** Widths between the four ways swing less than a cosine: by so much what is moved at half a right angle looks shorter. */
    private static final double SLANTING = 0.15;

    private EdgeWidth() {}

    /**
     * @param across mean width of edges met going along rows, in samples; NaN where there are too few
     * @param down the same going along columns
     * @param rising the same going up to the right, by half a right angle; in samples of a row
     * @param falling the same going down to the right
     * @param overshoot beside edges, as a share of the edge's height: 0 without haloes; NaN where there are too few
     */
    public record Edges(double across, double down, double rising, double falling, double overshoot) {
        /** The mean of both ways, or the one there is. */
        public double width() {
            return Double.isNaN(across) ? down : Double.isNaN(down) ? across : (across + down) / 2;
        }

        /** How many times wider edges are along the angle than at right angles to it; 1 where only one way has edges. */
        public double lopsided() {
            double mean = mean();
            double swing = Math.hypot(along(), askew());
            // beyond that the widths contradict each other
            return Double.isNaN(swing) ? 1 : Math.sqrt((mean + swing) / Math.max(mean - swing, mean / 25));
        }

        /**
         * The way along which edges are widest, as motion leaves them: 0 is sideways, 90 up and down, and below 90 it rises to the
         * right; degrees, 0..180. The squares of widths are taken to swing like a cosine of twice the angle, as they do where a blur
         * of all ways and one of a single way add up; the fit is ours. NaN where a way has too few edges.
         */
        public double angle() {
            double angle = Math.toDegrees(Math.atan2(askew(), along())) / 2;
            return angle < 0 ? angle + 180 : angle;
        }

        /**
         * About how far light was moved along the angle, in samples: what the widest way has more than that at right angles to it; 0 where only one
         * way has edges. By hand, two pictures moved by 4, 7 and 11 along four angles: within a fifth.
         */
        public double smear() {
            double swing = Math.hypot(along(), askew());
            double slanting = 1 + SLANTING * Math.abs(Math.sin(Math.toRadians(2 * angle())));
            return Double.isNaN(swing) ? 0 : slanting * Math.sqrt(2 * Math.min(swing, mean()));
        }

        private double mean() {
            return (across * across + down * down + rising * rising + falling * falling) / 4;
        }

        private double along() {
            return (across * across - down * down) / 2;
        }

        private double askew() {
            return (rising * rising - falling * falling) / 2;
        }
    }

    /** @param luma of a frame or a part of it, 0..1 */
    public static Edges of(Plane luma) {
        var across = new Tally();
        for (int y = 0; y < luma.height(); y += 2) {
            line(luma, luma.row(y), 1, luma.width(), across);
        }
        var down = new Tally();
        for (int x = 0; x < luma.width(); x += 2) {
            line(luma, luma.row(0) + x, luma.stride(), luma.height(), down);
        }
        var rising = new Tally();
        var falling = new Tally();
        for (int k = -luma.height() + 1; k < luma.width(); k += 3) {
            int skipped = Math.max(0, -k);
            int length = Math.min(luma.height() - skipped, luma.width() - Math.max(0, k));
            int x = Math.max(0, k);
            line(luma, luma.row(skipped) + x, luma.stride() + 1, length, falling);
            line(luma, luma.row(luma.height() - 1 - skipped) + x, 1 - luma.stride(), length, rising);
        }
        int shots = across.shots + down.shots;
        double diagonal = Math.sqrt(2);
        return new Edges(
                across.width(),
                down.width(),
                diagonal * rising.width(),
                diagonal * falling.width(),
                shots < ENOUGH ? Double.NaN : (across.shot + down.shot) / shots);
    }

    private static final class Tally {
        private double widths;
        private int edges;
        private double shot;
        private int shots;

        double width() {
            return edges < ENOUGH ? Double.NaN : widths / edges;
        }
    }

    /** Cuts a line into runs that only rise or only fall; the high and steep ones are edges. */
    private static void line(Plane luma, int start, int step, int length, Tally tally) {
        float[] d = luma.data();
        int from = 0;
        while (from < length - 1) {
            float first = d[start + (from + 1) * step] - d[start + from * step];
            if (first == 0) {
                from++;
                continue;
            }
            boolean rising = first > 0;
            int to = from + 1;
            float steepest = Math.abs(first);
            int middle = from;
            while (to < length - 1) {
                float next = d[start + (to + 1) * step] - d[start + to * step];
                if (next == 0 || next > 0 != rising) {
                    break;
                }
                if (Math.abs(next) > steepest) {
                    steepest = Math.abs(next);
                    middle = to;
                }
                to++;
            }
            float height = Math.abs(d[start + to * step] - d[start + from * step]);
            if (height >= STRONG && steepest >= STEEP && to - from <= LONGEST) {
                // the ends creep: what counts is the part between 10 and 90 % of the rise, scaled back to the whole
                tally.widths += width(d, start, step, from, to, height);
                tally.edges++;
                overshoot(d, start, step, length, Math.max(from, middle - 2), Math.min(to, middle + 3), tally);
            }
            from = to;
        }
    }

    private static double width(float[] d, int start, int step, int from, int to, float height) {
        float base = d[start + from * step];
        double begin = from;
        double end = to;
        for (int i = from; i < to; i++) {
            double here = Math.abs(d[start + i * step] - base) / height;
            double next = Math.abs(d[start + (i + 1) * step] - base) / height;
            if (here <= 0.1 && next > 0.1) {
                begin = i + (0.1 - here) / (next - here);
            }
            if (here < 0.9 && next >= 0.9) {
                end = i + (0.9 - here) / (next - here);
            }
        }
        return (end - begin) / 0.8;
    }

    /**
     * A halo: behind the top of the rise light falls back to its level, before its foot it lay higher.
     *
     * @param from foot of the steep part, @param to its top
     */
    private static void overshoot(float[] d, int start, int step, int length, int from, int to, Tally tally) {
        if (from < LEVEL_TO || to + LEVEL_TO >= length) {
            return;
        }
        float rise = d[start + to * step] - d[start + from * step];
        float height = Math.abs(rise);
        float before = 0;
        float behind = 0;
        float spread = 0;
        for (int i = LEVEL_FROM; i <= LEVEL_TO; i++) {
            before += d[start + (from - i) * step];
            behind += d[start + (to + i) * step];
            spread += Math.abs(d[start + (from - i) * step] - d[start + (from - i + 1) * step])
                    + Math.abs(d[start + (to + i) * step] - d[start + (to + i - 1) * step]);
        }
        int count = LEVEL_TO - LEVEL_FROM + 1;
        float slope = Math.abs(d[start + (from - LEVEL_FROM) * step] - d[start + (from - LEVEL_TO) * step])
                + Math.abs(d[start + (to + LEVEL_FROM) * step] - d[start + (to + LEVEL_TO) * step]);
        if (spread / (2 * count) > UNEVEN * height || slope > 2 * UNEVEN * height) {
            // no level there to come back to
            return;
        }
        float sign = Math.signum(rise);
        float top = sign * (d[start + to * step] - behind / count) / height;
        float foot = sign * (before / count - d[start + from * step]) / height;
        tally.shot += Math.clamp((top + foot) / 2, -0.5, 0.5);
        tally.shots++;
    }
}
