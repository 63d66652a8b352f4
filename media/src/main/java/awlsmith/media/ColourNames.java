package awlsmith.media;

import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Siting;
import java.util.Arrays;
import java.util.Map;

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
            case IEC61966_2_4 -> "iec61966-2-4";
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

    /** Whether the name is of a matrix we compute with, or says that none is known. */
    static boolean isKnownMatrix(String name) {
        return name.isEmpty()
                || name.equals("unknown")
                || name.equals("unspecified")
                || matrix(name) != ColourTags.Matrix.UNSPECIFIED;
    }

    /** Names as FFmpeg gives them to where chroma lies. */
    static Siting siting(String name) {
        return SITINGS.getOrDefault(name, Siting.LEFT);
    }

    static String of(Siting siting) {
        return SITINGS.entrySet().stream()
                .filter(entry -> entry.getValue().equals(siting))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("left");
    }

    private static final Map<String, Siting> SITINGS = Map.of(
            "left", Siting.LEFT,
            "center", Siting.CENTRE,
            "topleft", Siting.TOP_LEFT,
            "top", Siting.TOP,
            "bottomleft", Siting.BOTTOM_LEFT,
            "bottom", Siting.BOTTOM);

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(java.util.Locale.ROOT);
    }
}
