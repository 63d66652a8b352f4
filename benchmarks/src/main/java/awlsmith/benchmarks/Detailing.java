package awlsmith.benchmarks;

import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.NoiseLevel;
import awlsmith.core.picture.Plane;
import awlsmith.footage.PackageCache;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** How much sharper soft footage gets at its own size, and what sharpening costs; beside what {@link Tastes}, {@link Enlarged}, {@link Choosing}, {@link Deblurring} and {@link Guessing} measure. */
public final class Detailing {
    private static final int FRAMES = 10;
    private static final int FROM = 3;
    private static final int TO = 7;
    private static final String EXAMPLES = "opencv-doc/examples/data/";

    private final List<String> report = new ArrayList<>();
    private final Scratch scratch;

    private Detailing(Scratch scratch) {
        this.scratch = scratch;
    }

    /** Arguments: the report's file, a folder to keep fetched packages in, the folder of the demo footage. */
    public static void main(String[] arguments) throws IOException {
        List<String> report;
        try (var scratch = new Scratch()) {
            var detailing = new Detailing(scratch);
            var packages = new PackageCache(Path.of(arguments[1]));
            Path demo = Path.of(arguments[2]);
            List<Cleaning.Source> sources = sources(packages, demo);
            detailing.title();
            detailing.ownSize(sources);
            report = detailing.report;
            report.addAll(new Tastes(scratch, packages).report());
            report.addAll(new Enlarged(scratch).report(sources));
            report.addAll(new Choosing(scratch).report(sources));
            report.addAll(new Deblurring(packages).report());
            detailing.sharpening(sources);
            report.addAll(new Guessing(packages, demo).report());
            detailing.time(sources.getFirst());
        }
        Files.writeString(Path.of(arguments[0]), String.join("\n", report) + "\n");
    }

