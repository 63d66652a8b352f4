package awlsmith.core.upscale;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorShuffle;
import jdk.incubator.vector.VectorSpecies;

/** The filters of one place, each the sum of its numbers times the samples around it. Both forms give the same bits. */
sealed interface FilterRows {
    /**
     * @param wide samples; the square around the place begins at {@code at}, its rows {@code stride} apart
     * @param filters one after the other from {@code first} on
     * @param answers gets one number for each of them
     */
    void answer(float[] wide, int at, int stride, float[] filters, int first, float[] answers);

    static FilterRows of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new Vector() : new Scalar();
    }

    /** Without the vector module. */
    record Scalar() implements FilterRows {
        @Override
        public void answer(float[] wide, int at, int stride, float[] filters, int first, float[] answers) {
            float[] lanes = new float[HashedFilters.ROW];
            for (int k = 0; k < answers.length; k++) {
                int f = first + k * HashedFilters.FILTER;
                for (int i = 0; i < HashedFilters.ROW; i++) {
                    float even = wide[at + i] * filters[f + i];
                    float odd = wide[at + stride + i] * filters[f + HashedFilters.ROW + i];
                    for (int row = 2; row < HashedFilters.SIDE; row++) {
                        float sample = wide[at + row * stride + i];
                        float weight = filters[f + row * HashedFilters.ROW + i];
                        if (row % 2 == 0) {
                            even = Math.fma(sample, weight, even);
                        } else {
                            odd = Math.fma(sample, weight, odd);
                        }
                    }
                    lanes[i] = even + odd;
                }
                answers[k] =
                        (lanes[0] + lanes[4] + (lanes[2] + lanes[6])) + (lanes[1] + lanes[5] + (lanes[3] + lanes[7]));
            }
        }
    }

    /** A row of eight samples at a time. */
    record Vector() implements FilterRows {
        private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_256;
        private static final VectorShuffle<Float> BY_FOUR = VectorShuffle.fromOp(SPECIES, i -> (i + 4) % 8);
        private static final VectorShuffle<Float> BY_TWO = VectorShuffle.fromOp(SPECIES, i -> (i + 2) % 8);
        private static final int ROW = HashedFilters.ROW;

        @Override
        public void answer(float[] wide, int at, int stride, float[] filters, int first, float[] answers) {
            var r0 = FloatVector.fromArray(SPECIES, wide, at);
            var r1 = FloatVector.fromArray(SPECIES, wide, at + stride);
            var r2 = FloatVector.fromArray(SPECIES, wide, at + 2 * stride);
            var r3 = FloatVector.fromArray(SPECIES, wide, at + 3 * stride);
            var r4 = FloatVector.fromArray(SPECIES, wide, at + 4 * stride);
            var r5 = FloatVector.fromArray(SPECIES, wide, at + 5 * stride);
            var r6 = FloatVector.fromArray(SPECIES, wide, at + 6 * stride);
            int f = first;
            for (int k = 0; k < answers.length; k++, f += HashedFilters.FILTER) {
                var sum = r0.mul(FloatVector.fromArray(SPECIES, filters, f));
                var other = r1.mul(FloatVector.fromArray(SPECIES, filters, f + ROW));
                sum = r2.fma(FloatVector.fromArray(SPECIES, filters, f + 2 * ROW), sum);
                other = r3.fma(FloatVector.fromArray(SPECIES, filters, f + 3 * ROW), other);
                sum = r4.fma(FloatVector.fromArray(SPECIES, filters, f + 4 * ROW), sum);
                other = r5.fma(FloatVector.fromArray(SPECIES, filters, f + 5 * ROW), other);
                sum = r6.fma(FloatVector.fromArray(SPECIES, filters, f + 6 * ROW), sum);
                answers[k] = sum(sum.add(other));
            }
        }

        /** The lanes' sum, always in the same order: a reduction may choose its own, and a region must equal the whole. */
        private static float sum(FloatVector v) {
            v = v.add(v.rearrange(BY_FOUR));
            v = v.add(v.rearrange(BY_TWO));
            return v.lane(0) + v.lane(1);
        }
    }
}
