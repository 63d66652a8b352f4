package awlsmith.core.alpha;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

/**
 * Where a picture of straight colour is clear its colour means nothing, black mostly; whatever looks at neighbouring pixels would
 * drag it into the edges. Here the colour around is led into what is clear, so that every later stage finds a picture without an
 * edge there. What is seen by more than a sixteenth stays as it is, to the bit.
 *
 * <p>Means over squares of 2, 8 and 32 samples, weighed by opacity, the finer ones leaning on the coarser where little is seen; squares
 * lie on a grid of the whole picture, so that any part of it comes out the same.
 */
public final class FillClear implements Stage {
    private static final int[] SIDES = {2, 8, 32};
    /** Opacity from which a colour stands for itself. */
    private static final float SEEN = 1 / 16f;
    /** Weight of what the next coarser squares say. */
    private static final float LEAN = 0.01f;

    private final Format format;

    /** @param format with straight transparency */
    public FillClear(Format format) {
        if (format.alpha() != Alpha.STRAIGHT) {
            throw new IllegalArgumentException("transparency is " + format.alpha() + ", must be straight");
        }
        this.format = format;
    }

    @Override
    public Format output() {
        return format;
    }

    /** Whole squares of the coarsest kind, and two more on every side. */
    @Override
    public Region needs(Region wanted) {
        int side = SIDES[SIDES.length - 1];
        int across = side * format.chroma().stepX();
        int down = side * format.chroma().stepY();
        int x = Math.max(0, wanted.x() / across * across - 2 * across);
        int y = Math.max(0, wanted.y() / down * down - 2 * down);
        int right = Math.min(format.width(), (Math.ceilDiv(wanted.right(), across) + 2) * across);
        int bottom = Math.min(format.height(), (Math.ceilDiv(wanted.bottom(), down) + 2) * down);
        return new Region(x, y, right - x, bottom - y);
    }

    @Override
    public Frame treat(Neighbours neighbours, Region wanted, PlanePool pool, Work work) {
        Frame held = neighbours.at(0);
        Frame out = held.copy(wanted, held.number(), held.time(), pool);
        if (isSeen(out.planes().getLast())) {
            return out;
        }
        Frame around = held.cut(needs(wanted));
        var opacity = new Opacity(around, pool);
        int planes = format.chroma().planes();
        work.bands(planes, 1, (from, to) -> {
            for (int p = from; p < to; p++) {
                int left = (wanted.x() - around.window().x()) / format.chroma().stepX(p);
                int top = (wanted.y() - around.window().y()) / format.chroma().stepY(p);
                fill(around.plane(p), opacity.at(p), out.plane(p), left, top);
            }
        });
        opacity.giveBack();
        return out;
    }

    private static boolean isSeen(Plane opacity) {
        for (int y = 0; y < opacity.height(); y++) {
            for (int x = 0; x < opacity.width(); x++) {
                if (opacity.at(x, y) < SEEN) {
                    return false;
                }
            }
        }
        return true;
    }

    private static void fill(Plane from, Plane opacity, Plane to, int left, int top) {
        var colour = new Squares[SIDES.length];
        for (int level = 0; level < SIDES.length; level++) {
            colour[level] = Squares.of(from, opacity, SIDES[level]);
        }
        for (int level = SIDES.length - 1; level >= 0; level--) {
            colour[level].settle(level + 1 < SIDES.length ? colour[level + 1] : null);
        }
        for (int y = 0; y < to.height(); y++) {
            for (int x = 0; x < to.width(); x++) {
                float weight = opacity.at(left + x, top + y);
                if (weight < SEEN) {
                    float own = Math.max(0, weight) / SEEN;
                    float led = colour[0].at(left + x + 0.5f, top + y + 0.5f);
                    to.set(x, y, led + own * (to.at(x, y) - led));
                }
            }
        }
    }

    /** Means over squares of one size. */
    private record Squares(int side, int across, int down, float[] weighed, float[] weight) {
        static Squares of(Plane from, Plane opacity, int side) {
            int across = Math.ceilDiv(from.width(), side);
            int down = Math.ceilDiv(from.height(), side);
            var squares = new Squares(side, across, down, new float[across * down], new float[across * down]);
            for (int y = 0; y < from.height(); y++) {
                for (int x = 0; x < from.width(); x++) {
                    int at = y / side * across + x / side;
                    float w = Math.max(0, opacity.at(x, y));
                    squares.weighed[at] += w * from.at(x, y);
                    squares.weight[at] += w;
                }
            }
            return squares;
        }

        /** Sums become means. */
        void settle(Squares coarser) {
            float lean = LEAN * side * side;
            for (int j = 0; j < down; j++) {
                for (int i = 0; i < across; i++) {
                    int at = j * across + i;
                    float other = coarser == null ? 0 : coarser.at((i + 0.5f) * side, (j + 0.5f) * side);
                    float own = coarser == null && weight[at] > 0 ? 0 : lean;
                    weighed[at] = weight[at] + own == 0 ? 0 : (weighed[at] + own * other) / (weight[at] + own);
                }
            }
        }

        /** Between the squares' middles; (x, y) in samples from the corner of the first square. */
        float at(float x, float y) {
            float u = Math.clamp(x / side - 0.5f, 0, across - 1);
            float v = Math.clamp(y / side - 0.5f, 0, down - 1);
            int i = Math.min((int) u, Math.max(0, across - 2));
            int j = Math.min((int) v, Math.max(0, down - 2));
            int right = Math.min(i + 1, across - 1);
            int below = Math.min(j + 1, down - 1);
            float fx = u - i;
            float fy = v - j;
            float upper = weighed[j * across + i] + fx * (weighed[j * across + right] - weighed[j * across + i]);
            float lower =
                    weighed[below * across + i] + fx * (weighed[below * across + right] - weighed[below * across + i]);
            return upper + fy * (lower - upper);
        }
    }
}
