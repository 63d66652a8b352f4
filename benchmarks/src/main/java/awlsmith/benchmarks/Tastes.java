package awlsmith.benchmarks;

import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.measure.Gradient;
import awlsmith.core.model.Models;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.footage.Drawings;
import awlsmith.footage.PackageCache;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;

/** What the modes of enlarging do to texture, edges and rest, and what they cost. */
final class Tastes {
    private static final String EXAMPLES = "opencv-doc/examples/data/";
    private static final String SKIMAGE = "skimage/data/";
    private static final int FRAMES = 4;
    /** Side of the squares that texture is told apart by. */
    private static final int SQUARE = 16;

    private static final List<String> WAYS = List.of(
            "mode=quality",
            "mode=quality softness=50",
            "mode=crisp",
            "mode=crisp softness=50",
            "mode=made",
            "mode=made softness=50",
            "mode=made texture=100",
            "mode=made texture=100 softness=50",
            "mode=smooth",
            "mode=fast");

    private final Scratch scratch;
    private final PackageCache packages;
    private final List<String> report = new ArrayList<>();

    Tastes(Scratch scratch, PackageCache packages) {
        this.scratch = scratch;
        this.packages = packages;
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    List<String> report() throws IOException {
        say("## Tastes");
        say("");
        say(
                "Reduced by 2 (bicubic) and enlarged by the photographic model, drawings by that for drawings. Gradient: as a share of the truth's,"
                        + " over all, and of the calmest and the finest third of its squares of " + SQUARE
                        + " by their gradient, flat ones left out. Flicker: deviation of the error's change from frame to frame, of 255, clips alone.");
        say("");
        say("| footage | way | dB over quality | gradient | calmest third | finest third | flicker | edge width |");
        say("|---|---|---|---|---|---|---|---|");
        for (String clip : List.of("vtest.avi", "tree.avi")) {
            rows(clip, cut(packages.file("opencv-doc", EXAMPLES + clip)), "photographic");
        }
        for (String still : List.of("fruits.jpg", "baboon.jpg")) {
            rows(still, cut(packages.file("opencv-doc", EXAMPLES + still)), "photographic");
        }
        rows("coffee.png", cut(packages.file("python3-skimage", SKIMAGE + "coffee.png")), "photographic");
        Plane sheet = Drawings.load(packages, 0, 1).check().getFirst();
        Path drawn = scratch.file("sheet.png");
        write(sheet, drawn);
        rows("drawing, fine lines", cut(drawn), "drawn");
        say("");
        return report;
    }

    private static void write(Plane light, Path file) throws IOException {
        var image = new BufferedImage(light.width(), light.height(), BufferedImage.TYPE_BYTE_GRAY);
        for (int y = 0; y < light.height(); y++) {
            for (int x = 0; x < light.width(); x++) {
                image.getRaster().setSample(x, y, 0, Math.clamp(Math.round(255 * light.at(x, y)), 0, 255));
            }
        }
        ImageIO.write(image, "png", file.toFile());
    }

    /** As many frames as are wanted, of sides that halve. */
    private Path cut(Path file) {
        Path truth = scratch.file("taste.mkv");
        Command.ffmpeg("-i " + file + " -an -frames:v " + FRAMES
                + " -vf crop=trunc(iw/4)*4:trunc(ih/4)*4:0:0,format=gray -c:v ffv1 " + truth);
        return truth;
    }

    private void rows(String name, Path truth, String model) {
        Path small = scratch.file("taste-small.mkv");
        Command.ffmpeg("-i " + truth + " -vf scale=iw/2:ih/2:flags=bicubic -c:v ffv1 " + small);
        List<Plane> wanted = scratch.luma(truth);
        List<Region> squares = squares(wanted.getFirst());
        int third = squares.size() / 3;
        double quality = 0;
        for (String way : WAYS) {
            if (!isOf(model, way)) {
                continue;
            }
            List<Plane> made = scratch.treated(small, "enlarge factor=2 model=" + model + " " + way);
            double psnr = Scratch.psnr(wanted, made, 0, made.size());
            quality = quality == 0 ? psnr : quality;
            Plane first = made.getFirst();
            say(Figures.text(
                    "| %s | %s | %+.2f | %.2f | %.2f | %.2f | %s | %.2f |",
                    name,
                    way,
                    psnr - quality,
                    Gradient.mean(first, Scratch.BORDER) / Gradient.mean(wanted.getFirst(), Scratch.BORDER),
                    gradient(first, squares.subList(0, third)) / gradient(wanted.getFirst(), squares.subList(0, third)),
                    gradient(first, squares.subList(squares.size() - third, squares.size()))
                            / gradient(wanted.getFirst(), squares.subList(squares.size() - third, squares.size())),
                    made.size() > 1 ? Figures.text("%.2f", Scratch.flicker(wanted, made, 0, made.size())) : "",
                    EdgeWidth.of(first).width()));
        }
    }

    private static boolean isOf(String model, String way) {
        String mode = way.split(" ")[0].substring("mode=".length());
        boolean told = way.contains("softness");
        return Models.enlarging().stream()
                .filter(card -> card.id().equals(model))
                .anyMatch(card ->
                        card.mode().id().equals(mode.equals("smooth") ? "quality" : mode) && (!told || card.told()));
    }

    /** By their gradient, calmest first; without the flat ones. */
    private static List<Region> squares(Plane truth) {
        int across = truth.width() / SQUARE;
        return IntStream.range(0, across * (truth.height() / SQUARE))
                .mapToObj(i -> new Region(i % across * SQUARE, i / across * SQUARE, SQUARE, SQUARE))
                .filter(square -> gradient(truth, List.of(square)) > 1.0 / 255)
                .sorted(Comparator.comparingDouble(square -> gradient(truth, List.of(square))))
                .toList();
    }

    private static double gradient(Plane plane, List<Region> squares) {
        return squares.stream()
                .mapToDouble(square -> Gradient.mean(plane.window(square), 1))
                .average()
                .orElse(Double.NaN);
    }
}
