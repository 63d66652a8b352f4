package awlsmith.render.cli;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A whole render with a net, in a process whose home, cache and temporary folders are empty ones: nothing is written into them that
 * stays, nothing is kept of the machine, and no connection is opened.
 */
class NothingLeavesTest {
    @TempDir
    Path folder;

    @Test
    void noFileAppearsOutsideAndNoConnectionIsOpened() throws Exception {
        Path clip = TestClips.moving(folder, "c.mp4", 96, 64, "25", 12, "-pix_fmt yuv420p -c:v libx264");
        Path home = Files.createDirectories(folder.resolve("home"));
        Path temporary = Files.createDirectories(folder.resolve("tmp"));
        Path work = Files.createDirectories(folder.resolve("work"));
        var command = new ArrayList<String>(List.of(
                ProcessHandle.current().info().command().orElseThrow(),
                "--add-modules",
                "jdk.incubator.vector",
                "--enable-native-access=ALL-UNNAMED",
                "-Duser.home=" + home,
                "-Djava.io.tmpdir=" + temporary,
                "-cp",
                System.getProperty("java.class.path"),
                "awlsmith.render.cli.Main",
                "render",
                clip.toString(),
                work.resolve("out.mp4").toString(),
                "--step",
                "enlarge factor=2 model=photographic"));
        var builder = new ProcessBuilder(command).directory(work.toFile()).redirectErrorStream(true);
        builder.environment().keySet().removeIf(key -> key.startsWith("XDG"));
        builder.environment().put("HOME", home.toString());
        builder.environment().put("XDG_CACHE_HOME", home.resolve("cache").toString());
        builder.environment().put("XDG_CONFIG_HOME", home.resolve("config").toString());
        builder.environment().put("TMPDIR", temporary.toString());
        Process process =
                builder.redirectOutput(folder.resolve("said").toFile()).start();
        var connections = new TreeSet<String>();
        while (!process.waitFor(20, TimeUnit.MILLISECONDS)) {
            connections.addAll(connections(process.pid()));
        }
        assertThat(process.exitValue())
                .as(Files.readString(folder.resolve("said")))
                .isZero();
        assertThat(connections).isEmpty();
        assertThat(files(home)).isEmpty();
        assertThat(files(temporary)).isEmpty();
        assertThat(files(work)).containsExactly("out.mp4");
    }

    private static List<String> files(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(Files::isRegularFile)
                    .map(file -> folder.relativize(file).toString())
                    .toList();
        }
    }

    /** Far ends of the process's sockets that are not this machine, as Linux tells them (proc(5), /proc/net/tcp). */
    private static List<String> connections(long pid) {
        var far = new ArrayList<String>();
        var inodes = new TreeSet<String>();
        try (Stream<Path> open = Files.list(Path.of("/proc/" + pid + "/fd"))) {
            for (Path one : open.toList()) {
                String target = Files.readSymbolicLink(one).toString();
                if (target.startsWith("socket:[")) {
                    inodes.add(target.substring(8, target.length() - 1));
                }
            }
            for (String table : new String[] {"tcp", "tcp6", "udp", "udp6"}) {
                for (String line : Files.readAllLines(Path.of("/proc/" + pid + "/net/" + table))) {
                    String[] words = line.strip().split("\\s+");
                    boolean its = words.length > 9 && inodes.contains(words[9]);
                    if (its && !isHere(words[2])) {
                        far.add(table + " " + words[2]);
                    }
                }
            }
        } catch (IOException e) {
            // it ended in between
        }
        return far;
    }

    /** Nobody, 127.0.0.1 or ::1, in the byte order of the kernel. */
    private static boolean isHere(String end) {
        String address = end.substring(0, end.indexOf(':'));
        return address.matches("0+")
                || address.endsWith("7F") && address.length() == 8
                || address.equals("00000000000000000000000001000000")
                || address.matches("0{16}FFFF0000.{6}7F");
    }
}
