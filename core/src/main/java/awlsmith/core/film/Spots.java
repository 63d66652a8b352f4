package awlsmith.core.film;

import awlsmith.core.motion.Flow;
import awlsmith.core.motion.FlowFinder;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;

/**
 * Dust and dirt of one frame: light or dark places that neither the frame before nor the one after has, followed along the motion.
 *
 * <p>A sample is a seed where it lies beyond all of the 3x3 around its place in both neighbours; a spot grows from seeds over what
 * stands out half as far to the same side. It is none where the neighbours do not agree with each other either, as where something
 * comes into sight or moves too fast to be followed, and where it is too large. Source: the rank-ordered detector of M. J. Nadenau
 * and S. K. Mitra, "Blotch and scratch detection in image sequences based on rank ordered differences", 1997, simplified to the
 * range (from memory); growing and the test of the neighbours are ours.
 *
 * @param share how far each sample is replaced, 0..1, as large as the picture
 * @param filling what it is replaced by: luma of the neighbour that fits better around the spot
 * @param after whether that is the frame after
 * @param count of spots
 */
public record Spots(Plane share, Plane filling, boolean[] after, int count, Flow toBefore, Flow toAfter) {
    /** Steadier than this nothing can be told from grain: standard deviations of what the neighbours leave. */
    private static final float GRAINS = 5;
    /** Times what ninety-nine of a hundred samples stay below. */
    private static final float UNREST = 2;
    /** If spots were to cover more, the frame is another scene. */
    private static final double MOST = 0.03;
    /** Neighbours that differ by more than this share of the spot's height are no witnesses. */
    private static final float AGREE = 0.5f;

    private static final int RIM = 4;
    /** Around a spot the neighbours fit within this share of its height, or their motion was not found. */
    private static final double FOLLOWED = 0.25;

    /** Most that light is led by. */
    private static final float FLICKER = 0.08f;

    /**
     * @param here luma 0..1; before and after as large
     * @param least how far a spot stands out, luma
     * @param largest width or height of the largest spot, samples
     */
    public static Spots find(Plane before, Plane here, Plane after, float least, int largest, Work work) {
        Flow back = FlowFinder.find(here, before, work);
        Flow on = FlowFinder.find(here, after, work);
        Plane a = evened(back.warp(before, work), here);
        Plane b = evened(on.warp(after, work), here);
        return new Search(here, a, b, least, largest, work).spots(back, on);
    }

    /** A neighbour with its light led to this frame's, so that flicker is not taken for dust. */
    private static Plane evened(Plane warped, Plane here) {
        Plane off = Plane.of(here.width(), here.height());
        for (int y = 0; y < here.height(); y++) {
            for (int x = 0; x < here.width(); x++) {
                // what stands out far is dust or has moved, and tells nothing of the light
                off.set(x, y, Math.clamp(here.at(x, y) - warped.at(x, y), -FLICKER, FLICKER));
            }
        }
        Plane mean = BoxMean.of(off, Math.max(8, here.height() / 12));
        for (int y = 0; y < here.height(); y++) {
            for (int x = 0; x < here.width(); x++) {
                warped.set(x, y, warped.at(x, y) + mean.at(x, y));
            }
        }
        return warped;
    }

    private static final class Search {
        private final Plane here;
        private final Plane a;
        private final Plane b;
        private final int largest;
        private final int width;
        private final int height;
        /** How far each sample stands out of both neighbours' mean. */
        private final float[] off;
        /** How far beyond everything around its place there. */
        private final float[] beyond;

        private final float least;
        private final int[] queue;
        private final int[] number;
        private final int[] ringed;
        private int ringNumber;
        private double ringA;
        private double ringB;

        Search(Plane here, Plane a, Plane b, float least, int largest, Work work) {
            this.here = here;
            this.a = a;
            this.b = b;
            this.largest = largest;
            width = here.width();
            height = here.height();
            off = new float[width * height];
            beyond = new float[width * height];
            queue = new int[width * height];
            number = new int[width * height];
            ringed = new int[width * height];
            work.bands(height, 16, (first, end) -> {
                for (int y = first; y < end; y++) {
                    row(y);
                }
            });
            this.least = Math.max(least, unrest());
        }

        private void row(int y) {
            for (int x = 0; x < width; x++) {
                float low = Float.MAX_VALUE;
                float high = -Float.MAX_VALUE;
                for (int i = Math.max(0, y - 1); i <= Math.min(height - 1, y + 1); i++) {
                    for (int j = Math.max(0, x - 1); j <= Math.min(width - 1, x + 1); j++) {
                        low = Math.min(low, Math.min(a.at(j, i), b.at(j, i)));
                        high = Math.max(high, Math.max(a.at(j, i), b.at(j, i)));
                    }
                }
                float v = here.at(x, y);
                off[y * width + x] = v - (a.at(x, y) + b.at(x, y)) / 2;
                beyond[y * width + x] = v > high ? v - high : v < low ? v - low : 0;
            }
        }

