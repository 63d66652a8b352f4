package awlsmith.trainer.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.NDManager;
import ai.djl.ndarray.types.Shape;
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
                    Loss.Crisp.picture(phases(manager, (x, y) -> y * 8 + x, 1)).toFloatArray();
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
            for (Loss loss : new Loss[] {new Loss.MeanError(), new Loss.Crisp(2)}) {
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
}
