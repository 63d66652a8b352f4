package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/** Reads a finished file to the end and says what is really in it. */
public final class ReadBack {
    private static final Duration LIMIT = Duration.ofHours(4);

    private ReadBack() {}

    /** @param info what the file says; @param frames that really decode; @param errors the decoder complained about */
    public record Facts(MediaInfo info, long frames, int errors) {}

    public static Facts of(Path file, Cancel cancel) {
        MediaInfo info = Prober.probe(file);
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-loglevel", "level+error"));
        arguments.addAll(Input.guards());
        arguments.addAll(
                List.of("-select_streams", Integer.toString(info.video().index()), "-count_frames"));
        arguments.addAll(List.of("-show_entries", "stream=nb_read_frames", "-of", "csv=p=0", Input.url(file)));
        try (Child child = Child.start(Tool.FFPROBE, arguments, LIMIT, line -> {})) {
            String answer = new String(child.output().readNBytes(4096), StandardCharsets.US_ASCII);
            child.finish("reading the file back", cancel);
            String count = answer.strip().replaceAll("[^0-9].*", "");
            return new Facts(
                    info,
                    count.isEmpty() ? 0 : Long.parseLong(count),
                    child.errors().size());
        } catch (IOException e) {
            throw new MediaException("the finished file could not be read back", e);
        }
    }
}
