package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * The sound of a damaged file, decoded and written without loss: silence where it is lost, samples left out where there are too
 * many, so that it lasts just as long as the pictures and stays in step with them.
 */
public final class SoundMezzanine {
    private SoundMezzanine() {}

    /**
     * @param start the file's clock where the pictures begin, seconds
     * @param seconds the pictures last
     * @param out Matroska file to write: PCM of 24 bits, all tracks
     */
    public static void write(MediaInfo info, Rational start, Rational seconds, Path out, Cancel cancel) {
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error", "-y"));
        arguments.addAll(List.of("-fflags", "+discardcorrupt", "-err_detect", "ignore_err"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-copyts", "-i", Input.url(info.file())));
        int slot = 0;
        for (MediaInfo.Sound track : info.sounds()) {
            // first the clock of the pictures, then holes filled with silence, then just as long as they are
            String filter = String.format(
                    Locale.ROOT,
                    "asetpts=PTS-%.6f/TB,aresample=async=1:min_hard_comp=0.02:first_pts=0,apad,atrim=end=%.6f",
                    start.toDouble(),
                    seconds.toDouble());
            arguments.addAll(List.of("-map", "0:" + track.index(), "-filter:a:" + slot, filter));
            slot++;
        }
        arguments.addAll(List.of("-c:a", "pcm_s24le", "-f", "matroska", Input.url(out)));
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.encoding(out), line -> {})) {
            child.finish("decoding the sound", cancel);
        }
    }

    /** Puts pictures and sound into one Matroska file, both as they are. */
    public static void join(Path pictures, Optional<Path> sound, Path out, Cancel cancel) {
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error", "-y"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-i", Input.url(pictures)));
        sound.ifPresent(file -> arguments.addAll(Input.guards()));
        sound.ifPresent(file -> arguments.addAll(List.of("-i", Input.url(file))));
        arguments.addAll(List.of("-map", "0:v"));
        if (sound.isPresent()) {
            arguments.addAll(List.of("-map", "1:a"));
        }
        arguments.addAll(List.of("-c", "copy", "-f", "matroska", Input.url(out)));
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.encoding(out), line -> {})) {
            child.finish("putting the file together", cancel);
        }
    }
}
