package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** How long a sound track lasts, by decoding it: what a header says may be anything. */
public final class SoundLength {
    /** Enough to tell lengths apart to a thousandth of a second, and quick to count. */
    private static final int RATE = 8000;

    private SoundLength() {}

    /** @param from the file's clock, seconds */
    public record Span(Rational from, Rational seconds) {}

    /** @param span of the file; empty for all of it */
    public static Rational of(MediaInfo info, MediaInfo.Sound track, Optional<Span> span, Cancel cancel) {
        var arguments =
                new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error"));
        arguments.addAll(Input.guards());
        span.ifPresent(part -> {
            arguments.addAll(List.of("-seek_timestamp", "1", "-ss", decimal(part.from())));
            arguments.addAll(List.of("-t", decimal(part.seconds())));
        });
        arguments.addAll(List.of("-i", Input.url(info.file()), "-map", "0:" + track.index(), "-vn"));
        arguments.addAll(List.of("-ar", "" + RATE, "-ac", "1", "-f", "u8", "pipe:1"));
        long samples = 0;
        byte[] piece = new byte[1 << 16];
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.decoding(info), line -> {})) {
            var in = child.output();
            for (int n = in.read(piece); n >= 0; n = in.read(piece)) {
                cancel.check();
                samples += n;
            }
            child.exit(cancel);
        } catch (IOException e) {
            cancel.check();
        }
        return new Rational(samples, RATE);
    }

    private static String decimal(Rational seconds) {
        return String.format(Locale.ROOT, "%.6f", seconds.toDouble());
    }
}
