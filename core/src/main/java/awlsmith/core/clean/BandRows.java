package awlsmith.core.clean;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/**
 * Rows of samples as {@link BandStage} works on them; both forms give the same bits.
 *
 * @param step samples that differ by as much count for nothing, above 0
 * @param level neighbours that differ by less are level
 */
record BandRows(float step, float level, Lanes lanes) {
    /** Where there is no row. */
    static final int NONE = Integer.MIN_VALUE;

    /** Share of level pairs from which on a square counts as banded, and from which on wholly. */
    private static final float SOME = 0.55f;

    private static final float MOST = 0.8f;
    private static final float SHARE = 1 / (MOST - SOME);

    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final int STEP = SPECIES.length();

    /**
     * Each sample becomes a mean of itself, counted twice, and two others, as far as these differ by less than a step.
     *
     * @param own where the row begins; @param before where the row of the others before begins, or none; @param after likewise
     * @param across columns that the others lie off, which the first and last samples have none in
     */
    void mean(float[] data, int own, int before, int after, int across, int width, float[] to, int at) {
        float slope = 1 / (step * step);
        int x = 0;
        if (lanes == Lanes.VECTOR && before != NONE && after != NONE) {
            x = Math.min(across, width);
            some(data, own, before, after, across, width, to, at, 0, x);
            for (; x + STEP <= width - across; x += STEP) {
                FloatVector here = FloatVector.fromArray(SPECIES, data, own + x);
                FloatVector one = FloatVector.fromArray(SPECIES, data, before + x);
                FloatVector other = FloatVector.fromArray(SPECIES, data, after + x);
                FloatVector first = weight(one.sub(here), slope);
                FloatVector second = weight(other.sub(here), slope);
                here.mul(2)
                        .add(first.mul(one))
                        .add(second.mul(other))
                        .div(first.add(2).add(second))
                        .intoArray(to, at + x);
            }
        }
        some(data, own, before, after, across, width, to, at, x, width);
    }

    private static FloatVector weight(FloatVector d, float slope) {
        return FloatVector.broadcast(SPECIES, 1).sub(d.mul(d).mul(slope)).max(0);
    }

    private void some(
            float[] data,
            int own,
            int before,
            int after,
            int across,
            int width,
            float[] to,
            int at,
            int from,
            int end) {
        float slope = 1 / (step * step);
        for (int x = from; x < end; x++) {
            float here = data[own + x];
            float sum = 2 * here;
            float all = 2;
            if (before != NONE && x >= across) {
                float d = data[before + x] - here;
                float weight = Math.max(0f, 1 - d * d * slope);
                sum += weight * data[before + x];
                all += weight;
            }
            if (after != NONE && x < width - across) {
                float d = data[after + x] - here;
                float weight = Math.max(0f, 1 - d * d * slope);
                sum += weight * data[after + x];
                all += weight;
            }
            to[at + x] = sum / all;
        }
    }

    /** How many of a sample's pairs, with the one to the right and the one below, are level; the last one's is the pair before it. */
    void level(float[] data, int own, int next, int width, float[] pairs) {
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            FloatVector none = FloatVector.zero(SPECIES);
            for (; x + STEP < width; x += STEP) {
                FloatVector here = FloatVector.fromArray(SPECIES, data, own + x);
                FloatVector right = FloatVector.fromArray(SPECIES, data, own + x + 1)
                        .sub(here)
                        .abs();
                FloatVector down =
                        FloatVector.fromArray(SPECIES, data, next + x).sub(here).abs();
                none.blend(1, right.compare(VectorOperators.LT, level))
                        .add(none.blend(1, down.compare(VectorOperators.LT, level)))
                        .intoArray(pairs, x);
            }
        }
        for (; x < width; x++) {
            int beside = x + 1 < width ? x + 1 : Math.max(0, x - 1);
            float right = data[own + beside] - data[own + x];
            float down = data[next + x] - data[own + x];
            pairs[x] = (Math.abs(right) < level ? 1 : 0) + (Math.abs(down) < level ? 1 : 0);
        }
    }

    /** The picture, and as far as it is level the smoothed one. */
    void mixed(float[] in, int i, float[] smooth, int s, float[] level, int l, float[] to, int at, int count) {
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            for (; x + STEP <= count; x += STEP) {
                FloatVector own = FloatVector.fromArray(SPECIES, in, i + x);
                FloatVector share = FloatVector.fromArray(SPECIES, level, l + x)
                        .sub(SOME)
                        .mul(SHARE)
                        .min(1)
                        .max(0);
                own.add(share.mul(FloatVector.fromArray(SPECIES, smooth, s + x).sub(own)))
                        .intoArray(to, at + x);
            }
        }
        for (; x < count; x++) {
            float share = Math.clamp((level[l + x] - SOME) * SHARE, 0f, 1f);
            to[at + x] = in[i + x] + share * (smooth[s + x] - in[i + x]);
        }
    }
}
