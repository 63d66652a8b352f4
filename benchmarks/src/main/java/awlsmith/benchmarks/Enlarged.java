package awlsmith.benchmarks;

import awlsmith.core.measure.TrueSize;
import awlsmith.core.picture.Plane;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Footage that was enlarged before: how often it is found, and what it gains by being brought back to its true size first. */
final class Enlarged {
    private static final int FRAMES = 6;

    /** @param scale FFmpeg's filter for a clip that is to keep about its size; @param times it is enlarged */
    private record Way(String name, String scale, double times) {
        static Way by(String kernel, double times) {
            String small = times == 1.5
                    ? "scale=iw/2:ih/2:flags=bicubic"
                    : "scale=iw/" + times + ":ih/" + times + ":flags=bicubic";
            return new Way(
                    Figures.text("%s %.3g", kernel, times),
                    small + ",scale=iw*" + times + ":ih*" + times + ":flags=" + kernel,
                    times);
        }
    }

    private static final List<Way> WAYS = List.of(
            new Way("not enlarged", "null", 1),
            Way.by("neighbor", 2),
            Way.by("neighbor", 3),
            Way.by("bilinear", 2),
            Way.by("bicubic", 1.5),
            Way.by("bicubic", 2),
            Way.by("bicubic", 3),
            Way.by("lanczos", 2));

    private final Scratch scratch;
    private final List<String> report = new ArrayList<>();

    Enlarged(Scratch scratch) {
        this.scratch = scratch;
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    List<String> report(List<Cleaning.Source> sources) {
        say("## Enlarged before");
        say("");
        say("Reduced, enlarged again by FFmpeg's scaler and coded: how many times that is seen in " + FRAMES
                + " frames (where one rhythm fits two factors both are told), and, where it was twice, PSNR-Y of frames 1 to 4 as it came, refined, and"
                + " brought back to its true size and enlarged by the photographic model.");
        say("");
        say("| clip | enlarged by | codec | seen | came | refine | true size first |");
        say("|---|---|---|---|---|---|---|");
        for (Cleaning.Source source : sources) {
            Path truth = scratch.truth(source.file(), FRAMES);
            for (Way way : WAYS) {
                for (int crf : new int[] {0, 22}) {
                    row(source.name(), truth, way, crf);
                }
            }
        }
        say("");
        return report;
    }

    private void row(String name, Path truth, Way way, int crf) {
        Path cut = scratch.file("size-truth.mkv");
        Command.ffmpeg("-i " + truth + " -vf crop=trunc(iw/24)*24:trunc(ih/24)*24:0:0 -c:v ffv1 " + cut);
        Path made = scratch.file("size-made.mkv");
        Command.ffmpeg("-i " + cut + " -vf " + way.scale() + " -c:v " + (crf == 0 ? "ffv1" : "libx264 -crf " + crf)
                + " -pix_fmt yuv420p " + made);
        List<Plane> came = scratch.luma(made);
        String figures = "| | |";
        if (way.times() == 2) {
            List<Plane> wanted = scratch.luma(cut);
            // as the suggestion does
            String enlarging =
                    "enlarge factor=2 model=photographic" + (way.name().startsWith("neighbor") ? "" : " softness=75");
            figures = Figures.text(
                    "%.2f | %.2f | %.2f |",
                    Scratch.psnr(wanted, came, 1, 5),
                    Scratch.psnr(wanted, scratch.treated(made, "refine"), 1, 5),
                    Scratch.psnr(wanted, scratch.treated(made, "true-size factor=2", enlarging), 1, 5));
        }
        say(Figures.text(
                "| %s | %s | %s | %s | %s", name, way.name(), crf == 0 ? "" : "CRF " + crf, seen(came), figures));
    }

    private static String seen(List<Plane> frames) {
        long found = 0;
        TrueSize last = null;
        for (Plane frame : frames) {
            TrueSize size = TrueSize.of(frame);
            if (size.factor() > 1) {
                found++;
                last = size;
            }
        }
        if (last == null) {
            return "in none";
        }
        String times = Figures.text("%.2f", last.factor())
                + (last.orElse() == last.factor() ? "" : Figures.text(" or %.2f", last.orElse()));
        return times + " in " + found + " of " + frames.size();
    }
}
