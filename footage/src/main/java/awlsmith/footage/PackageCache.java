package awlsmith.footage;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** Debian packages downloaded and unpacked under a folder, never installed and never committed. */
public final class PackageCache {
    private final Path folder;

    public PackageCache(Path folder) {
        this.folder = folder.toAbsolutePath();
    }

    /**
     * The folder a package is unpacked in, fetching it when it is not there yet.
     *
     * @throws IOException saying which package could not be fetched or unpacked
     */
    public Path unpacked(String name) throws IOException {
        Path place = folder.resolve(name);
        if (Files.isDirectory(place)) {
            return place;
        }
        Files.createDirectories(folder);
        Path fresh = Files.createTempDirectory(folder, "fetch");
        run(fresh, List.of("apt-get", "download", name), "the package " + name + " could not be fetched");
        Path archive;
        try (Stream<Path> files = Files.list(fresh)) {
            archive = files.filter(f -> f.toString().endsWith(".deb"))
                    .findFirst()
                    .orElseThrow(() -> new IOException("apt-get left no archive of " + name));
        }
        Path open = fresh.resolve("open");
        run(fresh, List.of("dpkg-deb", "-x", archive.toString(), open.toString()), name + " could not be unpacked");
        Files.move(open, place);
        Files.delete(archive);
        Files.delete(fresh);
        return place;
    }

    /** The one file in an unpacked package whose path ends so. */
    public Path file(String packageName, String end) throws IOException {
        try (Stream<Path> files = Files.walk(unpacked(packageName))) {
            return files.filter(f -> f.toString().endsWith("/" + end))
                    .findFirst()
                    .orElseThrow(() -> new IOException(packageName + " has no file " + end));
        }
    }

    private static void run(Path folder, List<String> command, String otherwise) throws IOException {
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.to(folder.resolve("log").toFile()))
                .start();
        try {
            if (process.waitFor() != 0) {
                throw new IOException(otherwise + ": "
                        + Files.readString(folder.resolve("log")).strip());
            }
        } catch (InterruptedException e) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
            throw new IOException(otherwise + ": interrupted", e);
        }
        Files.deleteIfExists(folder.resolve("log"));
    }
}
