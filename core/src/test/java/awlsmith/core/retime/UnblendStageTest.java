package awlsmith.core.retime;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.KeptFindings;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class UnblendStageTest {
    private static final Format FORMAT = Clips.format(64, 48, Chroma.S420);

    /** Something that goes right, and goes over into something else at its 20th frame. */
    private static double there(long frame, int x, int y) {
        double at = frame < 20 ? x - 1.7 * frame : x + 2.3 * frame + 5 * y;
        return 0.4 + 0.3 * Math.sin(at * 0.31) * Math.cos(y * 0.23);
    }

    /** Rough ground that goes by: nothing of it can be guessed from what was there before. */
    private static double rough(long frame, int x, int y) {
        return 0.4 + 0.1 * Math.sin(5000 * Math.sin((x + 5L * frame) / 4 * 1.7 + y / 4 * 2.9));
    }

    private static double mixed(double at, int x, int y) {
        long before = (long) Math.floor(at);
        double later = at - before;
        return (1 - later) * there(before, x, y) + later * there(before + 1, x, y);
    }

    private static FrameSource clip(double ratio, double offset, int count) {
        return Clips.painted(FORMAT, count, (n, p, x, y) -> mixed(n * ratio + offset, x, y));
    }

    /** Also across the cut: a mix is a mix. */
    @ParameterizedTest
    @CsvSource({
        "25, 30, 0",
        "25, 30, 7/24",
        "24, 30, 1/2",
        "24, 30, 23/24",
        "25, 30000/1001, 1/3",
        "24, 60, 1/4",
        "15, 25, 0"
    })
    void whatWasMixedIsTakenApart(String rate, String now, String offset) {
        var blending = new Blending(Rational.parse(rate), Rational.parse(offset));
        double ratio = blending.ratio(Rational.parse(now)).toDouble();
        FrameSource clip = clip(ratio, blending.offset().toDouble(), 48);
        var stage = new UnblendStage(FORMAT, Rational.parse(now), blending);
        List<Frame> found = Clips.run(clip, FrameRange.all(), FORMAT.whole(), stage);
        int first = blending.offset().toDouble() < 0.5 ? 0 : 1;
        assertThat((double) found.size()).isCloseTo(48 * ratio, within(1.5));
        for (Frame frame : found.subList(1, found.size() - 2)) {
            double error = 0;
            for (int y = 0; y < 48; y++) {
                for (int x = 0; x < 64; x++) {
                    error += Math.abs(frame.plane(0).at(x, y) - there(frame.number() + first, x, y));
                }
            }
            assertThat(error / (64 * 48)).as("frame %d", frame.number()).isLessThan(0.003);
        }
    }

    @Test
    void aPartIsCutOutOfTheWhole() {
        var stage = new UnblendStage(FORMAT, Rational.of(30), new Blending(Rational.of(25), new Rational(1, 4)));
        var part = new Region(16, 8, 20, 24);
        FrameSource clip = clip(25 / 30.0, 0.25, 24);
        Frame whole =
                Clips.run(clip, FrameRange.single(7), FORMAT.whole(), stage).getFirst();
        Frame alone = Clips.run(clip, FrameRange.single(7), part, stage).getFirst();
        for (int p = 0; p < 3; p++) {
            Plane of = whole.plane(p).window(FORMAT.chroma().own(p, part));
            assertThat(alone.plane(p).packed()).isEqualTo(of.packed());
        }
    }

    /** Brightness is never changed, whatever is mixed: shares add up to 1 at the clip's ends too. */
    @Test
    void aStillStaysAsItIs() {
        FrameSource still = Clips.painted(FORMAT, 9, (n, p, x, y) -> 0.1 + 0.01 * (x + y) / (p + 1));
        var stage = new UnblendStage(FORMAT, Rational.of(30), new Blending(Rational.of(24), new Rational(5, 8)));
        Frame first = Clips.run(still, FrameRange.single(0), FORMAT.whole()).getFirst();
        for (Frame frame : Clips.run(still, FrameRange.all(), FORMAT.whole(), stage)) {
            assertThat(frame.plane(1).at(9, 7)).isEqualTo(first.plane(1).at(9, 7), within(1e-5f));
        }
    }

    @Test
    void whatCannotBeUndoneIsRefused() {
        var nearly = new Blending(Rational.of(24), Rational.ZERO);
        assertThatThrownBy(() -> new UnblendStage(FORMAT, Rational.of(25), nearly))
                .hasMessageContaining("cannot be undone");
        assertThatThrownBy(() -> new Blending(Rational.of(24), Rational.ONE))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @CsvSource({"25, 30, 0.3", "24, 30, 0.75", "25, 29.97002997, 0"})
    void mixesAreFound(double rate, double now, double offset) {
        var finder = new BlendFinder(now, BlendFinder.RATES);
        FrameSource clip = Clips.painted(FORMAT, 120, (n, p, x, y) -> {
            double at = n * rate / now + offset;
            long before = (long) Math.floor(at);
            return (1 - at + before) * rough(before, x, y) + (at - before) * rough(before + 1, x, y);
        });
        Clips.run(clip, FrameRange.all(), FORMAT.whole()).forEach(frame -> finder.see(frame.plane(0)));
        Blending found = finder.found().orElseThrow();
        assertThat(found.rate().toDouble()).isCloseTo(rate, within(0.01));
        assertThat(found.offset().toDouble()).isCloseTo(offset, within(0.07));
    }

    /** The step looks through the clip, brings back what was there, and keeps what it found in its open form. */
    @Test
    void theStepBringsBackTheRateThereWas() {
        var store = new KeptFindings();
        FrameSource clip = Clips.painted(FORMAT, 72, (n, p, x, y) -> {
            double at = n * 25 / 30.0;
            long before = (long) Math.floor(at);
            return (1 - at + before) * rough(before, x, y) + (at - before) * rough(before + 1, x, y);
        });
        var material = new Material(FORMAT, Timing.steady(Rational.of(30), 72));
        var recipe = new Recipe(List.of(Step.parse("unblend")));
        Treatment treatment = Analyses.complete(
                recipe.on(material), clip, store, new PlanePool(0), Work.alone(), (doing, frames) -> {});
        assertThat(treatment.summary(0)).isEqualTo("back to 25 frames/s");
        assertThat(treatment.times().rate()).contains(Rational.of(25));
        assertThat(treatment.times().count()).isEqualTo(60);
        assertThat(Analyses.known(recipe.on(material), store).summary(0)).isEqualTo("back to 25 frames/s");
        store.replaceAll(Map.of());
        Treatment nothing = Analyses.known(recipe.on(material), store);
        assertThat(nothing.summary(0)).contains("nothing was mixed");
        assertThat(nothing.times().rate()).contains(Rational.of(30));
        assertThatThrownBy(() -> new Recipe(List.of(Step.parse("unblend rate=30")))
                        .on(material)
                        .output())
                .hasMessageContaining("27 or less");
    }

    /** Frames of their own, frames held, and a still tell no mixes. */
    @Test
    void soundFramesTellNoMixes() {
        for (double held : new double[] {1, 0.8, 0}) {
            var finder = new BlendFinder(30, BlendFinder.RATES);
            FrameSource clip = Clips.painted(FORMAT, 120, (n, p, x, y) -> rough((long) Math.floor(n * held), x, y));
            Clips.run(clip, FrameRange.all(), FORMAT.whole()).forEach(frame -> finder.see(frame.plane(0)));
            assertThat(finder.found()).as("held %.1f", held).isEmpty();
        }
    }
}
