package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/**
 * Rebuilds the container around what can still be read: pictures and sound are copied packet by packet, broken packets are
 * left out, times are made to rise, and the index and length are written anew. Nothing is decoded and nothing is written
 * over the source.
 */
public final class Repairer {
    private static final Duration LIMIT = Duration.ofHours(2);

    private Repairer() {}

    /**
     * @param out Matroska file to write
     * @throws MediaException when nothing of it can be read
     */
    public static void rebuild(Path source, Path out, Cancel cancel) {
        MediaInfo info = Prober.probe(source);
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error", "-y"));
        arguments.addAll(List.of("-fflags", "+discardcorrupt+genpts", "-err_detect", "ignore_err"));
        arguments.addAll(Input.guards());
        arguments.addAll(
                List.of("-i", Input.url(source), "-map", "0:" + info.video().index()));
        for (MediaInfo.Sound sound : info.sounds()) {
            arguments.addAll(List.of("-map", "0:" + sound.index()));
        }
        arguments.addAll(List.of("-c", "copy", "-f", "matroska", Input.url(out)));
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.copying(LIMIT, info.bytes(), out), line -> {})) {
            child.finish("rebuilding the file", cancel);
            Prober.probe(out);
        }
    }
}
