package awlsmith.benchmarks;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** How long the steps that clean take for a megapixel, beside a step that only reads and writes every sample. */
final class Paces {
    private static final int WIDTH = 1280;
    private static final int HEIGHT = 720;
    private static final int FRAMES = 12;
    private static final double MEGAPIXELS = WIDTH * HEIGHT / 1e6;

    private static final List<String> STEPS = List.of(
            "exposure stops=0",
            "exposure stops=0.1",
            "levels black=2",
            "bands",
            "undither",
            "grain",
            "denoise mode=fast noise=8",
            "denoise mode=fast noise=8 frames=0",
            "denoise noise=8",
            "repair rounding=16");

    private final Scratch scratch;
    private final List<String> report = new ArrayList<>();

    Paces(Scratch scratch) {
        this.scratch = scratch;
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    List<String> report(Cleaning.Source source) {
        return report(source, STEPS);
    }

    List<String> report(Cleaning.Source source, List<String> steps) {
        say("");
        say("## Time");
        say("");
        say(
                "Milliseconds for a megapixel of 4:2:0, " + FRAMES + " frames of " + source.name() + " at " + WIDTH
                        + "x"
                        + HEIGHT + ", on " + scratch.threads()
                        + " threads, decoding taken off. Exposure by nothing is what bringing samples to light and back takes.");
        say("");
        say("| step | ms a megapixel |");
        say("|---|---|");
        Path clip = scratch.file("paced.mkv");
        Command.ffmpeg("-stream_loop 1 -i " + source.file() + " -an -vf scale=" + WIDTH + ":" + HEIGHT
                + ",noise=alls=8:allf=t,format=yuv420p -frames:v " + FRAMES + " -c:v ffv1 " + clip);
        double plain = 1 / scratch.made(clip).rate();
        for (String step : steps) {
            double seconds = 1 / scratch.made(clip, step).rate() - plain;
            say(Figures.text("| `%s` | %.0f |", step, 1000 * seconds / MEGAPIXELS));
        }
        return report;
    }
}
