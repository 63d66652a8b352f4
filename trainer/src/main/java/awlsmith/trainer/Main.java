package awlsmith.trainer;

import awlsmith.core.resample.Kernel;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.net.Weights;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.pairs.Pair;
import awlsmith.trainer.pairs.PairMaker;
import awlsmith.trainer.pairs.Patches;
import awlsmith.trainer.pairs.Reduced;
import awlsmith.trainer.pictures.PackageCache;
import awlsmith.trainer.pictures.PhotographSet;
import awlsmith.trainer.run.Schedule;
import awlsmith.trainer.run.Training;
import awlsmith.trainer.run.Validation;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;

/** {@code train key=value ...}: one run of training. */
public final class Main {
    private Main() {}

    public static void main(String[] arguments) throws Exception {
        Map<String, String> set = new HashMap<>(Map.of(
                "folder", ".awlsmith/training/photographic",
                "pictures", ".awlsmith/training/pictures",
                "channels", "32",
                "blocks", "5",
                "factor", "2",
                "iterations", "12000",
                "rate", "0.001",
                "seed", "1"));
        for (String argument : arguments) {
            int equals = argument.indexOf('=');
            set.put(argument.substring(0, equals), argument.substring(equals + 1));
        }
        int factor = Integer.parseInt(set.get("factor"));
        long seed = Long.parseLong(set.get("seed"));
        var shape = new NetShape(1, Integer.parseInt(set.get("channels")), Integer.parseInt(set.get("blocks")), factor);
        List<PairMaker> makers = List.of(new Reduced(List.of(Kernel.CATMULL_ROM, Kernel.AREA)));
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
}
