package awlsmith.e2e;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** The application in a process of its own, so that a test can kill it as a power cut would. */
final class ServerProcess implements AutoCloseable {
    private static final Pattern LINK = Pattern.compile("https?://\\S+/enter\\?token=\\S+");

    /** Of the machine that Java is: for what is started often and lives shortly. */
    private static final List<String> QUICK =
            List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Dawlsmith.lanes=scalar");

    private final Path home;
    private final int port;
    private final List<String> settings;
    private List<String> flags = List.of();
    private Process process;

    /** @param settings that the application is started with beside the usual ones */
    ServerProcess(Path home, int port, String... settings) {
        this.home = home;
        this.port = port;
        this.settings = List.of(settings);
    }

    /** Starts sooner and computes slower: for tests that start it often. */
    ServerProcess quick() {
        flags = QUICK;
        return this;
    }

    /** A command line that begins quickly, but for the class and its arguments: another program of ours beside the server. */
    static List<String> quickJava() {
        return java(QUICK);
    }

    private static List<String> java(List<String> flags) {
        var command = new ArrayList<String>();
        command.add(ProcessHandle.current().info().command().orElse("java"));
        command.addAll(flags);
        command.addAll(List.of(
                "--add-modules",
                "jdk.incubator.vector",
                "--enable-native-access=ALL-UNNAMED",
                "-Djava.awt.headless=true",
                "-Xmx2g",
                "-cp",
                System.getProperty("java.class.path")));
        return command;
    }

    /** Starts it and returns the sign-in link it prints. */
    String start() {
        List<String> command = java(flags);
        command.addAll(List.of(
                "awlsmith.server.AwlsmithServer",
                "--server.port=" + port,
                "--awlsmith.home=" + home,
                "--awlsmith.keep-free=10MB",
                "--awlsmith.segment-frames=12",
                // what a killed one held is free again before long
                "--db-scheduler.heartbeat-interval=1s",
                "--db-scheduler.missed-heartbeats-limit=8"));
        command.addAll(settings);
        try {
            // what it makes is its own alone, as when the command starts it: whoever decodes runs as somebody else
            var alone = new ArrayList<>(List.of("sh", "-c", "umask 077; exec \"$@\"", "sh"));
            alone.addAll(command);
            process = new ProcessBuilder(alone).redirectErrorStream(true).start();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        var link = new CompletableFuture<String>();
        var said = new StringBuilder();
        var log = Path.of("target", "server" + System.getProperty("surefire.forkNumber", "") + ".log");
        Thread.ofVirtual().start(() -> {
            try (var lines =
                    new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
                for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                    said.append(line).append('\n');
                    Files.writeString(log, line + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND);
                    var found = LINK.matcher(line);
                    if (found.find()) {
                        link.complete(found.group());
                    }
                }
                Files.writeString(
                        log, "ended with " + process.onExit().join().exitValue() + "\n", StandardOpenOption.APPEND);
            } catch (IOException e) {
                // the process was killed, which tests do
            }
            said.append("exit status ").append(process.onExit().join().exitValue());
            link.completeExceptionally(new IllegalStateException("the server ended: " + said));
        });
        return link.orTimeout(240, TimeUnit.SECONDS).join();
    }

    /** As a power cut: nothing gets a chance to say goodbye. */
    void kill() {
        process.destroyForcibly();
        try {
            process.waitFor();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** What it has running: FFmpeg, mostly. */
    Stream<ProcessHandle> children() {
        return process.descendants();
    }

    @Override
    public void close() {
        if (process != null) {
            process.destroy();
            try {
                if (!process.waitFor(15, TimeUnit.SECONDS)) {
                    process.destroyForcibly();
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }
}
