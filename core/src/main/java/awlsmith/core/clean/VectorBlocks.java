package awlsmith.core.clean;

import static awlsmith.core.clean.Cosines.A;
import static awlsmith.core.clean.Cosines.B;
import static awlsmith.core.clean.Cosines.C;
import static awlsmith.core.clean.Cosines.K1;
import static awlsmith.core.clean.Cosines.K3;
import static awlsmith.core.clean.Cosines.K5;
import static awlsmith.core.clean.Cosines.K7;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorMask;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/** A vector across the blocks. */
final class VectorBlocks implements Blocks {
    private static final VectorSpecies<Float> EIGHT = FloatVector.SPECIES_256;
    private static final int ROW = SIDE * LANES;

    private static FloatVector at(float[] x, int i) {
        return FloatVector.fromArray(EIGHT, x, i);
    }

    @Override
    public void forward(float[] x) {
        for (int i = 0; i < SIDE; i++) {
            forward(x, i * ROW, LANES);
        }
        for (int i = 0; i < SIDE; i++) {
            forward(x, i * LANES, ROW);
        }
    }

    @Override
    public void inverse(float[] x) {
        for (int i = 0; i < SIDE; i++) {
            inverse(x, i * LANES, ROW);
        }
        for (int i = 0; i < SIDE; i++) {
            inverse(x, i * ROW, LANES);
        }
    }

    @Override
    public void cut(float[] x, float[] least, float[] sigma, float[] weights) {
        FloatVector deviation = at(sigma, 0);
        FloatVector left = FloatVector.broadcast(EIGHT, 1);
        FloatVector none = FloatVector.zero(EIGHT);
        for (int i = 1; i < SIZE; i++) {
            FloatVector own = at(x, i * LANES);
            VectorMask<Float> stays = own.abs().compare(VectorOperators.GE, deviation.mul(least[i]));
            none.blend(own, stays).intoArray(x, i * LANES);
            left = left.add(1, stays);
        }
        FloatVector.broadcast(EIGHT, 1).div(left).intoArray(weights, 0);
    }

    @Override
    public void weigh(float[] x, float[] pilot, float[] shape, float[] sigma, float[] weights) {
        FloatVector deviation = at(sigma, 0);
        FloatVector square = deviation.mul(deviation).add(1e-12f);
        FloatVector sum = FloatVector.broadcast(EIGHT, 1);
        for (int i = 1; i < SIZE; i++) {
            FloatVector guess = at(pilot, i * LANES);
            FloatVector power = guess.mul(guess);
            FloatVector share = power.div(power.add(square.mul(shape[i])));
            at(x, i * LANES).mul(share).intoArray(x, i * LANES);
            sum = sum.add(share.mul(share));
        }
        FloatVector.broadcast(EIGHT, 1).div(sum).intoArray(weights, 0);
    }

    @Override
    public void load(float[][] rows, int group, float[] x) {
        for (int r = 0; r < SIDE; r++) {
            for (int k = 0; k < COLUMNS; k++) {
                float[] row = rows[r * COLUMNS + k];
                int own = (r * SIDE + k) * LANES;
                at(row, group).intoArray(x, own);
                // four samples on is the next of the same column
                at(row, group + 1).intoArray(x, own + COLUMNS * LANES);
            }
        }
    }

    @Override
    public void add(float[] x, int r, float[] weights, float[][] sums, int row, int group) {
        FloatVector weight = at(weights, 0);
        for (int k = 0; k < COLUMNS; k++) {
            float[] sum = sums[row + k];
            int own = (r * SIDE + k) * LANES;
            at(sum, group).add(weight.mul(at(x, own))).intoArray(sum, group);
            at(sum, group + 1).add(weight.mul(at(x, own + COLUMNS * LANES))).intoArray(sum, group + 1);
        }
    }

