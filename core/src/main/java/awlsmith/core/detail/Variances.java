package awlsmith.core.detail;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * Variances of the squares around the samples of a row, as far as the picture goes: columns first, then across. Samples are taken from
 * the middle of the range, so that little is lost to rounding. Both forms give the same bits.
 *
 * @param radius of the squares
 */
record Variances(int radius, Lanes lanes) {
    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
    private static final int STEP = SPECIES.length();
    private static final float MIDDLE = 0.5f;

    /**
     * @param y row; @param left column of the first sample wanted
     * @param out gets the variances
     */
    void row(Plane p, int y, int left, float[] out) {
        int wide = out.length + 2 * radius;
        float[] sums = new float[wide];
        float[] squares = new float[wide];
        int top = Math.max(0, y - radius);
        int bottom = Math.min(p.height() - 1, y + radius);
        int from = Math.max(0, radius - left);
        int to = Math.min(wide, p.width() - left + radius);
        columns(p, top, bottom, left - radius, from, to, sums, squares);
        across(sums, squares, out);
        int down = bottom - top + 1;
        for (int x = 0; x < out.length; x++) {
            boolean whole = x >= from && x + 2 * radius < to;
            int count = down * (whole ? 2 * radius + 1 : Math.min(to, x + 2 * radius + 1) - Math.max(from, x));
            float mean = sums[x] / count;
            out[x] = Math.max(0, squares[x] / count - mean * mean);
        }
    }

    private void columns(Plane p, int top, int bottom, int first, int from, int to, float[] sums, float[] squares) {
        float[] data = p.data();
        int x = from;
        if (lanes == Lanes.VECTOR) {
            for (; x + STEP <= to; x += STEP) {
                FloatVector sum = FloatVector.zero(SPECIES);
                FloatVector square = sum;
                for (int v = top; v <= bottom; v++) {
                    FloatVector d = FloatVector.fromArray(SPECIES, data, p.row(v) + first + x)
                            .sub(MIDDLE);
                    sum = sum.add(d);
                    square = d.fma(d, square);
                }
                sum.intoArray(sums, x);
                square.intoArray(squares, x);
            }
        }
        for (; x < to; x++) {
            float sum = 0;
            float square = 0;
            for (int v = top; v <= bottom; v++) {
                float d = data[p.row(v) + first + x] - MIDDLE;
                sum += d;
                square = Math.fma(d, d, square);
            }
            sums[x] = sum;
            squares[x] = square;
        }
    }

    /** Sums of columns become sums of squares, from the left; what a sum is written over is not read again. */
    private void across(float[] sums, float[] squares, float[] out) {
        int x = 0;
        if (lanes == Lanes.VECTOR) {
            for (; x + STEP <= out.length; x += STEP) {
                FloatVector sum = FloatVector.fromArray(SPECIES, sums, x);
                FloatVector square = FloatVector.fromArray(SPECIES, squares, x);
                for (int k = 1; k <= 2 * radius; k++) {
                    sum = sum.add(FloatVector.fromArray(SPECIES, sums, x + k));
                    square = square.add(FloatVector.fromArray(SPECIES, squares, x + k));
                }
                sum.intoArray(sums, x);
                square.intoArray(squares, x);
            }
        }
        for (; x < out.length; x++) {
            float sum = sums[x];
            float square = squares[x];
            for (int k = 1; k <= 2 * radius; k++) {
                sum += sums[x + k];
                square += squares[x + k];
            }
            sums[x] = sum;
            squares[x] = square;
        }
    }
}
