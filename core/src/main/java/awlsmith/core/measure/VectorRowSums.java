package awlsmith.core.measure;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/** Eight samples at a time. */
final class VectorRowSums implements RowSums {
    private static final VectorSpecies<Float> EIGHT = FloatVector.SPECIES_256;

    private static FloatVector at(float[] samples, int i) {
        return FloatVector.fromArray(EIGHT, samples, i);
    }

    private static FloatVector apart(FloatVector a, FloatVector b) {
        return a.sub(b).lanewise(VectorOperators.ABS);
    }

    private static float total(FloatVector lanes) {
        return RowSums.total(lanes.toArray());
    }

    @Override
    public void addApart(float[] sums, float[] a, int ai, float[] b, int bi, int width) {
        int end = width - width % LANES;
        for (int x = 0; x < end; x += LANES) {
            at(sums, x).add(apart(at(a, ai + x), at(b, bi + x))).intoArray(sums, x);
        }
        ScalarRowSums.apart(sums, a, ai, b, bi, end, width);
    }

    @Override
    public void addSquares(float[] sums, float[] d, int one, int other, int width) {
        int end = width - width % LANES;
        for (int x = 0; x < end; x += LANES) {
            FloatVector apart = at(d, one + x).sub(at(d, other + x));
            at(sums, x).add(apart.mul(apart)).intoArray(sums, x);
        }
        ScalarRowSums.squares(sums, d, one, other, end, width);
    }

    @Override
    public float addRow(float[] columns, float[] row, int at, int width) {
        FloatVector sum = FloatVector.zero(EIGHT);
        int end = width - width % LANES;
        for (int x = 0; x < end; x += LANES) {
            FloatVector samples = at(row, at + x);
            at(columns, x).add(samples).intoArray(columns, x);
            sum = sum.add(samples);
        }
        return total(sum) + ScalarRowSums.row(columns, row, at, end, width);
    }

    @Override
    public void fits(float[] d, Outer outer, float[] b, int past, float[] a, int next, int width, float[] sums) {
        FloatVector withPast = FloatVector.zero(EIGHT);
        FloatVector withNext = FloatVector.zero(EIGHT);
        FloatVector withOwn = FloatVector.zero(EIGHT);
        int end = width - width % LANES;
        for (int x = 0; x < end; x += LANES) {
            FloatVector both = at(d, outer.above() + x).add(at(d, outer.below() + x));
            withPast = withPast.add(apart(both, at(b, past + x).mul(2)));
            withNext = withNext.add(apart(both, at(a, next + x).mul(2)));
            withOwn = withOwn.add(apart(both, at(d, outer.own() + x).mul(2)));
        }
        sums[0] = total(withPast);
        sums[1] = total(withNext);
        sums[2] = total(withOwn);
        ScalarRowSums.fit(d, outer, b, past, a, next, end, width, sums);
    }
}
