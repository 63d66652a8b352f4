package awlsmith.core.shape;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Step;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ShapeTest {
    private static final Format GREY = Clips.format(40, 24, Chroma.GREY);

    private static double code(int x, int y) {
        return x / 100.0 + y / 10_000.0;
    }

    private static Frame one(Format format, Region part, Stage... stages) {
        return Clips.run(
                        Clips.painted(format, 1, (n, p, x, y) -> p == 0 ? code(x, y) : 0.1 * Math.sin(x * 0.3 + p * y)),
                        FrameRange.single(0),
                        part,
                        stages)
                .getFirst();
    }

    /** By hand: where the sample that was at the top left corner, and the one beside it, come to lie. */
    @ParameterizedTest
    @CsvSource({
        "0, false, false, 0, 0, 1, 0", "1, false, false, 23, 0, 23, 1",
        "2, false, false, 39, 23, 38, 23", "3, false, false, 0, 39, 0, 38",
        "0, true, false, 39, 0, 38, 0", "0, false, true, 0, 23, 1, 23"
    })
    void quartersAndMirrors(int quarters, boolean across, boolean down, int x, int y, int nextX, int nextY) {
        var stage = new TurnStage(GREY, quarters, across, down);
        Frame out = one(GREY, stage.output().whole(), stage);
        assertThat(out.plane(0).at(x, y)).isEqualTo((float) code(0, 0));
        assertThat(out.plane(0).at(nextX, nextY)).isEqualTo((float) code(1, 0));
        assertThat(out.format().width()).isEqualTo(quarters % 2 == 1 ? 24 : 40);
    }

    @Test
    void partsAreTheSameAsOfTheWhole() {
        Format colour = Clips.format(80, 60, Chroma.S420);
        for (Stage stage : List.of(
                new TurnStage(colour, 1, true, false),
                new TurnStage(colour, 2, false, false),
                new StraightenStage(colour, 3.7),
                new StraightenStage(colour, -11))) {
            Frame whole = one(colour, stage.output().whole(), stage);
            Region part = new Region(12, 10, 22, 18);
            Frame some = one(colour, part, stage);
            for (int p = 0; p < 3; p++) {
                assertThat(some.plane(p).packed())
                        .isEqualTo(whole.cut(part).plane(p).packed());
            }
        }
    }

    /**
     * Chroma that lies on luma's place x, y is a slope of x or y; after any turn it must lie on luma's slope still. A half-turned sample that
     * kept its old place would be a pixel off.
     */
    @ParameterizedTest
    @CsvSource({
        "1, false, false, 40, 24", "2, false, false, 40, 24", "3, true, false, 40, 24", "0, true, false, 40, 24",
        "0, false, true, 40, 24", "0, true, true, 41, 25", "1, false, true, 41, 25", "2, true, false, 39, 25"
    })
    void chromaStaysOnItsLuma(int quarters, boolean across, boolean down, int width, int height) {
        for (Siting siting : List.of(Siting.LEFT, Siting.CENTRE, Siting.TOP_LEFT, Siting.BOTTOM)) {
            Format format = Clips.format(width, height, Chroma.S420).withSiting(siting);
            var clip = Clips.painted(
                    format,
                    1,
                    (n, p, x, y) -> p == 0
                            ? code(x, y)
                            : code(1, 0) * (2 * x + siting.across(2)) + code(0, 1) * (2 * y + siting.down(2)));
            var stage = new TurnStage(format, quarters, across, down);
            Frame out = Clips.run(clip, FrameRange.single(0), stage.output().whole(), stage)
                    .getFirst();
            Siting now = out.format().siting();
            for (int y = 1; y < out.plane(1).height() - 1; y++) {
                for (int x = 1; x < out.plane(1).width() - 1; x++) {
                    double u = 2 * x + now.across();
                    double v = 2 * y + now.down();
                    int i = (int) Math.floor(u);
                    int j = (int) Math.floor(v);
                    double luma =
                            (out.plane(0).at(i, j) * (i + 1 - u) + out.plane(0).at(i + 1, j) * (u - i)) * (j + 1 - v)
                                    + (out.plane(0).at(i, j + 1) * (i + 1 - u)
                                                    + out.plane(0).at(i + 1, j + 1) * (u - i))
                                            * (v - j);
                    assertThat((double) out.plane(1).at(x, y)).isCloseTo(luma, within(1e-5));
                }
            }
        }
    }

    /** Two fields of different colours: mirrored or brought to 4:2:0, no line has anything of the other field's. */
    @Test
    void theFieldsColoursAreNotMixed() {
        for (Chroma chroma : List.of(Chroma.S420, Chroma.S422)) {
            Format fields = Clips.format(40, 24, chroma).withScan(Scan.TOP_FIRST);
            var clip = Clips.painted(fields, 1, (n, p, x, y) -> p == 0 ? 0.5 : y % 2 == 0 ? 0.3 : -0.2);
            for (String settings : List.of("mirror=across", "turn=180", "mirror=down")) {
                var chain = new Recipe(List.of(Step.parse("turn " + settings))).chain(fields);
                var stages = new java.util.ArrayList<>(chain.stages());
                stages.addAll(LayoutStages.between(
                        chain.output(), chain.output().withChroma(Chroma.S420).withSiting(Siting.LEFT)));
                Frame out = Clips.run(clip, FrameRange.single(0), fields.whole(), stages.toArray(Stage[]::new))
                        .getFirst();
                for (int y = 0; y < out.plane(1).height(); y++) {
                    boolean first = y % 2 == 0 ^ !settings.equals("mirror=across");
                    assertThat(out.plane(1).at(7, y))
                            .as("%s %s line %d", chroma, settings, y)
                            .isCloseTo(first ? 0.3f : -0.2f, within(1e-5f));
                }
            }
        }
        assertSays(
                Clips.format(720, 486, Chroma.S420).withScan(Scan.BOTTOM_FIRST),
                Step.of("turn", Map.of("mirror", "down")),
                "the other's colours");
    }

    /** Turning twice by 180 degrees gives the picture back, whatever lies where chroma is stored. */
    @Test
    void leftSitedChromaIsTurnedInPlace() {
        Format colour = Clips.format(80, 60, Chroma.S420);
        var turned =
                new Recipe(List.of(Step.of("turn", Map.of("turn", "180")), Step.of("turn", Map.of("turn", "180"))));
        var chain = turned.chain(colour);
        Frame out = one(colour, colour.whole(), chain.stages().toArray(Stage[]::new));
        Frame in = one(colour, colour.whole());
        assertThat(out.plane(0).packed()).isEqualTo(in.plane(0).packed());
        for (int x = 8; x < 32; x++) {
            assertThat(out.plane(1).at(x, 15)).isCloseTo(in.plane(1).at(x, 15), within(0.01f));
        }
    }

    /** A slope of light turned by an angle is a slope in the turned direction: rotation of the plane, worked by hand. */
    @Test
    void straighteningTurnsByTheAngle() {
        Format wide = Clips.format(200, 120, Chroma.GREY);
        var stage = new StraightenStage(wide, 10);
        var clip = Clips.painted(wide, 1, (n, p, x, y) -> 0.004 * x);
        Frame out = Clips.run(clip, FrameRange.single(0), stage.output().whole(), stage)
                .getFirst();
        double across = (out.plane(0).at(120, 40) - out.plane(0).at(60, 40)) / 60;
        double down = (out.plane(0).at(80, 60) - out.plane(0).at(80, 20)) / 40;
        assertThat(across).isCloseTo(0.004 * Math.cos(Math.toRadians(10)), within(2e-5));
        assertThat(down).isCloseTo(0.004 * Math.sin(Math.toRadians(10)), within(2e-5));
        // the largest part of the same shape: 200 / (200 cos + 120 sin) and 120 / (200 sin + 120 cos), the smaller
        double share = Math.min(200 / (200 * 0.98481 + 120 * 0.17365), 120 / (200 * 0.17365 + 120 * 0.98481));
        assertThat(out.format().width()).isEqualTo((int) (200 * share));
        assertThat(out.format().height()).isEqualTo((int) (120 * share));
    }

    @Test
    void cropKeepsTheVeryPixels() {
        var chain = new Recipe(List.of(Step.of("crop", Map.of("left", 6, "top", 4, "width", 20, "height", 16))))
                .chain(GREY);
        Frame out = one(GREY, chain.output().whole(), chain.stages().toArray(Stage[]::new));
        assertThat(out.plane(0).at(0, 0)).isEqualTo((float) code(6, 4));
        assertThat(out.plane(0).at(19, 15)).isEqualTo((float) code(25, 19));
        assertThat(chain.placement().x()).isEqualTo(-6);
    }

    @Test
    void whatCannotBeCutOrTurnedIsSaid() {
        Format colour = Clips.format(80, 60, Chroma.S420);
        assertSays(colour, Step.of("crop", Map.of("left", 70, "width", 20)), "the picture here is 80x60");
        assertSays(colour, Step.of("crop", Map.of("left", 3)), "must be even");
        assertSays(colour.withScan(Scan.TOP_FIRST), Step.of("crop", Map.of("top", 2)), "multiple of 4");
        assertSays(colour.withScan(Scan.TOP_FIRST), Step.of("turn", Map.of("turn", "90")), "Deinterlace before");
        assertSays(colour, Step.of("deinterlace", Map.of()), "choose which field comes first");
        assertSays(colour, Step.of("cadence", Map.of("period", 4, "phase", 4)), "must be 0..3");
        assertThat(new Recipe(List.of(Step.of("turn", Map.of("turn", "90"))))
                        .chain(colour.withSize(80, 60, new Rational(16, 15)))
                        .output()
                        .sar())
                .isEqualTo(new Rational(15, 16));
    }

    private static void assertSays(Format format, Step step, String words) {
        assertThatThrownBy(() -> new Recipe(List.of(step)).chain(format))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining(words);
    }
}
