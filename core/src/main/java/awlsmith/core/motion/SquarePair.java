package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * Compares a square of 8x8 samples of one picture with one of another, both between samples (bilinear). Both forms give the same bits.
 *
 * <p>A square begins at an index of a padded plane and is moved on by parts of a sample, 0..1, to the right and down; it reads nine rows of
 * nine samples.
 */
sealed interface SquarePair {
    int SIDE = 8;

    /** A place between samples. @param at index of the sample above and left of it */
    record Place(float[] data, int at, int stride, float right, float down) {}

    /** The sum of the differences without their signs. */
    float misfit(Place a, Place b);

    /**
     * Sums for a Gauss-Newton step (Lucas and Kanade 1981) of the motion between both: with d = b - a and g the slopes of both, weighed, gx gx,
     * gx gy, gy gy, gx d and gy d. The slopes are those of the bilinear surface itself.
     *
     * @param share of a's slopes; b's count the rest
     * @param sums gets the five
     */
    void slopes(Place a, Place b, float share, float[] sums);

    static SquarePair of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new Vectors() : new Scalars();
    }

    /** Eight numbers in pairs, so that the order does not hang on how wide vectors are. */
    private static float total(float[] s) {
        return ((s[0] + s[4]) + (s[2] + s[6])) + ((s[1] + s[5]) + (s[3] + s[7]));
    }

    /** One sample after the other. */
    record Scalars() implements SquarePair {
        @Override
        public float misfit(Place a, Place b) {
            float[] sums = new float[SIDE];
            for (int y = 0; y < SIDE; y++) {
                for (int x = 0; x < SIDE; x++) {
                    sums[x] += Math.abs(value(b, x, y) - value(a, x, y));
                }
            }
            return total(sums);
        }

        private static float across(Place p, int x, int y) {
            int i = p.at + y * p.stride + x;
            return Math.fma(p.right, p.data[i + 1] - p.data[i], p.data[i]);
        }

        private static float value(Place p, int x, int y) {
            float upper = across(p, x, y);
            return Math.fma(p.down, across(p, x, y + 1) - upper, upper);
        }

        private static float slopeX(Place p, int x, int y) {
            int i = p.at + y * p.stride + x;
            int j = i + p.stride;
            float upper = p.data[i + 1] - p.data[i];
            return Math.fma(p.down, p.data[j + 1] - p.data[j] - upper, upper);
        }

        private static float slopeY(Place p, int x, int y) {
            return across(p, x, y + 1) - across(p, x, y);
        }

        @Override
        public void slopes(Place a, Place b, float share, float[] sums) {
            float[][] all = new float[5][SIDE];
            for (int y = 0; y < SIDE; y++) {
                for (int x = 0; x < SIDE; x++) {
                    float d = value(b, x, y) - value(a, x, y);
                    float gx = Math.fma(share, slopeX(a, x, y) - slopeX(b, x, y), slopeX(b, x, y));
                    float gy = Math.fma(share, slopeY(a, x, y) - slopeY(b, x, y), slopeY(b, x, y));
                    all[0][x] = Math.fma(gx, gx, all[0][x]);
                    all[1][x] = Math.fma(gx, gy, all[1][x]);
                    all[2][x] = Math.fma(gy, gy, all[2][x]);
                    all[3][x] = Math.fma(gx, d, all[3][x]);
                    all[4][x] = Math.fma(gy, d, all[4][x]);
                }
            }
            for (int k = 0; k < 5; k++) {
                sums[k] = total(all[k]);
            }
        }
    }

    /** A row of eight in one vector. */
    record Vectors() implements SquarePair {
        private static final VectorSpecies<Float> EIGHT = FloatVector.SPECIES_256;

        private static FloatVector across(Place p, int row, FloatVector right) {
            FloatVector left = FloatVector.fromArray(EIGHT, p.data, p.at + row * p.stride);
            return FloatVector.fromArray(EIGHT, p.data, p.at + row * p.stride + 1)
                    .sub(left)
                    .fma(right, left);
        }

        @Override
        public float misfit(Place a, Place b) {
            FloatVector rightA = FloatVector.broadcast(EIGHT, a.right);
            FloatVector rightB = FloatVector.broadcast(EIGHT, b.right);
            FloatVector downA = FloatVector.broadcast(EIGHT, a.down);
            FloatVector downB = FloatVector.broadcast(EIGHT, b.down);
            FloatVector upperA = across(a, 0, rightA);
            FloatVector upperB = across(b, 0, rightB);
            FloatVector sum = FloatVector.zero(EIGHT);
            for (int y = 1; y <= SIDE; y++) {
                FloatVector lowerA = across(a, y, rightA);
                FloatVector lowerB = across(b, y, rightB);
                FloatVector ofA = lowerA.sub(upperA).fma(downA, upperA);
                FloatVector ofB = lowerB.sub(upperB).fma(downB, upperB);
                sum = sum.add(ofB.sub(ofA).abs());
                upperA = lowerA;
                upperB = lowerB;
            }
            float[] sums = new float[SIDE];
            sum.intoArray(sums, 0);
            return total(sums);
        }

        @Override
        public void slopes(Place a, Place b, float share, float[] sums) {
            FloatVector rightA = FloatVector.broadcast(EIGHT, a.right);
            FloatVector rightB = FloatVector.broadcast(EIGHT, b.right);
            FloatVector downA = FloatVector.broadcast(EIGHT, a.down);
            FloatVector downB = FloatVector.broadcast(EIGHT, b.down);
            FloatVector ofShare = FloatVector.broadcast(EIGHT, share);
            FloatVector stepA = step(a, 0);
            FloatVector stepB = step(b, 0);
            FloatVector upperA = across(a, 0, rightA);
            FloatVector upperB = across(b, 0, rightB);
            FloatVector xx = FloatVector.zero(EIGHT);
            FloatVector xy = xx;
            FloatVector yy = xx;
            FloatVector xd = xx;
            FloatVector yd = xx;
            for (int y = 1; y <= SIDE; y++) {
                FloatVector lowerStepA = step(a, y);
                FloatVector lowerStepB = step(b, y);
                FloatVector lowerA = across(a, y, rightA);
                FloatVector lowerB = across(b, y, rightB);
                FloatVector downwardsA = lowerA.sub(upperA);
                FloatVector downwardsB = lowerB.sub(upperB);
                FloatVector d = downwardsB.fma(downB, upperB).sub(downwardsA.fma(downA, upperA));
                FloatVector acrossA = lowerStepA.sub(stepA).fma(downA, stepA);
                FloatVector acrossB = lowerStepB.sub(stepB).fma(downB, stepB);
                FloatVector gx = acrossA.sub(acrossB).fma(ofShare, acrossB);
                FloatVector gy = downwardsA.sub(downwardsB).fma(ofShare, downwardsB);
                xx = gx.fma(gx, xx);
                xy = gx.fma(gy, xy);
                yy = gy.fma(gy, yy);
                xd = gx.fma(d, xd);
                yd = gy.fma(d, yd);
                stepA = lowerStepA;
                stepB = lowerStepB;
                upperA = lowerA;
                upperB = lowerB;
            }
            float[] eight = new float[SIDE];
            xx.intoArray(eight, 0);
            sums[0] = total(eight);
            xy.intoArray(eight, 0);
            sums[1] = total(eight);
            yy.intoArray(eight, 0);
            sums[2] = total(eight);
            xd.intoArray(eight, 0);
            sums[3] = total(eight);
            yd.intoArray(eight, 0);
            sums[4] = total(eight);
        }

        private static FloatVector step(Place p, int row) {
            return FloatVector.fromArray(EIGHT, p.data, p.at + row * p.stride + 1)
                    .sub(FloatVector.fromArray(EIGHT, p.data, p.at + row * p.stride));
        }
    }
}
