package awlsmith.media;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Asks ffprobe what a file holds. */
public final class Prober {
    /** Largest side taken in; beyond it a header is more likely lying than true. */
    public static final int LARGEST_SIDE = 16384;

    private static final Duration LIMIT = Duration.ofSeconds(30);
    private static final Pattern IMPOSSIBLE = Pattern.compile("Picture size (\\d+x\\d+) is invalid");
    /** First boxes of QuickTime and MP4 files (ISO/IEC 14496-12). */
    private static final Set<String> BOXES = Set.of("ftyp", "moov", "mdat", "wide", "free", "skip", "pnot");

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private Prober() {}

    /**
     * @throws MediaException with a sentence when the file is empty, is no video, holds no picture, or claims a size
     *     that cannot be
     */
    public static MediaInfo probe(Path file) {
        try {
            if (!Files.isRegularFile(file)) {
                throw new MediaException("there is no file at this place any more; take it in again");
            }
            if (Files.size(file) == 0) {
                throw new MediaException("the file is empty (0 bytes): the copy may have failed; take it in again");
            }
            Answer answer = ask(file);
            return read(file, answer, Files.size(file));
        } catch (IOException e) {
            throw new MediaException("the file cannot be read: " + e.getMessage(), e);
        }
    }

    /** @param tree what ffprobe found; @param errors what it complained about on the way */
    private record Answer(JsonNode tree, List<String> errors) {}

