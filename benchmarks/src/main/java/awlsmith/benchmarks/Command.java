package awlsmith.benchmarks;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Other programs, run and watched. */
final class Command {
    private Command() {}

    /** Runs FFmpeg with these words, split at blanks; fails with its output when it fails. */
    static void ffmpeg(String words) {
        var command = new ArrayList<>(List.of("ffmpeg", "-hide_banner", "-nostdin", "-y", "-loglevel", "error"));
        command.addAll(List.of(words.trim().split("\\s+")));
        run(command);
    }

    static String run(List<String> command) {
        try {
            Process process =
                    new ProcessBuilder(command).redirectErrorStream(true).start();
            String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            if (process.waitFor() != 0) {
                throw new IllegalStateException(String.join(" ", command) + " failed: " + output);
            }
            return output;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** Our own headless command in a process of its own; returns the most memory it held, in bytes, without its children. */
    static long renderPeak(List<String> words) {
        var command = new ArrayList<>(List.of(
                ProcessHandle.current().info().command().orElse("java"), "--add-modules", "jdk.incubator.vector"));
        command.addAll(
                List.of(System.getProperty("awlsmith.render-flags", "").trim().split("\\s+")));
        command.removeIf(String::isBlank);
        command.addAll(List.of("-cp", System.getProperty("java.class.path"), "awlsmith.render.cli.Main", "render"));
        command.addAll(words);
        try {
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            Path status = Path.of("/proc/" + process.pid() + "/status");
            long most = 0;
            while (process.isAlive()) {
                most = Math.max(most, peak(status));
                Thread.sleep(200);
            }
            if (process.exitValue() != 0) {
                throw new IllegalStateException("the render failed: " + String.join(" ", command));
            }
            return most;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    private static long peak(Path status) {
        try {
            return Files.readAllLines(status).stream()
                    .filter(line -> line.startsWith("VmHWM:"))
                    .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) * 1024)
                    .findFirst()
                    .orElse(0);
        } catch (IOException e) {
            return 0;
        }
    }
}
