package awlsmith.core.retime;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.motion.PictureBetween.Doubt;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ShutterStageTest {
    private static final Format FORMAT =
            new Format(96, 64, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    private static final int FRAMES = 10;
    /** Samples to the right in a frame. */
    private static final double SPEED = 4;

    /** Soft edges that go to the right, whose light over a time can be written down. */
    private static double wave(double n, double x) {
        return 0.5 + 0.3 * Math.sin((x - SPEED * n) * 2 * Math.PI / 32);
    }

    private static Treatment treatment(String step) {
        return new Recipe(List.of(Step.parse(step))).on(new Material(FORMAT, Timing.steady(Rational.of(25), FRAMES)));
    }

    private static List<Frame> frames(Treatment treatment, FrameSource clip) {
        return frames(treatment.chain(), clip);
    }

    private static List<Frame> frames(Chain chain, FrameSource clip) {
        var all = new ArrayList<Frame>();
        try (var stream = chain.open(clip, FrameRange.all(), FORMAT.whole(), new PlanePool(0), Work.alone())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                all.add(frame.get());
            }
        }
        return all;
    }

    /** A wave that moves while the shutter is open is as much weaker as its mean over that time. */
    @ParameterizedTest
    @CsvSource({"25, 90", "25, 180", "25, 360", "50, 360", "25/2, 180"})
    void whatMovesIsBlurredByTheTimeTheShutterIsOpen(String rate, int degrees) {
        FrameSource clip = Clips.painted(FORMAT, FRAMES, (n, p, x, y) -> wave(n, x) + 0.02 * Math.sin(0.7 * y));
        Timing times = Timing.steady(Rational.of(25), FRAMES);
        Rational out = Rational.parse(rate);
        var quick = new MadeStage(FORMAT, times, out.times(ShutterStage.PARTS), new MadeStage.Way(Doubt.MOTION, 0.3));
        var chain =
                new Chain(FORMAT, times, List.of(quick, new ShutterStage(FORMAT, quick.times(times), out, degrees)));
        List<Frame> all = frames(chain, clip);
        assertThat(all).hasSize((int) Math.ceil(FRAMES * out.toDouble() / 25));
        double way = SPEED * 25 / out.toDouble() * degrees / 360;
        double weaker = Math.sin(Math.PI * way / 32) / (Math.PI * way / 32);
        Frame middle = all.get(all.size() / 2);
        double moment = middle.number() * 25 / out.toDouble();
        for (int x = 24; x < 72; x++) {
            double wanted = 0.5 + weaker * (wave(moment, x) - 0.5) + 0.02 * Math.sin(0.7 * 32);
            assertThat((double) middle.plane(0).at(x, 32)).isCloseTo(wanted, within(0.012));
        }
    }

    @Test
    void whatStandsStaysAsItIs() {
        FrameSource clip = Clips.painted(FORMAT, FRAMES, (n, p, x, y) -> wave(0, x) + 0.1 * Math.sin(0.9 * y));
        List<Frame> made = frames(treatment("rate rate=25 frames=made shutter=360"), clip);
        assertThat(made).hasSize(FRAMES);
        for (int x = 0; x < 96; x++) {
            assertThat((double) made.get(4).plane(0).at(x, 30))
                    .isCloseTo(wave(0, x) + 0.1 * Math.sin(0.9 * 30), within(1e-5));
        }
    }

    /** No frame shows two scenes. */
    @Test
    void scenesAreNotMixed() {
        FrameSource clip = Clips.painted(
                FORMAT,
                FRAMES,
                (n, p, x, y) -> n < 5 ? 0.2 + 0.05 * Math.sin(0.8 * x) : 0.8 + 0.05 * Math.sin(0.5 * y + 0.3 * x));
        for (Frame frame : frames(treatment("rate rate=25 frames=made shutter=360"), clip)) {
            float light = frame.plane(0).at(48, 32);
            assertThat(light < 0.3 || light > 0.7).as("frame " + frame.number()).isTrue();
        }
    }

    @Test
    void theLineTellsIt() {
        assertThat(treatment("rate rate=50 frames=made shutter=180").summary(0))
                .isEqualTo("to 50 frames/s, made, shutter 180°");
        assertThat(treatment("rate rate=25 frames=made shutter=90").summary(0))
                .isEqualTo("as it is, 25 frames/s, shutter 90°");
        assertThat(treatment("rate rate=50 shutter=90").summary(0)).isEqualTo("to 50 frames/s");
        assertThatThrownBy(() -> new ShutterStage(FORMAT, Timing.steady(Rational.of(200), 8), Rational.of(25), 45))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