    private static Answer ask(Path file) throws IOException {
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-loglevel", "level+error"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-of", "json", "-show_format", "-show_streams", "-show_chapters", Input.url(file)));
        try (Child probe = Child.start(Tool.FFPROBE, arguments, LIMIT, line -> {})) {
            byte[] answer = probe.output().readNBytes(4 << 20);
            int code = probe.exit(new Cancel());
            if (code != 0) {
                throw unreadable(file, probe.errors());
            }
            return new Answer(JSON.readTree(answer), probe.errors());
        } catch (JacksonException e) {
            throw new MediaException("the file's description makes no sense; it may be damaged", e);
        }
    }

    private static MediaException unreadable(Path file, List<String> errors) throws IOException {
        String all = String.join("; ", errors);
        refuseLyingSize(all);
        if (all.contains("moov atom not found") && startsLikeMp4(file)) {
            return new MediaException("the file was cut short: its index, which lies at the end, is missing. "
                    + "Copy it again from where it was recorded");
        }
        if (all.contains("End of file")) {
            return new MediaException("the file ends before its first picture: it was cut short. Copy it again");
        }
        if (all.contains("not on whitelist") || all.contains("Invalid data found") || all.contains("moov atom")) {
            return new MediaException("this is not a video that can be read, whatever its name says. "
                    + "MP4, MOV, MKV, WebM, AVI, MPEG, DV, MXF and GIF can be taken in");
        }
        return new MediaException("the file cannot be read" + (all.isEmpty() ? "" : ": " + errors.getLast()));
    }

    /** FFmpeg itself refuses sizes that no memory holds; its words carry the figures. */
    private static void refuseLyingSize(String errors) {
        var size = IMPOSSIBLE.matcher(errors);
        if (size.find()) {
            throw tooLarge(size.group(1));
        }
    }

    private static MediaException tooLarge(String size) {
        return new MediaException("the file claims a picture of " + size + "; at most " + LARGEST_SIDE
                + " on a side can be taken in. Its header may be damaged");
    }

    private static boolean startsLikeMp4(Path file) throws IOException {
        byte[] head;
        try (var in = Files.newInputStream(file)) {
            head = in.readNBytes(8);
        }
        String box = head.length < 8 ? "" : new String(head, 4, 4, StandardCharsets.US_ASCII);
        return BOXES.contains(box);
    }

    private static MediaInfo read(Path file, Answer answer, long bytes) {
        JsonNode tree = answer.tree();
        JsonNode video = null;
        var sounds = new ArrayList<MediaInfo.Sound>();
        for (JsonNode stream : tree.path("streams")) {
            String type = stream.path("codec_type").asString("");
            boolean cover = stream.path("disposition").path("attached_pic").asInt(0) == 1;
            if (type.equals("video") && !cover && video == null) {
                video = stream;
            } else if (type.equals("audio") && stream.path("sample_rate").asInt(0) > 0) {
                sounds.add(new MediaInfo.Sound(
                        stream.path("index").asInt(0),
                        stream.path("codec_name").asString("unknown"),
                        stream.path("sample_rate").asInt(0),
                        stream.path("channels").asInt(0),
                        stream.path("bit_rate").asLong(0)));
            }
        }
        if (video == null) {
            throw new MediaException(
                    sounds.isEmpty()
                            ? "the file holds neither picture nor sound that can be read"
                            : "the file holds no picture, only sound ("
                                    + sounds.getFirst().codec() + ")");
        }
        JsonNode format = tree.path("format");
        Optional<Rational> duration = seconds(video.path("duration").asString(""))
                .or(() -> seconds(format.path("duration").asString("")));
        return new MediaInfo(
                file,
                format.path("format_name").asString("unknown"),
                bytes,
                duration,
                format.path("bit_rate").asLong(0),
                video(video, String.join("; ", answer.errors())),
                sounds,
                extras(tree));
    }

    /** Subtitles that are words; the others are pictures. Source: FFmpeg's list of subtitle codecs. */
    private static final Set<String> WORDS =
            Set.of("subrip", "ass", "ssa", "mov_text", "webvtt", "text", "srt", "microdvd");

    private static final int MOST_CHAPTERS = 1000;
    private static final int LONGEST_TITLE = 200;

    private static MediaInfo.Extras extras(JsonNode tree) {
        var subtitles = new ArrayList<MediaInfo.Subtitles>();
        Optional<String> timecode = tag(tree.path("format"), "timecode");
        for (JsonNode stream : tree.path("streams")) {
            if (stream.path("codec_type").asString("").equals("subtitle") && stream.has("codec_name")) {
                String codec = stream.path("codec_name").asString();
                subtitles.add(new MediaInfo.Subtitles(
                        stream.path("index").asInt(0),
                        codec,
                        WORDS.contains(codec),
                        tag(stream, "language").orElse("")));
            }
            if (timecode.isEmpty()) {
                timecode = tag(stream, "timecode");
            }
        }
        var chapters = new ArrayList<MediaInfo.Chapter>();
        for (JsonNode chapter : tree.path("chapters")) {
            Optional<Rational> base = ratio(chapter.path("time_base").asString(""));
            long from = chapter.path("start").asLong(-1);
            long end = chapter.path("end").asLong(-1);
            if (base.isPresent() && from >= 0 && end > from && chapters.size() < MOST_CHAPTERS) {
                String title = tag(chapter, "title").orElse("");
                chapters.add(new MediaInfo.Chapter(
                        base.get().times(from),
                        base.get().times(end),
                        title.substring(0, Math.min(LONGEST_TITLE, title.length()))));
            }
        }
        return new MediaInfo.Extras(subtitles, chapters, timecode);
    }

    private static Optional<String> tag(JsonNode of, String name) {
        // Matroska's are written in capitals
        for (String key : List.of(name, name.toUpperCase(Locale.ROOT))) {
            String value = of.path("tags").path(key).asString("");
            if (!value.isEmpty()) {
                return Optional.of(value);
            }
        }
        return Optional.empty();
    }

    private static MediaInfo.Video video(JsonNode stream, String errors) {
        int width = stream.path("width").asInt(0);
        int height = stream.path("height").asInt(0);
        if (width < 1 || height < 1) {
            refuseLyingSize(errors);
            throw new MediaException("the file does not say how large its picture is; it may be damaged or cut short");
        }
        if (width > LARGEST_SIDE || height > LARGEST_SIDE) {
            throw tooLarge(width + "x" + height);
        }
        if (!stream.has("codec_name") || !stream.has("pix_fmt")) {
            throw new MediaException("the picture is packed with a codec that cannot be read ("
                    + stream.path("codec_tag_string").asString("unknown")
                    + "), or the file is too damaged to tell");
        }
        PixelLayout layout = PixelLayout.decoding(stream.path("pix_fmt").asString());
        Rational sar = ratio(stream.path("sample_aspect_ratio").asString("")).orElse(Rational.ONE);
        boolean turned = Math.abs(rotation(stream)) % 180 == 90;
        Rational real = ratio(stream.path("r_frame_rate").asString("")).orElse(Rational.of(25));
        Rational mean = ratio(stream.path("avg_frame_rate").asString("")).orElse(real);
        boolean steady = Math.abs(real.toDouble() / mean.toDouble() - 1) < 0.002;
        return new MediaInfo.Video(
                stream.path("index").asInt(0),
                stream.path("codec_name").asString(),
                stream.path("profile").asString(""),
                new Format(
                        turned ? height : width,
                        turned ? width : height,
                        layout.chroma(),
                        siting(stream.path("chroma_location").asString("")),
                        layout.depth(),
                        colour(stream, layout),
                        turned ? sar.inverse() : sar,
                        scan(stream.path("field_order").asString(""))),
                layout.name(),
                steady || real.toDouble() <= 240 ? (steady ? real : mean) : mean,
                steady,
                ratio(stream.path("time_base").asString("")).orElse(new Rational(1, 90000)),
                stream.path("bit_rate").asLong(0),
                Math.max(0, stream.path("nb_frames").asLong(0)));
    }

    private static int rotation(JsonNode stream) {
        for (JsonNode side : stream.path("side_data_list")) {
            if (side.has("rotation")) {
                return side.path("rotation").asInt(0);
            }
        }
        return 0;
    }

    private static Scan scan(String order) {
        return switch (order) {
            case "tt", "tb" -> Scan.TOP_FIRST;
            case "bb", "bt" -> Scan.BOTTOM_FIRST;
            default -> Scan.PROGRESSIVE;
        };
    }

    private static Siting siting(String location) {
        return switch (location) {
            case "center" -> Siting.CENTRE;
            case "topleft" -> Siting.TOP_LEFT;
            default -> Siting.LEFT;
        };
    }

    private static ColourTags colour(JsonNode stream, PixelLayout layout) {
        var range = layout.fullRange()
                ? ColourTags.Range.FULL
                : switch (stream.path("color_range").asString("")) {
                    case "tv" -> ColourTags.Range.LIMITED;
                    case "pc" -> ColourTags.Range.FULL;
                    default -> ColourTags.Range.UNSPECIFIED;
                };
        var matrix = layout.chroma() == Chroma.RGB
                ? ColourTags.Matrix.RGB
                : ColourNames.matrix(stream.path("color_space").asString(""));
        return new ColourTags(
                matrix,
                layout.chroma() == Chroma.RGB ? ColourTags.Range.FULL : range,
                ColourNames.transfer(stream.path("color_transfer").asString("")),
                ColourNames.primaries(stream.path("color_primaries").asString("")));
    }

    private static Optional<Rational> ratio(String text) {
        try {
            var ratio = Rational.parse(text);
            return ratio.isPositive() ? Optional.of(ratio) : Optional.empty();
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static Optional<Rational> seconds(String text) {
        return ratio(text).filter(s -> s.toDouble() < 1e7);
    }
}
