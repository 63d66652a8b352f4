package awlsmith.trainer.run;

import ai.djl.Model;
import ai.djl.engine.Engine;
import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.NDList;
import ai.djl.ndarray.NDManager;
import ai.djl.ndarray.types.DataType;
import ai.djl.ndarray.types.Shape;
import ai.djl.training.DefaultTrainingConfig;
import ai.djl.training.GradientCollector;
import ai.djl.training.Trainer;
import ai.djl.training.optimizer.Adam;
import ai.djl.training.tracker.Tracker;
import ai.onnxruntime.OrtException;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.net.ResidualNet;
import awlsmith.trainer.net.Weights;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.pairs.Patches;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;

/**
 * One run of training: draws patches, lessens a loss, keeps a running mean of the weights, and every few
 * minutes writes them as a model file with a line in the journal. Stopped at any time, it goes on from the last file.
 */
public final class Training {
    private static final int SIDE = 48;
    private static final int BATCH = 16;
    private static final int KEEP_EVERY = 500;
    private static final float MEAN_SHARE = 0.002f;

    private final Path folder;
    private final NetShape shape;
    private final Schedule schedule;
    private final Loss loss;
    private final Patches patches;
    private final Validation validation;
    private final Map<String, String> notes;
    private final long seed;
    private float rate;
    /** Iterations that the weights had behind them before this run. */
    private long begun;

    /** @param folder holds latest.onnx, best.onnx and journal.csv of this model */
    public Training(
            Path folder,
            NetShape shape,
            Schedule schedule,
            Loss loss,
            Patches patches,
            Validation validation,
            Map<String, String> notes,
            long seed) {
        this.folder = folder;
        this.shape = shape;
        this.schedule = schedule;
        this.loss = loss;
        this.patches = patches;
        this.validation = validation;
        this.notes = Map.copyOf(notes);
        this.seed = seed;
    }

    public static int side() {
        return SIDE;
    }

    /** Trains to the end of the schedule, from where this run was stopped or from a model file given, which may be null. */
    public void run(Path start) throws IOException, OrtException {
        Files.createDirectories(folder);
        Path latest = folder.resolve("latest.onnx");
        var journal = new Journal(folder.resolve("journal.csv"));
        List<Journal.Line> before = journal.lines();
        long earlier = before.isEmpty() ? iterations(start) : before.getLast().iteration();
        double spent = before.isEmpty() ? 0 : before.getLast().seconds();
        double best = before.stream().mapToDouble(Journal.Line::psnr).max().orElse(0);
        begun = before.isEmpty() ? earlier : 0;
        long first = 0;
        if (Files.exists(latest)) {
            start = latest;
            Map<String, String> notes = OnnxFile.notes(latest);
            begun = Long.parseLong(notes.getOrDefault("begun", "0"));
            long done = Long.parseLong(notes.getOrDefault("run", "0"));
            // a run that was stopped goes on; one that reached its end is followed by a new one
            first = done < schedule.iterations() ? done : 0;
        }
        var net = new ResidualNet(shape);
        var config = new DefaultTrainingConfig(ai.djl.training.loss.Loss.l1Loss())
                .optOptimizer(Adam.builder().optLearningRateTracker(tracker()).build());
        try (Model model = Model.newInstance("net", "PyTorch")) {
            Engine.getEngine("PyTorch").setRandomSeed((int) seed);
            model.setBlock(net);
            try (Trainer trainer = model.newTrainer(config);
                    Critic critic = critic()) {
                trainer.initialize(new Shape(BATCH, shape.in(), SIDE / shape.step(), SIDE / shape.step()));
                net.fill(start == null ? null : begun(start), seed);
                Weights mean = net.weights();
                double sum = 0;
                long sumOf = 0;
                long began = System.nanoTime();
                var feed = new Feed(earlier);
                for (long i = first; i < schedule.iterations(); i++) {
                    rate = (float) schedule.at(i);
                    sum += step(trainer, critic, feed);
                    sumOf++;
                    if (i % 5 == 4) {
                        // at first the mean of all so far, so that a short run does not drag its beginning along
                        mean.follow(net.weights(), Math.max(5 * MEAN_SHARE, 1f / (1 + (i - first) / 5)));
                    }
                    boolean end = i + 1 == schedule.iterations();
                    if (sumOf == KEEP_EVERY || end) {
                        long all = earlier + i + 1 - first;
                        double seconds = spent + (System.nanoTime() - began) / 1e9;
                        Validation.Score score = keep(latest, mean, all, i + 1);
                        if (critic != null) {
                            critic.keep();
                        }
                        journal.add(new Journal.Line(
                                all,
                                seconds,
                                rate,
                                sum / sumOf,
                                score.psnr(),
                                score.gain(),
                                score.ssim(),
                                score.gradient()));
                        new Curve(journal.lines()).write(folder.resolve("journal.png"));
                        if (score.psnr() > best || !loss.judgedByPsnr()) {
                            best = Math.max(best, score.psnr());
                            Files.copy(latest, folder.resolve("best.onnx"), StandardCopyOption.REPLACE_EXISTING);
                        }
                        sum = 0;
                        sumOf = 0;
                    }
                }
            }
        }
    }

