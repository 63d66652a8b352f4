package awlsmith.media;

import awlsmith.core.picture.ColourTags;
import java.util.Arrays;

/** FFmpeg's names for the code points of H.273, which are our constants' names in small letters but for a few. */
final class ColourNames {
    private ColourNames() {}

    static String of(ColourTags.Matrix matrix) {
        return matrix == ColourTags.Matrix.UNSPECIFIED
                ? "unknown"
                : matrix == ColourTags.Matrix.RGB ? "gbr" : lower(matrix);
    }

    static String of(ColourTags.Transfer transfer) {
        return switch (transfer) {
            case UNSPECIFIED -> "unknown";
            case IEC61966_2_1 -> "iec61966-2-1";
            case BT2020_10 -> "bt2020-10";
            case BT2020_12 -> "bt2020-12";
            case ARIB_STD_B67 -> "arib-std-b67";
            case GAMMA22 -> "bt470m";
            case GAMMA28 -> "bt470bg";
            default -> lower(transfer);
        };
    }

    /** The encoders' options call two of them by their gamma instead. */
    static String option(ColourTags.Transfer transfer) {
        return switch (transfer) {
            case GAMMA22 -> "gamma22";
            case GAMMA28 -> "gamma28";
            default -> of(transfer);
        };
    }

    /** The encoders' options write the components in another order. */
    static String option(ColourTags.Matrix matrix) {
        return matrix == ColourTags.Matrix.RGB ? "rgb" : of(matrix);
    }

    static String of(ColourTags.Primaries primaries) {
        return primaries == ColourTags.Primaries.UNSPECIFIED ? "unknown" : lower(primaries);
    }

    static String of(ColourTags.Range range) {
        return switch (range) {
            case UNSPECIFIED -> "unknown";
            case LIMITED -> "tv";
            case FULL -> "pc";
        };
    }

    static ColourTags.Matrix matrix(String name) {
        return Arrays.stream(ColourTags.Matrix.values())
                .filter(m -> of(m).equals(name))
                .findFirst()
                .orElse(ColourTags.Matrix.UNSPECIFIED);
    }

    static ColourTags.Transfer transfer(String name) {
        return Arrays.stream(ColourTags.Transfer.values())
                .filter(t -> of(t).equals(name))
                .findFirst()
                .orElse(ColourTags.Transfer.UNSPECIFIED);
    }

    static ColourTags.Primaries primaries(String name) {
        return Arrays.stream(ColourTags.Primaries.values())
                .filter(p -> of(p).equals(name))
                .findFirst()
                .orElse(ColourTags.Primaries.UNSPECIFIED);
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(java.util.Locale.ROOT);
    }
}
