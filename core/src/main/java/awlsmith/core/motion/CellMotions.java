package awlsmith.core.motion;

import awlsmith.core.picture.Lanes;
import java.util.Arrays;

/** The motions that squares around a cell bring, those nearly alike as one, and how much each of the cell's samples counts for each. */
final class CellMotions {
    /** Squares that reach a cell, from one before it to two behind its own number. */
    static final int FIRST = -1;

    static final int LAST = 2;
    private static final int SIDE = LAST - FIRST + 1;

    /** Motions this near to each other, samples, are led as one: their mean. */
    private static final float ALIKE = 0.2f;
    /** A square that only reaches into a cell says so much less of its motion. */
    private static final float ASIDE = 0.25f;

    private static final int EIGHT = BetweenRows.COUNT;
    /** Each square's own and the picture's. */
    private static final int MOST = 2 * SIDE * SIDE;

    private static final BetweenRows ROWS = BetweenRows.of(Lanes.chosen());

    /** Squares count up to so many cells from their middle; 1 would be their own samples alone. */
    private static final float REACH = 1.5f;

    /** For each of the squares around, by rows of them, how much it counts for each sample. */
    private final float[][] windows;

    private final int step;
    /** Sums of motions, each times its weight. */
    private final float[] u = new float[MOST];

    private final float[] v = new float[MOST];
    private final float[] weight = new float[MOST];
    /** Motion that each began with. */
    private final float[] firstU = new float[MOST];

    private final float[] firstV = new float[MOST];
    private final float[][] counts;
    private int count;

    /** @param width of a cell, samples; @param height of it */
    CellMotions(int width, int height) {
        step = Math.max(EIGHT, width);
        windows = new float[SIDE * SIDE][step * height];
        for (int square = 0; square < SIDE * SIDE; square++) {
            for (int y = 0; y < height; y++) {
                for (int x = 0; x < width; x++) {
                    windows[square][y * step + x] =
                            counts(x, width, square % SIDE + FIRST) * counts(y, height, square / SIDE + FIRST);
                }
            }
        }
        counts = new float[MOST][step * height];
    }

    /** Falling with the distance from a square's middle. */
    private static float counts(int at, int cell, int square) {
        return Math.max(0, 1 - Math.abs((at + 0.5f) / cell - square) / REACH);
    }

    void clear() {
        count = 0;
    }

    int count() {
        return count;
    }

    /** Samples to the right. */
    float across(int number) {
        return u[number] / weight[number];
    }

    /** Samples down. */
    float down(int number) {
        return v[number] / weight[number];
    }

    /** By rows of {@link #step}. */
    float[] counts(int number) {
        return counts[number];
    }

    /** From one row of counts to the next: a cell's width, eight at least. */
    int step() {
        return step;
    }

    /** Whether a cell is a quarter of such a square, and not only reached by it. */
    static boolean isOfCell(int square) {
        return square == 0 || square == 1;
    }

    /** @param square and line: which of the squares around brings it; @param by what all of it counts */
    void take(float du, float dv, float by, int square, int line) {
        int at = 0;
        while (at < count && !(Math.abs(du - firstU[at]) < ALIKE && Math.abs(dv - firstV[at]) < ALIKE)) {
            at++;
        }
        if (at == count) {
            firstU[at] = du;
            firstV[at] = dv;
            u[at] = 0;
            v[at] = 0;
            weight[at] = 0;
            Arrays.fill(counts[at], 0);
            count++;
        }
        float middle = by * (isOfCell(square) && isOfCell(line) ? 1 : ASIDE);
        u[at] += middle * du;
        v[at] += middle * dv;
        weight[at] += middle;
        ROWS.weigh(windows[(line - FIRST) * SIDE + square - FIRST], by, counts[at]);
    }
}
