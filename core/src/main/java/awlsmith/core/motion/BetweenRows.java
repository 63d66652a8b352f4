package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import java.util.Arrays;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * Adds rows of eight samples side by side, as one square's motion brings them from both pictures, to what other squares brought. Both forms give the
 * same bits.
 */
sealed interface BetweenRows {
    int COUNT = 8;
    /** Samples count half where both pictures differ by a tenth of the range there. */
    float APART = 100;

    static BetweenRows of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new Vectors() : new Scalars();
    }

    /**
     * What squares brought, each sample times its weight, the weights, and by how much the second picture was lighter than the first, with its sign
     * and without, times the weight.
     *
     * @param lighter with its sign; null where nobody asks
     */
    record Sums(float[] samples, float[] weights, float[] lighter, float[] apart) {
        Sums(int count, boolean lighter) {
            this(new float[count], new float[count], lighter ? new float[count] : null, new float[count]);
        }

        void clear() {
            Arrays.fill(samples, 0);
            Arrays.fill(weights, 0);
            if (lighter != null) {
                Arrays.fill(lighter, 0);
            }
            Arrays.fill(apart, 0);
        }
    }

    /**
     * @param a rows of eight samples from the first picture, one behind the other; @param b from the second
     * @param counts how much each sample counts, from an index on, each row {@code step} behind the last
     * @param share of the second picture
     * @param at where the first row lies in the sums, each next one {@code stride} on
     */
    void add(
            float[] a,
            float[] b,
            int rows,
            float[] counts,
            int from,
            int step,
            float share,
            Sums into,
            int at,
            int stride);

    /** Adds all of a window times a weight. @param window as many as counts, a multiple of eight */
    void weigh(float[] window, float weight, float[] counts);

    /** One after the other. */
    record Scalars() implements BetweenRows {
        @Override
        public void add(
                float[] a,
                float[] b,
                int rows,
                float[] counts,
                int from,
                int step,
                float share,
                Sums into,
                int at,
                int stride) {
            for (int i = 0; i < rows * COUNT; i++) {
                int to = at + i / COUNT * stride + i % COUNT;
                float apart = b[i] - a[i];
                float weight = counts[from + i / COUNT * step + i % COUNT] / Math.fma(apart * apart, APART, 1);
                into.samples[to] = Math.fma(weight, Math.fma(apart, share, a[i]), into.samples[to]);
                into.weights[to] += weight;
                if (into.lighter != null) {
                    into.lighter[to] = Math.fma(weight, apart, into.lighter[to]);
                }
                into.apart[to] = Math.fma(weight, Math.abs(apart), into.apart[to]);
            }
        }

        @Override
        public void weigh(float[] window, float weight, float[] counts) {
            for (int i = 0; i < counts.length; i++) {
                counts[i] = Math.fma(window[i], weight, counts[i]);
            }
        }
    }

    /** All of them in one vector. */
    record Vectors() implements BetweenRows {
        private static final VectorSpecies<Float> EIGHT = FloatVector.SPECIES_256;

        @Override
        public void add(
                float[] a,
                float[] b,
                int rows,
                float[] counts,
                int from,
                int step,
                float share,
                Sums into,
                int at,
                int stride) {
            FloatVector one = FloatVector.broadcast(EIGHT, 1);
            FloatVector half = FloatVector.broadcast(EIGHT, APART);
            FloatVector ofB = FloatVector.broadcast(EIGHT, share);
            for (int y = 0; y < rows; y++) {
                int to = at + y * stride;
                FloatVector first = FloatVector.fromArray(EIGHT, a, y * COUNT);
                FloatVector apart = FloatVector.fromArray(EIGHT, b, y * COUNT).sub(first);
                FloatVector weight = FloatVector.fromArray(EIGHT, counts, from + y * step)
                        .div(apart.mul(apart).fma(half, one));
                weight.fma(apart.fma(ofB, first), FloatVector.fromArray(EIGHT, into.samples, to))
                        .intoArray(into.samples, to);
                FloatVector.fromArray(EIGHT, into.weights, to).add(weight).intoArray(into.weights, to);
                if (into.lighter != null) {
                    weight.fma(apart, FloatVector.fromArray(EIGHT, into.lighter, to))
                            .intoArray(into.lighter, to);
                }
                weight.fma(apart.abs(), FloatVector.fromArray(EIGHT, into.apart, to))
                        .intoArray(into.apart, to);
            }
        }

        @Override
        public void weigh(float[] window, float weight, float[] counts) {
            FloatVector by = FloatVector.broadcast(EIGHT, weight);
            for (int i = 0; i < counts.length; i += COUNT) {
                FloatVector.fromArray(EIGHT, window, i)
                        .fma(by, FloatVector.fromArray(EIGHT, counts, i))
                        .intoArray(counts, i);
            }
        }
    }
}
