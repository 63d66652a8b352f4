package awlsmith.trainer;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.NumberArray;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.footage.PackageCache;
import awlsmith.footage.PictureSet;
import awlsmith.trainer.hash.HashedTraining;
import awlsmith.trainer.hash.SoftnessFit;
import awlsmith.trainer.net.Weights;
import awlsmith.trainer.onnx.EightBits;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.pairs.Pair;
import awlsmith.trainer.pairs.PairMaker;
import awlsmith.trainer.pairs.Patches;
import awlsmith.trainer.run.OnnxRun;
import awlsmith.trainer.run.Schedule;
import awlsmith.trainer.run.Training;
import awlsmith.trainer.run.Validation;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Trains a model, or puts a trained one among the shipped ones. */
public final class Main {
    private static final int EXAMPLES = 60;
    private static final int EXAMPLE_SIDE = 96;
    private static final int SPEED_WIDTH = 640;
    private static final int SPEED_HEIGHT = 360;
    private static final int SPEED_RUNS = 9;

    private Main() {}

    public static void main(String[] arguments) throws Exception {
        switch (arguments.length == 0 ? "" : arguments[0]) {
            case "train" -> train(Options.of(arguments));
            case "quicken" -> quicken(Options.of(arguments));
            case "blend" -> blend(Options.of(arguments));
            case "trial" -> trial(arguments);
            case "fit-softness" -> fitSoftness(Options.of(arguments));
            case "ship" -> ship(Options.of(arguments));
            default -> System.out.print(Options.HELP);
        }
    }

    private static void train(Options options) throws Exception {
        Task task = options.task();
        Files.createDirectories(options.folder());
        PictureSet pictures = task.pictures(new PackageCache(options.packages()), options.seed());
        List<Pair> learn = pairs(pictures.learn(), task.makers(options.mode()), options);
        List<Pair> check = pairs(pictures.check(), task.makers(options.mode()), options);
        System.out.println(learn.size() + " pairs to learn from, " + check.size() + " to check on");
        var source = new Card.Source(pictures.words(), task.makers(options.mode()), learn.size(), check.size());
        if (options.hashed()) {
            hashed(learn, check, source, options);
        } else {
            new Training(
                            options.folder(),
                            options.shape(),
                            new Schedule(options.rate(), options.iterations()),
                            options.loss(),
                            new Patches(
                                    learn,
                                    Training.side(),
                                    options.shape().factor(),
                                    options.shape().step(),
                                    options.seed(),
                                    task.flat()),
                            new Validation(check),
                            source.notes(),
                            options.seed())
                    .run(options.start().orElse(null));
        }
    }

    private static void fitSoftness(Options options) throws Exception {
        PictureSet pictures = Task.PHOTOGRAPHIC.pictures(new PackageCache(options.packages()), options.seed());
        System.out.println(SoftnessFit.found(pictures, options.seed()));
    }

    private static List<Pair> pairs(List<Plane> pictures, List<PairMaker> makers, Options options) {
        var random = new SplittableRandom(options.seed());
        var pairs = new ArrayList<Pair>();
        for (PairMaker maker : makers) {
            pictures.forEach(p -> pairs.addAll(maker.of(p, options.shape().factor(), random)));
        }
        return pairs;
    }

    private static void hashed(List<Pair> learn, List<Pair> check, Card.Source source, Options options)
            throws Exception {
        int factor = options.shape().factor();
        var training = new HashedTraining(factor);
        training.learn(learn, options.seed());
        float[] filters = training.filters();
        var score = new Validation(check).of(new HashedFilters(factor, filters));
        Path folder = options.folder();
        Files.write(folder.resolve("fast.npy"), NumberArray.write(filters));
        long samples = Arrays.stream(training.counts()).sum();
        Card.write(Card.ofHashed(options.task(), source, samples, score), folder.resolve("fast.json"));
        System.out.printf(
                "%d samples: PSNR %.3f, %+.3f dB over %s%n",
                samples, score.psnr(), score.gain(), options.task().rival());
    }

    /** Makes the eight-bit twin of a shipped net, with ranges from the pictures it learned from, and tells what it costs. */
    private static void quicken(Options options) throws Exception {
        Task task = options.task();
        PictureSet pictures = task.pictures(new PackageCache(options.packages()), options.seed());
        var validation = new Validation(pairs(pictures.check(), task.makers(options.mode()), options));
        String name = task.file(options.mode());
        Path model = options.into().resolve(name + ".onnx");
        Path twin = options.into().resolve(name + "-8.onnx");
        List<List<Plane>> examples = examples(pictures.learn(), task.makers(options.mode()), options);
        EightBits.write(model, examples, options.from(), twin);
        var whole = validation.of(model);
        var quick = validation.of(twin);
        System.out.printf(
                Locale.ROOT,
                "held-out gain %+.3f dB in floating point, %+.3f in eight bits%n",
                whole.gain(),
                quick.gain());
        double[] seconds = sideBySide(task, options.mode(), model, twin);
        System.out.printf(
                Locale.ROOT,
                "%dx%d in %.0f ms in floating point, %.0f in eight bits: %.2f times as fast%n",
                SPEED_WIDTH,
                SPEED_HEIGHT,
                1000 * seconds[0],
                1000 * seconds[1],
                seconds[0] / seconds[1]);
    }

