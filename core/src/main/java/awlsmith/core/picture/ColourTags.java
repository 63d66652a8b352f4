package awlsmith.core.picture;

/**
 * What a file says about the meaning of its code values. The constants carry their code point of ITU-T H.273; they
 * travel with the format from the source to every file we write.
 */
public record ColourTags(Matrix matrix, Range range, Transfer transfer, Primaries primaries) {
    public static final ColourTags UNKNOWN =
            new ColourTags(Matrix.UNSPECIFIED, Range.UNSPECIFIED, Transfer.UNSPECIFIED, Primaries.UNSPECIFIED);

    /** The same in the range that broadcasts have. */
    public ColourTags limited() {
        return new ColourTags(matrix, Range.LIMITED, transfer, primaries);
    }

    /** The same of pictures of red, green and blue; what was luma and chroma and told no curve had that of BT.709. */
    public ColourTags ofRgb() {
        boolean untold = transfer == Transfer.UNSPECIFIED && matrix != Matrix.RGB;
        return new ColourTags(Matrix.RGB, Range.FULL, untold ? Transfer.BT709 : transfer, primaries);
    }

    /** Whether code values mean the same, as far as MXF's labels tell (SMPTE RP 224): some matrices and curves share one. */
    public boolean isSameMeaning(ColourTags other) {
        return matrix.kr == other.matrix.kr
                && matrix.kb == other.matrix.kb
                && range == other.range
                && transfer.isSameCurve(other.transfer)
                && primaries == other.primaries;
    }

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

        /** Of ITU-R BT.601, BT.709 and BT.2020: one curve, told to more or fewer digits. */
        private static final java.util.Set<Transfer> CAMERA =
                java.util.EnumSet.of(BT709, SMPTE170M, BT2020_10, BT2020_12);

        /** Both systems of ITU-R BT.470 have one label. */
        private static final java.util.Set<Transfer> BT470 = java.util.EnumSet.of(GAMMA22, GAMMA28);

        Transfer(int code) {
            this.code = code;
        }

        public int code() {
            return code;
        }

        boolean isSameCurve(Transfer other) {
            return this == other
                    || CAMERA.contains(this) && CAMERA.contains(other)
                    || BT470.contains(this) && BT470.contains(other);
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
     * These tags with what is taken for those the file does not tell; decided once, when a clip is opened, so that enlarging past 576 lines
     * changes nothing, and every file made of it tells all.
     *
     * @param height lines as they are coded
     */
    public ColourTags resolved(Chroma chroma, int height) {
        Matrix known = chroma == Chroma.RGB && matrix == Matrix.UNSPECIFIED ? Matrix.RGB : matrixFor(height);
        return new ColourTags(matrixFor(height), rangeFor(chroma), transferFor(known), primariesFor(known, height));
    }

    /**
     * The transfer that goes with a matrix: the one of the same recommendation (ITU-R BT.601-7 and BT.709-6 have the same curve, BT.2020-2
     * table 4), and sRGB's for pictures without one (IEC 61966-2-1; common practice, no source).
     */
    private Transfer transferFor(Matrix known) {
        if (transfer != Transfer.UNSPECIFIED) {
            return transfer;
        }
        return switch (known) {
            case RGB -> Transfer.IEC61966_2_1;
            case FCC, BT470BG, SMPTE170M -> Transfer.SMPTE170M;
            case SMPTE240M -> Transfer.SMPTE240M;
            case BT2020NC -> Transfer.BT2020_10;
            case BT709, UNSPECIFIED -> Transfer.BT709;
        };
    }

    /** Likewise; of BT.601 those of 625 lines where there are as many as they show, else those of 525. */
    private Primaries primariesFor(Matrix known, int height) {
        if (primaries != Primaries.UNSPECIFIED) {
            return primaries;
        }
        return switch (known) {
            case BT470BG -> Primaries.BT470BG;
            case FCC, SMPTE170M -> height == 576 || height == 288 ? Primaries.BT470BG : Primaries.SMPTE170M;
            case SMPTE240M -> Primaries.SMPTE240M;
            case BT2020NC -> Primaries.BT2020;
            case RGB, BT709, UNSPECIFIED -> Primaries.BT709;
        };
    }

    /** The range to compute with: the tagged one, else limited for luma and chroma and full for RGB. */
    public Range rangeFor(Chroma chroma) {
        if (range != Range.UNSPECIFIED) {
            return range;
        }
        return chroma == Chroma.RGB ? Range.FULL : Range.LIMITED;
    }
}
