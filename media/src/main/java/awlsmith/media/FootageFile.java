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

/** A file of footage made by ourselves (demo, tests, benchmarks), in any codec FFmpeg writes. */
public final class FootageFile implements AutoCloseable {
    private final Child child;
    private final OutputStream pipe;

    /**
     * @param codec FFmpeg's options for picture and sound, known to the caller and not from any user
     * @param sound a WAV file to go along
     */
    public FootageFile(Path file, Format format, Rational rate, List<String> codec, Optional<Path> sound) {
        boolean interlaced = codec.stream().anyMatch(option -> option.contains("ildct"));
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-nostats", "-loglevel", "level+warning", "-y"));
        arguments.addAll(List.of("-f", "rawvideo", "-pix_fmt", PixelLayout.name(format)));
        arguments.addAll(List.of("-video_size", format.width() + "x" + format.height()));
        arguments.addAll(List.of("-framerate", rate.toString(), "-i", "pipe:0"));
        sound.ifPresent(wav -> arguments.addAll(List.of("-i", Input.url(wav))));
        arguments.addAll(List.of("-vf", Encoding.tagFilter(format, interlaced ? "tff" : "prog")));
        arguments.addAll(Encoding.tags(format));
        arguments.addAll(List.of("-map", "0:v"));
        if (sound.isPresent()) {
            arguments.addAll(List.of("-map", "1:a"));
        }
        arguments.addAll(codec);
        // nothing of the day or the version goes into the file: the same footage is the same bytes
        arguments.addAll(List.of("-threads", "2", "-map_metadata", "-1", "-fflags", "+bitexact"));
        if (!interlaced) {
            arguments.addAll(List.of("-flags:v", "+bitexact"));
        }
        arguments.add(Input.url(file));
        child = Child.start(Tool.FFMPEG, arguments, Limits.encoding(file), line -> {});
        pipe = child.input();
    }

    public void write(byte[] raw) {
        try {
            pipe.write(raw);
        } catch (IOException e) {
            throw child.failure("writing footage", child.exit(new Cancel()));
        }
    }

    public void finish(Cancel cancel) {
        try {
            pipe.close();
        } catch (IOException e) {
            throw child.failure("writing footage", child.exit(cancel));
        }
        child.finish("writing footage", cancel);
    }

    @Override
    public void close() {
        child.close();
    }
}
