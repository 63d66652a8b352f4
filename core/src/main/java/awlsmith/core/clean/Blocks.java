package awlsmith.core.clean;

import awlsmith.core.picture.Lanes;

/**
 * Eight blocks of 8x8 samples side by side, sample k of row r of block b at {@code (8 * r + k) * 8 + b}: every step is the same for all of them, so
 * that vectors lie across blocks and nothing is turned. Both forms give the same bits.
 *
 * <p>Source: N. Ahmed, T. Natarajan and K. Rao, "Discrete Cosine Transform", IEEE Transactions on Computers C-23(1), 1974, scaled to keep
 * squares; the definition is that of ITU-T T.81, A.3.3.
 */
interface Blocks {
    int SIDE = 8;
    int SIZE = SIDE * SIDE;
    /** Blocks at once. */
    int LANES = 8;
    /** Blocks begin at every so manieth sample, so samples lie in so many columns. */
    int COLUMNS = 4;

    /** The form that this process chose. */
    Blocks CHOSEN = of(Lanes.chosen());

    static Blocks of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new VectorBlocks() : new ScalarBlocks();
    }

    /** Coefficients in place of samples; that of frequency (u across, v down) stands where sample (u, v) stood. */
    void forward(float[] x);

    /** Samples in place of coefficients. */
    void inverse(float[] x);

    /**
     * Coefficients below a threshold become 0, but for the mean.
     *
     * @param least of each frequency, for noise of deviation 1
     * @param sigma of each block's noise
     * @param weights gets for each block one over its coefficients that are left, the mean counted always
     */
    void cut(float[] x, float[] least, float[] sigma, float[] weights);

    /**
     * Each coefficient is weighed by how much of its square is picture: {@code p^2 / (p^2 + n)}.
     *
     * @param pilot coefficients of the picture as it is guessed to be
     * @param shape square of the noise of each frequency, for noise of deviation 1
     * @param sigma of each block's noise
     * @param weights gets for each block one over the sum of the squared weights
     */
    void weigh(float[] x, float[] pilot, float[] shape, float[] sigma, float[] weights);

    /**
     * Brings eight blocks that begin at every fourth sample side by side.
     *
     * @param rows eight rows of samples as four columns each: every fourth sample stands beside the next, see {@link BlockShrink}
     * @param group number of the first block in these
     */
    void load(float[][] rows, int group, float[] x);

    /**
     * Adds one row of eight blocks to sums, each sample times its block's weight; the way back of {@link #load}.
     *
     * @param r row of the blocks
     * @param sums four columns; the first at {@code row}
     */
    void add(float[] x, int r, float[] weights, float[][] sums, int row, int group);
}
