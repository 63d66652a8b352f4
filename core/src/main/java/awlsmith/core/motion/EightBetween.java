package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import awlsmith.core.resample.Kernel;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/** Eight samples side by side, each between four others, by four weights. Both forms give the same bits. */
sealed interface EightBetween {
    int COUNT = 8;

    static EightBetween of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new Vectors() : new Scalars();
    }

    /** Catmull-Rom's four weights for each part of a sample. */
    static float[] cubic(int parts) {
        float[] all = new float[4 * parts];
        for (int i = 0; i < parts; i++) {
            for (int k = 0; k < 4; k++) {
                all[4 * i + k] = (float) Kernel.CATMULL_ROM.at(k - 1 - (double) i / parts);
            }
        }
        return all;
    }

    /** Four weights of a cubic spline for each part of a sample, of what {@link Padded#splined} gives. */
    static float[] spline(int parts) {
        float[] all = new float[4 * parts];
        for (int i = 0; i < parts; i++) {
            double t = (double) i / parts;
            all[4 * i] = (float) ((1 - t) * (1 - t) * (1 - t) / 6);
            all[4 * i + 1] = (float) (2 / 3.0 - t * t * (2 - t) / 2);
            all[4 * i + 2] = (float) (2 / 3.0 - (1 - t) * (1 - t) * (1 + t) / 2);
            all[4 * i + 3] = (float) (t * t * t / 6);
        }
        return all;
    }

    /**
     * @param at the first of the four that the first of the eight lies between
     * @param step from each of the four to the next: 1 across, a row's length down
     * @param weights four of them from {@code first} on
     */
    void of(float[] data, int at, int step, float[] weights, int first, float[] out, int to);

    /**
     * Rows of eight samples, each between four others across and four down.
     *
     * @param at above and left of the first four
     * @param weights four of them from {@code across} on, four from {@code down} on
     * @param out gets the rows, one behind the other
     */
    void rows(float[] data, int at, int stride, float[] weights, int across, int down, int rows, float[] out);

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

        @Override
        public void rows(
                float[] data, int at, int stride, float[] weights, int across, int down, int rows, float[] out) {
            float[] between = new float[(rows + 3) * COUNT];
            for (int y = 0; y < rows + 3; y++) {
                of(data, at + y * stride, 1, weights, across, between, y * COUNT);
            }
            for (int y = 0; y < rows; y++) {
                of(between, y * COUNT, COUNT, weights, down, out, y * COUNT);
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

        private static FloatVector across(float[] data, int at, float[] weights, int first) {
            return FloatVector.fromArray(EIGHT, data, at)
                    .mul(weights[first])
                    .add(FloatVector.fromArray(EIGHT, data, at + 1).mul(weights[first + 1]))
                    .add(FloatVector.fromArray(EIGHT, data, at + 2).mul(weights[first + 2]))
                    .add(FloatVector.fromArray(EIGHT, data, at + 3).mul(weights[first + 3]));
        }

        @Override
        public void rows(
                float[] data, int at, int stride, float[] weights, int across, int down, int rows, float[] out) {
            FloatVector a = across(data, at, weights, across);
            FloatVector b = across(data, at + stride, weights, across);
            FloatVector c = across(data, at + 2 * stride, weights, across);
            for (int y = 0; y < rows; y++) {
                FloatVector d = across(data, at + (y + 3) * stride, weights, across);
                a.mul(weights[down])
                        .add(b.mul(weights[down + 1]))
                        .add(c.mul(weights[down + 2]))
                        .add(d.mul(weights[down + 3]))
                        .intoArray(out, y * COUNT);
                a = b;
                b = c;
                c = d;
            }
        }
    }
}
