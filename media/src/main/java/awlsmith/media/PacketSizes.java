package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/** How many bytes each picture of a file takes, as it is coded. */
public final class PacketSizes {
    private static final Duration LIMIT = Duration.ofMinutes(2);

    private PacketSizes() {}

    /** @param bytes of each; @param keys whether it stands for itself */
    public record Sizes(List<Long> bytes, List<Boolean> keys) {}

    public static Sizes of(Path file, Cancel cancel) {
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-loglevel", "level+error"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of(
                "-select_streams", "v:0", "-show_entries", "packet=size,flags", "-of", "csv=p=0", Input.url(file)));
        var bytes = new ArrayList<Long>();
        var keys = new ArrayList<Boolean>();
        try (Child probe = Child.start(Tool.FFPROBE, arguments, Limits.reading(LIMIT), line -> {});
                var lines = new BufferedReader(new InputStreamReader(probe.output(), StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                String[] parts = line.split(",");
                if (parts.length >= 2 && parts[0].matches("\\d{1,15}")) {
                    bytes.add(Long.parseLong(parts[0]));
                    keys.add(parts[1].startsWith("K"));
                }
            }
            probe.finish("reading the sizes of pictures", cancel);
        } catch (IOException e) {
            throw new MediaException("the sizes of pictures could not be read: " + e.getMessage(), e);
        }
        return new Sizes(List.copyOf(bytes), List.copyOf(keys));
    }
}
