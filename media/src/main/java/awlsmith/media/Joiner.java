package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Sound;
import awlsmith.core.plan.Tags;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Puts finished segments of pictures into one file with what goes along: sound, subtitles, chapters, time code. */
public final class Joiner {
    /** What nearly every player reads in MP4, and in MOV beside it (common practice, no source). */
    private static final Set<String> SOUND_IN_MP4 = Set.of("aac", "mp3", "ac3", "eac3", "alac");

    private static final Set<String> SOUND_IN_M4A = Set.of("aac", "alac");

    private static final Set<String> SOUND_IN_WEBM = Set.of("opus", "vorbis");

    private static final Set<String> SOUND_IN_MXF = Set.of("pcm_s16le", "pcm_s24le");

    /** Whose pictures are decoded in another order than they are shown in. */
    private static final Set<String> REORDERED = Set.of("h264", "h265");

    private static final String SAMPLES = "pcm_";

    /** Samples a second that sound in MXF goes at (SMPTE ST 382; other rates are hardly read). */
    private static final int MXF_RATE = 48_000;

    /** A second, of a track; as the words of {@link Sound} say. */
    private static final int AAC_BITS = 256_000;

    private static final int OPUS_BITS = 160_000;

    private static final Duration LIMIT = Duration.ofHours(2);

    private Joiner() {}

    /** @param file of a segment; @param seconds it lasts */
    public record Segment(Path file, Rational seconds) {}

    /**
     * @param source of all that goes along
     * @param start the source's clock where the pictures begin, seconds
     * @param seconds the pictures last
     * @param whole whether the whole clip goes out: then all of its sound does, also what begins before the pictures or lasts longer
     * @param sound what becomes of its sound
     * @param speed seconds of the source to one of the pictures; sound and words keep to it
     * @param rate frames a second, or empty when they come unevenly
     * @param timecode of the first picture going out
     * @param comment written into the file's description; empty for none
     * @param tags what else the file says of itself, where its container has a place for it
     */
    public record Along(
            MediaInfo source,
            Rational start,
            Rational seconds,
            boolean whole,
            Sound sound,
            Rational speed,
            Optional<Rational> rate,
            Optional<String> timecode,
            String comment,
            Tags tags) {
        /** Of a span. */
        public Along(MediaInfo source, Rational start, Rational seconds, boolean sound, Optional<String> timecode) {
            this(
                    source,
                    start,
                    seconds,
                    false,
                    sound ? Sound.KEPT : Sound.NONE,
                    Rational.ONE,
                    Optional.empty(),
                    timecode,
                    "",
                    Tags.NONE);
        }

        /** Whether sound is played at another pace, and so coded anew. */
        public boolean isPaced() {
            return !speed.equals(Rational.ONE);
        }

        /** Seconds of the source that go out. */
        public Rational lasting() {
            return seconds.times(speed);
        }

        private List<MediaInfo.Sound> sounds() {
            return sound == Sound.NONE ? List.of() : source.sounds();
        }

        /** The source's clock at the file's beginning: sound that is taken as it is may begin before the pictures. */
        Rational origin() {
            return !whole || isPaced()
                    ? start
                    : sounds().stream()
                            .map(MediaInfo.Sound::start)
                            .reduce(start, (a, b) -> a.compareTo(b) <= 0 ? a : b);
        }

        /** Chapters that the span touches, counted from its start. */
        List<MediaInfo.Chapter> chapters() {
            return source.extras().chapters().stream()
                    .map(chapter ->
                            new MediaInfo.Chapter(within(chapter.start()), within(chapter.end()), chapter.title()))
                    .filter(chapter -> chapter.end().compareTo(chapter.start()) > 0)
                    .toList();
        }

        private Rational within(Rational clock) {
            Rational at = clock.minus(origin()).dividedBy(speed);
            Rational end = seconds.plus(start.minus(origin()).dividedBy(speed));
            return at.isPositive() ? (at.compareTo(end) > 0 ? end : at) : Rational.ZERO;
        }
    }

