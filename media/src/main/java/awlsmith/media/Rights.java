package awlsmith.media;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * What stands before a command so that its process dies with this program, and, where this program runs as root, so that it
 * does not: it becomes nobody, who may read every file (footage lies anywhere) and write only the one, or into the one folder, that it was
 * started for.
 */
public final class Rights {
    private static final String NOBODY = "nobody";
    private static final List<String> DEATH = List.of("setpriv", "--pdeathsig", "KILL", "--no-new-privs");
    private static final List<String> AS_NOBODY = List.of(
            "--reuid",
            NOBODY,
            "--regid",
            "nogroup",
            "--clear-groups",
            "--inh-caps=-all,+dac_read_search",
            "--ambient-caps=-all,+dac_read_search");

    private Rights() {}

    /** Found out once: the machine may refuse it, as some containers do. */
    private static final class Dropping {
        static final boolean WORKS = isRoot() && works();
    }

    public static boolean isRoot() {
        return "root".equals(System.getProperty("user.name"));
    }

    /** Whether what reads untrusted files runs with fewer rights than this program, or this program has none to drop. */
    public static boolean areFew() {
        return !isRoot() || Dropping.WORKS;
    }

    static List<String> before(Limits limits) {
        if (!Dropping.WORKS) {
            return DEATH;
        }
        limits.writes().ifPresent(Rights::give);
        return java.util.stream.Stream.concat(DEATH.stream(), AS_NOBODY.stream())
                .toList();
    }

    /** The one file it may write is made and handed to it; or the one folder. */
    private static void give(Path file) {
        try {
            if (!Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
                Files.createFile(file);
            }
            if (Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)
                    || Files.isDirectory(file, LinkOption.NOFOLLOW_LINKS)) {
                Files.setOwner(
                        file,
                        file.getFileSystem().getUserPrincipalLookupService().lookupPrincipalByName(NOBODY));
            }
        } catch (IOException e) {
            if (String.valueOf(e.getMessage()).contains("No space left")) {
                throw new MediaException("the disk is full: free some space, then start again", e);
            }
            throw new UncheckedIOException("a file to be written cannot be made: " + e.getMessage(), e);
        }
    }

    private static boolean works() {
        var command = new java.util.ArrayList<String>(DEATH);
        command.addAll(AS_NOBODY);
        command.add("true");
        try {
            Process process =
                    new ProcessBuilder(command).redirectErrorStream(true).start();
            process.getInputStream().readAllBytes();
            return process.waitFor(5, TimeUnit.SECONDS) && process.exitValue() == 0;
        } catch (IOException e) {
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}
