package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Sound;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A file of sound alone: it begins with the first picture of the span and lasts as long as all of them, with silence where the source
 * has no sound, so that it lies beside the pictures as it is.
 */
public final class SoundFile {
    private static final Duration LIMIT = Duration.ofHours(2);

    private SoundFile() {}

    /**
     * @param tracks in it, as the file says
     * @param seconds of each that really decode
     * @param errors complaints of the decoder
     */
    public record Facts(List<MediaInfo.Sound> tracks, List<Rational> seconds, int errors, long bytes) {}

    /**
     * @param along whose sound it is
     * @param out file to write; its ending names the container
     * @return what was changed about the sound, in words; empty when it went along as it was
     */
    public static Optional<String> write(Joiner.Along along, Path out, Cancel cancel) {
        Container container = Joiner.container(out);
        List<MediaInfo.Sound> tracks = tracks(along, container);
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+warning", "-y"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-seek_timestamp", "1", "-ss", Joiner.decimal(along.start())));
        arguments.addAll(List.of("-t", Joiner.decimal(along.lasting())));
        arguments.addAll(List.of("-i", Input.url(along.source().file()), "-vn", "-sn", "-dn"));
        var notes = new ArrayList<String>();
        for (int slot = 0; slot < tracks.size(); slot++) {
            MediaInfo.Sound track = tracks.get(slot);
            Sound as = form(track, along, container);
            arguments.addAll(List.of("-map", "0:" + track.index()));
            if (as == Sound.KEPT) {
                arguments.addAll(List.of("-c:a:" + slot, "copy"));
                continue;
            }
            String length = Joiner.decimal(along.seconds());
            arguments.addAll(List.of(
                    "-filter:a:" + slot,
                    (along.isPaced() ? Pace.filter(along.speed()) : "aresample=async=1:min_hard_comp=0.02:first_pts=0")
                            + ",apad=whole_dur=" + length + ",atrim=end=" + length));
            arguments.addAll(words(track, as, slot));
            if (along.sound() == Sound.KEPT && !isSame(track, as)) {
                notes.add("the sound (" + track.codec() + ") was coded as " + as.label());
            }
        }
        arguments.addAll(List.of("-copypriorss", "0", "-fflags", "+bitexact", "-map_metadata", "-1"));
        arguments.addAll(List.of("-map_chapters", "-1"));
        if (container == Container.WAV) {
            // beyond 4 GiB its lengths need more room (EBU Tech 3306)
            arguments.addAll(List.of("-rf64", "auto"));
        }
        along.tags()
                .in(container)
                .values()
                .forEach((key, words) -> arguments.addAll(List.of("-metadata", key + "=" + words)));
        arguments.add(Input.url(out));
        // samples as they are may be many times as large as packets
        Limits limits = Limits.coding(out);
        try (Child child = Child.start(Tool.FFMPEG, arguments, limits, line -> {})) {
            child.finish("writing the sound", cancel);
        }
        return notes.isEmpty()
                ? Optional.empty()
                : Optional.of(String.join("; ", notes.stream().distinct().toList()));
    }

    /** Those that go out in such a container. */
    public static List<MediaInfo.Sound> tracks(Joiner.Along along, Container container) {
        return along.source().sounds().stream().limit(container.mostTracks()).toList();
    }

    /** Whether a track's packets go into the file as they are, and so begin and end where they did. */
    public static boolean isCopied(MediaInfo.Sound track, Joiner.Along along, Container container) {
        return form(track, along, container) == Sound.KEPT;
    }

    /** What becomes of one track: packets are copied only where the container keeps their times, or nothing else holds them. */
    private static Sound form(MediaInfo.Sound track, Joiner.Along along, Container container) {
        if (along.sound() != Sound.KEPT) {
            return along.sound();
        }
        boolean copied = !along.isPaced()
                && (container == Container.MKA || container == Container.M4A && Joiner.isRead(track, container));
        return copied ? Sound.KEPT : container.usualSound();
    }

    /** Whether every sample comes out as it was. */
    private static boolean isSame(MediaInfo.Sound track, Sound as) {
        boolean plain = track.codec().startsWith("pcm_")
                || track.codec().equals("flac")
                || track.codec().equals("alac");
        return plain && (as == Sound.PCM || as == Sound.FLAC);
    }

    private static List<String> words(MediaInfo.Sound track, Sound as, int slot) {
        boolean isSixteen = track.codec().equals("pcm_s16le") || track.codec().equals("pcm_s16be");
        return as == Sound.PCM && isSixteen ? List.of("-c:a:" + slot, "pcm_s16le") : Joiner.words(as, slot);
    }

    /** Decodes it to its end. @throws MediaException when it cannot be read */
    public static Facts readBack(Path file, Cancel cancel) {
        List<MediaInfo.Sound> tracks = Prober.sounds(file);
        var seconds = new ArrayList<Rational>();
        int errors = 0;
        for (MediaInfo.Sound track : tracks) {
            var arguments =
                    new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error"));
            arguments.addAll(Input.guards());
            arguments.addAll(List.of("-i", Input.url(file), "-map", "0:" + track.index(), "-vn"));
            arguments.addAll(List.of("-ac", "1", "-f", "u8", "pipe:1"));
            long samples = 0;
            var piece = new byte[1 << 16];
            try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.reading(LIMIT), line -> {})) {
                for (int n = child.output().read(piece);
                        n >= 0;
                        n = child.output().read(piece)) {
                    cancel.check();
                    samples += n;
                }
                child.exit(cancel);
                errors += child.errors().size();
            } catch (IOException e) {
                throw new MediaException("the sound could not be read back: " + e.getMessage(), e);
            }
            seconds.add(new Rational(samples, track.rate()));
        }
        return new Facts(tracks, List.copyOf(seconds), errors, file.toFile().length());
    }
}
