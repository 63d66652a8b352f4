package awlsmith.core.colour;

import awlsmith.core.picture.ColourTags;

/**
 * The linear step between gamma-coded R'G'B' and Y'CbCr. Y' 0..1, colour differences -0.5..0.5, R'G'B' 0..1, all may
 * exceed their range.
 *
 * <p>Source: ITU-R BT.601-7 section 2.5, BT.709-6 items 3.2 and 3.3, BT.2020-2 table 4: Y' = Kr R' + (1 - Kr - Kb) G' +
 * Kb B'; Cb = (B' - Y') / (2 - 2 Kb); Cr = (R' - Y') / (2 - 2 Kr).
 */
public final class LumaChroma {
    private final double kr;
    private final double kb;

    private LumaChroma(double kr, double kb) {
        this.kr = kr;
        this.kb = kb;
    }

    /** @param matrix one with luma weights, so neither RGB nor UNSPECIFIED */
    public static LumaChroma of(ColourTags.Matrix matrix) {
        if (Double.isNaN(matrix.kr()) || matrix == ColourTags.Matrix.RGB) {
            throw new IllegalArgumentException("matrix " + matrix + " has no luma weights");
        }
        return new LumaChroma(matrix.kr(), matrix.kb());
    }

    /** Y' of R'G'B'. */
    public double luma(double r, double g, double b) {
        return kr * r + (1 - kr - kb) * g + kb * b;
    }

    /** The blue difference of a colour whose luma is known. */
    public double cb(double luma, double b) {
        return (b - luma) / (2 - 2 * kb);
    }

    /** The red difference of a colour whose luma is known. */
    public double cr(double luma, double r) {
        return (r - luma) / (2 - 2 * kr);
    }

    /** R' = Y' + crToR Cr. */
    public double crToR() {
        return 2 - 2 * kr;
    }

    /** B' = Y' + cbToB Cb. */
    public double cbToB() {
        return 2 - 2 * kb;
    }

    /** G' = Y' - cbToG Cb - crToG Cr. */
    public double cbToG() {
        return kb * cbToB() / (1 - kr - kb);
    }

    /** Cr's share of G', to be taken off like {@link #cbToG}. */
    public double crToG() {
        return kr * crToR() / (1 - kr - kb);
    }
}