    private static void forward(float[] x, int at, int step) {
        FloatVector a0 = at(x, at + 0 * step);
        FloatVector z0 = at(x, at + 7 * step);
        FloatVector a1 = at(x, at + 1 * step);
        FloatVector z1 = at(x, at + 6 * step);
        FloatVector a2 = at(x, at + 2 * step);
        FloatVector z2 = at(x, at + 5 * step);
        FloatVector a3 = at(x, at + 3 * step);
        FloatVector z3 = at(x, at + 4 * step);
        FloatVector s0 = a0.add(z0);
        FloatVector d0 = a0.sub(z0);
        FloatVector s1 = a1.add(z1);
        FloatVector d1 = a1.sub(z1);
        FloatVector s2 = a2.add(z2);
        FloatVector d2 = a2.sub(z2);
        FloatVector s3 = a3.add(z3);
        FloatVector d3 = a3.sub(z3);
        FloatVector outer = s0.add(s3);
        FloatVector inner = s1.add(s2);
        FloatVector across = s0.sub(s3);
        FloatVector between = s1.sub(s2);
        outer.add(inner).mul(A).intoArray(x, at + 0 * step);
        outer.sub(inner).mul(A).intoArray(x, at + 4 * step);
        across.mul(B).add(between.mul(C)).intoArray(x, at + 2 * step);
        across.mul(C).sub(between.mul(B)).intoArray(x, at + 6 * step);
        d0.mul(K1).add(d1.mul(K3)).add(d2.mul(K5)).add(d3.mul(K7)).intoArray(x, at + 1 * step);
        d0.mul(K3).sub(d1.mul(K7)).sub(d2.mul(K1)).sub(d3.mul(K5)).intoArray(x, at + 3 * step);
        d0.mul(K5).sub(d1.mul(K1)).add(d2.mul(K7)).add(d3.mul(K3)).intoArray(x, at + 5 * step);
        d0.mul(K7).sub(d1.mul(K5)).add(d2.mul(K3)).sub(d3.mul(K1)).intoArray(x, at + 7 * step);
    }

    private static void inverse(float[] x, int at, int step) {
        FloatVector c0 = at(x, at + 0 * step);
        FloatVector c1 = at(x, at + 1 * step);
        FloatVector c2 = at(x, at + 2 * step);
        FloatVector c3 = at(x, at + 3 * step);
        FloatVector c4 = at(x, at + 4 * step);
        FloatVector c5 = at(x, at + 5 * step);
        FloatVector c6 = at(x, at + 6 * step);
        FloatVector c7 = at(x, at + 7 * step);
        FloatVector e0 = c0.add(c4).mul(A);
        FloatVector e1 = c0.sub(c4).mul(A);
        FloatVector f0 = c2.mul(B).add(c6.mul(C));
        FloatVector f1 = c2.mul(C).sub(c6.mul(B));
        FloatVector s0 = e0.add(f0);
        FloatVector s1 = e1.add(f1);
        FloatVector s2 = e1.sub(f1);
        FloatVector s3 = e0.sub(f0);
        FloatVector d0 = c1.mul(K1).add(c3.mul(K3)).add(c5.mul(K5)).add(c7.mul(K7));
        FloatVector d1 = c1.mul(K3).sub(c3.mul(K7)).sub(c5.mul(K1)).sub(c7.mul(K5));
        FloatVector d2 = c1.mul(K5).sub(c3.mul(K1)).add(c5.mul(K7)).add(c7.mul(K3));
        FloatVector d3 = c1.mul(K7).sub(c3.mul(K5)).add(c5.mul(K3)).sub(c7.mul(K1));
        s0.add(d0).intoArray(x, at + 0 * step);
        s0.sub(d0).intoArray(x, at + 7 * step);
        s1.add(d1).intoArray(x, at + 1 * step);
        s1.sub(d1).intoArray(x, at + 6 * step);
        s2.add(d2).intoArray(x, at + 2 * step);
        s2.sub(d2).intoArray(x, at + 5 * step);
        s3.add(d3).intoArray(x, at + 3 * step);
        s3.sub(d3).intoArray(x, at + 4 * step);
    }
}
