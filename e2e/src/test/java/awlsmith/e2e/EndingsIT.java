package awlsmith.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whatever the command starts ends with it, however it ends. */
class EndingsIT {
    private static final Path ROOT = Path.of("").toAbsolutePath().getParent();

    @ParameterizedTest
    @ValueSource(strings = {"TERM", "INT", "HUP", "KILL"})
    void nothingOutlivesTheCommand(String signal) throws Exception {
        // the database's user must be able to get there, which a temporary folder does not allow
        Path home = ROOT.resolve("e2e/target/endings-" + signal);
        // where these tests were begun in the background, or by nohup, these are ignored, and so by whoever they start
        var builder = new ProcessBuilder(
                        "env",
                        "--default-signal=INT,HUP",
                        "bash",
                        "-c",
                        "root='" + ROOT
                                + "'; . scripts/lib.sh; end_with_us; DB_FIRST_PORT=34100 db_up \"$home/db\" some;"
                                + " touch \"$home/up\"; run_child sleep 987")
                .directory(ROOT.toFile())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD);
        builder.environment().put("AWLSMITH_HOME", home.toString());
        Process script = builder.start();
        try {
            for (int i = 0; i < 600 && !(Files.exists(home.resolve("up")) && living("sleep 987", script) > 0); i++) {
                LockSupport.parkNanos(100_000_000);
            }
            assertThat(living(home.toString(), script)).isPositive();
            assertThat(new ProcessBuilder("kill", "-" + signal, Long.toString(script.pid()))
                            .start()
                            .waitFor())
                    .isZero();
            assertThat(script.waitFor(BrowserIT.PATIENCE, TimeUnit.MILLISECONDS))
                    .isTrue();
            long left = 1;
            for (int i = 0; i < 300 && left > 0; i++) {
                LockSupport.parkNanos(100_000_000);
                left = living(home.toString(), null);
            }
            assertThat(left).isZero();
        } finally {
            script.destroyForcibly();
            remove(home);
        }
    }

    /** Processes, of this script or of anyone, whose command line holds these words. */
    private static long living(String words, Process of) {
        var all = of == null ? ProcessHandle.allProcesses() : of.descendants();
        return all.filter(one -> one.pid() != ProcessHandle.current().pid())
                .filter(one ->
                        commandLine(one).contains(words) && !commandLine(one).contains("lib.sh"))
                .count();
    }

    private static String commandLine(ProcessHandle process) {
        try {
            return Files.readString(Path.of("/proc/" + process.pid() + "/cmdline"))
                    .replace('\0', ' ');
        } catch (IOException e) {
            return "";
        }
    }

    private static void remove(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (var files = Files.walk(folder)) {
                for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                    Files.deleteIfExists(file);
                }
            } catch (UncheckedIOException e) {
                // a database that is still going down takes its own files away; what fails is told by the test
            }
        }
    }
}
