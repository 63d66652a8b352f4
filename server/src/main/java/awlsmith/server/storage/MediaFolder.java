package awlsmith.server.storage;

import awlsmith.server.AwlsmithProperties;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Where the large data lies. All names in it are our own; nothing a user or a file says becomes part of a path. */
@Component
public class MediaFolder {
    private final Path root;
    private final long keepFree;

    MediaFolder(AwlsmithProperties properties) {
        root = properties.home().resolve("media");
        keepFree = properties.keepFree().toBytes();
        for (String name : new String[] {"clips", "demo", "renders", "incoming"}) {
            try {
                Files.createDirectories(root.resolve(name));
            } catch (IOException e) {
                throw new UncheckedIOException("the data folder cannot be made", e);
            }
        }
    }

    /** Folder of everything that belongs to one clip. */
    public Path clip(UUID id) {
        return root.resolve("clips").resolve(id.toString());
    }

    public Path demo() {
        return root.resolve("demo");
    }

    public Path render(UUID id) {
        return root.resolve("renders").resolve(id.toString());
    }

    public Path incoming(UUID id) {
        return root.resolve("incoming").resolve(id + ".part");
    }

    /** Where uploads lie until they have arrived whole. */
    public Path unfinished() {
        return root.resolve("incoming").resolve("unfinished");
    }

    /** A stored file by the name the database keeps, which is relative to this folder. */
    public Path stored(String name) {
        Path file = root.resolve(name).normalize();
        if (!file.startsWith(root)) {
            throw new IllegalStateException("a stored name leads out of the media folder: " + name);
        }
        return file;
    }

    public String nameOf(Path file) {
        return root.relativize(file).toString();
    }

    /** Refuses when writing this many bytes would leave too little of the disk. */
    public void demandSpace(long bytes) {
        long free;
        try {
            free = Files.getFileStore(root).getUsableSpace();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        if (free - bytes < keepFree) {
            throw new Refusal(
                    Refusal.Kind.NO_SPACE,
                    "the disk is too full: this needs " + megabytes(bytes) + " MB, "
                            + megabytes(Math.max(0, free - keepFree))
                            + " MB may be used. Remove clips or renders that are no longer needed");
        }
    }

    /** Removes a folder and all in it; what is not there is no fault. */
    public static void remove(Path folder) {
        if (!Files.exists(folder)) {
            return;
        }
        try (var files = Files.walk(folder)) {
            for (Path file : files.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static long megabytes(long bytes) {
        return Math.ceilDiv(bytes, 1_000_000);
    }
}
