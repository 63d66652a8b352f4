package awlsmith.benchmarks;

import awlsmith.benchmarks.footage.Condition;
import awlsmith.benchmarks.footage.Material;
import awlsmith.benchmarks.footage.PackageCache;
import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.core.upscale.ModelCard;
import awlsmith.core.upscale.Models;
import awlsmith.core.upscale.UpscaleStage;
import awlsmith.render.Machine;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Predicate;

/** Enlarges footage that no training saw, made small in known ways, by every model, and writes what came back. */
public final class Quality {
    private static final int BORDER = 8;
    private static final int FRAMES = 10;
    private static final String EXAMPLES = "opencv-doc/examples/data/";

    private final Machine machine = Machine.whole();
    private final List<String> report = new ArrayList<>();
    private final PackageCache packages;

    /** A way to enlarge by 2. */
    private record Way(String name, Function<Format, Stage> stage) {}

    /** @param gradient of the result, as a share of the truth's; @param flicker error of the steps between frames */
    private record Score(double psnr, double ssim, double gradient, double flicker) {}

    private Quality(Path cache) {
        packages = new PackageCache(cache);
    }

    /** Arguments: the report's file, a folder to keep fetched packages in, the folder of the demo footage. */
    public static void main(String[] arguments) throws IOException {
        var quality = new Quality(Path.of(arguments[1]));
        Path crops = Path.of(arguments[0]).resolveSibling("quality-crops.png");
        try {
            quality.all();
            new Crops(quality.machine, Path.of(arguments[2])).write(crops);
            quality.say("## To the eye");
            quality.say("");
            quality.say(
                    "One frame of the demo's deck walk at 400 %: above as it lies in the archive, with its compression and its"
                            + " camera's sharpening; below its truth reduced cleanly.");
            quality.say("");
            quality.say("![source, Lanczos, fast, quality, worn, truth](" + crops.getFileName() + ")");
        } finally {
            quality.machine.close();
        }
        Files.writeString(Path.of(arguments[0]), String.join("\n", quality.report) + "\n");
    }

    private void all() throws IOException {
        say("# Picture quality");
        say("");
        say("Made by `./awlsmith measure --quality`; do not edit.");
        say("");
        say(
                "Enlarged by 2 from footage no training saw: clips and pictures of Debian's opencv-doc and python3-skimage, made"
                        + " small in known ways. PSNR and SSIM are of luma, a border of " + BORDER
                        + " left out. Gains are over Lanczos with three lobes. *Gradient* is the mean step between neighbours, as a"
                        + " share of the truth's. *Flicker* is the root mean square error of the steps from frame to frame, as a share"
                        + " of what Lanczos leaves.");
        say("");
        List<Material> materials = materials();
        for (Condition condition :
                List.of(Condition.BICUBIC, Condition.AREA, Condition.CRF_20, Condition.CRF_30, Condition.GRAIN)) {
            table(condition, materials);
        }
        speed();
    }

    private List<Material> materials() throws IOException {
        var all = new ArrayList<Material>();
        for (String name : List.of("vtest.avi", "Megamind.avi", "tree.avi")) {
            all.add(Material.clip(name, packages.file("opencv-doc", EXAMPLES + name), 30, FRAMES));
        }
        for (String name : List.of("baboon.jpg", "butterfly.jpg", "fruits.jpg", "home.jpg", "aloeL.jpg")) {
            all.add(Material.still(name, packages.file("opencv-doc", EXAMPLES + name)));
        }
        for (String name : List.of("astronaut.png", "coffee.png", "camera.png")) {
            all.add(Material.still(name, packages.file("python3-skimage", "skimage/data/" + name)));
        }
        return all;
    }

    /** @param id whether a family of models is wanted */
    private static List<Way> ways(Predicate<String> id) {
        var ways = new ArrayList<Way>();
        ways.add(new Way("Lanczos 3", in -> new EnlargeStage(in, doubled(in), Kernel.LANCZOS3)));
        for (ModelCard card : Models.all()) {
            if (!id.test(card.id())) {
                continue;
            }
            ways.add(new Way(
                    card.id() + " " + card.mode().id(), in -> new UpscaleStage(in, card, Models.open(card), 1)));
        }
        return ways;
    }

