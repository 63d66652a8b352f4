package awlsmith.core.measure;

/** Without vectors; also what is left of a row behind its last whole eight samples. */
final class ScalarRowSums implements RowSums {
    @Override
    public void addApart(float[] sums, float[] a, int ai, float[] b, int bi, int width) {
        apart(sums, a, ai, b, bi, 0, width);
    }

    static void apart(float[] sums, float[] a, int ai, float[] b, int bi, int from, int width) {
        for (int x = from; x < width; x++) {
            sums[x] += Math.abs(a[ai + x] - b[bi + x]);
        }
    }

    @Override
    public void addSquares(float[] sums, float[] d, int one, int other, int width) {
        squares(sums, d, one, other, 0, width);
    }

    static void squares(float[] sums, float[] d, int one, int other, int from, int width) {
        for (int x = from; x < width; x++) {
            float apart = d[one + x] - d[other + x];
            sums[x] += apart * apart;
        }
    }

    @Override
    public float addRow(float[] columns, float[] row, int at, int width) {
        float[] lanes = new float[LANES];
        int end = width - width % LANES;
        for (int x = 0; x < end; x += LANES) {
            for (int k = 0; k < LANES; k++) {
                columns[x + k] += row[at + x + k];
                lanes[k] += row[at + x + k];
            }
        }
        return RowSums.total(lanes) + row(columns, row, at, end, width);
    }

    static float row(float[] columns, float[] row, int at, int from, int width) {
        float sum = 0;
        for (int x = from; x < width; x++) {
            columns[x] += row[at + x];
            sum += row[at + x];
        }
        return sum;
    }

    @Override
    public void fits(float[] d, Outer outer, float[] b, int past, float[] a, int next, int width, float[] sums) {
        float[] withPast = new float[LANES];
        float[] withNext = new float[LANES];
        float[] withOwn = new float[LANES];
        int end = width - width % LANES;
        for (int x = 0; x < end; x += LANES) {
            for (int k = 0; k < LANES; k++) {
                float both = d[outer.above() + x + k] + d[outer.below() + x + k];
                withPast[k] += Math.abs(both - 2 * b[past + x + k]);
                withNext[k] += Math.abs(both - 2 * a[next + x + k]);
                withOwn[k] += Math.abs(both - 2 * d[outer.own() + x + k]);
            }
        }
        sums[0] = RowSums.total(withPast);
        sums[1] = RowSums.total(withNext);
        sums[2] = RowSums.total(withOwn);
        fit(d, outer, b, past, a, next, end, width, sums);
    }

    static void fit(
            float[] d, Outer outer, float[] b, int past, float[] a, int next, int from, int width, float[] sums) {
        for (int x = from; x < width; x++) {
            float both = d[outer.above() + x] + d[outer.below() + x];
            sums[0] += Math.abs(both - 2 * b[past + x]);
            sums[1] += Math.abs(both - 2 * a[next + x]);
            sums[2] += Math.abs(both - 2 * d[outer.own() + x]);
        }
    }
}
