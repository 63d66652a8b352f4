package awlsmith.render;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;

/** Folders that were only worked in. */
public final class Folders {
    private Folders() {}

    /** Removes one with all that lies in it; nothing where there is none. */
    public static void remove(Path folder) throws IOException {
        if (!Files.exists(folder)) {
            return;
        }
        try (var files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(file);
            }
        }
    }
}
