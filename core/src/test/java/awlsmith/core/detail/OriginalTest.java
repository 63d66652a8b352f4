package awlsmith.core.detail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Step;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

class OriginalTest {
    private static final Format FORMAT = Clips.format(48, 36, Chroma.S420);
    private static final int COUNT = 5;

    /** Fine chequers on two surfaces, brighter from frame to frame. */
    private static final FrameSource CLIP = Clips.painted(
            FORMAT,
            COUNT,
            (n, p, x, y) ->
                    p > 0 ? 0.01 * (x - y) : (x < 24 ? 0.3 : 0.7) + 0.01 * n + ((x + y) % 2 == 0 ? 0.015 : -0.015));

    @Test
    void allOfItIsTheSourceWhereAndWhenTheStepsPutIt() {
        String geometry = "rate rate=50; crop left=4 top=2; enlarge factor=2";
        List<Frame> plain = run(CLIP, "rate rate=50", "crop left=4 top=2", "enlarge factor=2");
        List<Frame> back = run(
                CLIP,
                "levels black=20",
                "rate rate=50",
                "exposure stops=1",
                "crop left=4 top=2",
                "enlarge factor=2",
                "grain",
                "original blend=100");
        assertThat(plain).as(geometry).hasSameSizeAs(back).hasSizeGreaterThan(COUNT);
        for (int n = 0; n < plain.size(); n++) {
            assertThat(back.get(n).time()).isEqualTo(plain.get(n).time());
            for (int p = 0; p < 3; p++) {
                assertThat(back.get(n).plane(p).packed())
                        .isEqualTo(plain.get(n).plane(p).packed());
            }
        }
    }

    @Test
    void halfOfItLiesBetween() {
        float own = run(CLIP).getFirst().plane(0).at(10, 10);
        float treated = run(CLIP, "levels black=40").getFirst().plane(0).at(10, 10);
        assertThat(run(CLIP, "levels black=40", "original blend=50")
                        .getFirst()
                        .plane(0)
                        .at(10, 10))
                .isCloseTo((own + treated) / 2, within(1e-5f));
    }

    @Test
    void textureComesBackAndEdgesStayAsTreated() {
        List<Frame> smooth = run(CLIP, "undither colours=60");
        List<Frame> back = run(CLIP, "undither colours=60", "original texture=100");
        assertThat(swing(smooth.get(2), 8)).isLessThan(0.006f);
        assertThat(swing(back.get(2), 8)).isCloseTo(0.03f, within(0.004f));
        // light is another matter
        List<Frame> darker = run(CLIP, "levels black=40", "original texture=100");
        assertThat(mean(darker.get(2), 2, 20))
                .isCloseTo(mean(run(CLIP, "levels black=40").get(2), 2, 20), within(0.003f));
    }

    @Test
    void lightComesBackWithoutTexture() {
        List<Frame> back = run(CLIP, "undither colours=60", "levels black=40", "original light=100");
        assertThat(mean(back.get(2), 2, 20)).isCloseTo(mean(run(CLIP).get(2), 2, 20), within(0.003f));
        assertThat(swing(back.get(2), 8)).isLessThan(0.008f);
    }

    @Test
    void transparencyStaysAsTreated() {
        Format clear = FORMAT.withAlpha(Alpha.STRAIGHT);
        FrameSource clip = Clips.painted(clear, COUNT, (n, p, x, y) -> p == 3 ? (x % 7) / 7.0 : 0.4);
        List<Frame> back = run(clip, "levels black=20", "enlarge factor=2", "original blend=100");
        List<Frame> plain = run(clip, "enlarge factor=2");
        assertThat(back.get(1).planes().getLast().packed())
                .isEqualTo(plain.get(1).planes().getLast().packed());
    }

    @Test
    void nothingAskedForIsNothingDoneAndValuesHaveRanges() {
        assertThat(new Recipe(List.of(Step.parse("original"))).chain(FORMAT).stages())
                .isEmpty();
        assertThatThrownBy(() -> Step.parse("original blend=120"))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("0..100");
    }

    @Test
    void aModelDoesNotWorkOnTheSourceToo() {
        var chain = new Recipe(List.of(Step.parse("enlarge factor=2"), Step.parse("original blend=10"))).chain(FORMAT);
        assertThat(chain.stages().getLast().beside().orElseThrow().output().width())
                .isEqualTo(96);
        assertThat(chain.bytesAlive(chain.output().whole()))
                .isGreaterThan(new Chain(FORMAT, chain.stages().subList(0, 1))
                        .bytesAlive(chain.output().whole()));
    }

    private static float swing(Frame frame, int x) {
        return Math.abs(frame.plane(0).at(x, 12) - frame.plane(0).at(x + 1, 12));
    }

    private static float mean(Frame frame, int from, int to) {
        float sum = 0;
        for (int x = from; x < to; x++) {
            sum += frame.plane(0).at(x, 12) + frame.plane(0).at(x, 13);
        }
        return sum / 2 / (to - from);
    }

    private static List<Frame> run(FrameSource clip, String... steps) {
        var frames = new ArrayList<Frame>();
        Chain chain = new Recipe(Arrays.stream(steps).map(Step::parse).toList()).chain(clip.format());
        try (var stream = chain.open(clip, FrameRange.all(), chain.output().whole(), new PlanePool(0), Work.alone())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frames.add(frame.get());
            }
        }
        return frames;
    }
}
