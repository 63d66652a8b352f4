package awlsmith.media;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import java.util.Arrays;
import tools.jackson.databind.JsonNode;

/**
 * How FFmpeg turns a coded picture upright when it decodes, as the file's display matrix says (ISO/IEC 14496-12, tkhd). It moves samples
 * as they are, so where chroma lies turns with them.
 *
 * @param quarters clockwise, 0..3
 * @param across whether left becomes right before
 * @param down whether top becomes bottom before
 */
record Turned(int quarters, boolean across, boolean down) {
    private static final Turned NOT = new Turned(0, false, false);

    static Turned of(JsonNode stream) {
        for (JsonNode side : stream.path("side_data_list")) {
            if (side.has("rotation")) {
                return of(
                        Math.floorMod(-side.path("rotation").asInt(0), 360),
                        side.path("displaymatrix").asString(""));
            }
        }
        return NOT;
    }

    /** By the rule of FFmpeg's command (its configure_output_video_filter in version 5.1), which does the turning. */
    private static Turned of(int clockwise, String text) {
        // three lines of three numbers, each behind its offset
        long[] matrix = Arrays.stream(text.strip().split("\\n"))
                .flatMap(line ->
                        Arrays.stream(line.replaceFirst("^\\s*\\w+:", "").trim().split("\\s+")))
                .filter(word -> word.matches("-?\\d+"))
                .mapToLong(Long::parseLong)
                .toArray();
        boolean known = matrix.length == 9;
        return switch (clockwise) {
            // "cclock_flip" is a mirror along the main diagonal
            case 90 -> new Turned(1, false, known && matrix[3] > 0);
            case 180 -> new Turned(0, !known || matrix[0] < 0, !known || matrix[4] < 0);
            case 270 -> new Turned(3, false, known && matrix[3] < 0);
            case 0 -> new Turned(0, false, known && matrix[4] < 0);
            default -> NOT;
        };
    }

    Siting siting(Siting coded, Chroma chroma, int width, int height) {
        if (quarters % 2 == 1 && chroma.stepX() != chroma.stepY()) {
            // FFmpeg brings such layouts to one that can be turned, and puts chroma to the left
            return Siting.LEFT;
        }
        Siting siting = across ? coded.mirroredAcross(chroma, width) : coded;
        siting = down ? siting.mirroredDown(chroma, height) : siting;
        return siting.turned(quarters, chroma, width, height);
    }

    Scan scan(Scan coded, int height) {
        boolean swapped = down && height % 2 == 0;
        return !swapped || coded == Scan.PROGRESSIVE
                ? coded
                : coded == Scan.TOP_FIRST ? Scan.BOTTOM_FIRST : Scan.TOP_FIRST;
    }
}
