package awlsmith.core.measure;

import awlsmith.core.picture.Plane;
import java.util.Arrays;

/**
 * Whether a picture was taken as two fields, and which came first. A field fits between the lines of the field taken next
 * before or after it better than between those of one farther off: held for each parity against the neighbouring frames.
 * The same idea as FFmpeg's idet, against which it is tested.
 */
public final class Fields {
    private static final int BLOCK = 16;
    /** Vertical steps below this are noise: 7 of 255, squared. */
    private static final double LEAST = 49.0 / (255 * 255);

    private Fields() {}

    /**
     * Sums of how badly lines of one parity fit between the lines of the other.
     *
     * @param topFromBefore this frame's lower lines with the upper lines of the frame before, and its upper lines with the
     *     lower lines of the frame after: small when the upper field comes second
     * @param bottomFromBefore the other two pairs: small when the lower field comes second
     * @param own both parities of this frame
     */
    public record Fit(double topFromBefore, double bottomFromBefore, double own) {}

    /** How the lines of a frame were taken, as far as its neighbours tell. */
    public enum Verdict {
        TOP_FIRST,
        BOTTOM_FIRST,
        PROGRESSIVE,
        UNCLEAR
    }

    /** Excess of one field order over the other that decides. */
    private static final double ORDER = 1.04;
    /** Excess of foreign lines over own ones that makes a whole frame. */
    private static final double WHOLE = 1.5;

    /** Which order of fields, or none, fits best. */
    public static Verdict verdict(Fit fit) {
        // the upper field came first when it does not fit with what was or will be, but the lower one does
        if (fit.topFromBefore() > ORDER * fit.bottomFromBefore()) {
            return Verdict.TOP_FIRST;
        }
        if (fit.bottomFromBefore() > ORDER * fit.topFromBefore()) {
            return Verdict.BOTTOM_FIRST;
        }
        return Math.min(fit.topFromBefore(), fit.bottomFromBefore()) > WHOLE * fit.own()
                ? Verdict.PROGRESSIVE
                : Verdict.UNCLEAR;
    }

    /** All three of one size. */
    public static Fit fit(Plane before, Plane here, Plane after) {
        double top = 0;
        double bottom = 0;
        double own = 0;
        float[] sums = new float[3];
        for (int y = 2; y < here.height() - 2; y++) {
            var outer = new RowSums.Outer(here.row(y - 1), here.row(y + 1), here.row(y));
            RowSums.CHOSEN.fits(
                    here.data(), outer, before.data(), before.row(y), after.data(), after.row(y), here.width(), sums);
            if ((y & 1) == 0) {
                top += sums[0];
                bottom += sums[1];
            } else {
                bottom += sums[0];
                top += sums[1];
            }
            own += sums[2];
        }
        return new Fit(top, bottom, own);
    }

    /**
     * Share of the picture's blocks that are combed, 0..1: lines differ more from the next line than from the one after
     * it. The same comparison by which MPEG-2 encoders choose between frame and field transforms (ISO/IEC 13818-2 allows
     * both; the choice is common practice, no source).
     */
    public static double combed(Plane luma) {
        int combed = 0;
        int all = 0;
        int across = luma.width() / BLOCK;
        float[] near = new float[across * BLOCK];
        float[] far = new float[across * BLOCK];
        for (int y0 = 0; y0 + BLOCK + 2 <= luma.height(); y0 += BLOCK) {
            Arrays.fill(near, 0);
            Arrays.fill(far, 0);
            for (int y = y0; y < y0 + BLOCK; y++) {
                RowSums.CHOSEN.addSquares(near, luma.data(), luma.row(y), luma.row(y + 1), near.length);
                RowSums.CHOSEN.addSquares(far, luma.data(), luma.row(y), luma.row(y + 2), far.length);
            }
            for (int block = 0; block < across; block++) {
                double next = sum(near, block);
                all++;
                if (next > 1.3 * sum(far, block) && next > LEAST * BLOCK * BLOCK) {
                    combed++;
                }
            }
        }
        return all == 0 ? 0 : (double) combed / all;
    }

    private static double sum(float[] columns, int block) {
        double sum = 0;
        for (int x = block * BLOCK; x < (block + 1) * BLOCK; x++) {
            sum += columns[x];
        }
        return sum;
    }
}
