package awlsmith.core.detail;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/**
 * What a halo is: going along a row or column, an edge falls off on one side of a sample, an even surface lies behind it on the other, and it
 * goes beyond that surface by a part of the edge's height. It is brought back to the surface. Textures and lines have no such surface behind
 * them, and stay. The rule is ours; no source. Both forms give the same bits.
 *
 * @param width samples that haloes are wide at most, 1..8
 */
record HaloRule(int width, Lanes lanes) {
    /** Samples of the surface that is looked at behind a halo. */
    private static final int SURFACE = 4;
    /** Least height of an edge: 30 of 255. */
    private static final float EDGE = 30f / 255;
    /** A halo goes beyond its surface by no more than this part of the edge; what does is a line of its own. */
    private static final float MOST = 0.45f;
    /** Surfaces may vary by this part of the halo's height, and by some. */
    private static final float UNEVEN = 0.5f;

    private static final float EVEN = 2f / 255;
    /** Before its bounds the rule fades, so that nothing switches from frame to frame. */
    private static final float FADE = 0.1f;

    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final int STEP = SPECIES.length();

    private int behind() {
        return width + SURFACE;
    }

    private int ahead() {
        return 2 * width + 1;
    }

    /** Samples each way that tell what one of them is. */
    int reach() {
        return Math.max(behind(), ahead());
    }

    /** @param left column of the first sample wanted; @param y row, of in; @param to gets its width of samples in its row there */
    void row(Plane in, int left, int y, Plane to, int there) {
        int count = to.width();
        int x = 0;
        if (lanes == Lanes.VECTOR && y >= reach() && y + reach() < in.height()) {
            x = Math.clamp((long) reach() - left, 0, count);
            some(in, left, y, to, there, 0, x);
            int steps = Math.max(0, Math.min(count, in.width() - reach() - left) - x) / STEP;
            int i = in.row(y) + left + x;
            float[] across = new float[steps * STEP];
            float[] down = new float[steps * STEP];
            farthest(in.data(), i, 1, across);
            farthest(in.data(), i, -1, across);
            farthest(in.data(), i, in.stride(), down);
            farthest(in.data(), i, -in.stride(), down);
            for (int k = 0; k < across.length; k++) {
                to.data()[to.row(there) + x + k] = in.data()[i + k] - farther(across[k], down[k]);
            }
            x += across.length;
        }
        some(in, left, y, to, there, x, count);
    }

    /**
     * What goes beyond by more than is known becomes what is known.
     *
     * @param step in the array towards the side on which the edge would be
     */
    private void farthest(float[] data, int first, int step, float[] known) {
        int behind = behind();
        int ahead = ahead();
        for (int x = 0; x < known.length; x += STEP) {
            int i = first + x;
            FloatVector light = FloatVector.fromArray(SPECIES, data, i);
            FloatVector least = FloatVector.fromArray(SPECIES, data, i - step * (width + 1));
            FloatVector most = least;
            FloatVector sum = least;
            for (int k = width + 2; k <= behind; k++) {
                FloatVector sample = FloatVector.fromArray(SPECIES, data, i - step * k);
                least = least.min(sample);
                most = most.max(sample);
                sum = sum.add(sample);
            }
            FloatVector low = FloatVector.fromArray(SPECIES, data, i + step);
            FloatVector high = low;
            for (int k = 2; k <= ahead; k++) {
                FloatVector sample = FloatVector.fromArray(SPECIES, data, i + step * k);
                low = low.min(sample);
                high = high.max(sample);
            }
            FloatVector beyond = light.sub(sum.mul(1f / SURFACE));
            FloatVector by = beyond.abs();
            FloatVector height = high.sub(light)
                    .blend(light.sub(low), beyond.compare(VectorOperators.GT, 0))
                    .max(0);
            FloatVector edge = height.sub(by);
            FloatVector strong = share(edge.sub(EDGE).mul(1 / EDGE));
            FloatVector firm = edge.max(EDGE);
            FloatVector small = share(firm.mul(MOST).sub(by).div(firm.mul(FADE)));
            FloatVector even =
                    share(by.mul(UNEVEN).add(EVEN).sub(most.sub(least)).mul(1 / EVEN));
            FloatVector found = beyond.mul(strong).mul(small).mul(even).blend(0, by.compare(VectorOperators.LT, EVEN));
            FloatVector before = FloatVector.fromArray(SPECIES, known, x);
            found.blend(before, before.abs().compare(VectorOperators.GE, found.abs()))
                    .intoArray(known, x);
        }
    }

    private static FloatVector share(FloatVector v) {
        return v.min(1).max(0);
    }

    private void some(Plane in, int left, int y, Plane to, int there, int from, int end) {
        for (int x = from; x < end; x++) {
            float across = farther(beyond(in, left + x, y, 1, 0), beyond(in, left + x, y, -1, 0));
            float down = farther(beyond(in, left + x, y, 0, 1), beyond(in, left + x, y, 0, -1));
            to.set(x, there, in.at(left + x, y) - farther(across, down));
        }
    }

    private static float farther(float one, float other) {
        return Math.abs(one) >= Math.abs(other) ? one : other;
    }

    /**
     * By how much a sample goes beyond the surface it belongs to, above 0 of bright haloes; 0 where it is none.
     *
     * @param dx, dy towards the side on which the edge would be
     */
    private float beyond(Plane in, int x, int y, int dx, int dy) {
        if (!isInside(in, x - dx * behind(), y - dy * behind()) || !isInside(in, x + dx, y + dy)) {
            return 0;
        }
        float light = in.at(x, y);
        float least = Float.MAX_VALUE;
        float most = -Float.MAX_VALUE;
        float sum = 0;
        for (int k = width + 1; k <= behind(); k++) {
            float behind = in.at(x - dx * k, y - dy * k);
            least = Math.min(least, behind);
            most = Math.max(most, behind);
            sum += behind;
        }
        float low = Float.MAX_VALUE;
        float high = -Float.MAX_VALUE;
        for (int k = 1; k <= ahead() && isInside(in, x + dx * k, y + dy * k); k++) {
            float ahead = in.at(x + dx * k, y + dy * k);
            low = Math.min(low, ahead);
            high = Math.max(high, ahead);
        }
        float beyond = light - sum * (1f / SURFACE);
        float by = Math.abs(beyond);
        if (by < EVEN) {
            return 0;
        }
        // the edge goes the other way than the halo
        float edge = Math.max(0, beyond > 0 ? light - low : high - light) - by;
        float strong = share((edge - EDGE) * (1 / EDGE));
        float firm = Math.max(EDGE, edge);
        float small = share((firm * MOST - by) / (firm * FADE));
        float even = share((by * UNEVEN + EVEN - (most - least)) * (1 / EVEN));
        return beyond * strong * small * even;
    }

    private static float share(float v) {
        return Math.clamp(v, 0f, 1f);
    }

    private static boolean isInside(Plane in, int x, int y) {
        return x >= 0 && y >= 0 && x < in.width() && y < in.height();
    }
}
