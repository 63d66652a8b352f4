package awlsmith.core.measure;

import awlsmith.core.picture.Lanes;

/**
 * Sums along rows of samples, as the measures of every frame need them. Where a row comes to one number, eight partial sums stand side
 * by side whatever the machine and are added up in one order, so that both forms give the same bits.
 */
interface RowSums {
    /** Samples that are taken at once. */
    int LANES = 8;

    /** The form that this process chose. */
    RowSums CHOSEN = of(Lanes.chosen());

    static RowSums of(Lanes lanes) {
        return lanes == Lanes.VECTOR ? new VectorRowSums() : new ScalarRowSums();
    }

    /** Adds to every sum how far two rows are apart there: {@code |a - b|}. */
    void addApart(float[] sums, float[] a, int ai, float[] b, int bi, int width);

    /** Adds to every sum the squared difference of two rows of a picture there. */
    void addSquares(float[] sums, float[] d, int one, int other, int width);

    /**
     * Adds a row to the sums of columns.
     *
     * @return the row's own sum
     */
    float addRow(float[] columns, float[] row, int at, int width);

    /**
     * How badly three rows fit between two others, {@code |above + below - 2 * row|} summed.
     *
     * @param outer where the rows above and below begin in d, and the own one
     * @param sums gets that of the row of b at past, of that of a at next, and of the own one
     */
    void fits(float[] d, Outer outer, float[] b, int past, float[] a, int next, int width, float[] sums);

    /** Where rows begin. */
    record Outer(int above, int below, int own) {}

    /** Of partial sums, always in this order. */
    static float total(float[] lanes) {
        return lanes[0] + lanes[4] + (lanes[1] + lanes[5]) + (lanes[2] + lanes[6]) + (lanes[3] + lanes[7]);
    }
}
