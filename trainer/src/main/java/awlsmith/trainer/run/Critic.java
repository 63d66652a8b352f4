package awlsmith.trainer.run;

import ai.djl.MalformedModelException;
import ai.djl.Model;
import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.NDArrays;
import ai.djl.ndarray.NDList;
import ai.djl.ndarray.types.Shape;
import ai.djl.nn.Activation;
import ai.djl.training.DefaultTrainingConfig;
import ai.djl.training.GradientCollector;
import ai.djl.training.Trainer;
import ai.djl.training.optimizer.Adam;
import ai.djl.training.tracker.Tracker;
import awlsmith.trainer.net.CriticNet;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * A second net that learns beside the first to tell what it makes from what is true, so that the first learns to make what cannot be
 * told apart (Goodfellow et al., "Generative adversarial nets", NIPS 2014). Judged is how much truer the true squares look than the
 * made ones do in the mean, and the other way about (Jolicoeur-Martineau, "The relativistic discriminator", ICLR 2019): the
 * slopes do not die where the critic wins.
 */
final class Critic implements AutoCloseable {
    private static final String NAME = "critic";
    /** Added to what both are shown, a step of eight bits: the truth's rounding must not give it away. */
    private static final float NOISE = 1 / 255f;
    /** Detail is faint beside light; the critic sees it so many times as strong. */
    private static final float LOUDER = 6;

    private final Model model;
    private final Trainer trainer;
    private final CriticNet net = new CriticNet();
    private final Path folder;

    /** @param folder where a critic of a run that was stopped may lie; @param rate of learning, the first net's */
    Critic(Path folder, Shape pictures, Tracker rate, long seed) throws IOException {
        this.folder = folder;
        model = Model.newInstance(NAME, "PyTorch");
        model.setBlock(net);
        boolean known = Files.exists(folder.resolve(NAME + "-0000.params"));
        if (known) {
            try {
                model.load(folder, NAME);
            } catch (MalformedModelException e) {
                throw new IOException("the critic in " + folder + " cannot be read: " + e.getMessage(), e);
            }
        }
        var adam = Adam.builder().optBeta1(0.5f).optLearningRateTracker(rate).build();
        trainer = model.newTrainer(new DefaultTrainingConfig(ai.djl.training.loss.Loss.l1Loss()).optOptimizer(adam));
        trainer.initialize(pictures);
        if (!known) {
            net.fill(seed);
        }
    }

    /** Of what it reads, for a net that gives so many phases of squares of that side. */
    static Shape shape(long batch, long phases, long side) {
        return new Shape(batch, 2 * phases, side, side);
    }

    /**
     * What the first net pays for being told apart. Slopes reach the critic too; they are forgotten before it learns.
     *
     * @param made what a net adds to plain; @param truth what would have been right to add
     */
    NDArray of(NDArray made, NDArray truth, NDArray plain) {
        NDArray told = opinion(made, plain);
        NDArray real = opinion(truth, plain).stopGradient();
        return Activation.softPlus(real.sub(told.mean()))
                .mean()
                .add(Activation.softPlus(told.sub(real.mean()).neg()).mean());
    }

    /** One step of learning to tell them apart; what it cost. */
    float learn(NDArray made, NDArray truth, NDArray plain) {
        float value;
        try (GradientCollector collector = trainer.newGradientCollector()) {
            NDArray told = opinion(made.stopGradient(), plain);
            NDArray real = opinion(truth, plain);
            NDArray error = Activation.softPlus(told.sub(real.mean()))
                    .mean()
                    .add(Activation.softPlus(real.sub(told.mean()).neg()).mean());
            collector.backward(error);
            value = error.getFloat();
        }
        if (Slopes.areNumbers(net)) {
            trainer.step();
        }
        return value;
    }

    private NDArray opinion(NDArray detail, NDArray plain) {
        NDArray noise = detail.getManager().randomNormal(0, NOISE, detail.getShape(), detail.getDataType());
        NDArray heard = Slopes.times(detail.add(noise), LOUDER);
        return trainer.forward(new NDList(NDArrays.concat(new NDList(heard, plain), 1)))
                .singletonOrThrow();
    }

    /** Over what was kept before. */
    void keep() throws IOException {
        model.setProperty("Epoch", "0");
        model.save(folder, NAME);
    }

    @Override
    public void close() {
        trainer.close();
        model.close();
    }
}
