package awlsmith.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/** How near the kernels of cleaning and sharpening come to what memory and arithmetic allow. */
public final class Limits {
    /**
     * Arithmetic operations that a sample takes, by counting: a multiplication with an addition is one, a comparison too.
     *
     * <p>Blocks: of 16 new samples a block with two transforms of sixteen rows of 42, then three; undither: two passes of 81 neighbours with 9;
     * bands: ten passes of 13, 28 for levels, 6 to mix; grain: 28 for chance, 6 taps, 23 for strength; sharpen: 14 taps, 8 for extremes, 30 for
     * variances, 15 for the rest; taps: 29 by 29; haloes: four sides of 56.
     */
    private static final Map<String, Integer> OPERATIONS = new LinkedHashMap<>();

    static {
        OPERATIONS.put("denoise fast, one frame", 270);
        OPERATIONS.put("undither", 1458);
        OPERATIONS.put("bands", 164);
        OPERATIONS.put("grain", 57);
        OPERATIONS.put("sharpen", 67);
        OPERATIONS.put("deblur, taps alone", 841);
        OPERATIONS.put("haloes", 224);
    }

    private Limits() {}

    /** Arguments: the report's file. */
    public static void main(String[] arguments) throws RunnerException, IOException {
        var options = new OptionsBuilder()
                .include(LimitBenchmark.class.getSimpleName())
                .jvmArgsAppend("--add-modules", "jdk.incubator.vector")
                .build();
        Map<String, Double> times = new LinkedHashMap<>();
        new Runner(options)
                .run()
                .forEach(result -> times.put(
                        result.getParams().getParam("kernel"),
                        result.getPrimaryResult().getScore()));
        double copy = times.get("copy");
        double million = LimitBenchmark.WIDTH * LimitBenchmark.HEIGHT / 1e6;
        double operation = times.get("arithmetic") / LimitBenchmark.MILLIONS;
        var lines = new ArrayList<String>(List.of(
                "# Kernels and their limits",
                "",
                "Made by `./awlsmith measure --limits`; do not edit. JMH, one thread, one plane of 1280x800. Memory: copying the plane once takes "
                        + Figures.text("%.2f", copy) + " ms. Arithmetic: "
                        + Figures.text("%.1f", 1 / operation)
                        + " thousand million multiplications with an addition a second, each operation counted as one of these, which no kernel with loads in between can"
                        + " reach. Limit: the larger of the two.",
                "",
                "| kernel | ms | operations a sample | limit, ms | times the limit |",
                "|---|---|---|---|---|"));
        OPERATIONS.forEach((kernel, count) -> {
            double limit = Math.max(copy, count * million * operation);
            double time = times.get(kernel);
            lines.add(Figures.text("| %s | %.2f | %d | %.2f | %.1f |", kernel, time, count, limit, time / limit));
        });
        Files.writeString(Path.of(arguments[0]), String.join("\n", lines) + "\n");
    }
}
