package awlsmith.benchmarks;

import awlsmith.core.measure.Psnr;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.upscale.Softness;
import awlsmith.core.upscale.SoftnessGuess;
import awlsmith.core.upscale.UpscaleStage;
import awlsmith.footage.Material;
import awlsmith.footage.PackageCache;
import awlsmith.footage.Pictures;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** How often softness is guessed right on clips no training saw, reduced in known ways, and what enlarging gains by it. */
final class Guessing {
    private static final String EXAMPLES = "opencv-doc/examples/data/";
    private static final int BORDER = 8;

    /** @param softness that enlarging would best be told; @param blur of the truth before it is reduced */
    private record Way(String name, double softness, double blur, Kernel kernel) {}

    private static final List<Way> WAYS = List.of(
            new Way("area", 0, 0, Kernel.AREA),
            new Way("bicubic", 0.5, 0, Kernel.CATMULL_ROM),
            new Way("blurred 0.4", 0.5 + 0.4 / 2.4, 0.4, Kernel.CATMULL_ROM),
            new Way("blurred 0.7", 0.5 + 0.7 / 2.4, 0.7, Kernel.CATMULL_ROM),
            new Way("blurred 1.0", 0.5 + 1.0 / 2.4, 1.0, Kernel.CATMULL_ROM));

    private final PackageCache packages;
    private final Path demo;
    private final List<String> report = new ArrayList<>();

    Guessing(PackageCache packages, Path demo) {
        this.packages = packages;
        this.demo = demo;
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    List<String> report() throws IOException {
        say("## Softness guessed");
        say("");
        say(
                "One frame or picture, reduced by 2 in ways of known softness (in per cent, as enlarging is told), then enlarged by the photographic model"
                        + " untold, told the guess where that is not about the usual (as the suggestion does), and told what was done. Within a step: nearer than the next way but one.");
        say("");
        say(
                "| picture | reduced by | softness | guess | within a step | untold | guess told | truth told | guess - untold |");
        say("|---|---|---|---|---|---|---|---|---|");
        int right = 0;
        int count = 0;
        double worst = Double.MAX_VALUE;
        double mean = 0;
        for (Material material : materials()) {
            for (Way way : WAYS) {
                double[] made = row(material.name(), material.frames().getFirst(), way);
                right += made[0] > 0 ? 1 : 0;
                worst = Math.min(worst, made[1]);
                mean += made[1];
                count++;
            }
        }
        say("");
        say(Figures.text(
                "Within a step: %d of %d. Told the guess against untold: %+.2f dB in the mean, %+.2f at worst.",
                right, count, mean / count, worst));
        say("");
        return report;
    }

    private List<Material> materials() throws IOException {
        var all = new ArrayList<Material>();
        for (String name : List.of("vtest.avi", "Megamind.avi", "tree.avi")) {
            all.add(Material.clip(name, packages.file("opencv-doc", EXAMPLES + name), 30, 1));
        }
        for (String name : List.of("deck-walk", "winch-inspection", "regatta")) {
            all.add(Material.clip(name + ", truth", demo.resolve("truth").resolve(name + ".mp4"), 30, 1));
        }
        for (String name : List.of("camera.png", "astronaut.png", "coffee.png", "chelsea.png")) {
            all.add(Material.still(name, packages.file("python3-skimage", "skimage/data/" + name)));
        }
        return all;
    }

    private double[] row(String name, Plane truth, Way way) {
        Plane small = Pictures.eightBits(Pictures.resized(
                way.blur() > 0 ? blurred(truth, way.blur()) : truth,
                truth.width() / 2,
                truth.height() / 2,
                way.kernel()));
        double guess = SoftnessGuess.of(small);
        boolean isRight = Math.abs(place(guess) - WAYS.indexOf(way)) <= 1;
        double untold = Psnr.of(enlarged(small, Softness.unknown()), truth, BORDER);
        Softness softness = SoftnessGuess.isWorthTelling(guess) ? Softness.of(guess) : Softness.unknown();
        double told = Psnr.of(enlarged(small, softness), truth, BORDER);
        say(Figures.text(
                "| %s | %s | %.0f | %.0f | %s | %.2f | %.2f | %.2f | %+.2f |",
                name,
                way.name(),
                100 * way.softness(),
                100 * guess,
                isRight ? "yes" : "no",
                untold,
                told,
                Psnr.of(enlarged(small, Softness.of(way.softness())), truth, BORDER),
                told - untold));
        return new double[] {isRight ? 1 : 0, told - untold};
    }

    /** Which way a guess lies nearest. */
    private static int place(double guess) {
        int nearest = 0;
        for (int i = 1; i < WAYS.size(); i++) {
            if (Math.abs(WAYS.get(i).softness() - guess)
                    < Math.abs(WAYS.get(nearest).softness() - guess)) {
                nearest = i;
            }
        }
        return nearest;
    }

    private static Plane enlarged(Plane small, Softness softness) {
        ModelCard card = Models.find("photographic", ModelCard.Mode.QUALITY).orElseThrow();
        NetRunner net = Models.open(card, NetForm.FLOAT);
        var format = new Format(
                small.width(), small.height(), Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        var frame = new Frame(format, format.whole(), List.of(small), 0, Rational.ZERO);
        var stage = new UpscaleStage(format, card, net, 1, true, softness);
        return stage.treat(distance -> frame, stage.output().whole(), new PlanePool(0), Work.alone())
                .plane(0);
    }

    private static Plane blurred(Plane in, double sigma) {
        return Deblurring.spread(in, new awlsmith.core.detail.PointSpread.Bell(sigma, sigma));
    }
}
