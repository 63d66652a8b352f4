package awlsmith.trainer;

import awlsmith.benchmarks.footage.PackageCache;
import awlsmith.core.upscale.GradientHash;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.core.upscale.NumberArray;
import awlsmith.trainer.hash.HashedTraining;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.net.Weights;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.pairs.Pair;
import awlsmith.trainer.pairs.PairMaker;
import awlsmith.trainer.pairs.Patches;
import awlsmith.trainer.pictures.PhotographSet;
import awlsmith.trainer.run.Schedule;
import awlsmith.trainer.run.Training;
import awlsmith.trainer.run.Validation;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;

/** {@code train key=value ...}: one run of training. */
public final class Main {
    private Main() {}

    public static void main(String[] arguments) throws Exception {
        Map<String, String> set = new HashMap<>(pairs(
                "task", "photographic",
                "kind", "net",
                "pictures", ".awlsmith/training/pictures",
                "channels", "32",
                "blocks", "5",
                "factor", "2",
                "iterations", "12000",
                "rate", "0.0004",
                "seed", "1"));
        for (String argument : arguments) {
            int equals = argument.indexOf('=');
            set.put(argument.substring(0, equals), argument.substring(equals + 1));
        }
        set.putIfAbsent("folder", ".awlsmith/training/" + set.get("task"));
        int factor = Integer.parseInt(set.get("factor"));
        long seed = Long.parseLong(set.get("seed"));
        var shape = new NetShape(1, Integer.parseInt(set.get("channels")), Integer.parseInt(set.get("blocks")), factor);
        List<PairMaker> makers = Task.byId(set.get("task")).makers();
        var pictures = PhotographSet.load(new PackageCache(Path.of(set.get("pictures"))));
        var random = new SplittableRandom(seed);
        List<Pair> learn = new ArrayList<>();
        List<Pair> check = new ArrayList<>();
        for (PairMaker maker : makers) {
            pictures.learn().forEach(p -> learn.addAll(maker.of(p, factor, random)));
            pictures.check().forEach(p -> check.addAll(maker.of(p, factor, random)));
        }
        System.out.println(learn.size() + " pairs to learn from, " + check.size() + " to check on, " + shape.weights()
                + " weights");
        if (set.get("kind").equals("hashed")) {
            hashed(learn, check, factor, seed, Path.of(set.get("folder")));
            return;
        }
        Weights start = set.containsKey("start") ? OnnxFile.read(Path.of(set.get("start"))) : null;
        new Training(
                        Path.of(set.get("folder")),
                        shape,
                        new Schedule(Double.parseDouble(set.get("rate")), Long.parseLong(set.get("iterations"))),
                        new Patches(learn, Training.side(), factor, seed),
                        new Validation(check),
                        seed)
                .run(start);
    }

    private static Map<String, String> pairs(String... words) {
        var all = new HashMap<String, String>();
        for (int i = 0; i < words.length; i += 2) {
            all.put(words[i], words[i + 1]);
        }
        return all;
    }

    private static void hashed(List<Pair> learn, List<Pair> check, int factor, long seed, Path folder)
            throws IOException {
        var training = new HashedTraining(factor);
        training.learn(learn, seed);
        float[] filters = training.filters();
        var score = new Validation(check).of(new HashedFilters(factor, filters));
        long used = Arrays.stream(training.counts()).filter(n -> n > 0).count();
        Files.createDirectories(folder);
        Files.write(folder.resolve("fast.npy"), NumberArray.write(filters));
        System.out.printf(
                Locale.ROOT,
                "%d samples in %d of %d buckets: PSNR %.3f, %+.3f dB over Lanczos, SSIM %.5f%n",
                Arrays.stream(training.counts()).sum(),
                used,
                GradientHash.BUCKETS,
                score.psnr(),
                score.gain(),
                score.ssim());
    }
}
