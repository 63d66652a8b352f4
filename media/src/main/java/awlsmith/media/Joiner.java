package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Puts finished segments of pictures and the source's sound into one file, without touching either. */
public final class Joiner {
    /** What FFmpeg writes into MP4 and players read (common practice, no source). */
    private static final Set<String> SOUND_IN_MP4 = Set.of("aac", "mp3", "mp2", "ac3", "eac3", "alac", "opus", "flac");

    private static final Duration LIMIT = Duration.ofHours(2);

    private Joiner() {}

    /** @param file of a segment; @param seconds it lasts */
    public record Segment(Path file, Rational seconds) {}

    /**
     * @param source of the sound
     * @param start the source's clock where the pictures begin, seconds
     * @param seconds the pictures last
     */
    public record SoundFrom(MediaInfo source, Rational start, Rational seconds) {}

    /**
     * @param out file to write; its ending names the container
     * @param scratch folder for the list of segments
     * @return what was done about the sound, in words; empty when it was passed through untouched or there is none
     */
    public static Optional<String> join(
            List<Segment> segments, Optional<SoundFrom> sound, Path out, Path scratch, Cancel cancel) {
        Path list = scratch.resolve("segments.txt");
        try {
            Files.writeString(list, listing(segments));
        } catch (IOException e) {
            throw new MediaException("the list of segments could not be written: " + e.getMessage(), e);
        }
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+warning", "-y"));
        arguments.addAll(List.of("-protocol_whitelist", "file", "-f", "concat", "-safe", "0", "-i", Input.url(list)));
        boolean mp4 = out.toString().endsWith(".mp4") || out.toString().endsWith(".mov");
        String changed = null;
        boolean withSound = sound.isPresent() && !sound.get().source().sounds().isEmpty();
        if (withSound) {
            arguments.addAll(Input.guards());
            if (sound.get().start().isPositive()) {
                arguments.addAll(List.of(
                        "-seek_timestamp", "1", "-ss", decimal(sound.get().start())));
            }
            arguments.addAll(List.of(
                    "-t",
                    decimal(sound.get().seconds()),
                    "-i",
                    Input.url(sound.get().source().file())));
        }
        arguments.addAll(List.of("-map", "0:v", "-c:v", "copy"));
        if (withSound) {
            arguments.addAll(List.of("-map", "1:a", "-c:a", "copy", "-copypriorss", "0"));
            int slot = 0;
            for (MediaInfo.Sound track : sound.get().source().sounds()) {
                if (mp4 && !SOUND_IN_MP4.contains(track.codec())) {
                    arguments.addAll(List.of("-c:a:" + slot, "aac", "-b:a:" + slot, "256k"));
                    changed = "the sound (" + track.codec() + ") cannot stand in this container and was coded as AAC";
                }
                slot++;
            }
        }
        if (mp4) {
            arguments.addAll(List.of("-movflags", "+faststart"));
        }
        arguments.addAll(List.of("-map_metadata", "-1", "-map_chapters", "-1", Input.url(out)));
        try (Child child = Child.start(Tool.FFMPEG, arguments, LIMIT, line -> {})) {
            child.finish("putting the file together", cancel);
        }
        return Optional.ofNullable(changed);
    }

    private static String listing(List<Segment> segments) {
        var list = new StringBuilder("ffconcat version 1.0\n");
        for (Segment segment : segments) {
            String path = segment.file().toAbsolutePath().toString().replace("'", "'\\''");
            list.append("file 'file:").append(path).append("'\n");
            list.append("duration ").append(decimal(segment.seconds())).append('\n');
        }
        return list.toString();
    }

    private static String decimal(Rational seconds) {
        long micros = seconds.ticks(new Rational(1, 1_000_000));
        return String.format(Locale.ROOT, "%d.%06d", micros / 1_000_000, micros % 1_000_000);
    }
}
