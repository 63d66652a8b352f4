package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * Adds eight samples side by side, as one square's motion brings them from both pictures, to what other squares brought. Both forms give the
 * same bits.
 */
sealed interface BetweenRows {
    int COUNT = 8;
    /** Samples count half where both pictures differ by a tenth of the range there. */
    float APART = 100;

    static BetweenRows of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new Vectors() : new Scalars();
    }

    /** What squares brought, each sample times its weight, the weights, and how far both pictures were apart, times the weight. */
    record Sums(float[] samples, float[] weights, float[] apart) {
        Sums(int count) {
            this(new float[count], new float[count], new float[count]);
        }
    }

    /**
     * @param a eight samples from the first picture; @param b from the second
     * @param across how much each of the eight counts, from an index on
     * @param weight of all of them; @param share of the second picture
     * @param at where the eight lie in the sums
     */
    void add(
            float[] a, float[] b, int from, float[] across, int acrossAt, float weight, float share, Sums into, int at);

    /** One after the other. */
    record Scalars() implements BetweenRows {
        @Override
        public void add(
                float[] a,
                float[] b,
                int from,
                float[] across,
                int acrossAt,
                float weight,
                float share,
                Sums into,
                int at) {
            for (int k = 0; k < COUNT; k++) {
                float ofA = a[from + k];
                float apart = b[from + k] - ofA;
                float counts = across[acrossAt + k] * weight / Math.fma(apart * apart, APART, 1);
                into.samples[at + k] = Math.fma(counts, Math.fma(apart, share, ofA), into.samples[at + k]);
                into.weights[at + k] += counts;
                into.apart[at + k] = Math.fma(counts, Math.abs(apart), into.apart[at + k]);
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
                int from,
                float[] across,
                int acrossAt,
                float weight,
                float share,
                Sums into,
                int at) {
            FloatVector ofA = FloatVector.fromArray(EIGHT, a, from);
            FloatVector apart = FloatVector.fromArray(EIGHT, b, from).sub(ofA);
            FloatVector one = FloatVector.broadcast(EIGHT, 1);
            FloatVector counts = FloatVector.fromArray(EIGHT, across, acrossAt)
                    .mul(weight)
                    .div(apart.mul(apart).fma(FloatVector.broadcast(EIGHT, APART), one));
            FloatVector made = apart.fma(FloatVector.broadcast(EIGHT, share), ofA);
            counts.fma(made, FloatVector.fromArray(EIGHT, into.samples, at)).intoArray(into.samples, at);
            FloatVector.fromArray(EIGHT, into.weights, at).add(counts).intoArray(into.weights, at);
            counts.fma(apart.abs(), FloatVector.fromArray(EIGHT, into.apart, at))
                    .intoArray(into.apart, at);
        }
    }
}
