package awlsmith.server.models;

import awlsmith.core.clean.DenoiseStage;
import awlsmith.core.clean.NoiseModel;
import awlsmith.core.clean.RepairStage;
import awlsmith.core.fields.DeinterlaceStage;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelStage;
import awlsmith.core.model.Models;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.upscale.UpscaleStage;
import awlsmith.render.Machine;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Service;

/** How fast each model is on this machine: measured when it is first wanted, then kept. */
@Service
public class ModelSpeeds {
    private static final int WIDTH = 384;
    private static final int HEIGHT = 216;
    private static final int RUNS = 3;
    /** Deviation of the noise that a model against noise is told. */
    private static final double NOISE = 8 / 255.0;

    private final ModelSpeedRepository kept;
    private final Machine machine;
    private final Clock clock;
    private final Map<ModelCard, Double> known = new ConcurrentHashMap<>();

    ModelSpeeds(ModelSpeedRepository kept, Machine machine, Clock clock) {
        this.kept = kept;
        this.machine = machine;
        this.clock = clock;
    }

    /** Seconds the models of a chain take for one frame; 0 when there are none. */
    public double secondsAFrame(Chain chain) {
        double seconds = 0;
        Format in = chain.source();
        for (Stage stage : chain.stages()) {
            if (stage.inner() instanceof ModelStage with && with.model().isPresent()) {
                seconds += (double) in.width()
                        * in.height()
                        / pixelsASecond(with.model().get());
            }
            in = stage.output();
        }
        return seconds;
    }

    /** Input pixels a second on all threads; measures for about a second the first time. */
    public double pixelsASecond(ModelCard card) {
        return known.computeIfAbsent(card, c -> {
            OptionalDouble before = kept.find(c.id(), c.mode().id());
            if (before.isPresent()) {
                return before.getAsDouble();
            }
            return fresh(c);
        });
    }

    /** Measures again, for when the machine was busy the first time or has changed since. */
    public void measureAgain(ModelCard card) {
        known.put(card, fresh(card));
    }

    private double fresh(ModelCard card) {
        double speed = measured(card);
        kept.keep(card.id(), card.mode().id(), speed, clock.instant());
        return speed;
    }

    /** As {@link #pixelsASecond}, but without measuring. */
    OptionalDouble ifKnown(ModelCard card) {
        Double speed = known.get(card);
        return speed != null
                ? OptionalDouble.of(speed)
                : kept.find(card.id(), card.mode().id());
    }

    /** Measured by one at a time: two that measure at once would find half the speed. */
    private synchronized double measured(ModelCard card) {
        var format = new Format(WIDTH, HEIGHT, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        var pool = machine.planes();
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, pool);
        float[] light = frame.plane(0).data();
        for (int i = 0; i < light.length; i++) {
            light[i] = 0.5f + 0.3f * (float) Math.sin(i * 0.37) + 0.1f * (float) Math.sin(i * 0.011);
        }
        Stage stage = switch (card.job()) {
            case ENLARGE -> new UpscaleStage(format, card, Models.open(card), 1);
            case FIELDS -> new DeinterlaceStage(format, Scan.TOP_FIRST, true, card, Models.open(card));
            case DENOISE ->
                new DenoiseStage(format, NoiseModel.even(NOISE, NOISE, 1), 2, 1, 1, card, Models.open(card));
            case REPAIR -> new RepairStage(format, card, Models.open(card), 1, List.of(RepairStage.UNKNOWN), true);
            case REFINE ->
                new RepairStage(
                        format, card, Models.open(card), 1, List.of(RepairStage.UNKNOWN, RepairStage.UNKNOWN), false);
        };
        double best = Double.MAX_VALUE;
        for (int i = 0; i < RUNS; i++) {
            long start = System.nanoTime();
            // frames of their own numbers, so that a model that reads several has them to lay over each other
            stage.treat(
                            d -> new Frame(format, format.whole(), frame.planes(), d, Rational.ZERO),
                            stage.output().whole(),
                            pool,
                            machine.work(new Cancel()))
                    .release(pool);
            best = Math.min(best, (System.nanoTime() - start) / 1e9);
        }
        frame.release(pool);
        return WIDTH * HEIGHT / best;
    }
}