    /**
     * @param codec of the pictures
     * @param format of the pictures; what it says of them is written into the file even where segments could not carry it
     * @param out file to write; its ending names the container
     * @param scratch folder for the list of segments
     * @return what was changed or left out, in words; empty when all went along as it was
     */
    public static Optional<String> join(
            List<Segment> segments, Format format, Codec codec, Along along, Path out, Path scratch, Cancel cancel) {
        Path list = write(scratch.resolve("segments.txt"), listing(segments));
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+warning", "-y"));
        if (along.whole() && !along.isPaced()) {
            // all keep the source's clock, moved so that the file begins at 0
            arguments.addAll(
                    List.of("-copyts", "-itsoffset", decimal(along.start().minus(along.origin()))));
        }
        arguments.addAll(List.of("-protocol_whitelist", "file", "-f", "concat", "-safe", "0", "-i", Input.url(list)));
        Container container = container(out);
        boolean mp4 = container == Container.MP4 || container == Container.MOV;
        var notes = new ArrayList<String>();
        List<MediaInfo.Subtitles> subtitles = subtitles(along, container, notes);
        int inputs = 1;
        if (!along.sounds().isEmpty()) {
            inputs++;
            arguments.addAll(Input.guards());
            if (along.whole() && !along.isPaced()) {
                arguments.addAll(List.of("-itsoffset", decimal(Rational.ZERO.minus(along.origin()))));
            } else {
                arguments.addAll(List.of("-seek_timestamp", "1", "-ss", decimal(along.start())));
                if (!along.whole()) {
                    arguments.addAll(List.of("-t", decimal(along.lasting())));
                }
            }
            arguments.addAll(List.of("-i", Input.url(along.source().file())));
        }
        int wordsFrom = inputs;
        for (MediaInfo.Subtitles track : List.copyOf(subtitles)) {
            try {
                Path words = cut(track, along, scratch, cancel);
                if (isEmpty(words)) {
                    // nobody speaks in this span
                    subtitles.remove(track);
                    continue;
                }
                arguments.addAll(Input.guards());
                if (along.isPaced()) {
                    arguments.addAll(List.of("-itsscale", decimal(along.speed().inverse())));
                }
                arguments.addAll(List.of("-i", Input.url(words)));
                inputs++;
            } catch (MediaException e) {
                // pictures that took hours must not be lost for them
                subtitles.remove(track);
                notes.add("the subtitles (" + track.codec() + ") cannot be taken along and were left out");
            }
        }
        List<MediaInfo.Chapter> chapters = along.chapters();
        if (!chapters.isEmpty()) {
            Path file = write(scratch.resolve("chapters.txt"), ChapterList.of(chapters));
            arguments.addAll(List.of("-protocol_whitelist", "file", "-f", "ffmetadata", "-i", Input.url(file)));
        }
        arguments.addAll(List.of("-map", "0:v", "-c:v", "copy"));
        if (mp4
                && segments.size() > 1
                && REORDERED.contains(codec.id())
                && along.rate().isPresent()) {
            // a short last segment is decoded without delay: its times of decoding would leap, and others call the rate
            // a changing one
            String each = "1/(TB*" + along.rate().get() + ")";
            arguments.addAll(
                    List.of("-bsf:v", "setts=pts=PTS:dts=if(eq(N\\,0)\\,DTS\\,min(PREV_OUTDTS+" + each + "\\,PTS))"));
        }
        arguments.addAll(CodecWords.tag(codec, out));
        if (container == Container.MXF) {
            // its clock is the pictures', not that of the parts
            along.rate().ifPresent(rate -> arguments.addAll(List.of("-r", rate.toString())));
        }
        arguments.addAll(Encoding.tags(format));
        arguments.addAll(
                List.of("-field_order", Encoding.Fields.of(format.scan()).order()));
        if (!along.sounds().isEmpty()) {
            if (along.isPaced()) {
                arguments.addAll(List.of("-filter:a", Pace.filter(along.speed())));
                notes.add(
                        "the sound was coded anew as " + anew(along, container).label() + ", at the pictures' pace");
            } else if (container == Container.MXF) {
                // its tracks all last as long: silence stands where the sound has ended, or not yet begun
                arguments.addAll(List.of(
                        "-filter:a",
                        "aresample=" + MXF_RATE + ":async=1:min_hard_comp=0.02:first_pts=0,apad=whole_dur="
                                + decimal(along.seconds())));
            } else if (!along.whole()) {
                arguments.addAll(List.of("-copypriorss", "0"));
            }
            int slot = 0;
            for (MediaInfo.Sound track : along.sounds()) {
                arguments.addAll(List.of("-map", "1:" + track.index()));
                Sound as = form(track, along, container);
                if (container == Container.MXF) {
                    boolean plain = as == Sound.KEPT && track.codec().equals("pcm_s16le");
                    arguments.addAll(List.of("-c:a:" + slot, plain ? "pcm_s16le" : "pcm_s24le"));
                } else {
                    arguments.addAll(words(as, slot));
                }
                if (along.sound() == Sound.KEPT && !along.isPaced() && as != Sound.KEPT) {
                    notes.add(unread(track) + " and was coded as "
                            + container.usualSound().label());
                }
                slot++;
            }
        }
        int slot = 0;
        for (MediaInfo.Subtitles track : subtitles) {
            String form = mp4 ? "mov_text" : container == Container.WEBM ? "webvtt" : "copy";
            arguments.addAll(List.of("-map", wordsFrom + slot + ":s", "-c:s:" + slot, form));
            if (!track.language().isEmpty()) {
                arguments.addAll(List.of("-metadata:s:s:" + slot, "language=" + track.language()));
            }
            slot++;
        }
        if (mp4) {
            arguments.addAll(List.of("-movflags", "+faststart"));
        }
        // the same parts make the same file: no moment, no random names
        arguments.addAll(List.of("-fflags", "+bitexact", "-map_metadata", "-1", "-map_chapters"));
        arguments.add(chapters.isEmpty() ? "-1" : Integer.toString(inputs));
        arguments.addAll(ChapterList.titles(chapters));
        if (!along.comment().isEmpty()) {
            arguments.addAll(List.of("-metadata", "comment=" + along.comment()));
        }
        along.tags()
                .in(container)
                .values()
                .forEach((key, words) -> arguments.addAll(
                        List.of(key.equals(Tags.REEL) ? "-metadata:s:v:0" : "-metadata", key + "=" + words)));
        along.timecode().ifPresent(code -> arguments.addAll(List.of("-metadata:s:v:0", "timecode=" + code)));
        arguments.add(Input.url(out));
        long bytes = along.source().bytes() + size(segments);
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.copying(LIMIT, bytes, out), line -> {})) {
            child.finish("putting the file together", cancel);
        }
        return notes.isEmpty() ? Optional.empty() : Optional.of(String.join("; ", notes));
    }

    /** What sound is coded as that does not go along as it is. */
    private static Sound anew(Along along, Container container) {
        return along.sound() == Sound.KEPT ? container.usualSound() : along.sound();
    }

    /** What becomes of one track. */
    private static Sound form(MediaInfo.Sound track, Along along, Container container) {
        boolean copied = along.sound() == Sound.KEPT && !along.isPaced() && isRead(track, container);
        return copied ? Sound.KEPT : anew(along, container);
    }

    static List<String> words(Sound sound, int slot) {
        String codec = "-c:a:" + slot;
        String rate = "-b:a:" + slot;
        return switch (sound) {
            case KEPT, NONE -> List.of(codec, "copy");
            case AAC -> List.of(codec, "aac", rate, Integer.toString(AAC_BITS));
            case OPUS -> List.of(codec, "libopus", rate, Integer.toString(OPUS_BITS));
            case FLAC -> List.of(codec, "flac");
            case PCM -> List.of(codec, "pcm_s24le");
        };
    }

    /**
     * Bits a second that sound will take, roughly: what is not known counts nothing.
     *
     * @param out file to write; its ending names the container
     */
    public static double soundBits(Along along, Path out) {
        Container container = container(out);
        return along.sounds().stream()
                .mapToDouble(track -> switch (form(track, along, container)) {
                    case KEPT -> track.bitRate();
                    case AAC -> AAC_BITS;
                    case OPUS -> OPUS_BITS;
                    case FLAC, PCM -> 24.0 * track.rate() * track.channels();
                    case NONE -> 0;
                })
                .sum();
    }

    /**
     * Sound that will not go along as it is, told beforehand.
     *
     * @param out file to write; its ending names the container
     */
    public static List<String> recoded(MediaInfo source, Path out) {
        Container container = container(out);
        return source.sounds().stream()
                .filter(track -> !isRead(track, container))
                .map(track -> unread(track) + " and will be coded as "
                        + container.usualSound().label())
                .distinct()
                .toList();
    }

    static Container container(Path out) {
        String name = out.toString().toLowerCase(Locale.ROOT);
        return Container.byEnding(name.substring(name.lastIndexOf('.') + 1)).orElse(Container.MKV);
    }

    private static String unread(MediaInfo.Sound track) {
        return "the sound (" + track.codec() + ") is not read by all players in this container";
    }

    static boolean isRead(MediaInfo.Sound track, Container container) {
        String codec = track.codec();
        return switch (container) {
            case MP4 -> SOUND_IN_MP4.contains(codec);
            case MOV -> SOUND_IN_MP4.contains(codec) || codec.startsWith(SAMPLES);
            case WEBM -> SOUND_IN_WEBM.contains(codec);
            case M4A -> SOUND_IN_M4A.contains(codec);
            case WAV, FLAC -> codec.startsWith(SAMPLES) || codec.equals("flac");
            case MXF -> SOUND_IN_MXF.contains(codec) && track.rate() == MXF_RATE;
            default -> true;
        };
    }

    private static long size(List<Segment> segments) {
        return segments.stream()
                .mapToLong(segment -> segment.file().toFile().length())
                .sum();
    }

    /** Those that the container can hold. */
    private static List<MediaInfo.Subtitles> subtitles(Along along, Container container, List<String> notes) {
        var held = new ArrayList<MediaInfo.Subtitles>();
        for (MediaInfo.Subtitles track : along.source().extras().subtitles()) {
            if (container == Container.MXF) {
                notes.add("MXF holds no subtitles; they were left out");
            } else if (track.text() || container == Container.MKV) {
                held.add(track);
            } else {
                notes.add("the subtitles (" + track.codec() + ") are pictures, which " + container.label()
                        + " does not hold; they were left out");
            }
        }
        return held;
    }

    /**
     * The subtitles of the span in a file of their own. Seeking in the source would begin at a key frame before it and pile
     * up what was said since.
     */
    private static Path cut(MediaInfo.Subtitles track, Along along, Path scratch, Cancel cancel) {
        Path file = scratch.resolve("subtitles-" + track.index() + ".mkv");
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+warning", "-y"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of(
                "-i",
                Input.url(along.source().file()),
                "-map",
                "0:" + track.index(),
                "-c:s",
                // Matroska has its own form for those of MP4
                track.codec().equals("mov_text") ? "subrip" : "copy",
                // here times count from where the first of the file's streams begins
                "-ss",
                decimal(along.origin().minus(along.source().start())),
                "-t",
                decimal(along.lasting().plus(along.start()).minus(along.origin())),
                Input.url(file)));
        Limits limits = Limits.copying(LIMIT, along.source().bytes(), file);
        try (Child child = Child.start(Tool.FFMPEG, arguments, limits, line -> {})) {
            child.finish("cutting the subtitles", cancel);
        }
        return file;
    }

    /** Whether a file holds no packet; one that is only a header cannot even be opened. */
    private static boolean isEmpty(Path file) {
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-loglevel", "level+error"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-show_entries", "packet=size", "-of", "csv=p=0", Input.url(file)));
        try (Child probe = Child.start(Tool.FFPROBE, arguments, Limits.reading(LIMIT), line -> {})) {
            // the first digit is enough; closing it ends it
            return probe.output().read() < 0;
        } catch (IOException e) {
            throw new MediaException("the subtitles could not be read back: " + e.getMessage(), e);
        }
    }

    private static Path write(Path file, String text) {
        try {
            return Files.writeString(file, text);
        } catch (IOException e) {
            throw new MediaException("the disk refused a list of what goes into the file: " + e.getMessage(), e);
        }
    }

    static String listing(List<Segment> segments) {
        var list = new StringBuilder("ffconcat version 1.0\n");
        for (Segment segment : segments) {
            String path = segment.file().toAbsolutePath().toString().replace("'", "'\\''");
            list.append("file 'file:").append(path).append("'\n");
            list.append("duration ").append(decimal(segment.seconds())).append('\n');
        }
        return list.toString();
    }

    static String decimal(Rational seconds) {
        long micros = micros(seconds);
        long size = Math.abs(micros);
        return String.format(Locale.ROOT, "%s%d.%06d", micros < 0 ? "-" : "", size / 1_000_000, size % 1_000_000);
    }

    private static long micros(Rational seconds) {
        return seconds.ticks(new Rational(1, 1_000_000));
    }
}
