package awlsmith.core.picture;

/**
 * What a file says about the meaning of its code values. The constants carry their code point of ITU-T H.273; they
 * travel with the format from the source to every file we write.
 */
public record ColourTags(Matrix matrix, Range range, Transfer transfer, Primaries primaries) {
    public static final ColourTags UNKNOWN =
            new ColourTags(Matrix.UNSPECIFIED, Range.UNSPECIFIED, Transfer.UNSPECIFIED, Primaries.UNSPECIFIED);

    /** H.273 table 4, MatrixCoefficients. Kr and Kb are the luma weights of red and blue. */
    public enum Matrix {
        RGB(0, 0, 0),
        BT709(1, 0.2126, 0.0722),
        UNSPECIFIED(2, Double.NaN, Double.NaN),
        FCC(4, 0.30, 0.11),
        BT470BG(5, 0.299, 0.114),
        SMPTE170M(6, 0.299, 0.114),
        SMPTE240M(7, 0.212, 0.087),
        BT2020NC(9, 0.2627, 0.0593);

        private final int code;
        private final double kr;
        private final double kb;

        Matrix(int code, double kr, double kb) {
            this.code = code;
            this.kr = kr;
            this.kb = kb;
        }

        public int code() {
            return code;
        }

        public double kr() {
            return kr;
        }

        public double kb() {
            return kb;
        }
    }

    /** Limited: black at 16 and white at 235 of 8 bits. Full: 0 and 255. */
    public enum Range {
        UNSPECIFIED,
        LIMITED,
        FULL
    }

    /** H.273 table 3, TransferCharacteristics. */
    public enum Transfer {
        BT709(1),
        UNSPECIFIED(2),
        GAMMA22(4),
        GAMMA28(5),
        SMPTE170M(6),
        SMPTE240M(7),
        LINEAR(8),
        LOG100(9),
        LOG316(10),
        IEC61966_2_4(11),
        BT1361E(12),
        IEC61966_2_1(13),
        BT2020_10(14),
        BT2020_12(15),
        SMPTE2084(16),
        SMPTE428(17),
        ARIB_STD_B67(18);

        private final int code;

        Transfer(int code) {
            this.code = code;
        }

        public int code() {
            return code;
        }
    }

    /** H.273 table 2, ColourPrimaries. */
    public enum Primaries {
        BT709(1),
        UNSPECIFIED(2),
        BT470M(4),
        BT470BG(5),
        SMPTE170M(6),
        SMPTE240M(7),
        FILM(8),
        BT2020(9),
        SMPTE428(10),
        SMPTE431(11),
        SMPTE432(12),
        EBU3213(22);

        private final int code;

        Primaries(int code) {
            this.code = code;
        }

        public int code() {
            return code;
        }
    }

    /**
     * The matrix to compute with: the tagged one, else BT.601's for pictures up to 576 lines and BT.709's above (common
     * practice, no source).
     */
    public Matrix matrixFor(int height) {
        if (matrix != Matrix.UNSPECIFIED) {
            return matrix;
        }
        return height <= 576 ? Matrix.SMPTE170M : Matrix.BT709;
    }

    /**
     * These tags with the matrix and range to compute with in place of those the file does not tell; decided once, when a clip is
     * opened, so that enlarging past 576 lines changes nothing.
     *
     * @param height lines as they are coded
     */
    public ColourTags resolved(Chroma chroma, int height) {
        return new ColourTags(matrixFor(height), rangeFor(chroma), transfer, primaries);
    }

    /** The range to compute with: the tagged one, else limited for luma and chroma and full for RGB. */
    public Range rangeFor(Chroma chroma) {
        if (range != Range.UNSPECIFIED) {
            return range;
        }
        return chroma == Chroma.RGB ? Range.FULL : Range.LIMITED;
    }
}
