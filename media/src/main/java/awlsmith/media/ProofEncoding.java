package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Writes pictures for looking at into a file that can be played while it grows: H.264, nearly without loss, in fragments of
 * half a second that each begin with a whole picture (ISO/IEC 14496-12, movie fragments).
 */
public final class ProofEncoding implements AutoCloseable {
    /** So little loss that blocks do not show at 800 %; 0 would be none, and three times the bytes. */
    private static final String QUALITY = "6";

    private static final Cancel NEVER = new Cancel();

    private final Child child;
    private final OutputStream pipe;

    /** The sound that belongs to the pictures: of which file, from where and how long in seconds, played how fast. */
    public record Sound(Path file, Rational start, Rational length, Rational speed) {
        /** As fast as it is. */
        public Sound(Path file, Rational start, Rational length) {
            this(file, start, length, Rational.ONE);
        }
    }

    /** @param format of the pictures, 4:2:0 of eight bits; @param rate frames a second */
    public ProofEncoding(Path file, Format format, Rational rate, Optional<Sound> sound, int threads) {
        var arguments = new ArrayList<String>(List.of(
                "-hide_banner",
                "-nostats",
                "-loglevel",
                "level+warning",
                "-y",
                "-f",
                "rawvideo",
                "-pix_fmt",
                PixelLayout.name(format),
                "-video_size",
                format.width() + "x" + format.height(),
                "-framerate",
                rate.toString(),
                "-i",
                "pipe:0"));
        sound.ifPresent(with -> arguments.addAll(Input.guards()));
        sound.ifPresent(with -> arguments.addAll(List.of(
                // against the file's own clock, as the pictures' times are
                "-seek_timestamp",
                "1",
                "-ss",
                seconds(with.start()),
                "-t",
                seconds(with.length()),
                "-i",
                Input.url(with.file()),
                "-map",
                "0:v",
                "-map",
                "1:a:0",
                "-c:a",
                "aac",
                "-ac",
                "2",
                "-ar",
                "48000",
                "-b:a",
                "192k")));
        sound.filter(with -> !with.speed().equals(Rational.ONE))
                .ifPresent(with -> arguments.addAll(List.of("-filter:a", Pace.filter(with.speed()))));
        int gop = Math.max(1, (int) Math.round(rate.toDouble() / 2));
        arguments.addAll(List.of("-vf", Encoding.tagFilter(format, "prog"), "-fps_mode", "passthrough"));
        arguments.addAll(Encoding.tags(format));
        arguments.addAll(List.of(
                "-c:v",
                "libx264",
                "-preset",
                "veryfast",
                "-profile:v",
                "high",
                "-crf",
                QUALITY,
                "-bf",
                "0",
                "-g",
                Integer.toString(gop),
                "-threads",
                Integer.toString(threads),
                "-map_metadata",
                "-1",
                "-movflags",
                "+frag_keyframe+empty_moov+default_base_moof",
                "-flush_packets",
                "1",
                "-f",
                "mp4",
                Input.url(file)));
        child = Child.start(Tool.FFMPEG, arguments, Limits.encoding(file), line -> {});
        pipe = child.input();
    }

    private static String seconds(Rational time) {
        return String.format(java.util.Locale.ROOT, "%.6f", Math.max(0, time.toDouble()));
    }

    public void write(byte[] raw) {
        try {
            pipe.write(raw);
        } catch (IOException e) {
            int code = child.exit(NEVER);
            throw code == 0
                    ? new MediaException("the encoder stopped before the end", e)
                    : child.failure("encoding", code);
        }
    }

    /** Ends the file and waits for it to be written. */
    public void finish() {
        try {
            pipe.close();
        } catch (IOException e) {
            throw new MediaException("the encoder stopped before the end", e);
        }
        child.finish("encoding", NEVER);
    }

    @Override
    public void close() {
        child.close();
    }
}
