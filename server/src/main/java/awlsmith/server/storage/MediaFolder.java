package awlsmith.server.storage;

import awlsmith.render.Folders;
import awlsmith.server.AwlsmithProperties;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.LongSupplier;
import org.springframework.stereotype.Component;

/** Where the large data lies. All names in it are our own; nothing a user or a file says becomes part of a path. */
@Component
public class MediaFolder {
    private final Path root;
    private final long keepFree;
    /** What is still to come of everything that was promised room; guarded by itself. */
    private final Map<Object, LongSupplier> promised = new HashMap<>();

    MediaFolder(AwlsmithProperties properties) {
        root = properties.home().resolve("media");
        keepFree = properties.keepFree().toBytes();
        for (String name : new String[] {"clips", "demo", "renders", "incoming", "tables"}) {
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

    /** Folders of clips or renders, whatever the database knows of them. */
    public List<Path> folders(String kind) {
        try (var all = Files.list(root.resolve(kind))) {
            return all.filter(Files::isDirectory).toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Where what nobody knows any more lies for a while. */
    public Path lost() {
        return root.resolve("lost");
    }

    /** Folder of lookup tables. */
    public Path tables() {
        return root.resolve("tables");
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

    /** Where a little of a render is made, to learn how long all of it takes. */
    public Path trial(UUID id) {
        return root.resolve("incoming").resolve("trial-" + id);
    }

    /** What lies there while it arrives or is tried, and is of no use to a later process; uploads, which may go on, are not among it. */
    public List<Path> passing() {
        try (var all = Files.list(root.resolve("incoming"))) {
            return all.filter(one -> !one.equals(unfinished())).toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
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

    /** Whether a file is one of our own. */
    public boolean holds(Path file) {
        return file.toAbsolutePath().normalize().startsWith(root);
    }

    public String nameOf(Path file) {
        return root.relativize(file).toString();
    }

    /** Refuses when writing this many bytes, beside all that is promised to others, would leave too little of the disk. */
    public void demandSpace(long bytes) {
        synchronized (promised) {
            long free = free()
                    - promised.values().stream()
                            .mapToLong(LongSupplier::getAsLong)
                            .sum();
            if (free - bytes < keepFree) {
                throw full(bytes, free);
            }
        }
    }

    /**
     * Sets room aside for something that arrives or is made bit by bit.
     *
     * @param left bytes that are still to come, asked whenever somebody else wants room
     * @return gives the room back
     */
    public Promise promise(long bytes, LongSupplier left) {
        var key = new Object();
        synchronized (promised) {
            demandSpace(bytes);
            promised.put(key, left);
        }
        return () -> {
            synchronized (promised) {
                promised.remove(key);
            }
        };
    }

    /** Room on the disk set aside. */
    public interface Promise extends AutoCloseable {
        @Override
        void close();
    }

    private long free() {
        try {
            return Files.getFileStore(root).getUsableSpace();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Bytes on the disk by what they are for. Footage that was linked in place is not among them.
     *
     * @param clips sources, proofs and all that was found out of clips
     * @param renders files that were sent out, and parts of those that are being made
     * @param passing what arrives, is tried, or lies aside
     * @param free for this server's user; @param kept that are not touched, so that the machine goes on
     */
    public record StorageUse(long clips, long renders, long passing, long free, long kept) {}

    /** Counted file by file: it takes a while where there are many. */
    public StorageUse use() {
        return new StorageUse(
                bytes(root.resolve("clips")),
                bytes(root.resolve("renders")),
                bytes(root.resolve("incoming")) + bytes(lost()),
                free(),
                keepFree);
    }

    private static long bytes(Path folder) {
        try {
            return Folders.bytes(folder);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Refusal full(long bytes, long free) {
        return new Refusal(
                Refusal.Kind.NO_SPACE,
                "the disk is too full: this needs " + megabytes(bytes) + " MB, "
                        + megabytes(Math.max(0, free - keepFree))
                        + " MB may be used. Remove clips that are no longer needed, or take files off the disk that were sent out"
                        + " (Dispatch, Storage)");
    }

    /** Removes a folder and all in it; what is not there is no fault. */
    public static void remove(Path folder) {
        try {
            Folders.remove(folder);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static long megabytes(long bytes) {
        return Math.ceilDiv(bytes, 1_000_000);
    }
}
