package awlsmith.benchmarks;

import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.core.upscale.UpscaleStage;
import awlsmith.footage.Codec;
import awlsmith.footage.Condition;
import awlsmith.footage.Drawings;
import awlsmith.footage.Material;
import awlsmith.footage.PackageCache;
import awlsmith.footage.Pictures;
import awlsmith.render.Machine;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;

/** Enlarges footage that no training saw, made small in known ways, by every model, and writes what came back. */
public final class Quality {
    private static final int BORDER = 8;
    private static final int FRAMES = 10;
    private static final List<String> STILLS =
            List.of("baboon.jpg", "butterfly.jpg", "fruits.jpg", "home.jpg", "aloeL.jpg");
    private static final List<String> SKIMAGE = List.of("astronaut.png", "coffee.png", "camera.png");
    private static final ModelCard PHOTOGRAPHIC =
            Models.find("photographic", ModelCard.Mode.QUALITY).orElseThrow();
    private static final String EXAMPLES = "opencv-doc/examples/data/";

    private final Machine machine = Machine.whole();
    private final List<String> report = new ArrayList<>();
    private final PackageCache packages;
    /** Sums of PSNR over the stills, by way. */
    private final Map<String, Double> stills = new LinkedHashMap<>();

    /**
     * A way to enlarge.
     *
     * @param before what is done to all frames first
     */
    private record Way(
            String name, UnaryOperator<List<Plane>> before, BiFunction<Format, Integer, List<Stage>> stages) {
        static Way by(String name, String step) {
            return new Way(
                    name,
                    UnaryOperator.identity(),
                    (in, times) -> new Recipe(List.of(Step.parse(step + " factor=" + times)))
                            .chain(in)
                            .stages());
        }
    }