        /** What a spot must stand out of to be none of the picture's own unrest: its grain, and what motion leaves. */
        private float unrest() {
            int step = Math.max(1, off.length / 20_000);
            float[] some = new float[Math.ceilDiv(off.length, step)];
            for (int i = 0; i < some.length; i++) {
                some[i] = Math.abs(off[i * step]);
            }
            Arrays.sort(some);
            // a standard deviation by the median, and all but the last hundredth: spots are fewer
            return Math.max(GRAINS * some[some.length / 2] / 0.6745f, UNREST * some[some.length * 99 / 100]);
        }

        Spots spots(Flow back, Flow on) {
            Plane share = Plane.of(width, height);
            Plane filling = Plane.of(width, height);
            boolean[] after = new boolean[width * height];
            int count = 0;
            long covered = 0;
            int next = 0;
            for (int i = 0; i < beyond.length; i++) {
                if (Math.abs(beyond[i]) >= least && number[i] == 0) {
                    next++;
                    int size = grow(i, next);
                    if (isSpot(size, next)) {
                        fill(size, share, filling, after);
                        count++;
                        covered += size;
                    }
                }
            }
            if (covered > MOST * width * height) {
                return new Spots(Plane.of(width, height), filling, after, 0, back, on);
            }
            return new Spots(share, filling, after, count, back, on);
        }

        /** The samples of a spot in the queue, and how many. */
        private int grow(int seed, int mine) {
            boolean bright = beyond[seed] > 0;
            int size = 0;
            queue[size++] = seed;
            number[seed] = mine;
            for (int k = 0; k < size; k++) {
                int x = queue[k] % width;
                int y = queue[k] / width;
                for (int i = Math.max(0, y - 1); i <= Math.min(height - 1, y + 1); i++) {
                    for (int j = Math.max(0, x - 1); j <= Math.min(width - 1, x + 1); j++) {
                        int at = i * width + j;
                        float out = bright ? off[at] : -off[at];
                        if (number[at] == 0 && out > least / 2) {
                            number[at] = mine;
                            queue[size++] = at;
                        }
                    }
                }
            }
            return size;
        }

        private boolean isSpot(int size, int mine) {
            int left = width;
            int right = 0;
            int top = height;
            int bottom = 0;
            double out = 0;
            double apart = 0;
            for (int k = 0; k < size; k++) {
                int x = queue[k] % width;
                int y = queue[k] / width;
                left = Math.min(left, x);
                right = Math.max(right, x);
                top = Math.min(top, y);
                bottom = Math.max(bottom, y);
                out += Math.abs(off[queue[k]]);
                apart += Math.abs(a.at(x, y) - b.at(x, y));
            }
            if (right - left >= largest || bottom - top >= largest || apart >= AGREE * out) {
                return false;
            }
            ring(size, mine);
            // where the motion was not found, all around differs as the spot does
            return Math.max(ringA, ringB) < FOLLOWED * out / size;
        }

        /**
         * How well each neighbour fits in the ring around the spot in the queue, mean absolute difference; its soft edge is left out.
         * Spots at both sides of the ring count as they are.
         */
        private void ring(int size, int mine) {
            double ofA = 0;
            double ofB = 0;
            int samples = 0;
            ringNumber++;
            for (int k = 0; k < size; k++) {
                int x = queue[k] % width;
                int y = queue[k] / width;
                for (int i = Math.max(0, y - RIM); i <= Math.min(height - 1, y + RIM); i++) {
                    for (int j = Math.max(0, x - RIM); j <= Math.min(width - 1, x + RIM); j++) {
                        int at = i * width + j;
                        if (number[at] != mine && ringed[at] != ringNumber && !touches(j, i, mine)) {
                            ringed[at] = ringNumber;
                            ofA += Math.abs(here.at(j, i) - a.at(j, i));
                            ofB += Math.abs(here.at(j, i) - b.at(j, i));
                            samples++;
                        }
                    }
                }
            }
            ringA = ofA / Math.max(1, samples);
            ringB = ofB / Math.max(1, samples);
        }

        private boolean touches(int x, int y, int mine) {
            for (int i = Math.max(0, y - 1); i <= Math.min(height - 1, y + 1); i++) {
                for (int j = Math.max(0, x - 1); j <= Math.min(width - 1, x + 1); j++) {
                    if (number[i * width + j] == mine) {
                        return true;
                    }
                }
            }
            return false;
        }

        private void fill(int size, Plane share, Plane filling, boolean[] after) {
            boolean byAfter = ringB < ringA;
            Plane from = byAfter ? b : a;
            for (int k = 0; k < size; k++) {
                int x = queue[k] % width;
                int y = queue[k] / width;
                // its soft edge goes too
                for (int i = Math.max(0, y - 2); i <= Math.min(height - 1, y + 2); i++) {
                    for (int j = Math.max(0, x - 2); j <= Math.min(width - 1, x + 2); j++) {
                        boolean near = Math.abs(i - y) < 2 && Math.abs(j - x) < 2;
                        share.set(j, i, Math.max(share.at(j, i), near ? 1 : 0.5f));
                        filling.set(j, i, from.at(j, i));
                        after[i * width + j] = byAfter;
                    }
                }
            }
        }
    }
}
