package awlsmith.benchmarks;

import awlsmith.core.picture.Plane;
import awlsmith.media.Rounding;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/** Cleaning and then enlarging against enlarging worn footage at once: which order the suggestion should take. */
final class Ordering {
    private static final int FRAMES = 14;
    private static final int FROM = 3;
    private static final int TO = 11;

    private final Scratch scratch;
    private final List<String> report = new ArrayList<>();

    Ordering(Scratch scratch) {
        this.scratch = scratch;
    }

    /** @param noise added to the reduced clip, deviation of 255; @param crf of H.264 behind it */
    private record Fault(String name, double noise, int crf) {}

    private static final List<Fault> FAULTS = List.of(
            new Fault("CRF 22", 0, 22),
            new Fault("CRF 28", 0, 28),
            new Fault("CRF 34", 0, 34),
            new Fault("CRF 40", 0, 40),
            new Fault("noise 4, CRF 22", 4, 22),
            new Fault("noise 8, CRF 20", 8, 20),
            new Fault("noise 16, CRF 20", 16, 20));

    /** R is how coarsely the codec rounded. */
    private static final List<String> ORDERS = List.of(
            "photographic",
            "worn",
            "repair R, photographic",
            "repair R, worn",
            "denoise, photographic",
            "denoise, worn",
            "repair R, denoise, photographic",
            "repair R, denoise, worn");

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    List<String> report(List<Cleaning.Source> sources) {
        say("## Orders");
        say("");
        say("Clips reduced to half by area, made worse, and brought back to their size: PSNR-Y of frames " + FROM
                + " to " + TO + " of " + FRAMES
                + ". The best in bold; the codec's step, which repair is told, beside the fault.");
        say("");
        say("| clip | fault | "
                + String.join(
                        " | ", ORDERS.stream().map(o -> o.replace(" R", "")).toList()) + " |");
        say("|---|---|" + "---|".repeat(ORDERS.size()));
        for (Cleaning.Source source : sources) {
            Path truth = scratch.file("truth.mkv");
            Command.ffmpeg("-i " + source.file()
                    + " -an -vf scale='min(640,trunc(iw/4)*4)':-4:flags=area,format=yuv420p -frames:v " + FRAMES
                    + " -fps_mode passthrough -c:v ffv1 " + truth);
            FAULTS.forEach(fault -> row(source.name(), truth, fault));
        }
        return report;
    }

    private void row(String name, Path truth, Fault fault) {
        Path small = scratch.file("small.mkv");
        Path noisy = scratch.file("noisy.mkv");
        Path worn = scratch.file("worn.mkv");
        Command.ffmpeg("-i " + truth + " -vf scale=iw/2:ih/2:flags=area -c:v ffv1 " + small);
        scratch.changed(small, noisy, frame -> {
            var random = new java.util.Random(frame.number());
            float[] light = frame.plane(0).data();
            for (int i = 0; i < light.length; i++) {
                light[i] += (float) (fault.noise() / 219 * random.nextGaussian());
            }
        });
        Command.ffmpeg("-i " + noisy + " -c:v libx264 -crf " + fault.crf() + " -pix_fmt yuv420p " + worn);
        List<Plane> wanted = scratch.luma(truth);
        double step = Rounding.step(worn, "h264").orElse(16);
        double[] scores = ORDERS.stream()
                .mapToDouble(order -> Scratch.psnr(wanted, scratch.treated(worn, steps(order, step)), FROM, TO))
                .toArray();
        int best = IntStream.range(0, scores.length)
                .boxed()
                .max(Comparator.comparingDouble(i -> scores[i]))
                .orElseThrow();
        var line = new StringBuilder(Figures.text("| %s | %s (step %.0f) |", name, fault.name(), step));
        for (int i = 0; i < scores.length; i++) {
            line.append(Figures.text(i == best ? " **%.2f** |" : " %.2f |", scores[i]));
        }
        say(line.toString());
    }

    private static String[] steps(String order, double step) {
        var steps = new ArrayList<String>();
        for (String word : order.split(", ")) {
            steps.add(
                    word.equals("denoise")
                            ? word
                            : word.startsWith("repair")
                                    ? "repair rounding=" + Figures.text("%.1f", step)
                                    : "enlarge factor=2 model=" + word);
        }
        return steps.toArray(String[]::new);
    }
}