    private static final String LANCZOS = "enlarge kernel=lanczos3";

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
            quality.say("![source, Lanczos, fast, quality, crisp, worn quality and crisp, truth](" + crops.getFileName()
                    + ")");
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
        say("Enlarged from footage no training saw: clips and pictures of Debian's opencv-doc and python3-skimage, made"
                + " small in known ways. PSNR and SSIM are of luma, a border of " + BORDER
                + " left out. Gains are over Lanczos with three lobes. *Gradient* is the mean step between neighbours, as a"
                + " share of the truth's. *Flicker* is the root mean square error of the steps from frame to frame, as a share"
                + " of what Lanczos leaves.");
        say("");
        List<Material> materials = materials();
        for (Condition condition : List.of(
                Condition.BICUBIC,
                Condition.AREA,
                Condition.SOFT,
                Condition.CRF_20,
                Condition.CRF_30,
                Condition.GRAIN)) {
            table(condition.heading(), condition, materials, waysFor(condition));
            if (condition == Condition.BICUBIC) {
                paper();
            }
        }
        passes(materials);
        drawings();
        colour();
        speed();
    }

    /** Where the models stand against a published net. */
    private void paper() {
        long count = stills.isEmpty() ? 1 : STILLS.size() + SKIMAGE.size();
        double bicubic = stills.getOrDefault("bicubic", 0.0);
        say(
                "Dong et al., \"Accelerating the super-resolution convolutional neural network\", ECCV 2016, report about +3.3 dB over"
                        + " bicubic for factor 2 on their first test set, with 12 to 25 thousand weights (a figure from memory)."
                        + " Over bicubic, on the stills above, which are other pictures:");
        say("");
        stills.forEach((name, sum) -> {
            if (!name.equals("bicubic")) {
                say(Figures.text("- %s: %+.2f dB", name, (sum - bicubic) / count));
            }
        });
        say("");
    }

    /** Three and four times: the photographic model in two passes, and a kernel for what is over. */
    private void passes(List<Material> materials) {
        List<Way> ways = List.of(
                Way.by("Lanczos 3", LANCZOS),
                Way.by("photographic quality, two passes", "enlarge model=photographic"),
                new Way("photographic quality, one pass, Lanczos 3", UnaryOperator.identity(), Quality::onePass));
        for (Condition condition : List.of(Condition.THIRD, Condition.QUARTER)) {
            table(condition.heading(), condition, materials, ways);
        }
    }

    /** Halved chroma: plainly enlarged, and sharpened by luma as every model does it. */
    private void colour() throws IOException {
        say("## Colour, 4:2:0, bicubic /2");
        say("");
        say("PSNR of the two colour difference planes, the mean of both. Plain: Catmull-Rom, as below every model.");
        say("");
        say("| picture | plain | sharpened by luma |");
        say("|---|---|---|");
        var files = new ArrayList<Path>();
        for (String name : STILLS) {
            files.add(packages.file("opencv-doc", EXAMPLES + name));
        }
        for (String name : SKIMAGE.subList(0, 2)) {
            files.add(packages.file("python3-skimage", "skimage/data/" + name));
        }
        for (Path file : files) {
            Frame truth = Pictures.colour(file);
            Format half = truth.format()
                    .withSize(truth.format().width() / 2, truth.format().height() / 2, Rational.ONE);
            Frame small = treated(List.of(new EnlargeStage(truth.format(), half, Kernel.CATMULL_ROM)), truth);
            for (int p = 0; p < 3; p++) {
                float[] data = small.plane(p).data();
                float steps = p == 0 ? 219 : 224;
                for (int i = 0; i < data.length; i++) {
                    data[i] = Math.round(data[i] * steps) / steps;
                }
            }
            double plain =
                    chroma(treated(List.of(new EnlargeStage(half, truth.format(), Kernel.CATMULL_ROM)), small), truth);
            double guided = chroma(
                    treated(List.of(new UpscaleStage(half, PHOTOGRAPHIC, Models.open(PHOTOGRAPHIC), 1)), small), truth);
            say(Figures.text("| %s | %.2f dB | %.2f (%+.2f) dB |", file.getFileName(), plain, guided, guided - plain));
        }
        say("");
    }

    private static double chroma(Frame made, Frame truth) {
        return (Psnr.of(made.plane(1), truth.plane(1), BORDER) + Psnr.of(made.plane(2), truth.plane(2), BORDER)) / 2;
    }

    private static List<Stage> onePass(Format in, int times) {
        var once = new UpscaleStage(in, PHOTOGRAPHIC, Models.open(PHOTOGRAPHIC), 1);
        Format out = in.withSize(in.width() * times, in.height() * times, in.sar());
        return List.of(once, new EnlargeStage(once.output(), out, Kernel.LANCZOS3));
    }

    private void drawings() throws IOException {
        var sheets = new ArrayList<Material>();
        for (Plane sheet : Drawings.load(packages, 0, 1).check()) {
            sheets.add(Material.of("sheet " + (char) ('A' + sheets.size()), sheet));
        }
        List<Way> ways = ways(family -> !family.equals("worn"));
        table(
                "Drawings (Debian's openclipart-svg, none seen in training), bicubic /2",
                Condition.BICUBIC,
                sheets,
                ways);
    }

    private List<Material> materials() throws IOException {
        var all = new ArrayList<Material>();
        for (String name : List.of("vtest.avi", "Megamind.avi", "tree.avi")) {
            all.add(Material.clip(name, packages.file("opencv-doc", EXAMPLES + name), 30, FRAMES));
        }
        for (String name : STILLS) {
            all.add(Material.still(name, packages.file("opencv-doc", EXAMPLES + name)));
        }
        for (String name : SKIMAGE) {
            all.add(Material.still(name, packages.file("python3-skimage", "skimage/data/" + name)));
        }
        return all;
    }

    /** Plain ways and models. @param id whether a family of models is wanted */
    private static List<Way> ways(Predicate<String> id) {
        var ways = new ArrayList<Way>();
        ways.add(Way.by("Lanczos 3", LANCZOS));
        for (ModelCard card : Models.enlarging()) {
            if (id.test(card.id())) {
                ways.add(model(card));
            }
        }
        return ways;
    }

    private static Way model(ModelCard card) {
        String mode = card.mode().id();
        return Way.by(card.id() + " " + mode, "enlarge model=" + card.id() + " mode=" + mode);
    }

    /** Models that can be told how soft footage is, told so, each behind itself untold. */
    private static void told(List<Way> ways, Condition condition) {
        int softness = condition.reducer() == Kernel.AREA ? 0 : condition.blur() > 0 ? 80 : 50;
        for (ModelCard card : Models.enlarging()) {
            Way untold = model(card);
            int at = ways.stream().map(Way::name).toList().indexOf(untold.name());
            if (card.told() && at >= 0) {
                String step =
                        "enlarge model=" + card.id() + " mode=" + card.mode().id() + " softness=" + softness;
                ways.add(at + 1, Way.by(untold.name() + ", told " + softness + " %", step));
            }
        }
    }

    private static List<Way> waysFor(Condition condition) {
        // drawings have a table of their own
        List<Way> ways = ways(family -> !family.equals("drawn"));
        if (condition.crf() < 0) {
            told(ways, condition);
        }
        if (condition.crf() >= 0) {
            Way plain = ways.getFirst();
            ways.add(1, new Way("deblocked, Lanczos 3", frames -> Codec.filtered(frames, "deblock"), plain.stages()));
        } else {
            ways.add(1, Way.by("bicubic", "enlarge kernel=catmull-rom"));
        }
        return ways;
    }

    private void table(String heading, Condition condition, List<Material> materials, List<Way> ways) {
        stills.clear();
        say("## " + heading);
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
                Score score = score(material, enlarged(way, small, condition.divisor()));
                scores.put(way, score);
                if (!material.moves()) {
                    stills.merge(way.name(), score.psnr(), Double::sum);
                }
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

    private List<Plane> enlarged(Way way, List<Plane> small, int times) {
        Format in = grey(small.getFirst().width(), small.getFirst().height());
        List<Stage> stages = way.stages().apply(in, times);
        var frames = new ArrayList<Frame>();
        for (Plane p : way.before().apply(small)) {
            frames.add(new Frame(in, in.whole(), List.of(p), frames.size(), Rational.ZERO));
        }
        var out = new ArrayList<Plane>();
        for (Frame frame : treated(stages, frames)) {
            Plane made = frame.plane(0);
            for (int i = 0; i < made.data().length; i++) {
                made.data()[i] = Math.clamp(made.data()[i], 0, 1);
            }
            out.add(made);
        }
        return out;
    }

    private Frame treated(List<Stage> stages, Frame frame) {
        return treated(stages, List.of(frame)).getFirst();
    }

    /** One frame whose neighbours are other frames that look alike, so that a model that reads several has all its work. */
    private Frame amongOthers(List<Stage> stages, Frame frame) {
        Frame now = frame;
        for (Stage stage : stages) {
            Frame before = now;
            now = stage.treat(
                    d -> new Frame(before.format(), before.window(), before.planes(), d, Rational.ZERO),
                    stage.output().whole(),
                    machine.planes(),
                    machine.work(new Cancel()));
            if (before != frame) {
                before.release(machine.planes());
            }
        }
        return now;
    }

    /** All frames of a clip, stage by stage. */
    private List<Frame> treated(List<Stage> stages, List<Frame> frames) {
        List<Frame> now = frames;
        for (Stage stage : stages) {
            List<Frame> before = now;
            now = IntStream.range(0, frames.size())
                    .mapToObj(i -> stage.treat(
                            d -> before.get(Math.clamp(i + d, 0, before.size() - 1)),
                            stage.output().whole(),
                            machine.planes(),
                            machine.work(new Cancel())))
                    .toList();
            if (before != frames) {
                before.forEach(frame -> frame.release(machine.planes()));
            }
        }
        return now;
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
        say(
                "All threads, the median of 5, treatment alone; the machine is noisy: read the ratios. *Work* is a net's multiply-adds"
                        + " in thousand millions a second; the processor's own figure to hold against it is cores x clock x twice the"
                        + " width of its vectors.");
        say("");
        say("| way | frames a second | times the quality model of its family | work |");
        say("|---|---|---|---|");
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
            List<Stage> stages = way.stages().apply(format, 2);
            Runnable one = () -> {
                for (int i = 0; i < 8; i++) {
                    amongOthers(stages, frame).release(pool);
                }
            };
            one.run();
            rates.put(way.name(), 8 / Figures.median(Figures.seconds(5, one)));
        }
        rates.forEach((name, rate) -> {
            Double quality = rates.get(name.split(" ")[0] + " quality");
            say(Figures.text(
                    "| %s | %.1f | %s | %s |",
                    name, rate, quality == null ? "" : Figures.text("%.1f", rate / quality), work(name, rate)));
        });
        say("");
    }

    /** Of a net: its weights are used once for every input sample, or for every step x step of them. */
    private static String work(String name, double framesASecond) {
        String[] words = name.split(" ");
        return Arrays.stream(ModelCard.Mode.values())
                .filter(mode -> words.length == 2 && mode.id().equals(words[1]))
                .flatMap(mode -> Models.find(words[0], mode).stream())
                .filter(card -> card.reach() > HashedFilters.REACH)
                .map(card -> (double) card.weights() / (card.step() * card.step()) * 640 * 360 * framesASecond)
                .map(adds -> Figures.text("%.0f", adds / 1e9))
                .findFirst()
                .orElse("");
    }

    private static Format grey(int width, int height) {
        return new Format(width, height, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }
}
