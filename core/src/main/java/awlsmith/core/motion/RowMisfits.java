package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * How far a square of 6x6 samples is from nine squares of another plane that lie side by side, each one sample further: sums of the squared
 * differences. Both forms give the same bits.
 */
sealed interface RowMisfits {
    int SIDE = 6;
    int PLACES = 9;

    static RowMisfits of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new Vectors() : new Scalars();
    }

    /**
     * @param at where the square begins in a; @param bAt where the first of the nine begins in b, which has eight samples more in each row
     * @param into gets nine sums
     */
    void of(float[] a, int at, int stride, float[] b, int bAt, int bStride, float[] into);

    private static float one(float[] a, int at, int stride, float[] b, int bAt, int bStride) {
        float sum = 0;
        for (int row = 0; row < SIDE; row++) {
            for (int k = 0; k < SIDE; k++) {
                float d = a[at + row * stride + k] - b[bAt + row * bStride + k];
                sum += d * d;
            }
        }
        return sum;
    }

    /** One place after the other. */
    record Scalars() implements RowMisfits {
        @Override
        public void of(float[] a, int at, int stride, float[] b, int bAt, int bStride, float[] into) {
            for (int place = 0; place < PLACES; place++) {
                into[place] = one(a, at, stride, b, bAt + place, bStride);
            }
        }
    }

    /** Eight places side by side in one vector, and the ninth by itself. */
    record Vectors() implements RowMisfits {
        private static final VectorSpecies<Float> EIGHT = FloatVector.SPECIES_256;

        @Override
        public void of(float[] a, int at, int stride, float[] b, int bAt, int bStride, float[] into) {
            FloatVector sums = FloatVector.zero(EIGHT);
            for (int row = 0; row < SIDE; row++) {
                for (int k = 0; k < SIDE; k++) {
                    FloatVector d = FloatVector.broadcast(EIGHT, a[at + row * stride + k])
                            .sub(FloatVector.fromArray(EIGHT, b, bAt + row * bStride + k));
                    sums = sums.add(d.mul(d));
                }
            }
            sums.intoArray(into, 0);
            into[PLACES - 1] = one(a, at, stride, b, bAt + PLACES - 1, bStride);
        }
    }
}
