package awlsmith.benchmarks;

import awlsmith.core.measure.Gradient;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.footage.PackageCache;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** How steady shaken clips come out whose shake is known, beside FFmpeg's filters for it, each at the best of several settings, on the same files. */
public final class Steadying {
    private static final int FRAMES = 60;
    private static final double RATE = 25;
    /** Share of the clean picture's sides that the shaken camera sees. */
    private static final double SEEN = 0.84;
    /** Per cent of each side that is given up. */
    private static final int RIM = 7;
    /** Frames of the bell that says what is slow. */
    private static final double SLOW = 12.5;

    /** A bell so wide that all weigh alike. */
    private static final double STILL = 1e6;

    private static final String EXAMPLES = "opencv-doc/examples/data/";

    private static final List<Shaking.Kind> KINDS = List.of(
            new Shaking.Kind("shifts", 0.010, 0, 0, 0, 0),
            new Shaking.Kind("shifts, turns", 0.008, 0.5, 0, 0, 0),
            new Shaking.Kind("shifts, turns, zoom", 0.007, 0.4, 0.006, 0, 0),
            new Shaking.Kind("with perspective", 0.006, 0.3, 0.004, 0.012, 0),
            new Shaking.Kind("shifts, turns, rolling shutter 60 %", 0.008, 0.3, 0, 0, 0.6));

    private final Scratch scratch;
    private final List<String> report = new ArrayList<>();

    private Steadying(Scratch scratch) {
        this.scratch = scratch;
    }

    private record Source(String name, Path file) {}

    /** @param jitter root mean square of the corners' places beside their slow way, samples; @param sharp gradient as a share of the shaken clip's */
    private record Result(double jitter, double black, double sharp, double rate) {}

