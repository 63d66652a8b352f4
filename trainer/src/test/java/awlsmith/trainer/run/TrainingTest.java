package awlsmith.trainer.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.pairs.Pair;
import awlsmith.trainer.pairs.Patches;
import awlsmith.trainer.pairs.Reduced;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class TrainingTest {
    private static final NetShape SHAPE = new NetShape(1, 4, 1, 2, 1);

    @TempDir
    Path folder;

    /** Discs and stripes: something whose lost detail can be learned quickly. */
    private static List<Pair> pairs() {
        Plane sharp = Plane.of(288, 192);
        for (int y = 0; y < 192; y++) {
            for (int x = 0; x < 288; x++) {
                boolean disc = (x % 24 - 12) * (x % 24 - 12) + (y % 24 - 12) * (y % 24 - 12) < 60;
                sharp.set(x, y, disc ? 0.9f : (x + y) % 12 < 6 ? 0.2f : 0.35f);
            }
        }
        return new Reduced(List.of(Kernel.CATMULL_ROM)).of(sharp, 2, new SplittableRandom(1));
    }

    private Training training(Path into, long iterations) {
        return new Training(
                into,
                SHAPE,
                new Schedule(0.004, iterations),
                new Loss.MeanError(),
                new Patches(pairs(), Training.side(), 2, 1, 1),
                new Validation(pairs()),
                Map.of("pictures", "discs"),
                1);
    }

    @Test
    void learnsKeepsAJournalAndGoesOnFromItsFile() throws Exception {
        Path first = folder.resolve("first");
        training(first, 60).run(null);
        List<Journal.Line> lines = new Journal(first.resolve("journal.csv")).lines();
        assertThat(lines).hasSize(1);
        assertThat(lines.getFirst().iteration()).isEqualTo(60);
        var before = new Validation(pairs());
        assertThat(before.of(first.resolve("best.onnx")).psnr())
                .isEqualTo(lines.getFirst().psnr(), within(1e-3));
        assertThat(OnnxFile.notes(first.resolve("latest.onnx")))
                .containsEntry("iterations", "60")
                .containsEntry("pictures", "discs")
                .containsKeys("gain", "ssim", "gradient");
        training(first, 120).run(null);
        lines = new Journal(first.resolve("journal.csv")).lines();
        assertThat(lines).extracting(Journal.Line::iteration).containsExactly(60L, 120L);
        assertThat(lines.get(1).loss()).isLessThan(lines.get(0).loss());
        assertThat(lines.get(1).psnr()).isGreaterThan(lines.get(0).psnr());
        assertThat(Files.exists(first.resolve("latest.onnx.new"))).isFalse();
        assertThat(OnnxFile.notes(first.resolve("latest.onnx"))).containsEntry("begun", "0");
        Path second = folder.resolve("second");
        training(second, 10).run(first.resolve("latest.onnx"));
        assertThat(OnnxFile.notes(second.resolve("latest.onnx")))
                .containsEntry("begun", "120")
                .containsEntry("iterations", "130");
        var curve = javax.imageio.ImageIO.read(first.resolve("journal.png").toFile());
        assertThat(curve.getWidth()).isEqualTo(900);
    }

    @Test
    void theRateRisesThenFallsByHalfACosine() {
        var schedule = new Schedule(0.001, 1000);
        assertThat(schedule.at(0)).isLessThan(0.00001);
        assertThat(schedule.at(299)).isGreaterThan(0.0007);
        assertThat(schedule.at(500)).isEqualTo(0.001 * (0.01 + 0.99 * 0.5), within(1e-9));
        assertThat(schedule.at(999)).isLessThan(0.000012);
    }

    /** At half the size inside: a net taught with the loss of the crisp mode is wrong by less of it than one that was not. */
    @Test
    void aSteppedNetLearnsHowStrongEdgesAre() throws Exception {
        var crisp = new Loss.Crisp(2);
        assertThat(crispLoss(crisp)).isLessThan(0.98 * crispLoss(new Loss.MeanError()));
        assertThat(OnnxFile.notes(folder.resolve(crisp.toString()).resolve("best.onnx"))
                        .get("loss"))
                .contains("gradient");
    }

    /** How wrong a net taught with a loss is by the crisp one: told by steps too small to learn anything. */
    private double crispLoss(Loss loss) throws Exception {
        Path at = folder.resolve(loss.toString());
        stepped(at, loss, new Schedule(0.004, 60)).run(null);
        stepped(at, loss, new Schedule(0.004, 60)).run(null);
        List<Journal.Line> lines = new Journal(at.resolve("journal.csv")).lines();
        assertThat(lines.get(1).loss()).isLessThan(lines.get(0).loss());
        Path judged = folder.resolve(loss + " judged");
        stepped(judged, new Loss.Crisp(2), new Schedule(1e-9, 20)).run(at.resolve("latest.onnx"));
        return new Journal(judged.resolve("journal.csv")).lines().getLast().loss();
    }

    private static Training stepped(Path into, Loss loss, Schedule schedule) {
        return new Training(
                into,
                new NetShape(1, 8, 1, 2, 2),
                schedule,
                loss,
                new Patches(pairs(), Training.side(), 2, 2, 1),
                new Validation(pairs()),
                Map.of(),
                1);
    }

    /** A critic learns beside the net, is kept with it and taken up again. */
    @Test
    void aCriticLearnsBeside() throws Exception {
        Path at = folder.resolve("made");
        var loss = new Loss.Made(new Loss.Texture(4, 8), 0.01);
        for (long iterations : new long[] {10, 20}) {
            new Training(
                            at,
                            SHAPE,
                            new Schedule(0.002, iterations),
                            loss,
                            new Patches(pairs(), Training.side(), 2, 1, 1),
                            new Validation(pairs()),
                            Map.of(),
                            1)
                    .run(null);
            assertThat(at.resolve("critic-0000.params")).exists();
        }
        assertThat(at.resolve("critic-0001.params")).doesNotExist();
        List<Journal.Line> lines = new Journal(at.resolve("journal.csv")).lines();
        assertThat(lines).extracting(Journal.Line::iteration).containsExactly(10L, 20L);
        assertThat(lines.get(1).psnr()).isFinite();
        assertThat(OnnxFile.notes(at.resolve("best.onnx")).get("loss")).contains("critic");
    }

    /** Where it cannot tell what is made from what is true its price is twice the logarithm of two; told apart, the net pays more. */
    @Test
    void aNetPaysForBeingToldApart() throws Exception {
        Path at = java.nio.file.Files.createDirectories(folder.resolve("critic"));
        var rate = new ai.djl.training.tracker.Tracker() {
            @Override
            public float getNewValue(int update) {
                return 0.002f;
            }
        };
        try (var critic = new Critic(at, Critic.shape(4, 4, 16), rate, 1);
                var manager = ai.djl.ndarray.NDManager.newBaseManager()) {
            var shape = new ai.djl.ndarray.types.Shape(4, 4, 16, 16);
            var plain = manager.zeros(shape);
            var flat = manager.zeros(shape);
            var rough = manager.randomNormal(0, 0.1f, shape, ai.djl.ndarray.types.DataType.FLOAT32);
            float before = critic.of(flat, rough, plain).getFloat();
            assertThat(before).isCloseTo((float) (2 * Math.log(2)), within(0.3f));
            float first = critic.learn(flat, rough, plain);
            float last = first;
            for (int i = 0; i < 40; i++) {
                last = critic.learn(flat, rough, plain);
            }
            assertThat(last).isLessThan(0.5f * first);
            assertThat(critic.of(flat, rough, plain).getFloat()).isGreaterThan(2 * before);
        }
    }
}
