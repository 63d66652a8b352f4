package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/** How far two squares of 16x16 samples are from each other: the sum of the squared differences. Both forms give the same bits. */
sealed interface SquareMisfit {
    int SIDE = 16;
    int HALF = SIDE / 2;

    /** Squares begin at these places of planes with these strides. */
    float of(float[] a, int at, int stride, float[] b, int bAt, int bStride);

    static SquareMisfit chosen() {
        return Lanes.chosen() == Lanes.VECTOR ? new Vector() : new Scalar();
    }

    /** One sum for each column's even and odd rows, then those in pairs: the order does not hang on how wide vectors are. */
    record Scalar() implements SquareMisfit {
        @Override
        public float of(float[] a, int at, int stride, float[] b, int bAt, int bStride) {
            float[] even = new float[SIDE];
            float[] odd = new float[SIDE];
            for (int y = 0; y < SIDE; y += 2) {
                add(a, at + y * stride, b, bAt + y * bStride, even);
                add(a, at + (y + 1) * stride, b, bAt + (y + 1) * bStride, odd);
            }
            float[] sums = new float[HALF];
            for (int x = 0; x < HALF; x++) {
                sums[x] = (even[x] + odd[x]) + (even[x + HALF] + odd[x + HALF]);
            }
            return total(sums);
        }

        private static void add(float[] a, int i, float[] b, int j, float[] sums) {
            for (int x = 0; x < SIDE; x++) {
                float d = a[i + x] - b[j + x];
                sums[x] += d * d;
            }
        }
    }

    /** Four sums that do not wait for each other: one alone would take as long as it takes to add sixteen times. */
    record Vector() implements SquareMisfit {
        private static final VectorSpecies<Float> LANES = FloatVector.SPECIES_256;

        @Override
        public float of(float[] a, int at, int stride, float[] b, int bAt, int bStride) {
            FloatVector evenLeft = FloatVector.zero(LANES);
            FloatVector evenRight = evenLeft;
            FloatVector oddLeft = evenLeft;
            FloatVector oddRight = evenLeft;
            for (int y = 0; y < SIDE; y += 2) {
                int i = at + y * stride;
                int j = bAt + y * bStride;
                FloatVector d = difference(a, i, b, j);
                evenLeft = evenLeft.add(d.mul(d));
                d = difference(a, i + HALF, b, j + HALF);
                evenRight = evenRight.add(d.mul(d));
                d = difference(a, i + stride, b, j + bStride);
                oddLeft = oddLeft.add(d.mul(d));
                d = difference(a, i + stride + HALF, b, j + bStride + HALF);
                oddRight = oddRight.add(d.mul(d));
            }
            float[] sums = new float[HALF];
            evenLeft.add(oddLeft).add(evenRight.add(oddRight)).intoArray(sums, 0);
            return total(sums);
        }

        private static FloatVector difference(float[] a, int i, float[] b, int j) {
            return FloatVector.fromArray(LANES, a, i).sub(FloatVector.fromArray(LANES, b, j));
        }
    }

    private static float total(float[] sums) {
        // in pairs of pairs: sums that wait for each other would take as long as all the rest
        return ((sums[0] + sums[4]) + (sums[2] + sums[6])) + ((sums[1] + sums[5]) + (sums[3] + sums[7]));
    }
}
