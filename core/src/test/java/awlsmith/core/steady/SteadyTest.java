package awlsmith.core.steady;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.KeptFindings;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

class SteadyTest {
    private static final Format FORMAT =
            new Format(160, 120, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    private static final int FRAMES = 60;
    private static final Recipe STEADY = recipe("steady over=1 rim=8");

    private static Recipe recipe(String... steps) {
        return new Recipe(java.util.Arrays.stream(steps).map(Step::parse).toList());
    }

    /** Where the camera is in a frame: a slow pan, a shake of some samples, another scene from frame 40 on. */
    private static double acrossAt(long n) {
        return 0.5 * n + 3 * Math.sin(n * 2.1);
    }

    private static double downAt(long n) {
        return 2.5 * Math.cos(n * 1.7);
    }

    private static double scene(double x, double y, boolean second) {
        double shift = second ? 31 : 0;
        return 0.5
                + 0.15 * Math.sin(x * 0.13 + shift) * Math.cos(y * 0.09)
                + 0.12 * Math.sin(x * 0.31 + y * 0.05)
                + (second ? -0.3 : 0)
                + 0.12 * Math.cos(y * 0.27 + x * 0.04 + shift);
    }

    private static FrameSource shaky() {
        return Clips.painted(FORMAT, FRAMES, (n, p, x, y) -> {
            int step = p == 0 ? 1 : 2;
            return scene(x * step - acrossAt(n), y * step - downAt(n), n >= 40) / (p == 0 ? 1 : 4);
        });
    }

    private static Material material() {
        return new Material(FORMAT, Timing.steady(Rational.of(25), FRAMES));
    }

    private static Treatment known(Recipe recipe, Analyses.Store store) {
        return Analyses.complete(
                recipe.on(material()), shaky(), store, new PlanePool(0), Work.alone(), (doing, frames) -> {});
    }

    /** Of the frame to its left neighbour in time: the mean difference of luma within the middle. */
    private static double change(List<Frame> frames, int from, int end) {
        double sum = 0;
        for (int n = from + 1; n < end; n++) {
            var a = frames.get(n - 1).plane(0);
            var b = frames.get(n).plane(0);
            for (int y = 20; y < a.height() - 20; y++) {
                for (int x = 20; x < a.width() - 20; x++) {
                    sum += Math.abs(a.at(x, y) - b.at(x, y));
                }
            }
        }
        return sum / (end - from - 1);
    }

    @Test
    void shakeIsTakenOutAndThePanStays() {
        Treatment treatment = known(STEADY, Analyses.Store.NONE);
        assertThat(treatment.missing()).isEmpty();
        assertThat(treatment.chain().isMoving()).isTrue();
        List<Frame> before = Clips.run(shaky(), FrameRange.all(), FORMAT.whole());
        List<Frame> after = Clips.run(
                shaky(),
                FrameRange.all(),
                treatment.output().whole(),
                treatment.chain().stages().getFirst());
        assertThat(after).hasSize(FRAMES);
        assertThat(change(after, 10, 38)).isLessThan(0.25 * change(before, 10, 38));
        // where things are goes on at the pan's half a sample a frame
        double first = treatment.chain().placement(12).x() + acrossAt(12);
        double last = treatment.chain().placement(28).x() + acrossAt(28);
        assertThat(last - first).isCloseTo(8, within(1.0));
        double least = Double.MAX_VALUE;
        for (long n = 13; n <= 28; n++) {
            Placement here = treatment.chain().placement(n);
            Placement then = treatment.chain().placement(n - 1);
            least = Math.min(least, here.x() + acrossAt(n) - then.x() - acrossAt(n - 1));
            assertThat(here.y() + downAt(n) - then.y() - downAt(n - 1)).isCloseTo(0, within(0.7));
        }
        // half a sample a frame, and what the measure is good to; the shake alone goes back by four
        assertThat(least).isGreaterThan(-0.3);
    }

    /** What is at a place of the source is at the place that the placement tells. */
    @Test
    void thePlacementTellsWhereThePictureLies() {
        Treatment treatment = known(STEADY, Analyses.Store.NONE);
        var stage = treatment.chain().stages().getFirst();
        for (int n : new int[] {5, 17, 45}) {
            Frame frame = Clips.run(
                            shaky(), FrameRange.single(n), treatment.output().whole(), stage)
                    .getFirst();
            Placement place = treatment.chain().placement(n);
            for (int[] at : new int[][] {{60, 40}, {90, 80}}) {
                // the middle of the output's sample lies here in the source
                double x = at[0] - place.x();
                double y = at[1] - place.y();
                assertThat((double) frame.plane(0).at(at[0], at[1]))
                        .isCloseTo(scene(x - acrossAt(n), y - downAt(n), n >= 40), within(0.01));
            }
        }
    }

    @Test
    void untilItHasSeenTheClipItPassesThePictureOn() {
        Treatment waits = STEADY.on(material());
        assertThat(waits.missing()).hasSize(1);
        assertThat(waits.missing().getFirst().analysis().doing()).contains("camera");
        assertThat(waits.chain().isMoving()).isFalse();
        Frame frame = Clips.run(
                        shaky(),
                        FrameRange.single(9),
                        waits.output().whole(),
                        waits.chain().stages().getFirst())
                .getFirst();
        Frame source = Clips.run(shaky(), FrameRange.single(9), FORMAT.whole()).getFirst();
        int rimX = (160 - waits.output().width()) / 2;
        int rimY = (120 - waits.output().height()) / 2;
        assertThat(frame.plane(0).at(30, 20)).isEqualTo(source.plane(0).at(30 + rimX, 20 + rimY));
        assertThat(known(STEADY, Analyses.Store.NONE).output()).isEqualTo(waits.output());
    }

    /** In its open form and back; of another recipe before the step it is another finding; what is damaged is made anew. */
    @Test
    void whatWasFoundIsKeptByWhatItWasFoundIn() {
        var store = new KeptFindings();
        Treatment first = known(STEADY, store);
        assertThat(store.count()).isEqualTo(1);
        // read again it moves every frame as it did, to a hundred-thousandth of a sample
        Treatment read = Analyses.known(STEADY.on(material()), store);
        for (long n = 0; n < FRAMES; n++) {
            assertThat(read.chain().placement(n).x())
                    .isCloseTo(first.chain().placement(n).x(), within(1e-5));
            assertThat(read.chain().placement(n).y())
                    .isCloseTo(first.chain().placement(n).y(), within(1e-5));
        }
        assertThat(Analyses.known(STEADY.on(material()), store).missing()).isEmpty();
        Recipe other = recipe("steady over=2 rim=4", "enlarge factor=2");
        assertThat(Analyses.known(other.on(material()), store).missing()).isEmpty();
        Recipe cropped = recipe("crop left=8", "steady", "steady over=3");
        Treatment twice = Analyses.known(cropped.on(material()), store);
        // the second waits for the first, whose pictures it does not know yet
        assertThat(twice.missing()).extracting(Treatment.Missing::step).containsExactly(1);
        assertThat(known(cropped, store).missing()).isEmpty();
        assertThat(store.count()).isEqualTo(3);
        store.replaceAll(Map.of("x", "nothing"));
        assertThat(Analyses.known(STEADY.on(material()), store).missing()).hasSize(1);
    }

    /** Behind steps that change what a picture looks like or its size, the camera is followed once, in the clip itself; behind a crop anew. */
    @Test
    void theCameraIsFollowedBeforeWhatCleansAndEnlarges() {
        var store = new KeptFindings();
        known(STEADY, store);
        for (String before : List.of("sharpen", "enlarge factor=2", "levels black=5", "even-light")) {
            Recipe behind = recipe(before, "steady over=1 rim=8");
            Treatment treatment = Analyses.known(behind.on(material()), store);
            assertThat(treatment.missing().stream()
                            .filter(missing -> missing.analysis().doing().contains("camera")))
                    .as(before)
                    .isEmpty();
        }
        for (String before : List.of("crop left=8", "turn angle=3", "speed speed=200", "rate rate=48")) {
            Recipe behind = recipe(before, "steady over=1 rim=8");
            assertThat(Analyses.known(behind.on(material()), store).missing())
                    .as(before)
                    .extracting(Treatment.Missing::step)
                    .containsExactly(1);
        }
    }

    @Test
    void aLookThroughTheClipIsStopped() {
        var cancel = new Cancel();
        var seen = new AtomicLong();
        assertThatThrownBy(() -> Analyses.complete(
                        STEADY.on(material()),
                        shaky(),
                        Analyses.Store.NONE,
                        new PlanePool(0),
                        Work.alone().with(cancel),
                        (doing, frames) -> {
                            seen.set(frames);
                            if (frames == 7) {
                                cancel.ask();
                            }
                        }))
                .isInstanceOf(Cancel.Stopped.class);
        assertThat(seen.get()).isEqualTo(7);
    }

    @Test
    void fieldsAreNotMoved() {
        Material fields = new Material(FORMAT.withScan(Scan.TOP_FIRST), Timing.steady(Rational.of(25), FRAMES));
        assertThatThrownBy(() -> STEADY.on(fields))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("Deinterlace before");
    }

    /** With edges kept the size stays; what no frame shows is black, the frame mirrored, or what the frames around showed. */
    @Test
    void edgesAreFilledAsAskedFor() {
        Frame black = edged("black");
        Frame mirror = edged("mirror");
        Frame neighbours = edged("neighbours");
        assertThat(black.window()).isEqualTo(FORMAT.whole());
        int filled = 0;
        double mirrored = 0;
        double taken = 0;
        Treatment treatment = known(recipe("steady over=1 rim=8 edges=black moves=shift"), Analyses.Store.NONE);
        Placement place = treatment.chain().placement(17);
        for (int y = 0; y < 120; y++) {
            for (int x = 0; x < 160; x++) {
                if (black.plane(0).at(x, y) == 0) {
                    double truth = scene(x - place.x() - acrossAt(17), y - place.y() - downAt(17), false);
                    mirrored += Math.abs(mirror.plane(0).at(x, y) - truth);
                    taken += Math.abs(neighbours.plane(0).at(x, y) - truth);
                    filled++;
                } else {
                    assertThat(mirror.plane(0).at(x, y))
                            .isEqualTo(black.plane(0).at(x, y));
                    assertThat(neighbours.plane(0).at(x, y))
                            .isEqualTo(black.plane(0).at(x, y));
                }
            }
        }
        assertThat(filled).isGreaterThan(200);
        assertThat(taken / filled).isLessThan(0.012).isLessThan(0.5 * mirrored / filled);
    }

    private static Frame edged(String edges) {
        Treatment treatment = known(recipe("steady over=1 rim=8 moves=shift edges=" + edges), Analyses.Store.NONE);
        return Clips.run(
                        shaky(),
                        FrameRange.single(17),
                        treatment.output().whole(),
                        treatment.chain().stages().getFirst())
                .getFirst();
    }

    /** Any part of any frame is cut from the whole, bit for bit, whatever is done. */
    @Test
    void partsAreCutFromTheWhole() {
        for (String how : List.of(
                "moves=perspective rolling=40",
                "edges=fill",
                "edges=mirror",
                "edges=neighbours way=still",
                "way=sweep edges=black")) {
            Treatment treatment = known(recipe("steady rim=6 " + how), Analyses.Store.NONE);
            var stage = treatment.chain().stages().getFirst();
            Region part = new Region(38, 24, 34, 40);
            Frame whole = Clips.run(
                            shaky(), FrameRange.single(21), treatment.output().whole(), stage)
                    .getFirst();
            Frame alone = Clips.run(shaky(), FrameRange.single(21), part, stage).getFirst();
            for (int y = 0; y < part.height(); y++) {
                for (int x = 0; x < part.width(); x++) {
                    assertThat(alone.plane(0).at(x, y))
                            .as(how)
                            .isEqualTo(whole.plane(0).at(part.x() + x, part.y() + y));
                }
            }
        }
    }

    /** Filled, what lies at a place of the source lies where the placement tells, and no black is left. */
    @Test
    void filledThePictureKeepsItsSize() {
        Treatment treatment = known(recipe("steady rim=8 edges=fill"), Analyses.Store.NONE);
        assertThat(treatment.output().width()).isEqualTo(160);
        Frame frame = Clips.run(
                        shaky(),
                        FrameRange.single(17),
                        treatment.output().whole(),
                        treatment.chain().stages().getFirst())
                .getFirst();
        Placement place = treatment.chain().placement(17);
        assertThat(place.width()).isBetween(161.0, 190.0);
        double scale = 160 / place.width();
        for (int[] at : new int[][] {{5, 7}, {60, 40}, {150, 110}}) {
            double x = (at[0] + 0.5 - place.x()) * scale - 0.5;
            double y = (at[1] + 0.5 - place.y()) * scale - 0.5;
            assertThat((double) frame.plane(0).at(at[0], at[1]))
                    .isCloseTo(scene(x - acrossAt(17), y - downAt(17), false), within(0.03));
        }
        assertThat(treatment.summary(0)).startsWith("over 1 s, enlarged by up to 19 %");
    }

    @Test
    void theSummaryTellsWhatIsLostAndWhereTheRimIsTooNarrow() {
        // of 160x120 turned by 10 degrees 1 / (cos 10 + 160 / 120 sin 10) of each side is left, and 88 % of that by the
        // rim
        assertThat(known(recipe("steady over=1 rim=6 angle=10"), Analyses.Store.NONE)
                        .summary(0))
                .contains("straightened by 10\u00b0, keeps 52 % of the picture");
        assertThat(known(recipe("steady over=1 rim=6"), Analyses.Store.NONE).summary(0))
                .isEqualTo("over 1 s, keeps 77 % of the picture");
        assertThat(known(recipe("steady over=5 rim=1"), Analyses.Store.NONE).summary(0))
                .matches("over 5 s, keeps 96 % of the picture; the rim is too narrow for \\d+ % of frames");
        assertThat(known(recipe("steady way=still rim=10 edges=neighbours"), Analyses.Store.NONE)
                        .summary(0))
                .startsWith("still, full size, moved by up to 10 %");
    }
}
