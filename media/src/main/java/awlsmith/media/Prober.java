package awlsmith.media;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Tags;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Asks ffprobe what a file holds. */
public final class Prober {
    /** Largest side taken in; beyond it a header is more likely lying than true. */
    public static final int LARGEST_SIDE = 16384;

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
        return probe(file, List.of());
    }

    /**
     * The same of one picture of ours, whose kind is known: a large JPEG is told from other files too late.
     *
     * @param kind by the ending of its name
     */
    static MediaInfo picture(Path file, String kind) {
        return probe(file, List.of("-f", pipe(kind)));
    }

    /** FFmpeg's name of what reads such pictures. */
    static String pipe(String kind) {
        return (kind.equals("jpg") ? "jpeg" : kind) + "_pipe";
    }

    private static MediaInfo probe(Path file, List<String> as) {
        try {
            if (!Files.isRegularFile(file)) {
                throw new MediaException("there is no file at this place any more; take it in again");
            }
            if (Files.size(file) == 0) {
                throw new MediaException("the file is empty (0 bytes): the copy may have failed; take it in again");
            }
            Answer answer = ask(file, as);
            return read(file, answer, Files.size(file));
        } catch (IOException e) {
            throw new MediaException("the file cannot be read: " + e.getMessage(), e);
        }
    }

    /** @param tree what ffprobe found; @param errors what it complained about on the way */
    private record Answer(JsonNode tree, List<String> errors) {}

    /** @param as options that tell its kind where that is known */
    private static Answer ask(Path file, List<String> as) throws IOException {
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-loglevel", "level+error"));
        arguments.addAll(Input.guards());
        arguments.addAll(as);
        arguments.addAll(List.of("-of", "json", "-show_format", "-show_streams", "-show_chapters", Input.url(file)));
        try (Child probe = Child.start(Tool.FFPROBE, arguments, Limits.asking(), line -> {})) {
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
        // the tool's own words are for those who know its inside
        System.getLogger(Prober.class.getName()).log(System.Logger.Level.INFO, "ffprobe said: {0}", all);
        return new MediaException(
                "the file cannot be read: it may be damaged, or of a kind that is not known here. Copy it again, "
                        + "or convert it first");
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

    /**
     * The tracks of a file that may hold no pictures.
     *
     * @throws MediaException as {@link #probe} does
     */
    static List<MediaInfo.Sound> sounds(Path file) {
        try {
            var sounds = new ArrayList<MediaInfo.Sound>();
            for (JsonNode stream : ask(file, List.of()).tree().path("streams")) {
                if (isSound(stream)) {
                    sounds.add(sound(stream));
                }
            }
            return List.copyOf(sounds);
        } catch (IOException e) {
            throw new MediaException("the file cannot be read: " + e.getMessage(), e);
        }
    }

    private static boolean isSound(JsonNode stream) {
        return stream.path("codec_type").asString("").equals("audio")
                && stream.path("sample_rate").asInt(0) > 0;
    }

    private static MediaInfo.Sound sound(JsonNode stream) {
        return new MediaInfo.Sound(
                stream.path("index").asInt(0),
                stream.path("codec_name").asString("unknown"),
                stream.path("sample_rate").asInt(0),
                stream.path("channels").asInt(0),
                start(stream),
                stream.path("bit_rate").asLong(0));
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
            } else if (isSound(stream)) {
                sounds.add(sound(stream));
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
        return new MediaInfo(
                file,
                format.path("format_name").asString("unknown"),
                bytes,
                clock(format.path("start_time").asString("")),
                duration(video, format),
                format.path("bit_rate").asLong(0),
                video(video, String.join("; ", answer.errors())),
                sounds,
                extras(tree));
    }

    /** Matroska knows how long all of it lasts; what writes it says in a tag how long each track does, such as 00:00:03.600000000. */
    private static final Pattern TAGGED = Pattern.compile("(\\d{1,4}):(\\d{2}):(\\d{2})(?:\\.(\\d{1,9}))?");

    private static Optional<Rational> duration(JsonNode video, JsonNode format) {
        Optional<Rational> whole = seconds(format.path("duration").asString(""));
        return seconds(video.path("duration").asString(""))
                .or(() -> tagged(video).filter(own -> whole.isEmpty() || own.compareTo(whole.get()) < 0))
                .or(() -> whole);
    }

    private static final long MICROS = 1_000_000;

    private static Optional<Rational> tagged(JsonNode stream) {
        for (Map.Entry<String, JsonNode> tag : stream.path("tags").properties()) {
            Matcher time = TAGGED.matcher(tag.getValue().asString(""));
            // with the language behind it where several programs write them
            if (tag.getKey().matches("(?i)DURATION(-[a-z]{2,3})?") && time.matches()) {
                long seconds = 3600 * Long.parseLong(time.group(1))
                        + 60 * Long.parseLong(time.group(2))
                        + Long.parseLong(time.group(3));
                String part = time.group(4) == null ? "" : time.group(4);
                long micros = Long.parseLong((part + "000000").substring(0, 6));
                return Optional.of(new Rational(seconds * MICROS + micros, MICROS))
                        .filter(length -> length.toDouble() > 0);
            }
        }
        return Optional.empty();
    }

    /** Subtitles that are words; the others are pictures. Source: FFmpeg's list of subtitle codecs. */
    private static final Set<String> WORDS =
            Set.of("subrip", "ass", "ssa", "mov_text", "webvtt", "text", "srt", "microdvd");

    static final int MOST_CHAPTERS = 1000;
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
        var tags = new HashMap<String, String>();
        for (JsonNode stream : tree.path("streams")) {
            // it stands beside the time code
            tag(stream, Tags.REEL).ifPresent(words -> tags.putIfAbsent(Tags.REEL, words));
        }
        Tags.KEYS.keySet().forEach(key -> tag(tree.path("format"), key).ifPresent(words -> tags.put(key, words)));
        return new MediaInfo.Extras(subtitles, chapters, timecode, Tags.found(tags));
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
            if (stream.path("codec_name").asString("").equals("webp")) {
                throw new MediaException(
                        "this is an animated WebP, which cannot be taken in: make it a GIF or an animated PNG"
                                + " first, or take in what it was made of");
            }
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
        String pixels = stream.path("pix_fmt").asString();
        PixelLayout layout = PixelLayout.decoding(pixels);
        String matrix = stream.path("color_space").asString("");
        if (layout.chroma() != Chroma.RGB && layout.chroma() != Chroma.GREY && !ColourNames.isKnownMatrix(matrix)) {
            throw new MediaException("its colours are coded by a matrix that cannot be treated here (" + matrix
                    + "); guessed wrongly they would be false. Convert the file to BT.709, BT.2020 or RGB first");
        }
        Turned turned = Turned.of(stream);
        Rational real = ratio(stream.path("r_frame_rate").asString("")).orElse(Rational.of(25));
        Rational mean = ratio(stream.path("avg_frame_rate").asString("")).orElse(real);
        boolean steady = Math.abs(real.toDouble() / mean.toDouble() - 1) < 0.002;
        Format format = format(stream, layout, turned);
        return new MediaInfo.Video(
                stream.path("index").asInt(0),
                stream.path("codec_name").asString(),
                stream.path("profile").asString(""),
                format,
                layout.name(),
                clear(stream, pixels, turned),
                turned.quarters(),
                steady || real.toDouble() <= 240 ? (steady ? real : mean) : mean,
                steady,
                ratio(stream.path("time_base").asString("")).orElse(new Rational(1, 90000)),
                start(stream),
                stream.path("bit_rate").asLong(0),
                Math.max(0, stream.path("nb_frames").asLong(0)));
    }

    /** Of the pictures as they are decoded to a layout, upright. */
    private static Format format(JsonNode stream, PixelLayout layout, Turned turned) {
        int width = stream.path("width").asInt(0);
        int height = stream.path("height").asInt(0);
        boolean lying = turned.quarters() % 2 == 1;
        Rational sar = ratio(stream.path("sample_aspect_ratio").asString("")).orElse(Rational.ONE);
        Scan scan = scan(stream.path("field_order").asString(""));
        return new Format(
                lying ? height : width,
                lying ? width : height,
                layout.chroma(),
                turned.siting(
                        ColourNames.siting(stream.path("chroma_location").asString("")),
                        layout.chroma(),
                        width,
                        height),
                layout.depth(),
                colour(stream, layout),
                lying ? sar.inverse() : sar,
                // fields that lie on their side are none any more
                lying ? Scan.PROGRESSIVE : turned.scan(scan, height));
    }

    private static Optional<MediaInfo.Video.Clear> clear(JsonNode stream, String pixels, Turned turned) {
        if (!PixelLayout.hasAlpha(pixels)) {
            return Optional.empty();
        }
        PixelLayout layout = PixelLayout.decodingWithAlpha(pixels);
        return Optional.of(
                new MediaInfo.Video.Clear(format(stream, layout, turned).withAlpha(Alpha.STRAIGHT), layout.name()));
    }

    /** In its own ticks where the file tells them, which is exact. */
    private static Rational start(JsonNode stream) {
        return ratio(stream.path("time_base").asString(""))
                .filter(base -> stream.has("start_pts"))
                .map(base -> base.times(stream.path("start_pts").asLong(0)))
                .orElseGet(() -> clock(stream.path("start_time").asString("")));
    }

    /** Seconds that may lie before 0. */
    private static Rational clock(String text) {
        try {
            return text.isEmpty() ? Rational.ZERO : Rational.parse(text);
        } catch (IllegalArgumentException e) {
            return Rational.ZERO;
        }
    }

    private static Scan scan(String order) {
        return switch (order) {
            case "tt", "tb" -> Scan.TOP_FIRST;
            case "bb", "bt" -> Scan.BOTTOM_FIRST;
            default -> Scan.PROGRESSIVE;
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
        if (matrix == ColourTags.Matrix.RGB && layout.chroma() != Chroma.RGB) {
            // luma and chroma that call themselves RGB: such a tag says nothing
            matrix = ColourTags.Matrix.UNSPECIFIED;
        }
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
