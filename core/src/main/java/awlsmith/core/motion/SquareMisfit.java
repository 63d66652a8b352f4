package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/** How far two squares of 16x16 samples are from each other: the sum of the squared differences. Both forms give the same bits. */
sealed interface SquareMisfit {
    int SIDE = 16;

    /** Squares begin at these places of planes with these strides. */
    float of(float[] a, int at, int stride, float[] b, int bAt, int bStride);

    static SquareMisfit chosen() {
        return Lanes.chosen() == Lanes.VECTOR && Vector.isPossible() ? new Vector() : new Scalar();
    }

    /** One sum for each column, then those in pairs: the order does not hang on how wide vectors are. */
    record Scalar() implements SquareMisfit {
        @Override
        public float of(float[] a, int at, int stride, float[] b, int bAt, int bStride) {
            float[] sums = new float[SIDE];
            for (int y = 0; y < SIDE; y++) {
                for (int x = 0; x < SIDE; x++) {
                    float d = a[at + y * stride + x] - b[bAt + y * bStride + x];
                    sums[x] += d * d;
                }
            }
            return total(sums);
        }
    }

    record Vector() implements SquareMisfit {
        private static final VectorSpecies<Float> LANES = FloatVector.SPECIES_PREFERRED;

        static boolean isPossible() {
            return SIDE % LANES.length() == 0;
        }

        @Override
        public float of(float[] a, int at, int stride, float[] b, int bAt, int bStride) {
            float[] sums = new float[SIDE];
            for (int x = 0; x < SIDE; x += LANES.length()) {
                FloatVector sum = FloatVector.zero(LANES);
                for (int y = 0; y < SIDE; y++) {
                    FloatVector d = FloatVector.fromArray(LANES, a, at + y * stride + x)
                            .sub(FloatVector.fromArray(LANES, b, bAt + y * bStride + x));
                    sum = sum.add(d.mul(d));
                }
                sum.intoArray(sums, x);
            }
            return total(sums);
        }
    }

    private static float total(float[] sums) {
        // in pairs of pairs: sums that wait for each other would take as long as all the rest
        return ((sums[0] + sums[8]) + (sums[4] + sums[12]))
                + ((sums[2] + sums[10]) + (sums[6] + sums[14]))
                + (((sums[1] + sums[9]) + (sums[5] + sums[13])) + ((sums[3] + sums[11]) + (sums[7] + sums[15])));
    }
}
