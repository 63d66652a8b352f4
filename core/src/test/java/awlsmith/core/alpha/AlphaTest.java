package awlsmith.core.alpha;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Step;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class AlphaTest {
    private static final PlanePool POOL = new PlanePool(0);

    private static Format format(Chroma chroma, Alpha alpha) {
        return new Format(64, 48, chroma, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE).withAlpha(alpha);
    }

    /** A disc of one colour with a soft edge, on what is clear and black. */
    private static Frame disc(Format format, float... colour) {
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, POOL);
        int planes = format.chroma().planes();
        for (int p = 0; p <= planes; p++) {
            int sx = format.chroma().stepX(p);
            int sy = format.chroma().stepY(p);
            for (int y = 0; y < frame.plane(p).height(); y++) {
                for (int x = 0; x < frame.plane(p).width(); x++) {
                    double far = Math.hypot(x * sx - 32, y * sy - 24);
                    float seen = (float) Math.clamp(14 - far, 0, 1);
                    frame.plane(p).set(x, y, p == planes ? seen : far < 12 + 2 * sx ? colour[p] : 0);
                }
            }
        }
        return frame;
    }

    private static Frame run(List<Stage> stages, Frame in) {
        Frame now = in;
        for (Stage stage : stages) {
            Frame from = now;
            now = stage.treat(distance -> from, stage.output().whole(), POOL, Work.alone());
        }
        return now;
    }

    private static Frame treated(Frame in, String... steps) {
        var recipe = new Recipe(Arrays.stream(steps).map(Step::parse).toList());
        return run(recipe.chain(in.format()).stages(), in);
    }

    /** Largest distance from a colour where a picture is seen by more than a twentieth. */
    private static double fringe(Frame frame, int p, double colour) {
        var chroma = frame.format().chroma();
        double most = 0;
        for (int y = 0; y < frame.plane(p).height(); y++) {
            for (int x = 0; x < frame.plane(p).width(); x++) {
                float seen = frame.planes().getLast().at(x * chroma.stepX(p), y * chroma.stepY(p));
                if (seen > 0.05) {
                    most = Math.max(most, Math.abs(frame.plane(p).at(x, y) - colour));
                }
            }
        }
        return most;
    }

    @ParameterizedTest
    @EnumSource(
            value = Chroma.class,
            names = {"S420", "S444", "RGB"})
    void anEnlargedEdgeHasNoFringe(Chroma chroma) {
        Format straight = format(chroma, Alpha.STRAIGHT);
        float[] colour = {0.8f, 0.2f, -0.3f};
        Frame in = disc(straight, colour);
        Frame out = treated(in, "enlarge factor=3");
        assertThat(out.planes()).hasSize(4);
        for (int p = 0; p < 3; p++) {
            assertThat(fringe(out, p, colour[p])).as("plane %d", p).isLessThan(0.02);
        }
        // the same without leading colour into what is clear has one
        Frame bare = run(
                WithAlpha.around(
                        straight,
                        new Recipe(List.of(Step.parse("enlarge factor=3")))
                                .chain(straight.opaque())
                                .stages()),
                in);
        assertThat(fringe(bare, 0, colour[0])).isGreaterThan(0.2);
    }

    @Test
    void whatIsSeenStaysAsItIs() {
        Frame in = disc(format(Chroma.S420, Alpha.STRAIGHT), 0.8f, 0.2f, -0.3f);
        Frame out = run(List.of(new FillClear(in.format())), in);
        for (int y = 0; y < 48; y++) {
            for (int x = 0; x < 64; x++) {
                if (in.plane(3).at(x, y) >= 1 / 16f) {
                    assertThat(out.plane(0).at(x, y)).isEqualTo(in.plane(0).at(x, y));
                } else if (Math.hypot(x - 32, y - 24) < 22) {
                    assertThat(out.plane(0).at(x, y)).isCloseTo(0.8f, within(0.05f));
                }
                assertThat(out.plane(3).at(x, y)).isEqualTo(in.plane(3).at(x, y));
            }
        }
    }

    /** What moves pixels moves their opacity alike: where the two planes hold the same, they do so behind it. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "crop left=7 top=5 width=40",
                "turn turn=90",
                "turn mirror=across angle=3",
                "enlarge factor=1.7 kernel=catmull-rom",
                "enlarge width=100 height=40 fit=letterbox",
                "deinterlace mode=fast order=top"
            })
    void opacityGoesTheWayOfLight(String step) {
        Format format = format(Chroma.S444, Alpha.PREMULTIPLIED);
        Frame in = disc(format, 1, 0.1f, 0.1f);
        for (int y = 0; y < 48; y++) {
            in.plane(0).takeRow(y, in.plane(3), y);
        }
        Frame out = treated(in, step);
        assertThat(out.plane(3).packed()).isEqualTo(out.plane(0).packed());
    }

    /** Worked by hand: half of 0.8 over 0.2 is 0.5; weighed already, 0.4 over 0.2 is the same. */
    @Test
    void aPictureIsLaidOverAColour() {
        for (Alpha alpha : new Alpha[] {Alpha.STRAIGHT, Alpha.PREMULTIPLIED}) {
            Format format = format(Chroma.RGB, alpha);
            Frame in = Frame.blank(format, format.whole(), 0, Rational.ZERO, POOL);
            for (int p = 0; p < 3; p++) {
                in.plane(p).fill(alpha == Alpha.STRAIGHT ? 0.8f : 0.4f);
            }
            in.plane(3).fill(0.5f);
            Frame out = run(List.of(AlphaStage.over(new float[] {0.2f, 0.2f, 1}, format)), in);
            assertThat(out.planes()).hasSize(3);
            assertThat(out.plane(0).at(3, 4)).isCloseTo(0.5f, within(1e-6f));
            assertThat(out.plane(2).at(3, 4)).isCloseTo(0.9f, within(1e-6f));
            Frame black = run(LayoutStages.between(format, format.opaque()), in);
            assertThat(black.plane(0).at(0, 0)).isCloseTo(0.4f, within(1e-6f));
        }
    }

    @Test
    void weighedAndBackIsTheSameWhereAnythingIsSeen() {
        Frame in = disc(format(Chroma.RGB, Alpha.STRAIGHT), 0.8f, 0.2f, 0.5f);
        Frame there = treated(in, "transparency leaves=premultiplied");
        assertThat(there.format().alpha()).isEqualTo(Alpha.PREMULTIPLIED);
        assertThat(there.plane(0).at(32, 24)).isEqualTo(0.8f);
        Frame back = treated(there, "transparency leaves=straight");
        assertThat(back.format().alpha()).isEqualTo(Alpha.STRAIGHT);
        assertThat(fringe(back, 0, 0.8)).isLessThan(1e-5);
    }

    /** A file does not tell that its colours are weighed; told by the step, its edges come out right. */
    @Test
    void aPictureTakenForStraightThatIsNotIsPutRight() {
        Format straight = format(Chroma.RGB, Alpha.STRAIGHT);
        Frame weighed = run(List.of(AlphaStage.to(Alpha.PREMULTIPLIED, straight)), disc(straight, 0.8f, 0.2f, 0.5f));
        var taken = new Frame(straight, weighed.window(), weighed.planes(), 0, Rational.ZERO);
        assertThat(fringe(treated(taken, "enlarge factor=2"), 0, 0.8)).isGreaterThan(0.1);
        Frame out = treated(taken, "transparency reads=premultiplied", "enlarge factor=2");
        assertThat(fringe(out, 0, 0.8)).isLessThan(0.02);
    }

    /** What is clear is no border and no crushed black. */
    @Test
    void measuresOfLightSeeGreyWhereAPictureIsClear() {
        Frame in = disc(format(Chroma.S420, Alpha.STRAIGHT), 0.8f, 0.2f, -0.3f);
        FrameSource clip = new FrameSource() {
            @Override
            public Format format() {
                return in.format();
            }

            @Override
            public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
                return new FrameStream() {
                    private boolean given;

                    @Override
                    public Format format() {
                        return in.format();
                    }

                    @Override
                    public Optional<Frame> next() {
                        boolean first = !given;
                        given = true;
                        return first ? Optional.of(in.copy(window, 0, Rational.ZERO, pool)) : Optional.empty();
                    }

                    @Override
                    public void close() {}
                };
            }
        };
        FrameSource grey = OverGrey.of(clip);
        assertThat(grey.format().alpha()).isEqualTo(Alpha.NONE);
        try (var frames = grey.open(FrameRange.all(), in.window(), POOL, new Cancel())) {
            Frame seen = frames.next().orElseThrow();
            assertThat(seen.plane(0).at(0, 0)).isEqualTo(0.5f);
            assertThat(seen.plane(1).at(0, 0)).isZero();
            assertThat(seen.plane(0).at(32, 24)).isCloseTo(0.8f, within(1e-6f));
        }
    }

    @Test
    void anOpaquePictureIsToldThatItIs() {
        var recipe = new Recipe(List.of(Step.parse("transparency behind=#ffffff leaves=opaque")));
        assertThatThrownBy(() -> recipe.chain(format(Chroma.RGB, Alpha.NONE)))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("opaque everywhere");
    }

    /** White over a board of two greys; where nothing is seen the board shows. */
    @Test
    void theScreenShowsABoardWhereThePictureIsClear() {
        Frame in = disc(format(Chroma.RGB, Alpha.STRAIGHT), 1, 1, 1);
        var shown = ScreenPicture.of(in, in.window(), 1, POOL, Work.alone());
        assertThat(shown.rgb()[3 * (24 * 64 + 32)] & 0xff).isEqualTo(255);
        assertThat(shown.rgb()[0] & 0xff).isEqualTo(112);
        assertThat(shown.rgb()[3 * 8] & 0xff).isEqualTo(80);
    }
}
