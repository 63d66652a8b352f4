package awlsmith.benchmarks;

import awlsmith.core.measure.BlurWidth;
import awlsmith.core.picture.Plane;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Which way is best for which damage: soft footage enlarged in several ways, blur told as it is measured. */
final class Choosing {
    private static final int FRAMES = 10;
    private static final int FROM = 3;
    private static final int TO = 7;

    /** @param blur deviation in the small picture's samples; @param crf of H.264, 0 for none */
    private record Fault(String name, double blur, int crf) {}

    private static final List<Fault> FAULTS = List.of(
            new Fault("soft by 0.8", 0.8, 0),
            new Fault("soft by 1.2", 1.2, 0),
            new Fault("soft by 1.8", 1.8, 0),
            new Fault("soft by 2.6", 2.6, 0),
            new Fault("soft by 1.2, CRF 24", 1.2, 24),
            new Fault("soft by 1.8, CRF 24", 1.8, 24),
            new Fault("soft by 1.2, CRF 34", 1.2, 34),
            new Fault("soft by 2.6, CRF 34", 2.6, 34));

    /** What is tried, B standing for the blur as measured. */
    private static final List<String> WAYS = List.of(
            "enlarge model=photographic",
            "enlarge model=worn",
            "deblur size=B; enlarge model=photographic",
            "deblur size=B; enlarge model=worn",
            "refine softness=B; enlarge model=photographic",
            "refine softness=B; enlarge model=worn",
            "sharpen radius=B amount=200; enlarge model=worn");

    private final Scratch scratch;
    private final List<String> report = new ArrayList<>();

    Choosing(Scratch scratch) {
        this.scratch = scratch;
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    List<String> report(List<Cleaning.Source> sources) {
        say("## Which way for which damage");
        say("");
        say("Clips reduced to half by area, blurred, coded, and brought back to their size: PSNR-Y of frames " + FROM
                + " to " + TO + " of " + FRAMES
                + ". B is the blur as it is measured in the footage. The best in bold.");
        say("");
        say("| clip | fault | B | "
                + String.join(
                        " | ",
                        WAYS.stream()
                                .map(way -> way.replace("enlarge model=", "").replace(";", ","))
                                .toList())
                + " |");
        say("|---|---|---|" + "---|".repeat(WAYS.size()));
        for (Cleaning.Source source : sources) {
            for (Fault fault : FAULTS) {
                row(source, fault);
            }
        }
        say("");
        return report;
    }

    private void row(Cleaning.Source source, Fault fault) {
        Path truth = scratch.file("truth.mkv");
        Command.ffmpeg("-i " + source.file()
                + " -an -vf scale='min(640,iw)':-2,crop=trunc(iw/4)*4:trunc(ih/4)*4,format=yuv420p" + " -frames:v "
                + FRAMES + " -fps_mode passthrough -c:v ffv1 " + truth);
        Path small = scratch.file("small.mkv");
        String codec = fault.crf() > 0 ? "libx264 -crf " + fault.crf() : "ffv1";
        Command.ffmpeg("-i " + truth + " -vf scale=iw/2:ih/2:flags=area,gblur=sigma=" + fault.blur()
                + ":steps=3:planes=1 -c:v " + codec + " -pix_fmt yuv420p " + small);
        List<Plane> wanted = scratch.luma(truth);
        double blur = BlurWidth.of(scratch.luma(small).get(FROM)).both();
        String told = Figures.text("%.2f", Math.clamp(blur, 0.3, 2.5));
        List<Double> made = WAYS.stream()
                .map(way -> Scratch.psnr(
                        wanted,
                        scratch.treated(small, way.replace("=B", "=" + told).split("; ")),
                        FROM,
                        TO))
                .toList();
        double most = made.stream().max(Comparator.naturalOrder()).orElseThrow();
        say("| " + source.name() + " | " + fault.name() + " | " + told + " | "
                + String.join(
                        " | ",
                        made.stream()
                                .map(v -> Figures.text(v == most ? "**%.2f**" : "%.2f", v))
                                .toList())
                + " |");
    }
}
