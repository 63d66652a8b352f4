package awlsmith.trainer;

import awlsmith.benchmarks.footage.PackageCache;
import awlsmith.benchmarks.footage.PictureSet;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.core.upscale.NumberArray;
import awlsmith.trainer.hash.HashedTraining;
import awlsmith.trainer.pairs.Pair;
import awlsmith.trainer.pairs.PairMaker;
import awlsmith.trainer.pairs.Patches;
import awlsmith.trainer.run.Schedule;
import awlsmith.trainer.run.Training;
import awlsmith.trainer.run.Validation;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;

/** Trains a model, or puts a trained one among the shipped ones. */
public final class Main {
    private Main() {}

    public static void main(String[] arguments) throws Exception {
        switch (arguments.length == 0 ? "" : arguments[0]) {
            case "train" -> train(Options.of(arguments));
            case "ship" -> ship(Options.of(arguments));
            default -> System.out.print(Options.HELP);
        }
    }

    private static void train(Options options) throws Exception {
        Task task = options.task();
        Files.createDirectories(options.folder());
        PictureSet pictures = task.pictures(new PackageCache(options.packages()), options.seed());
        List<Pair> learn = pairs(pictures.learn(), task.makers(), options);
        List<Pair> check = pairs(pictures.check(), task.makers(), options);
        System.out.println(learn.size() + " pairs to learn from, " + check.size() + " to check on");
        var source = new Card.Source(pictures.words(), task.makers(), learn.size(), check.size());
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
                                    options.seed()),
                            new Validation(check),
                            source.notes(),
                            options.seed())
                    .run(options.start().orElse(null));
        }
    }

    private static List<Pair> pairs(
            List<awlsmith.core.picture.Plane> pictures, List<PairMaker> makers, Options options) {
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
        System.out.printf("%d samples: PSNR %.3f, %+.3f dB over Lanczos%n", samples, score.psnr(), score.gain());
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
