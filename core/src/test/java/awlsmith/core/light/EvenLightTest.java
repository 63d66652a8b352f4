package awlsmith.core.light;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import java.util.List;
import java.util.Random;
import java.util.function.IntToDoubleFunction;
import org.junit.jupiter.api.Test;

class EvenLightTest {
    private static final Format FORMAT = Clips.format(96, 72, Chroma.S420);
    private static final int COUNT = 40;

    /** A scene of all levels that moves a little, its light multiplied for each frame. */
    private static FrameSource lit(IntToDoubleFunction gain) {
        return lit(gain, COUNT);
    }

    private static FrameSource lit(IntToDoubleFunction gain, int cut) {
        return Clips.painted(FORMAT, COUNT, (n, p, x, y) -> {
            if (p > 0) {
                return 0.1;
            }
            double u = n < cut ? x + 0.4 * n : 95 - x;
            double v = n < cut ? y : 71 - y;
            double scene = 0.1 + 0.5 * u / 110 + 0.25 * Math.sin(u * 0.13) * Math.sin(v * 0.11);
            return Math.clamp(scene * gain.applyAsDouble(n), 0, 1);
        });
    }

    private static double mean(Frame frame) {
        Plane luma = frame.plane(0);
        double sum = 0;
        for (int y = 0; y < luma.height(); y++) {
            for (int x = 0; x < luma.width(); x++) {
                sum += luma.at(x, y);
            }
        }
        return sum / (luma.width() * luma.height());
    }

    private static List<Double> means(FrameSource clip, EvenLightStage... stages) {
        return Clips.run(clip, FrameRange.all(), FORMAT.whole(), stages).stream()
                .map(EvenLightTest::mean)
                .toList();
    }

    /** Root mean square of the second difference: what jumps, not what goes on. */
    private static double jumps(List<Double> light, int from, int end) {
        double sum = 0;
        for (int n = from + 1; n + 1 < end; n++) {
            double d = light.get(n) - (light.get(n - 1) + light.get(n + 1)) / 2;
            sum += d * d;
        }
        return Math.sqrt(sum / (end - from - 2));
    }

    @Test
    void flickerIsTakenOut() {
        var random = new Random(4);
        double[] gain = random.doubles(COUNT).map(v -> 0.9 + 0.2 * v).toArray();
        var before = means(lit(n -> gain[n]));
        var after = means(lit(n -> gain[n]), new EvenLightStage(FORMAT, 5, 1));
        assertThat(jumps(after, 6, 34)).isLessThan(0.25 * jumps(before, 6, 34));
        var half = means(lit(n -> gain[n]), new EvenLightStage(FORMAT, 5, 0.5));
        assertThat(jumps(half, 6, 34)).isBetween(0.4 * jumps(before, 6, 34), 0.7 * jumps(before, 6, 34));
    }

    @Test
    void aFlashComesBackToItsNeighbours() {
        var calm = means(lit(n -> 0.8));
        var after = means(lit(n -> n == 20 ? 1.1 : 0.8), new EvenLightStage(FORMAT, 4, 1));
        assertThat(after.get(20)).isCloseTo(calm.get(20), within(0.006));
        // those around it are not drawn towards it
        assertThat(after.get(19)).isCloseTo(calm.get(19), within(0.004));
        assertThat(after.get(21)).isCloseTo(calm.get(21), within(0.004));
    }

    @Test
    void aFadeStaysAFade() {
        var before = means(lit(n -> 0.2 + 0.02 * n));
        var after = means(lit(n -> 0.2 + 0.02 * n), new EvenLightStage(FORMAT, 5, 1));
        for (int n = 0; n < COUNT; n++) {
            assertThat(after.get(n)).as("frame %d", n).isCloseTo(before.get(n), within(0.004));
        }
    }

    @Test
    void lightDoesNotCrossACut() {
        IntToDoubleFunction gain = n -> n < 20 ? 0.5 : 1;
        var before = means(lit(gain, 20));
        var after = means(lit(gain, 20), new EvenLightStage(FORMAT, 5, 1));
        for (int n = 12; n < 28; n++) {
            assertThat(after.get(n)).as("frame %d", n).isCloseTo(before.get(n), within(0.006));
        }
    }

    @Test
    void anyPartIsTheSameAsOfTheWhole() {
        var random = new Random(7);
        double[] gain = random.doubles(COUNT).map(v -> 0.9 + 0.2 * v).toArray();
        var stage = new EvenLightStage(FORMAT, 3, 1);
        var whole = Clips.run(lit(n -> gain[n]), FrameRange.all(), FORMAT.whole(), stage);
        Region part = new Region(20, 10, 30, 24);
        var some = Clips.run(lit(n -> gain[n]), new FrameRange(10, 13), part, stage);
        for (int i = 0; i < 3; i++) {
            for (int p = 0; p < 3; p++) {
                assertThat(some.get(i).plane(p).packed())
                        .isEqualTo(whole.get(10 + i).cut(part).plane(p).packed());
            }
        }
    }

    @Test
    void settingsBeyondTheirRangeAreRefused() {
        assertThatThrownBy(() -> new EvenLightStage(FORMAT, 13, 1)).hasMessageContaining("must be 1..12");
        assertThatThrownBy(() -> new EvenLightStage(FORMAT, 3, 1.5)).hasMessageContaining("0..1");
    }
}
