package awlsmith.render;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
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

    /** Of all files in it, however deep; 0 where it is not there. What comes and goes meanwhile is counted or not. */
    public static long bytes(Path folder) throws IOException {
        var sum = new long[1];
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes facts) {
                sum[0] += facts.isRegularFile() ? facts.size() : 0;
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException gone) {
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path of, IOException gone) {
                return FileVisitResult.CONTINUE;
            }
        });
        return sum[0];
    }
}
