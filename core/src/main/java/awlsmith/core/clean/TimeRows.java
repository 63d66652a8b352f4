package awlsmith.core.clean;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/** Rows of samples as {@link TimeMean} works on them; both forms give the same bits. */
sealed interface TimeRows {
    /** The form that this process chose. */
    TimeRows CHOSEN = of(Lanes.chosen());

    static TimeRows of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new Vectors() : new Scalars();
    }

    /** Squared differences of two rows. */
    void squared(float[] a, int i, float[] b, int j, float[] into, int at, int count);

    /** Sums of five rows of squares, sample by sample. */
    void five(float[][] rows, float[] into, int count);

    /**
     * Multiplies weights by how much a neighbour's sample counts.
     *
     * @param columns sums of squares of columns, two more on each side
     * @param sigma deviation of the noise of each sample, from own on
     * @param weights from row on
     */
    void share(float[] columns, float[] sigma, int own, float[] weights, int row, int count);

    /** Adds a neighbour's samples by their weights, the weights, and their squares. */
    void add(float[] values, int i, float[] shares, int j, float[] sum, float[] all, float[] squares);

    /** Of a weighed mean over noise: where the weight falls from one to none. */
    float SLOPE = 1 / (2f * 25 * (TimeMean.OTHER - TimeMean.SAME));

    float START = TimeMean.OTHER / (TimeMean.OTHER - TimeMean.SAME);
    float NOTHING = 1e-13f;

    /** One sample after the other. */
    record Scalars() implements TimeRows {
        @Override
        public void squared(float[] a, int i, float[] b, int j, float[] into, int at, int count) {
            squared(a, i, b, j, into, at, 0, count);
        }

        static void squared(float[] a, int i, float[] b, int j, float[] into, int at, int from, int count) {
            for (int x = from; x < count; x++) {
                float d = a[i + x] - b[j + x];
                into[at + x] = d * d;
            }
        }

        @Override
        public void five(float[][] rows, float[] into, int count) {
            five(rows, into, 0, count);
        }

        static void five(float[][] rows, float[] into, int from, int count) {
            for (int x = from; x < count; x++) {
                into[x] = rows[0][x] + rows[1][x] + rows[2][x] + rows[3][x] + rows[4][x];
            }
        }

        @Override
        public void share(float[] columns, float[] sigma, int own, float[] weights, int row, int count) {
            share(columns, sigma, own, weights, row, 0, count);
        }

        static void share(float[] columns, float[] sigma, int own, float[] weights, int row, int from, int count) {
            for (int x = from; x < count; x++) {
                float sum = columns[x] + columns[x + 1] + columns[x + 2] + columns[x + 3] + columns[x + 4];
                float noise = sigma[own + x] * sigma[own + x] + NOTHING;
                float share = Math.max(0f, Math.min(1f, START - sum * SLOPE / noise));
                weights[row + x] *= share * share * (3 - 2 * share);
            }
        }

        @Override
        public void add(float[] values, int i, float[] shares, int j, float[] sum, float[] all, float[] squares) {
            add(values, i, shares, j, sum, all, squares, 0);
        }

        static void add(
                float[] values, int i, float[] shares, int j, float[] sum, float[] all, float[] squares, int from) {
            for (int x = from; x < sum.length; x++) {
                float w = shares[j + x];
                sum[x] += w * values[i + x];
                all[x] += w;
                squares[x] += w * w;
            }
        }
    }

    /** Several samples at a time. */
    record Vectors() implements TimeRows {
        private static final VectorSpecies<Float> LANES = FloatVector.SPECIES_256;
        private static final int WIDE = LANES.length();

        private static FloatVector at(float[] samples, int i) {
            return FloatVector.fromArray(LANES, samples, i);
        }

        @Override
        public void squared(float[] a, int i, float[] b, int j, float[] into, int at, int count) {
            int end = count - count % WIDE;
            for (int x = 0; x < end; x += WIDE) {
                FloatVector d = at(a, i + x).sub(at(b, j + x));
                d.mul(d).intoArray(into, at + x);
            }
            Scalars.squared(a, i, b, j, into, at, end, count);
        }

        @Override
        public void five(float[][] rows, float[] into, int count) {
            float[] a = rows[0];
            float[] b = rows[1];
            float[] c = rows[2];
            float[] d = rows[3];
            float[] e = rows[4];
            int end = count - count % WIDE;
            for (int x = 0; x < end; x += WIDE) {
                at(a, x).add(at(b, x)).add(at(c, x)).add(at(d, x)).add(at(e, x)).intoArray(into, x);
            }
            Scalars.five(rows, into, end, count);
        }

        @Override
        public void share(float[] columns, float[] sigma, int own, float[] weights, int row, int count) {
            int end = count - count % WIDE;
            FloatVector start = FloatVector.broadcast(LANES, START);
            FloatVector three = FloatVector.broadcast(LANES, 3);
            for (int x = 0; x < end; x += WIDE) {
                FloatVector sum = at(columns, x)
                        .add(at(columns, x + 1))
                        .add(at(columns, x + 2))
                        .add(at(columns, x + 3))
                        .add(at(columns, x + 4));
                FloatVector noise = at(sigma, own + x);
                noise = noise.mul(noise).add(NOTHING);
                FloatVector share = start.sub(sum.mul(SLOPE).div(noise)).min(1f).max(0f);
                FloatVector smooth = share.mul(share).mul(three.sub(share.mul(2f)));
                at(weights, row + x).mul(smooth).intoArray(weights, row + x);
            }
            Scalars.share(columns, sigma, own, weights, row, end, count);
        }

        @Override
        public void add(float[] values, int i, float[] shares, int j, float[] sum, float[] all, float[] squares) {
            int end = sum.length - sum.length % WIDE;
            for (int x = 0; x < end; x += WIDE) {
                FloatVector w = at(shares, j + x);
                at(sum, x).add(w.mul(at(values, i + x))).intoArray(sum, x);
                at(all, x).add(w).intoArray(all, x);
                at(squares, x).add(w.mul(w)).intoArray(squares, x);
            }
            Scalars.add(values, i, shares, j, sum, all, squares, end);
        }
    }
}
