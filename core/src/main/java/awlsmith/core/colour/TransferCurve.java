package awlsmith.core.colour;

import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import java.util.function.DoubleUnaryOperator;

/**
 * Between coded values and light, both 0 (black) to 1 (the curve's white); below black the curve is taken mirrored, above white it
 * goes on.
 *
 * <p>Source: ITU-T H.273 (07/2021) table 3; for SMPTE ST 2084 and ARIB STD-B67 also ITU-R BT.2100-2 tables 4 and 5, with 1 for the most that
 * they hold (10 000 cd/m2, and the scene's peak).
 */
public enum TransferCurve {
    /** BT.709, BT.601 and BT.2020 share it; BT.2020's finer constants differ from the fifth digit on. */
    BT709 {
        @Override
        double light(double v) {
            return v < BETA * 4.5 ? v / 4.5 : Math.pow((v + ALPHA - 1) / ALPHA, 1 / 0.45);
        }

        @Override
        double coded(double l) {
            return l < BETA ? 4.5 * l : ALPHA * Math.pow(l, 0.45) - (ALPHA - 1);
        }
    },
    SMPTE240M {
        @Override
        double light(double v) {
            return v < 4 * 0.0228 ? v / 4 : Math.pow((v + 0.1115) / 1.1115, 1 / 0.45);
        }

        @Override
        double coded(double l) {
            return l < 0.0228 ? 4 * l : 1.1115 * Math.pow(l, 0.45) - 0.1115;
        }
    },
    SRGB {
        @Override
        double light(double v) {
            return v < 12.92 * 0.0031308 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
        }

        @Override
        double coded(double l) {
            return l < 0.0031308 ? 12.92 * l : 1.055 * Math.pow(l, 1 / 2.4) - 0.055;
        }
    },
    GAMMA22 {
        @Override
        double light(double v) {
            return Math.pow(v, 2.2);
        }

        @Override
        double coded(double l) {
            return Math.pow(l, 1 / 2.2);
        }
    },
    GAMMA28 {
        @Override
        double light(double v) {
            return Math.pow(v, 2.8);
        }

        @Override
        double coded(double l) {
            return Math.pow(l, 1 / 2.8);
        }
    },
    LINEAR {
        @Override
        double light(double v) {
            return v;
        }

        @Override
        double coded(double l) {
            return l;
        }
    },
    LOG100 {
        @Override
        double light(double v) {
            return v <= 0 ? 0 : Math.pow(10, 2 * (v - 1));
        }

        @Override
        double coded(double l) {
            return l < 0.01 ? 0 : 1 + Math.log10(l) / 2;
        }
    },
    LOG316 {
        @Override
        double light(double v) {
            return v <= 0 ? 0 : Math.pow(10, 2.5 * (v - 1));
        }

        @Override
        double coded(double l) {
            return l < Math.sqrt(10) / 1000 ? 0 : 1 + Math.log10(l) / 2.5;
        }
    },
    PQ {
        private static final double M1 = 2610.0 / 16384;
        private static final double M2 = 2523.0 / 4096 * 128;
        private static final double C1 = 3424.0 / 4096;
        private static final double C2 = 2413.0 / 4096 * 32;
        private static final double C3 = 2392.0 / 4096 * 32;

        /** Beyond the most it holds the formula ends; from there on it goes straight. */
        private static final double SLOPE = 9.554;

        @Override
        double light(double v) {
            if (v > 1) {
                return 1 + (v - 1) * SLOPE;
            }
            double root = Math.pow(v, 1 / M2);
            return Math.pow(Math.max(root - C1, 0) / (C2 - C3 * root), 1 / M1);
        }

        @Override
        double coded(double l) {
            if (l > 1) {
                return 1 + (l - 1) / SLOPE;
            }
            double power = Math.pow(l, M1);
            return Math.pow((C1 + C2 * power) / (1 + C3 * power), M2);
        }
    },
    HLG {
        private static final double A = 0.17883277;
        private static final double B = 0.28466892;
        private static final double C = 0.55991073;

        @Override
        double light(double v) {
            return v <= 0.5 ? v * v / 3 : (Math.exp((v - C) / A) + B) / 12;
        }

        @Override
        double coded(double l) {
            return l <= 1.0 / 12 ? Math.sqrt(3 * l) : A * Math.log(12 * l - B) + C;
        }
    },
    SMPTE428 {
        @Override
        double light(double v) {
            return 52.37 / 48 * Math.pow(v, 2.6);
        }

        @Override
        double coded(double l) {
            return Math.pow(48 * l / 52.37, 1 / 2.6);
        }
    };

    /** Of BT.709's curve to the digits at which its two parts meet (BT.2020-2 table 4, for 12 bits and more). */
    private static final double ALPHA = 1.09929682680944;

    private static final double BETA = 0.018053968510807;

    abstract double light(double v);

    abstract double coded(double l);

    /** From a coded value, of any sign. */
    public double toLight(double v) {
        return Math.signum(v) * light(Math.abs(v));
    }

    /** From light, of any sign. */
    public double toCoded(double l) {
        return Math.signum(l) * coded(Math.abs(l));
    }

    public DoubleUnaryOperator decoding() {
        return this::toLight;
    }

    DoubleUnaryOperator encoding() {
        return this::toCoded;
    }

    /**
     * The curve of pictures in this format. Where it is not told: of R'G'B' that of sRGB, of luma and chroma that of BT.709 (common
     * practice, no source).
     */
    public static TransferCurve of(Format format) {
        return of(format.colour().transfer(), format.chroma() == awlsmith.core.picture.Chroma.RGB);
    }

    private static TransferCurve of(ColourTags.Transfer transfer, boolean rgb) {
        return switch (transfer) {
            case UNSPECIFIED -> rgb ? SRGB : BT709;
            case BT709, SMPTE170M, IEC61966_2_4, BT1361E, BT2020_10, BT2020_12 -> BT709;
            case GAMMA22 -> GAMMA22;
            case GAMMA28 -> GAMMA28;
            case SMPTE240M -> SMPTE240M;
            case LINEAR -> LINEAR;
            case LOG100 -> LOG100;
            case LOG316 -> LOG316;
            case IEC61966_2_1 -> SRGB;
            case SMPTE2084 -> PQ;
            case SMPTE428 -> SMPTE428;
            case ARIB_STD_B67 -> HLG;
        };
    }
}