    /** Null where the loss asks for none. */
    private Critic critic() throws IOException {
        return loss.critic() == 0
                ? null
                : new Critic(folder, Critic.shape(BATCH, shape.out(), SIDE / shape.step()), tracker(), seed);
    }

    /** The weights in a file, in this run's shape. */
    private Weights begun(Path start) throws IOException {
        Weights weights = OnnxFile.read(start);
        return weights.narrowed(Math.min(shape.channels(), weights.shape().channels()))
                .widened(shape.planes())
                .deepened(shape.blocks(), seed);
    }

    /** How long the model in a file was trained. */
    private static long iterations(Path model) throws IOException {
        return model == null ? 0 : Long.parseLong(OnnxFile.notes(model).getOrDefault("iterations", "0"));
    }

    /** Writes the weights, measures the file as it will be run, and notes the result in it. */
    private Validation.Score keep(Path latest, Weights mean, long iterations, long ofRun)
            throws IOException, OrtException {
        var all = new TreeMap<>(notes);
        all.put("iterations", "" + iterations);
        all.put("run", "" + ofRun);
        all.put("seed", "" + seed);
        all.put("loss", loss.words());
        all.put("begun", "" + begun);
        OnnxFile.write(latest, mean, all);
        Validation.Score score = validation.of(latest);
        all.put("gain", "" + score.gain());
        all.put("ssim", "" + score.ssim());
        all.put("gradient", "" + score.gradient());
        OnnxFile.write(latest, mean, all);
        return score;
    }

    private Tracker tracker() {
        return new Tracker() {
            @Override
            public float getNewValue(int update) {
                return rate;
            }
        };
    }

    private float step(Trainer trainer, Critic critic, Feed feed) {
        try (NDManager manager = trainer.getManager().newSubManager()) {
            Feed.Batch batch = feed.next();
            NDArray x = array(manager, batch.inputs(), shape.in());
            NDArray plain = array(manager, batch.plain(), shape.out());
            NDArray y = array(manager, batch.answers(), shape.out());
            float value;
            NDArray out;
            try (GradientCollector collector = trainer.newGradientCollector()) {
                out = trainer.forward(new NDList(x)).singletonOrThrow();
                NDArray error = loss.of(out, y, plain);
                if (critic != null) {
                    error = error.add(Slopes.times(critic.of(out, y, plain), loss.critic()));
                }
                collector.backward(error);
                value = error.getFloat();
            }
            if (Slopes.areNumbers(trainer.getModel().getBlock())) {
                trainer.step();
            }
            if (critic != null) {
                critic.learn(out, y, plain);
            }
            return value;
        }
    }

    private NDArray array(NDManager manager, ByteBuffer samples, int planes) {
        int side = SIDE / shape.step();
        // planes innermost in memory: the engine keeps to that order through the whole net and need not sort every
        // layer's input and output anew (a sixth faster)
        return manager.create(samples, new Shape(BATCH, planes, side, side), DataType.FLOAT32)
                .transpose(0, 2, 3, 1)
                .reshape(-1)
                .reshape(BATCH, side, side, planes)
                .transpose(0, 3, 1, 2);
    }

    /** Draws the next batch while one is learned from; the memory of two batches is used again and again. */
    private final class Feed {
        record Batch(ByteBuffer inputs, ByteBuffer plain, ByteBuffer answers) {}

        private final Batch[] batches = {fresh(), fresh()};
        private long iteration;
        private CompletableFuture<Batch> ahead;

        Feed(long first) {
            iteration = first;
            ahead = draw();
        }

        Batch next() {
            Batch now = ahead.join();
            ahead = draw();
            return now;
        }

        private CompletableFuture<Batch> draw() {
            long number = iteration++;
            Batch into = batches[(int) (number % 2)];
            return CompletableFuture.supplyAsync(() -> {
                patches.batch(
                        number,
                        BATCH,
                        into.inputs().asFloatBuffer(),
                        into.plain().asFloatBuffer(),
                        into.answers().asFloatBuffer());
                return into;
            });
        }

        private Batch fresh() {
            int large = shape.factor() * shape.factor();
            return new Batch(squares(shape.planes()), squares(large), squares(large));
        }

        private ByteBuffer squares(int planes) {
            return ByteBuffer.allocateDirect(SIDE * SIDE * BATCH * planes * Float.BYTES)
                    .order(ByteOrder.nativeOrder());
        }
    }
}
