package awlsmith.trainer.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import ai.djl.engine.Engine;
import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.NDManager;
import ai.djl.ndarray.types.Shape;
import ai.djl.training.GradientCollector;
import java.nio.ByteBuffer;
import org.junit.jupiter.api.Test;

class LossTest {
    private static final Shape PHASES = new Shape(1, 4, 4, 4);

    /** 8x8 samples as four planes of every second one. */
    private static NDArray phases(NDManager manager, java.util.function.IntBinaryOperator sample, float scale) {
        float[] values = new float[64];
        for (int y = 0; y < 8; y++) {
            for (int x = 0; x < 8; x++) {
                values[((y % 2 * 2 + x % 2) * 4 + y / 2) * 4 + x / 2] = scale * sample.applyAsInt(x, y);
            }
        }
        return manager.create(values, PHASES);
    }

    @Test
    void phasesAreLaidOutAsThePicture() {
        try (NDManager manager = NDManager.newBaseManager("PyTorch")) {
            float[] picture =
                    Loss.picture(phases(manager, (x, y) -> y * 8 + x, 1)).toFloatArray();
            for (int i = 0; i < 64; i++) {
                assertThat(picture[i]).isEqualTo(i);
            }
        }
    }

    @Test
    void theTruthCostsNothing() {
        try (NDManager manager = NDManager.newBaseManager("PyTorch")) {
            NDArray plain = phases(manager, (x, y) -> x, 0.1f);
            NDArray answers = phases(manager, (x, y) -> x * y % 3, 0.1f);
            for (Loss loss : new Loss[] {new Loss.MeanError(), new Loss.Crisp(2), new Loss.Texture(2, 4)}) {
                assertThat(loss.of(answers, answers, plain).getFloat()).isZero();
            }
        }
    }

    /**
     * Worked by hand: the truth is a slope of 0.1 a sample across, the answer given is flat. Its gradient has the length 0.1
     * everywhere, the flat one's the root of the least slope, 0.001; so the strength is wrong by the root of 0.01 + 1e-6, less 0.001.
     */
    @Test
    void missingStrengthCosts() {
        try (NDManager manager = NDManager.newBaseManager("PyTorch")) {
            NDArray none = phases(manager, (x, y) -> 0, 1);
            NDArray slope = phases(manager, (x, y) -> x, 0.1f);
            float error = new Loss.MeanError().of(none, slope, none).getFloat();
            assertThat(error).isEqualTo(0.35f, within(1e-6f));
            assertThat(new Loss.Crisp(3).of(none, slope, none).getFloat())
                    .isEqualTo((float) (error + 3 * (Math.sqrt(0.01 + 1e-6) - 0.001)), within(1e-5f));
        }
    }

    /** Texture of the right strength in the wrong place costs the crisp loss less than its error alone would say. */
    @Test
    void strengthIsRightWhereverItsGrainsLie() {
        try (NDManager manager = NDManager.newBaseManager("PyTorch")) {
            NDArray none = phases(manager, (x, y) -> 0, 1);
            NDArray stripes = phases(manager, (x, y) -> x / 2 % 2, 0.2f);
            NDArray moved = phases(manager, (x, y) -> (x / 2 + 1) % 2, 0.2f);
            var error = new Loss.MeanError();
            var crisp = new Loss.Crisp(1);
            assertThat(crisp.of(moved, stripes, none).getFloat())
                    .isEqualTo(error.of(moved, stripes, none).getFloat(), within(1e-6f));
            assertThat(crisp.of(none, stripes, none).getFloat())
                    .isGreaterThan(error.of(none, stripes, none).getFloat() + 0.09f);
        }
    }

    /** A fine chequer, the cheapest way to steep steps, brings no strength: its cost is its error and nothing less. */
    @Test
    void aChequerIsNoTexture() {
        try (NDManager manager = NDManager.newBaseManager("PyTorch")) {
            NDArray none = phases(manager, (x, y) -> 0, 1);
            NDArray stripes = phases(manager, (x, y) -> x / 2 % 2, 0.2f);
            NDArray chequer = phases(manager, (x, y) -> (x + y) % 2, 0.2f);
            var error = new Loss.MeanError();
            var crisp = new Loss.Crisp(1);
            float missing = crisp.of(none, stripes, none).getFloat()
                    - error.of(none, stripes, none).getFloat();
            float chequered = crisp.of(chequer, stripes, none).getFloat()
                    - error.of(chequer, stripes, none).getFloat();
            assertThat(chequered).isEqualTo(missing, within(1e-6f));
        }
    }

