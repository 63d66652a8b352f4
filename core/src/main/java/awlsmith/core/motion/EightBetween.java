package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/** Eight samples side by side, each between four others, by four weights. Both forms give the same bits. */
sealed interface EightBetween {
    int COUNT = 8;

    static EightBetween of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new Vectors() : new Scalars();
    }

    /**
     * @param at the first of the four that the first of the eight lies between
     * @param step from each of the four to the next: 1 across, a row's length down
     * @param weights four of them from {@code first} on
     */
    void of(float[] data, int at, int step, float[] weights, int first, float[] out, int to);

    /** One after the other. */
    record Scalars() implements EightBetween {
        @Override
        public void of(float[] data, int at, int step, float[] weights, int first, float[] out, int to) {
            for (int k = 0; k < COUNT; k++) {
                out[to + k] = weights[first] * data[at + k]
                        + weights[first + 1] * data[at + k + step]
                        + weights[first + 2] * data[at + k + 2 * step]
                        + weights[first + 3] * data[at + k + 3 * step];
            }
        }
    }

    /** All of them in one vector. */
    record Vectors() implements EightBetween {
        private static final VectorSpecies<Float> EIGHT = FloatVector.SPECIES_256;

        @Override
        public void of(float[] data, int at, int step, float[] weights, int first, float[] out, int to) {
            FloatVector.fromArray(EIGHT, data, at)
                    .mul(weights[first])
                    .add(FloatVector.fromArray(EIGHT, data, at + step).mul(weights[first + 1]))
                    .add(FloatVector.fromArray(EIGHT, data, at + 2 * step).mul(weights[first + 2]))
                    .add(FloatVector.fromArray(EIGHT, data, at + 3 * step).mul(weights[first + 3]))
                    .intoArray(out, to);
        }
    }
}