    /** Arguments: the report's file, a folder to keep fetched packages in, the folder of the demo footage. */
    public static void main(String[] arguments) throws IOException {
        try (var scratch = new Scratch()) {
            var steadying = new Steadying(scratch);
            var packages = new PackageCache(Path.of(arguments[1]));
            Path truth = Path.of(arguments[2]).resolve("truth");
            steadying.report(List.of(
                    new Source("vtest.avi", packages.file("opencv-doc", EXAMPLES + "vtest.avi")),
                    new Source("tape crossing, truth", truth.resolve("tape-crossing.mp4")),
                    new Source("regatta, truth", truth.resolve("regatta.mp4")),
                    new Source("moving postcard, truth", truth.resolve("moving-postcard.mp4"))));
            Files.writeString(Path.of(arguments[0]), String.join("\n", steadying.report) + "\n");
        }
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private void report(List<Source> sources) {
        say("# Steady pictures");
        say("");
        say("Made by `./awlsmith measure --steadying`; do not edit. " + FRAMES
                + " frames, no wider than 640, of which a camera that shakes in a known way"
                + " sees " + Math.round(100 * SEEN)
                + " %, through H.264 at CRF 16. Jitter: root mean square of how far the corners of what comes out lie in the clean clip, whose camera stands or pans,"
                + " beside their own slow way (a bell of half a second), in samples; told by the light alone. All cut "
                + RIM
                + " % off each side; black: per cent of what is left that was never filled. Sharp: mean gradient as"
                + " a share of the shaken clip's. vidstab: two passes, the best of "
                + vidstab().size() + " settings; deshake: of "
                + deshake().size() + ". Frames a second with both passes, decoding and all, on " + scratch.threads()
                + " threads; read them against each other.");
        for (Shaking.Kind kind : KINDS) {
            say("");
            say("## " + kind.name());
            say("");
            say(
                    "| clip | shaken | deshake | vidstab | steady | share of the better | black: vidstab | steady | sharp: vidstab | steady | frames a second: vidstab | steady |");
            say("|---|---|---|---|---|---|---|---|---|---|---|---|");
            for (Source source : sources) {
                row(source, kind);
            }
        }
        still(sources.getFirst());
        SteadyOrder.head().forEach(this::say);
        sources.forEach(source -> say(new SteadyOrder(scratch).row(source.name(), source.file())));
    }

    /** Of a clip whose camera stands all that still moves is wrong. */
    private void still(Source source) {
        say("");
        say("## Held still");
        say("");
        say(
                source.name()
                        + ", whose camera stands: how far the corners lie beside their mean place. vidstab as a tripod, against its first frame; steady with `way=still`.");
        say("");
        say("| shake | shaken | vidstab | steady | share |");
        say("|---|---|---|---|---|");
        for (Shaking.Kind kind : KINDS) {
            Path truth = scratch.truth(source.file(), FRAMES);
            Path shaken = shaken(truth, kind);
            List<Plane> clean = scratch.luma(truth);
            Path found = scratch.file("transforms.trf");
            Path out = scratch.file("out.mkv");
            Command.ffmpeg("-i " + shaken + " -vf vidstabdetect=result=" + found
                    + ":shakiness=10:accuracy=15:tripod=1 -f null -");
            Command.ffmpeg("-i " + shaken + " -vf vidstabtransform=input=" + found
                    + ":tripod=1:optzoom=0:crop=black:interpol=bicubic -c:v ffv1 " + out);
            double other = jitter(clean, rimmed(scratch.luma(out)), STILL);
            double ours = jitter(
                    clean,
                    scratch.treated(
                            shaken, "steady way=still rim=" + RIM + (kind.tilt() > 0 ? " moves=perspective" : "")),
                    STILL);
            say(Figures.text(
                    "| %s | %.2f | %.3f | %.3f | %.2f |",
                    kind.name(), jitter(clean, rimmed(scratch.luma(shaken)), STILL), other, ours, ours / other));
        }
    }

    private Path shaken(Path truth, Shaking.Kind kind) {
        Path shaken = scratch.file("shaken.mkv");
        Path raw = scratch.file("raw.mkv");
        var shaking = new Shaking(kind, RATE, 11);
        scratch.made(truth, raw, SEEN, shaking::shake);
        Command.ffmpeg("-i " + raw + " -c:v libx264 -preset medium -crf 16 " + shaken);
        return shaken;
    }

    private static List<String> vidstab() {
        var all = new ArrayList<String>();
        for (int shakiness : new int[] {5, 10}) {
            for (int smoothing : new int[] {12, 25}) {
                all.add("shakiness=" + shakiness + ":accuracy=15 smoothing=" + smoothing + ":interpol=bicubic");
            }
        }
        return all;
    }

    private static List<String> deshake() {
        return List.of("rx=16:ry=16:edge=blank", "rx=32:ry=32:edge=blank", "rx=32:ry=32:edge=blank:search=exhaustive");
    }

    private void row(Source source, Shaking.Kind kind) {
        Path truth = scratch.truth(source.file(), FRAMES);
        Path shaken = shaken(truth, kind);
        List<Plane> clean = scratch.luma(truth);
        List<Plane> before = rimmed(scratch.luma(shaken));
        double gradient = sharp(before);
        double jitter = jitter(clean, before);
        Result other = vidstab().stream()
                .map(way -> vidstab(clean, shaken, way, gradient))
                .min(Comparator.comparingDouble(Result::jitter))
                .orElseThrow();
        Result third = deshake().stream()
                .map(way -> deshake(clean, shaken, way, gradient))
                .min(Comparator.comparingDouble(Result::jitter))
                .orElseThrow();
        Result ours = ours(clean, shaken, kind, gradient);
        say(Figures.text(
                "| %s | %.2f | %.2f | %.2f | %.2f | %.2f | %.2f | %.2f | %.2f | %.2f | %.0f | %.0f |",
                source.name(),
                jitter,
                third.jitter(),
                other.jitter(),
                ours.jitter(),
                ours.jitter() / Math.min(third.jitter(), other.jitter()),
                other.black(),
                ours.black(),
                other.sharp(),
                ours.sharp(),
                other.rate(),
                ours.rate()));
    }

    private Result ours(List<Plane> clean, Path shaken, Shaking.Kind kind, double gradient) {
        return Stream.of(1, 2)
                .map(over -> {
                    String step = "steady rim=" + RIM + " over=" + over + (kind.tilt() > 0 ? " moves=perspective" : "");
                    long begun = System.nanoTime();
                    List<Plane> frames = scratch.treated(shaken, step);
                    return result(clean, frames, (System.nanoTime() - begun) / 1e9, gradient);
                })
                .min(Comparator.comparingDouble(Result::jitter))
                .orElseThrow();
    }

    private Result vidstab(List<Plane> clean, Path shaken, String way, double gradient) {
        Path found = scratch.file("transforms.trf");
        Path out = scratch.file("out.mkv");
        String[] both = way.split(" ");
        long begun = System.nanoTime();
        Command.ffmpeg("-i " + shaken + " -vf vidstabdetect=result=" + found + ":" + both[0] + " -f null -");
        Command.ffmpeg("-i " + shaken + " -vf vidstabtransform=input=" + found + ":optzoom=0:crop=black:" + both[1]
                + " -c:v ffv1 " + out);
        double seconds = (System.nanoTime() - begun) / 1e9;
        return result(clean, rimmed(scratch.luma(out)), seconds, gradient);
    }

    private Result deshake(List<Plane> clean, Path shaken, String way, double gradient) {
        Path out = scratch.file("out.mkv");
        long begun = System.nanoTime();
        Command.ffmpeg("-i " + shaken + " -vf deshake=" + way + " -c:v ffv1 " + out);
        double seconds = (System.nanoTime() - begun) / 1e9;
        return result(clean, rimmed(scratch.luma(out)), seconds, gradient);
    }

    private static Result result(List<Plane> clean, List<Plane> frames, double seconds, double gradient) {
        return new Result(jitter(clean, frames), black(frames), sharp(frames) / gradient, frames.size() / seconds);
    }

    /** What is left once the rim is cut off. */
    private static List<Plane> rimmed(List<Plane> frames) {
        Plane first = frames.getFirst();
        int x = first.width() * RIM / 100;
        int y = first.height() * RIM / 100;
        return frames.stream()
                .map(frame -> frame.window(new Region(x, y, first.width() - 2 * x, first.height() - 2 * y)))
                .toList();
    }

    private static double sharp(List<Plane> frames) {
        return frames.stream()
                .mapToDouble(frame -> Gradient.mean(frame, frame.width() / 8))
                .average()
                .orElseThrow();
    }

    /** Per cent of samples near the edges that are black to the bit. */
    private static double black(List<Plane> frames) {
        long black = 0;
        long all = 0;
        for (Plane frame : frames) {
            for (int y = 0; y < frame.height(); y++) {
                for (int x = 0; x < frame.width(); x++) {
                    boolean rim = x < frame.width() / 12
                            || x >= frame.width() - frame.width() / 12
                            || y < frame.height() / 12
                            || y >= frame.height() - frame.height() / 12;
                    black += rim && frame.at(x, y) == 0 ? 1 : 0;
                }
            }
            all += (long) frame.width() * frame.height();
        }
        return 100.0 * black / all;
    }

    private static double jitter(List<Plane> clean, List<Plane> frames) {
        return jitter(clean, frames, SLOW);
    }

    private static double jitter(List<Plane> clean, List<Plane> frames, double slow) {
        double[][] corners = IntStream.range(0, frames.size())
                .parallel()
                .mapToObj(n -> corners(Registration.between(frames.get(n), clean.get(n)), frames.getFirst()))
                .toArray(double[][]::new);
        double sum = 0;
        int count = 0;
        for (int n = 0; n < corners.length; n++) {
            for (int k = 0; k < 8; k++) {
                double mean = 0;
                double weights = 0;
                for (int m = 0; m < corners.length; m++) {
                    double weight = Math.exp(-(m - n) * (m - n) / (2 * slow * slow));
                    mean += weight * corners[m][k];
                    weights += weight;
                }
                double off = corners[n][k] - mean / weights;
                sum += off * off;
                count++;
            }
        }
        // across and down together
        return Math.sqrt(2 * sum / count);
    }

    private static double[] corners(double[] way, Plane picture) {
        double[] corners = new double[8];
        int at = 0;
        for (int[] sign : new int[][] {{-1, -1}, {1, -1}, {1, 1}, {-1, 1}}) {
            double x = sign[0] * picture.width() / 2.0;
            double y = sign[1] * picture.height() / 2.0;
            corners[at++] = way[0] * x + way[1] * y + way[2];
            corners[at++] = way[3] * x + way[4] * y + way[5];
        }
        return corners;
    }
}