    /** An orthonormal transform's rows have length 1, stand upright on each other, and all but the first have no mean. */
    @Test
    void theBandsAreThoseOfTheCosineTransform() {
        float[] bands = Loss.Texture.bands();
        for (int a = 0; a < 8; a++) {
            double sum = 0;
            for (int i = 0; i < 9; i++) {
                sum += bands[9 * a + i];
            }
            assertThat(sum).isCloseTo(0, within(1e-6));
            for (int b = 0; b < 8; b++) {
                double product = 0;
                for (int i = 0; i < 9; i++) {
                    product += bands[9 * a + i] * bands[9 * b + i];
                }
                assertThat(product).isCloseTo(a == b ? 1 : 0, within(1e-6));
            }
        }
    }

    /**
     * Worked by hand: of a slope of 0.1 a sample across only the band that is odd across and even down answers, with 0.2 / root 2 times
     * root 3; its square is 0.06. The flat answer has the root of the least, 0.001, in all eight.
     */
    @Test
    void missingTextureCostsInItsBand() {
        try (NDManager manager = NDManager.newBaseManager("PyTorch")) {
            NDArray none = phases(manager, (x, y) -> 0, 1);
            NDArray slope = phases(manager, (x, y) -> x, 0.1f);
            float error = new Loss.MeanError().of(none, slope, none).getFloat();
            assertThat(new Loss.Texture(3, 4).of(none, slope, none).getFloat())
                    .isEqualTo((float) (error + 3 * (Math.sqrt(0.06 + 1e-6) - 0.001) / 8), within(1e-5f));
        }
    }

    /** Texture that runs another way, or a chequer as strong, does not stand for stripes: both cost more than stripes elsewhere do. */
    @Test
    void eachBandHasToHaveItsOwnStrength() {
        try (NDManager manager = NDManager.newBaseManager("PyTorch")) {
            NDArray none = phases(manager, (x, y) -> 0, 1);
            NDArray stripes = phases(manager, (x, y) -> x / 2 % 2, 0.2f);
            var error = new Loss.MeanError();
            var texture = new Loss.Texture(1, 4);
            float moved = cost(texture, error, phases(manager, (x, y) -> (x / 2 + 1) % 2, 0.2f), stripes, none);
            assertThat(moved).isCloseTo(0, within(1e-5f));
            assertThat(cost(texture, error, phases(manager, (x, y) -> y / 2 % 2, 0.2f), stripes, none))
                    .isGreaterThan(0.02f);
            assertThat(cost(texture, error, phases(manager, (x, y) -> (x + y) % 2, 0.2f), stripes, none))
                    .isGreaterThan(0.02f);
        }
    }

    /** Memory that Java took back between a loss and its slopes made them garbage in one run of thirty. */
    @Test
    void slopesAreTheSameWhereMemoryWasTidiedBetween() {
        for (Loss loss : new Loss[] {new Loss.Crisp(2), new Loss.Texture(2, 4)}) {
            assertThat(slopes(loss, true)).isEqualTo(slopes(loss, false));
        }
    }

    private static float[] slopes(Loss loss, boolean tidied) {
        try (NDManager manager = NDManager.newBaseManager("PyTorch")) {
            NDArray none = phases(manager, (x, y) -> 0, 1);
            NDArray truth = phases(manager, (x, y) -> x / 2 % 2, 0.2f);
            NDArray out = phases(manager, (x, y) -> (x + 2 * y) % 5, 0.07f);
            out.setRequiresGradient(true);
            try (GradientCollector collector = Engine.getEngine("PyTorch").newGradientCollector()) {
                NDArray error = loss.of(out, truth, none);
                if (tidied) {
                    tidy();
                }
                collector.backward(error);
            }
            return out.getGradient().toFloatArray();
        }
    }

    /** Has what nobody holds taken back, and its memory written over. */
    private static void tidy() {
        for (int round = 0; round < 3; round++) {
            System.gc();
            for (int i = 0; i < 20_000; i++) {
                ByteBuffer.allocateDirect(4).putInt(0x7f7fffff);
            }
        }
    }

    /** What a loss asks beyond the error. */
    private static float cost(Loss loss, Loss error, NDArray out, NDArray answers, NDArray plain) {
        return loss.of(out, answers, plain).getFloat()
                - error.of(out, answers, plain).getFloat();
    }
}
