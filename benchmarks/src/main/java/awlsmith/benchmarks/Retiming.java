package awlsmith.benchmarks;

import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Plane;
import awlsmith.footage.PackageCache;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** How well frames that were left out are made again, beside FFmpeg's minterpolate, each at the best of several settings, on the same files. */
public final class Retiming {
    /** Odd, so that the last one is kept. */
    private static final int FRAMES = 41;
    /** FFmpeg's filter leaves out what has too few neighbours. */
    private static final int LEFT_OUT = 4;

    private static final String EXAMPLES = "opencv-doc/examples/data/";
    private static final String KEPT = "rate rate=2x frames=made";
    private static final String MADE = KEPT + " detail=mean";

    /** minterpolate's ways along the motion. */
    private static final List<String> WAYS = List.of(
            "mc_mode=obmc:me_mode=bilat",
            "mc_mode=obmc:me_mode=bidir",
            "mc_mode=aobmc:me_mode=bidir",
            "mc_mode=aobmc:me_mode=bidir:vsbmc=1");

    private final Scratch scratch;
    private final List<String> report = new ArrayList<>();

    private Retiming(Scratch scratch) {
        this.scratch = scratch;
    }

    /** @param from seconds into the clip */
    private record Source(String name, Path file, int from) {}

    /** Arguments: the report's file, a folder to keep fetched packages in, the folder of the demo footage. */
    public static void main(String[] arguments) throws IOException {
        try (var scratch = new Scratch()) {
            var retiming = new Retiming(scratch);
            var packages = new PackageCache(Path.of(arguments[1]));
            Path truth = Path.of(arguments[2]).resolve("truth");
            Path cartoon = packages.file("opencv-doc", EXAMPLES + "Megamind.avi");
            retiming.report(List.of(
                    new Source("vtest.avi", packages.file("opencv-doc", EXAMPLES + "vtest.avi"), 0),
                    new Source("Megamind.avi, from 1 s", cartoon, 1),
                    new Source("Megamind.avi, from 5 s, with a cut", cartoon, 5),
                    new Source("deck walk, truth", truth.resolve("deck-walk.mp4"), 0),
                    new Source("tape crossing, truth", truth.resolve("tape-crossing.mp4"), 0),
                    new Source("regatta, truth", truth.resolve("regatta.mp4"), 0),
                    new Source("winch inspection, truth", truth.resolve("winch-inspection.mp4"), 0)));
            Files.writeString(Path.of(arguments[0]), String.join("\n", retiming.report) + "\n");
        }
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private void report(List<Source> sources) {
        say("# Frames between");
        say("");
        say("Made by `./awlsmith measure --retiming`; do not edit. Of " + FRAMES
                + " frames every second one is left out and made again; PSNR-Y of those alone in dB against what was left out, without an edge of "
                + Scratch.BORDER + " pixels; clips no wider than 640. minterpolate at the best of " + WAYS.size()
                + " ways along the motion (mci), and its blend. Made: the mean of both frames along the motion, which is least in error; detail kept: fine detail of the nearer alone; gradient: mean step between neighbours, as a share of the truth's. Frames a second are frames made, on "
                + scratch.threads() + " threads, decoding and all; read them against each other.");
        say("");
        say(
                "| clip | repeated | blend | mci | made | made, blend in doubt | made - best | worst tenth: mci | made | frames a second: mci | made | times as fast | detail kept | gradient: mci | made | detail kept |");
        say("|---|---|---|---|---|---|---|---|---|---|---|---|---|---|---|---|");
        sources.forEach(this::row);
        say("");
        say(
                "Where what is left out moves on evenly nobody can do much better; a shaken camera does not, and water never looks the same twice: there all ways are far from the truth.");
        say("");
        List<Source> begun = sources.stream().filter(one -> one.from() == 0).toList();
        orders(begun);
        say("");
        dust(begun);
    }

    private static final int ORDERED = 17;

    /** Frames made before enlarging against behind it. */
    private void orders(List<Source> sources) {
        say("## Before or behind enlarging");
        say("");
        say(
                ORDERED
                        + " frames, made half as large by area (what is then enlarged by 2 with photographic), every second one left out. PSNR-Y of the frames made, and seconds for all.");
        say("");
        say("| clip | made, then enlarged | seconds | enlarged, then made | seconds |");
        say("|---|---|---|---|---|");
        for (Source source : sources) {
            Path truth = scratch.file("truth.mkv");
            Command.ffmpeg("-ss " + source.from() + " -i " + source.file()
                    + " -an -vf scale='min(640,iw)':-4,format=yuv420p -frames:v " + ORDERED
                    + " -fps_mode passthrough -c:v ffv1 " + truth);
            Path half = scratch.file("half.mkv");
            Command.ffmpeg("-i " + truth
                    + " -vf select='not(mod(n\\,2))',setpts=N/(10*TB),scale=iw/2:ih/2:flags=area -r 10 -fps_mode cfr -c:v ffv1 "
                    + half);
            List<Plane> wanted = scratch.luma(truth);
            String enlarge = "enlarge factor=2 model=photographic";
            Scratch.Made before = scratch.made(half, MADE, enlarge);
            Scratch.Made behind = scratch.made(half, enlarge, MADE);
            say(Figures.text(
                    "| %s | %.2f | %.1f | %.2f | %.1f |",
                    source.name(),
                    mean(wanted, before.frames()),
                    before.frames().size() / before.rate(),
                    mean(wanted, behind.frames()),
                    behind.frames().size() / behind.rate()));
        }
    }

    private void dust(List<Source> sources) {
        say("## Dust, by the same motion");
        say("");
        say(Dusting.words());
        say("");
        say("| clip | left of the spots | changed elsewhere | frames a second |");
        say("|---|---|---|---|");
        for (Source source : sources) {
            Dusting.Result result = new Dusting(scratch).of(source.file());
            say(Figures.text(
                    "| %s | %.0f %% | %d | %.1f |",
                    source.name(), 100 * result.share(), result.elsewhere(), result.rate()));
        }
    }

    private static double mean(List<Plane> wanted, List<Plane> got) {
        double sum = 0;
        int count = 0;
        for (int n = LEFT_OUT + 1; n < ORDERED - LEFT_OUT; n += 2) {
            sum += Psnr.of(got.get(n), wanted.get(n), Scratch.BORDER);
            count++;
        }
        return sum / count;
    }

    /** Scores of the frames made, and how many were made in a second. */
    private record Scores(double[] psnr, List<Plane> frames, double rate) {
        double mean() {
            return Arrays.stream(psnr).average().orElse(0);
        }

        /** Mean of the worst tenth, at least one. */
        double worst() {
            double[] sorted = psnr.clone();
            Arrays.sort(sorted);
            return Arrays.stream(sorted, 0, Math.max(1, sorted.length / 10))
                    .average()
                    .orElse(0);
        }
    }

    private void row(Source source) {
        Path truth = scratch.file("truth.mkv");
        Command.ffmpeg("-ss " + source.from() + " -i " + source.file()
                + " -an -vf scale='min(640,iw)':-2,format=yuv420p -frames:v " + FRAMES
                + " -fps_mode passthrough -c:v ffv1 " + truth);
        Path half = scratch.file("half.mkv");
        Command.ffmpeg(
                "-i " + truth + " -vf select='not(mod(n\\,2))',setpts=N/(10*TB) -r 10 -fps_mode cfr -c:v ffv1 " + half);
        List<Plane> wanted = scratch.luma(truth);
        List<Plane> kept = scratch.luma(half);
        var repeated = new ArrayList<Plane>();
        for (int n = 0; n < FRAMES; n++) {
            repeated.add(kept.get(n / 2));
        }
        Scores blend = minterpolated(half, wanted, "mi_mode=blend");
        Scores best = WAYS.stream()
                .map(way -> minterpolated(half, wanted, "mi_mode=mci:" + way))
                .max((a, b) -> Double.compare(a.mean(), b.mean()))
                .orElseThrow();
        Scores made = made(half, wanted, MADE);
        Scores mixed = made(half, wanted, MADE + " doubt=blend");
        List<Plane> mean = made.frames();
        List<Plane> detailed = scratch.treated(half, KEPT);
        say(Figures.text(
                "| %s | %.2f | %.2f | %.2f | %.2f | %.2f | %+.2f | %.2f | %.2f | %.1f | %.1f | %.1f | %.2f | %.3f | %.3f | %.3f |",
                source.name(),
                new Scores(scores(wanted, repeated), List.of(), 0).mean(),
                blend.mean(),
                best.mean(),
                made.mean(),
                mixed.mean(),
                made.mean() - Math.max(best.mean(), blend.mean()),
                best.worst(),
                made.worst(),
                best.rate(),
                made.rate(),
                made.rate() / best.rate(),
                new Scores(scores(wanted, detailed), detailed, 0).mean(),
                gradient(wanted, best.frames()),
                gradient(wanted, mean),
                gradient(wanted, detailed)));
    }

    /** Of the frames that were left out, as a share of the truth's. */
    private static double gradient(List<Plane> wanted, List<Plane> got) {
        double sum = 0;
        int count = 0;
        for (int n = LEFT_OUT + 1; n < FRAMES - LEFT_OUT; n += 2) {
            sum += Gradient.mean(got.get(n), Scratch.BORDER) / Gradient.mean(wanted.get(n), Scratch.BORDER);
            count++;
        }
        return sum / count;
    }

    private Scores made(Path half, List<Plane> wanted, String step) {
        Scratch.Made made = scratch.made(half, step);
        return new Scores(scores(wanted, made.frames()), made.frames(), made.rate() / 2);
    }

    private Scores minterpolated(Path half, List<Plane> wanted, String way) {
        Path out = scratch.file("minterpolated.mkv");
        long begun = System.nanoTime();
        Command.ffmpeg("-i " + half + " -vf minterpolate=fps=20:scd=none:" + way + ",format=yuv420p -c:v ffv1 " + out);
        double seconds = (System.nanoTime() - begun) / 1e9;
        List<Plane> frames = scratch.luma(out);
        return new Scores(scores(wanted, frames), frames, frames.size() / 2 / seconds);
    }

    /** Of the frames that were left out. */
    private static double[] scores(List<Plane> wanted, List<Plane> got) {
        var scores = new ArrayList<Double>();
        for (int n = LEFT_OUT + 1; n < FRAMES - LEFT_OUT; n += 2) {
            scores.add(Psnr.of(got.get(n), wanted.get(n), Scratch.BORDER));
        }
        return scores.stream().mapToDouble(d -> d).toArray();
    }
}
