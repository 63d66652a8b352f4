package awlsmith.core.clean;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import java.util.List;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * Sums of the samples around each sample of a row, as far as a guide has the same colour there; both forms give the same bits.
 *
 * @param in planes that are summed; @param guide tells surfaces apart, over the same part, as many planes
 * @param radius samples each way
 * @param slope of the weight's root: 1 by the square of the difference from which on a sample counts for nothing
 */
record SurfaceMeans(List<Plane> in, List<Plane> guide, int radius, float slope, Lanes lanes) {
    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final int STEP = SPECIES.length();

    SurfaceMeans {
        if (in.size() != guide.size() || in.size() != 1 && in.size() != 3) {
            throw new IllegalArgumentException(in.size() + " planes and " + guide.size() + " that guide them");
        }
    }

    /**
     * @param y row; @param left column of the first sample
     * @param sums gets a row for each plane; @param all gets the weights' sums
     */
    void row(int y, int left, float[][] sums, float[] all) {
        int count = all.length;
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            x = Math.clamp(radius - left, 0, count);
            some(y, left, 0, x, sums, all);
            int end = Math.min(count, in.getFirst().width() - radius - left);
            for (; x + STEP <= end; x += STEP) {
                if (in.size() == 1) {
                    one(y, left, x, sums, all);
                } else {
                    three(y, left, x, sums, all);
                }
            }
        }
        some(y, left, x, count, sums, all);
    }

    private int top(int y) {
        return Math.max(0, y - radius);
    }

    private int bottom(int y) {
        return Math.min(in.getFirst().height() - 1, y + radius);
    }

    /** One sample after the other. */
    private void some(int y, int left, int from, int to, float[][] sums, float[] all) {
        int width = in.getFirst().width();
        for (int x = from; x < to; x++) {
            int here = left + x;
            float weights = 0;
            for (float[] sum : sums) {
                sum[x] = 0;
            }
            for (int v = top(y); v <= bottom(y); v++) {
                for (int u = Math.max(0, here - radius); u <= Math.min(width - 1, here + radius); u++) {
                    float most = 0;
                    for (Plane plane : guide) {
                        float d = plane.at(here, y) - plane.at(u, v);
                        most = Math.max(most, d * d);
                    }
                    float share = Math.max(0f, 1 - most * slope);
                    float weight = share * share;
                    weights += weight;
                    for (int p = 0; p < sums.length; p++) {
                        sums[p][x] += weight * in.get(p).at(u, v);
                    }
                }
            }
            all[x] = weights;
        }
    }

    private static FloatVector at(float[] data, int i) {
        return FloatVector.fromArray(SPECIES, data, i);
    }

    private FloatVector weight(FloatVector most) {
        FloatVector share =
                FloatVector.broadcast(SPECIES, 1).sub(most.mul(slope)).max(0f);
        return share.mul(share);
    }

    private void one(int y, int left, int x, float[][] sums, float[] all) {
        Plane from = in.getFirst();
        Plane told = guide.getFirst();
        FloatVector own = at(told.data(), told.row(y) + left + x);
        FloatVector weights = FloatVector.zero(SPECIES);
        FloatVector sum = FloatVector.zero(SPECIES);
        for (int v = top(y); v <= bottom(y); v++) {
            int i = from.row(v) + left + x;
            int j = told.row(v) + left + x;
            for (int by = -radius; by <= radius; by++) {
                FloatVector d = own.sub(at(told.data(), j + by));
                FloatVector weight = weight(d.mul(d));
                weights = weights.add(weight);
                sum = sum.add(weight.mul(at(from.data(), i + by)));
            }
        }
        weights.intoArray(all, x);
        sum.intoArray(sums[0], x);
    }

    private void three(int y, int left, int x, float[][] sums, float[] all) {
        float[] a = in.get(0).data();
        float[] b = in.get(1).data();
        float[] c = in.get(2).data();
        float[] told0 = guide.get(0).data();
        float[] told1 = guide.get(1).data();
        float[] told2 = guide.get(2).data();
        int at = left + x;
        FloatVector own0 = at(told0, guide.get(0).row(y) + at);
        FloatVector own1 = at(told1, guide.get(1).row(y) + at);
        FloatVector own2 = at(told2, guide.get(2).row(y) + at);
        FloatVector weights = FloatVector.zero(SPECIES);
        FloatVector sum0 = weights;
        FloatVector sum1 = weights;
        FloatVector sum2 = weights;
        for (int v = top(y); v <= bottom(y); v++) {
            int i0 = in.get(0).row(v) + at;
            int i1 = in.get(1).row(v) + at;
            int i2 = in.get(2).row(v) + at;
            int j0 = guide.get(0).row(v) + at;
            int j1 = guide.get(1).row(v) + at;
            int j2 = guide.get(2).row(v) + at;
            for (int by = -radius; by <= radius; by++) {
                FloatVector d0 = own0.sub(at(told0, j0 + by));
                FloatVector d1 = own1.sub(at(told1, j1 + by));
                FloatVector d2 = own2.sub(at(told2, j2 + by));
                FloatVector weight = weight(d0.mul(d0).max(d1.mul(d1)).max(d2.mul(d2)));
                weights = weights.add(weight);
                sum0 = sum0.add(weight.mul(at(a, i0 + by)));
                sum1 = sum1.add(weight.mul(at(b, i1 + by)));
                sum2 = sum2.add(weight.mul(at(c, i2 + by)));
            }
        }
        weights.intoArray(all, x);
        sum0.intoArray(sums[0], x);
        sum1.intoArray(sums[1], x);
        sum2.intoArray(sums[2], x);
    }
}
