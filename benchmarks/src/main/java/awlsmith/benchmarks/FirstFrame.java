package awlsmith.benchmarks;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.ToDoubleFunction;

/** How long the command takes before it is at work: a new process each time, as a script calls it. */
final class FirstFrame {
    private static final int TIMES = 7;

    private FirstFrame() {}

    /**
     * Seconds from the call on.
     *
     * @param atWork until the first frame is treated; @param treated until it has been; @param there until the file is
     */
    private record Run(double atWork, double treated, double there) {}

    /**
     * @param command that is called
     * @param clip of the demo
     * @param scratch folder for what it writes
     * @return a table's lines
     */
    static List<String> measure(Path command, Path clip, Path scratch) throws IOException {
        Path twenty = scratch.resolve("twenty.mp4");
        Command.ffmpeg("-i " + clip + " -an -frames:v 20 -c:v libx264 -crf 18 " + twenty);
        Path empty = Files.createFile(scratch.resolve("empty.mp4"));
        var lines = new ArrayList<String>(List.of(
                "A clip of 20 frames (" + clip.getFileName()
                        + "), enlarged twice, sent out by a new process; the median of " + TIMES
                        + " behind one that keeps classes. Wanted is the first frame at work within 1.5 s.",
                "",
                "| model | first frame at work | first frame treated | file read back |",
                "|---|--:|--:|--:|"));
        for (String mode : List.of("fast", "quality")) {
            var runs = new ArrayList<Run>();
            for (int n = 0; n <= TIMES; n++) {
                runs.add(send(command, twenty, "enlarge factor=2 model=photographic mode=" + mode, scratch));
            }
            List<Run> kept = runs.subList(1, runs.size());
            lines.add(String.format(
                    Locale.ROOT,
                    "| photographic %s | %.2f s | %.2f s | %.2f s |",
                    mode,
                    median(kept, Run::atWork),
                    median(kept, Run::treated),
                    median(kept, Run::there)));
        }
        var refusals = new ArrayList<Double>();
        for (int n = 0; n <= TIMES; n++) {
            refusals.add(refused(command, empty, scratch.resolve("none.mp4")));
        }
        lines.add("");
        lines.add(String.format(
                Locale.ROOT,
                "An empty file is refused after %.2f s.",
                median(refusals.subList(1, refusals.size()), seconds -> seconds)));
        return lines;
    }

    private static <T> double median(List<T> of, ToDoubleFunction<T> what) {
        return of.stream()
                .mapToDouble(what)
                .sorted()
                .skip(of.size() / 2)
                .findFirst()
                .orElseThrow();
    }

    private static double refused(Path command, Path file, Path out) throws IOException {
        long begun = System.nanoTime();
        Process process = new ProcessBuilder(command.toString(), "render", file.toString(), out.toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (!said.contains("the file is empty")) {
            throw new IOException("an empty file was not refused: " + said);
        }
        return (System.nanoTime() - begun) / 1e9;
    }

    private static Run send(Path command, Path clip, String step, Path scratch) throws IOException {
        long begun = System.nanoTime();
        Process process = new ProcessBuilder(
                        command.toString(),
                        "send",
                        clip.toString(),
                        "--to",
                        scratch.resolve("sent").toString(),
                        "--step",
                        step,
                        "--force",
                        "--json")
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        double atWork = Double.NaN;
        double treated = Double.NaN;
        double there = Double.NaN;
        try (var reader = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = reader.readLine(); line != null; line = reader.readLine()) {
                double now = (System.nanoTime() - begun) / 1e9;
                if (Double.isNaN(atWork) && line.contains("\"begins\"")) {
                    atWork = now;
                } else if (Double.isNaN(treated) && line.contains("\"progress\"")) {
                    treated = now;
                } else if (line.contains("\"made\"")) {
                    there = now;
                }
            }
        }
        if (Double.isNaN(there)) {
            throw new IOException("the command made no file");
        }
        return new Run(atWork, treated, there);
    }
}
