package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
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
     * @param part where the copy is written first, on the disk of out
     * @param out gets its name when it is whole and holds a picture
     * @throws MediaException when nothing of it can be read
     */
    public static void rebuild(Path source, Path part, Path out) {
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
        arguments.addAll(List.of("-c", "copy", "-f", "matroska", Input.url(part)));
        try (Child child = Child.start(Tool.FFMPEG, arguments, LIMIT, line -> {})) {
            child.finish("rebuilding the file", new Cancel());
            Prober.probe(part);
            Files.move(part, out, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw new MediaException("the rebuilt file could not be put in its place: " + e.getMessage(), e);
        } finally {
            try {
                Files.deleteIfExists(part);
            } catch (IOException e) {
                // swept at the next start
            }
        }
    }
}