    static List<Cleaning.Source> sources(PackageCache packages, Path demo) throws IOException {
        return List.of(
                new Cleaning.Source("vtest.avi", packages.file("opencv-doc", EXAMPLES + "vtest.avi")),
                new Cleaning.Source("Megamind.avi", packages.file("opencv-doc", EXAMPLES + "Megamind.avi")),
                new Cleaning.Source("deck walk, truth", demo.resolve("truth").resolve("deck-walk.mp4")));
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private void title() {
        say("# Detail");
        say("");
        say("Made by `./awlsmith measure --detail`; do not edit. PSNR-Y in dB against the truth, without an edge of "
                + Scratch.BORDER + " pixels; clips no wider than 640. Frames a second are those of this run, on "
                + scratch.threads() + " threads.");
        say("");
    }

    /** What is done to the truth. @param blur deviation in samples; @param crf of H.264, 0 for none */
    private record Fault(String name, double blur, int crf) {
        /** Steps of H.264's quantiser, of 255 (ITU-T H.264, 8.5): 1 at QP 4, twice as large every six. */
        String rounding() {
            return crf == 0 ? "" : Figures.text(" rounding=%.0f", Math.pow(2, (crf - 4) / 6.0));
        }
    }

    private static final List<Fault> FAULTS = List.of(
            new Fault("CRF 34", 0, 34),
            new Fault("soft by 0.7", 0.7, 0),
            new Fault("soft by 1.2", 1.2, 0),
            new Fault("soft by 0.7, CRF 24", 0.7, 24),
            new Fault("soft by 1.2, CRF 24", 1.2, 24),
            new Fault("soft by 1.2, CRF 34", 1.2, 34));

    private static final List<String> MASKS = List.of(
            "sharpen kind=mask radius=0.8 amount=50 spare=0",
            "sharpen kind=mask radius=1 amount=120 spare=0",
            "sharpen kind=mask radius=1.5 amount=200 spare=0");

    private static final List<String> DECONVOLUTIONS =
            List.of("deblur size=0.6", "deblur size=0.9", "deblur size=1.2", "deblur size=1.2 noise=3");

    void ownSize(List<Cleaning.Source> sources) {
        say("## At its own size");
        say("");
        say(
                "Frames " + FROM + " to " + TO + " of " + FRAMES
                        + ", blurred by a bell and coded. Refine is told what it measured in the clip, or the blur and the codec's rounding as they are; deblur and the unsharp mask are the"
                        + " best of " + DECONVOLUTIONS.size() + " and " + MASKS.size()
                        + " settings each, found with the truth at hand. Flicker: deviation of the error's change from frame to frame, of 255.");
        say("");
        say(
                "| clip | fault | as it came | refine | told | deblur, best | mask, best | refine - came | refine - best other | flicker: came | refine | frames a second |");
        say("|---|---|---|---|---|---|---|---|---|---|---|---|");
        for (Cleaning.Source source : sources) {
            Path truth = scratch.truth(source.file(), FRAMES);
            for (Fault fault : FAULTS) {
                row(source.name(), truth, fault);
            }
        }
        say("");
    }

    private void row(String name, Path truth, Fault fault) {
        Path dull = scratch.file("dull.mkv");
        String blur = fault.blur() > 0 ? "gblur=sigma=" + fault.blur() + ":steps=3:planes=1" : "null";
        String codec = fault.crf() > 0 ? "libx264 -crf " + fault.crf() : "ffv1";
        Command.ffmpeg("-i " + truth + " -vf " + blur + " -c:v " + codec + " -pix_fmt yuv420p " + dull);
        List<Plane> wanted = scratch.luma(truth);
        List<Plane> came = scratch.luma(dull);
        Scratch.Made refined = scratch.made(dull, "refine");
        double before = psnr(wanted, came);
        double refine = psnr(wanted, refined.frames());
        double told = psnr(wanted, scratch.treated(dull, "refine softness=" + fault.blur() + fault.rounding()));
        double deblur = best(wanted, dull, DECONVOLUTIONS);
        double mask = best(wanted, dull, MASKS);
        say(Figures.text(
                "| %s | %s | %.2f | %.2f | %.2f | %.2f | %.2f | %+.2f | %+.2f | %.2f | %.2f | %.1f |",
                name,
                fault.name(),
                before,
                refine,
                told,
                deblur,
                mask,
                refine - before,
                refine - Math.max(before, Math.max(deblur, mask)),
                Scratch.flicker(wanted, came, FROM, TO),
                Scratch.flicker(wanted, refined.frames(), FROM, TO),
                refined.rate()));
    }

    private double best(List<Plane> wanted, Path clip, List<String> steps) {
        return steps.stream()
                .mapToDouble(step -> psnr(wanted, scratch.treated(clip, step)))
                .max()
                .orElseThrow();
    }

    private static double psnr(List<Plane> wanted, List<Plane> got) {
        return Scratch.psnr(wanted, got, FROM, TO);
    }

    private void sharpening(List<Cleaning.Source> sources) {
        say("## Sharpening");
        say("");
        say(
                "One frame soft by 1.2 with noise of 2: edge width in pixels, overshoot beside edges as a share of their height, noise of 255, and the"
                        + " light's gradient by the truth's.");
        say("");
        say("| clip | what | edge width | overshoot | noise | gradient |");
        say("|---|---|---|---|---|---|");
        for (Cleaning.Source source : sources) {
            Path truth = scratch.truth(source.file(), 2);
            if (Double.isNaN(EdgeWidth.of(scratch.luma(truth).getFirst()).width())) {
                // it begins in black
                continue;
            }
            Path dull = scratch.file("dull.mkv");
            Command.ffmpeg("-i " + truth + " -vf gblur=sigma=1.2:steps=3:planes=1 -c:v ffv1 " + dull);
            Path noisy = scratch.file("dull-noisy.mkv");
            scratch.changed(dull, noisy, frame -> {
                var random = new Random(frame.number());
                float[] light = frame.plane(0).data();
                for (int i = 0; i < light.length; i++) {
                    light[i] += (float) (2 / 219.0 * random.nextGaussian());
                }
            });
            double clean = Gradient.mean(scratch.luma(truth).getFirst(), Scratch.BORDER);
            edges(source.name(), "soft and noisy", scratch.luma(noisy).getFirst(), clean);
            for (String step : List.of(
                    "sharpen radius=1.5 amount=150",
                    "sharpen radius=1.5 amount=300",
                    "sharpen kind=mask radius=1.5 amount=150",
                    "sharpen kind=mask radius=1.5 amount=300",
                    "deblur size=1.2",
                    "refine")) {
                edges(
                        source.name(),
                        "`" + step + "`",
                        scratch.treated(noisy, step).getFirst(),
                        clean);
            }
        }
        say("");
    }

    private void edges(String clip, String what, Plane made, double clean) {
        EdgeWidth.Edges edges = EdgeWidth.of(made);
        say(Figures.text(
                "| %s | %s | %.2f | %.1f %% | %.1f | %.2f |",
                clip,
                what,
                edges.width(),
                100 * edges.overshoot(),
                255 * NoiseLevel.of(made).sigma(),
                Gradient.mean(made, Scratch.BORDER) / clean));
    }

    private void time(Cleaning.Source source) {
        report.addAll(new Paces(scratch)
                .report(
                        source,
                        List.of(
                                "sharpen",
                                "sharpen kind=mask radius=3",
                                "haloes",
                                "deblur noise=2",
                                "deblur noise=2 calm=0",
                                "stairs",
                                "original texture=50",
                                "original light=50",
                                "refine")));
    }
}