    /** The middles of the first pairs it learned from; no more pairs are made than that. */
    private static List<List<Plane>> examples(List<Plane> pictures, List<PairMaker> makers, Options options) {
        var random = new SplittableRandom(options.seed());
        return makers.stream()
                .flatMap(maker -> pictures.stream()
                        .flatMap(p -> maker.of(p, options.shape().factor(), random).stream()))
                .limit(EXAMPLES)
                .map(Main::middle)
                .toList();
    }

    /** Medians of runs that take turns, so that a busy moment hits both. */
    private static double[] sideBySide(Task task, ModelCard.Mode mode, Path... models) throws Exception {
        double[][] seconds = new double[models.length][SPEED_RUNS];
        Plane in = Plane.of(SPEED_WIDTH, SPEED_HEIGHT);
        for (int i = 0; i < in.data().length; i++) {
            in.data()[i] = (float) (0.5 + 0.2 * Math.sin(i * 0.01));
        }
        List<Plane> shown = Collections.nCopies(task.planes(mode), in);
        Plane out = Plane.of(task.factor() * SPEED_WIDTH, task.factor() * SPEED_HEIGHT);
        for (int run = 0; run < SPEED_RUNS; run++) {
            for (int m = 0; m < models.length; m++) {
                try (var net = new OnnxRun(models[m])) {
                    net.run(shown, out);
                    long begun = System.nanoTime();
                    net.run(shown, out);
                    seconds[m][run] = (System.nanoTime() - begun) / 1e9;
                }
            }
        }
        return Arrays.stream(seconds)
                .mapToDouble(all -> Arrays.stream(all).sorted().toArray()[SPEED_RUNS / 2])
                .toArray();
    }

    private static List<Plane> middle(Pair pair) {
        int width = Math.min(EXAMPLE_SIDE, pair.width());
        int height = Math.min(EXAMPLE_SIDE, pair.height());
        var part = new Region((pair.width() - width) / 2, (pair.height() - height) / 2, width, height);
        return pair.shown().stream().map(plane -> plane.window(part)).toList();
    }

    /**
     * Between two nets of which one was trained on from the other all weights in between are nets, and do what lies in between (Wang et
     * al., "ESRGAN", ECCV workshops 2018, section 3.4, from memory).
     */
    private static void blend(Options options) throws Exception {
        Path latest = options.folder().resolve("latest.onnx");
        Weights weights = OnnxFile.read(latest);
        weights.follow(OnnxFile.read(options.with()), options.share());
        PictureSet pictures = options.task().pictures(new PackageCache(options.packages()), options.seed());
        var validation = new Validation(pairs(pictures.check(), options.task().makers(options.mode()), options));
        Path best = options.folder().resolve("best.onnx");
        var notes = new TreeMap<>(OnnxFile.notes(latest));
        OnnxFile.write(best, weights, notes);
        Validation.Score score = validation.of(best);
        notes.put("gain", "" + score.gain());
        notes.put("ssim", "" + score.ssim());
        notes.put("gradient", "" + score.gradient());
        notes.put("loss", notes.get("loss") + "; led back by " + options.share() + " to where it began");
        OnnxFile.write(best, weights, notes);
        System.out.printf(
                Locale.ROOT,
                "PSNR %.3f, %+.3f dB over %s, gradient %.3f%n",
                score.psnr(),
                score.gain(),
                options.task().rival(),
                score.gradient());
    }

    private static void trial(String[] arguments) throws Exception {
        var words = Arrays.stream(arguments).skip(1).collect(Collectors.partitioningBy(word -> word.contains("=")));
        String[] keys =
                Stream.concat(Stream.of("trial"), words.get(true).stream()).toArray(String[]::new);
        Trial.of(
                words.get(false).stream().map(Path::of).toList(),
                new PackageCache(Options.of(keys).packages()));
    }

    private static void ship(Options options) throws Exception {
        Path folder = options.folder();
        if (options.hashed()) {
            Card.ship(Card.read(folder.resolve("fast.json")), folder.resolve("fast.npy"), options.into());
        } else {
            Path best = folder.resolve("best.onnx");
            Card.ship(Card.ofNet(options.task(), options.mode(), best), best, options.into());
        }
    }
}
