package awlsmith.server.clips;

import awlsmith.core.plan.ModelSuggestion;
import awlsmith.media.Clip;
import awlsmith.media.CodecNames;
import awlsmith.media.FrameIndex;
import awlsmith.media.MediaInfo;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What is known of a clip, as shown and kept.
 *
 * @param rate frames a second as a fraction, for exact arithmetic
 * @param ratePerSecond the same as a number
 * @param steady whether all frames keep that rate
 * @param scan p for whole frames, i for fields
 * @param order of the fields, in words, when there are any
 * @param depth bits of a code value
 * @param layout of the planes: 4:2:0, 4:2:2, 4:4:4, grey or RGB
 * @param rescue what was done to make its file from a damaged one; missing where nothing was
 * @param transparent whether the pictures are clear in places; missing for clips taken in before it was looked for
 * @param sar sample aspect ratio as a fraction
 * @param seconds length, to the end of the last frame
 * @param colour tags as read; "untagged" where the file is silent
 * @param sound tracks in words
 * @param errors decoder complaints while reading
 * @param damaged frames near which the decoder complained; missing for clips taken in before they were noted
 * @param missing frames to expect by the file's own word that are not there
 * @param suggestion the model its file speaks for; missing for clips taken in before there were any
 * @param timecode label of the first frame, as the file has it
 * @param subtitles tracks of them; @param chapters how many
 */
public record ClipFacts(
        String container,
        String codec,
        int width,
        int height,
        String rate,
        double ratePerSecond,
        boolean steady,
        String scan,
        String order,
        int depth,
        String layout,
        String sar,
        double seconds,
        long bitRate,
        ColourFacts colour,
        List<String> sound,
        int errors,
        @Nullable List<Integer> damaged,
        @Nullable Integer missing,
        @Nullable ModelSuggestion suggestion,
        @Nullable String timecode,
        @Nullable Integer subtitles,
        @Nullable Integer chapters,
        @Nullable Boolean transparent,
        @Nullable Rescue rescue) {

    /** @param takenAs the matrix used where the file is silent */
    public record ColourFacts(String matrix, String range, String transfer, String primaries, String takenAs) {}

    /**
     * @param filled whether lost frames were made up and sound was kept in step; else the file was only rebuilt around what can be read
     * @param made frames that were made of their neighbours
     * @param missing frames that the damaged file promised behind its last one
     */
    public record Rescue(boolean filled, List<Integer> made, int missing) {}

    /** @param rescue what was done to make its file, if it was made from a damaged one */
    static ClipFacts of(MediaInfo info, FrameIndex index, @Nullable Rescue rescue) {
        var video = info.video();
        var format = video.format();
        var clip = new Clip(info, java.util.Optional.of(index));
        var colour = format.colour();
        double seconds = clip.time(index.count()).toDouble();
        boolean steady = clip.steadyRate().isPresent();
        double rate = steady ? video.rate().toDouble() : index.count() / seconds;
        long bitRate = info.pictureBitRate();
        return new ClipFacts(
                info.container(),
                CodecNames.of(video.codec()),
                format.width(),
                format.height(),
                video.rate().toString(),
                rate,
                steady,
                format.scan().isInterlaced() ? "i" : "p",
                switch (format.scan()) {
                    case PROGRESSIVE -> "";
                    case TOP_FIRST -> "top field first";
                    case BOTTOM_FIRST -> "bottom field first";
                },
                format.depth(),
                switch (format.chroma()) {
                    case GREY -> "grey";
                    case S420 -> "4:2:0";
                    case S422 -> "4:2:2";
                    case S444 -> "4:4:4";
                    case RGB -> "RGB";
                },
                format.sar().toString(),
                seconds,
                bitRate,
                new ColourFacts(
                        word(colour.matrix()),
                        word(colour.range()),
                        word(colour.transfer()),
                        word(colour.primaries()),
                        word(colour.matrixFor(format.height()))),
                info.sounds().stream().map(ClipFacts::sound).toList(),
                index.errors(),
                java.util.Arrays.stream(index.damaged()).boxed().toList(),
                (int) Math.max(0, missing(info, index)),
                info.model(rate),
                info.extras().timecode().orElse(null),
                info.extras().subtitles().size(),
                info.extras().chapters().size(),
                clip.format().alpha().isThere(),
                rescue);
    }

    /** A few more or less are rounding; a twentieth is not. */
    private static long missing(MediaInfo info, FrameIndex index) {
        long expected = info.expectedFrames();
        return expected > 10 && index.count() < expected * 0.95 ? expected - index.count() : 0;
    }

    private static String sound(MediaInfo.Sound track) {
        String rate = track.rate() % 1000 == 0
                ? Integer.toString(track.rate() / 1000)
                : Double.toString(track.rate() / 1000.0);
        String channels = switch (track.channels()) {
            case 1 -> "mono";
            case 2 -> "stereo";
            default -> track.channels() + " channels";
        };
        return CodecNames.of(track.codec()) + " " + rate + " kHz " + channels;
    }

    private static String word(Enum<?> tag) {
        String name = tag.name();
        return name.equals("UNSPECIFIED") ? "untagged" : name.toLowerCase(java.util.Locale.ROOT);
    }
}