    private void table(Condition condition, List<Material> materials) {
        // a model for drawings is not meant for any of this footage; its card tells what it gains on drawings
        List<Way> ways = ways(family -> !family.equals("drawn"));
        say("## " + Character.toUpperCase(condition.name().charAt(0))
                + condition.name().substring(1));
        say("");
        var head = new StringBuilder("| footage |");
        var line = new StringBuilder("|---|");
        for (Way way : ways) {
            head.append(' ').append(way.name()).append(" |");
            line.append("---|");
        }
        say(head.toString());
        say(line.toString());
        for (Material material : materials) {
            if (condition.crf() >= 0 && !material.moves()) {
                continue;
            }
            List<Plane> small = condition.of(material.frames());
            Map<Way, Score> scores = new LinkedHashMap<>();
            for (Way way : ways) {
                scores.put(way, score(material, enlarged(way, small)));
            }
            Score plain = scores.values().iterator().next();
            var row = new StringBuilder("| " + material.name() + " |");
            for (Score s : scores.values()) {
                String gain = s == plain ? "" : Figures.text(" (%+.2f)", s.psnr() - plain.psnr());
                row.append(Figures.text(" %.2f%s dB, %.4f, gradient %.2f", s.psnr(), gain, s.ssim(), s.gradient()));
                if (material.moves() && s != plain) {
                    row.append(Figures.text(", flicker %.2f", s.flicker() / plain.flicker()));
                }
                row.append(" |");
            }
            say(row.toString());
        }
        say("");
    }

    private List<Plane> enlarged(Way way, List<Plane> small) {
        Format in = grey(small.getFirst().width(), small.getFirst().height());
        Stage stage = way.stage().apply(in);
        var out = new ArrayList<Plane>();
        for (Plane p : small) {
            Frame frame = new Frame(in, in.whole(), List.of(p), 0, Rational.ZERO);
            Plane made = stage.treat(d -> frame, stage.output().whole(), machine.planes(), machine.work(new Cancel()))
                    .plane(0);
            for (int i = 0; i < made.data().length; i++) {
                made.data()[i] = Math.clamp(made.data()[i], 0, 1);
            }
            out.add(made);
        }
        return out;
    }

    private static Score score(Material truth, List<Plane> made) {
        int n = made.size();
        double psnr = 0;
        double ssim = 0;
        double gradient = 0;
        double flicker = 0;
        for (int i = 0; i < n; i++) {
            Plane t = truth.frames().get(i);
            psnr += Psnr.of(made.get(i), t, BORDER) / n;
            ssim += Ssim.of(made.get(i), t, BORDER) / n;
            gradient += Gradient.mean(made.get(i), BORDER) / Gradient.mean(t, BORDER) / n;
            if (i > 0) {
                flicker += stepError(
                                made.get(i), made.get(i - 1), t, truth.frames().get(i - 1))
                        / (n - 1);
            }
        }
        return new Score(psnr, ssim, gradient, Math.sqrt(flicker));
    }

    private static double stepError(Plane now, Plane before, Plane truthNow, Plane truthBefore) {
        double sum = 0;
        long count = 0;
        for (int y = BORDER; y < now.height() - BORDER; y++) {
            for (int x = BORDER; x < now.width() - BORDER; x++) {
                double d = now.at(x, y) - before.at(x, y) - (truthNow.at(x, y) - truthBefore.at(x, y));
                sum += d * d;
                count++;
            }
        }
        return sum / count;
    }

    private void speed() {
        say("## Speed: 640x360 to 1280x720, 4:2:0");
        say("");
        say("All threads, the median of 5, treatment alone; the machine is noisy: read the ratios.");
        say("");
        say("| way | frames a second | times the quality model of its family |");
        say("|---|---|---|");
        var format = new Format(640, 360, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        var pool = machine.planes();
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, pool);
        frame.planes().forEach(p -> {
            for (int i = 0; i < p.data().length; i++) {
                p.data()[i] = 0.5f + 0.2f * (float) Math.sin(i * 0.7) + 0.1f * (float) Math.sin(i * 0.013);
            }
        });
        var rates = new LinkedHashMap<String, Double>();
        for (Way way : ways(family -> true)) {
            Stage stage = way.stage().apply(format);
            Runnable one = () -> {
                for (int i = 0; i < 8; i++) {
                    stage.treat(d -> frame, stage.output().whole(), pool, machine.work(new Cancel()))
                            .release(pool);
                }
            };
            one.run();
            rates.put(way.name(), 8 / Figures.median(Figures.seconds(5, one)));
        }
        rates.forEach((name, rate) -> {
            Double quality = rates.get(name.split(" ")[0] + " quality");
            say(Figures.text(
                    "| %s | %.1f | %s |", name, rate, quality == null ? "" : Figures.text("%.1f", rate / quality)));
        });
        say("");
    }

    private static Format grey(int width, int height) {
        return new Format(width, height, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    private static Format doubled(Format in) {
        return in.withSize(in.width() * 2, in.height() * 2, in.sar());
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }
}
