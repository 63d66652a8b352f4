package awlsmith.core.retime;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.motion.PictureBetween.Doubt;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class MadeStageTest {
    private static final Format FORMAT = Clips.format(96, 64, Chroma.GREY);
    private static final MadeStage.Way WAY = new MadeStage.Way(Doubt.MOTION, 0.3);

    /** A hill of light that goes right by three samples a frame, before a slope that stands. */
    private static double hill(double frame, int x, int y) {
        double dx = x - 20 - 3 * frame;
        double dy = y - 32;
        return 0.3 + 0.002 * x + 0.4 * Math.exp(-(dx * dx + dy * dy) / 60);
    }

    private static Chain chain(FrameSource clip, Timing times, String rate, MadeStage.Way way) {
        return new Chain(clip.format(), times, List.of(new MadeStage(clip.format(), times, Rational.parse(rate), way)));
    }

    private static List<Frame> frames(Chain chain, FrameSource clip, FrameRange range) {
        var all = new ArrayList<Frame>();
        try (var stream = chain.open(clip, range, FORMAT.whole(), new PlanePool(0), Work.alone())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                all.add(frame.get());
            }
        }
        return all;
    }

    @ParameterizedTest
    @CsvSource({"24, 60, 8", "25, 120, 8", "24000/1001, 60, 8", "25, 50, 8", "50, 25, 8", "30000/1001, 240, 4"})
    void everyFrameShowsItsOwnMoment(String from, String to, int count) {
        FrameSource clip = Clips.painted(FORMAT, count, (n, p, x, y) -> hill(n, x, y));
        Timing times = Timing.steady(Rational.parse(from), count);
        List<Frame> made = frames(chain(clip, times, to, WAY), clip, new FrameRange(0, 1000));
        Rational rate = Rational.parse(to);
        // as long as the clip, to within a frame
        double wanted = count * rate.toDouble() / Rational.parse(from).toDouble();
        assertThat(made.size()).isEqualTo((int) Math.ceil(wanted - 1e-9));
        for (Frame frame : made) {
            assertThat(frame.time()).isEqualTo(Rational.of(frame.number()).dividedBy(rate));
            double moment =
                    Math.min(count - 1, frame.number() * Rational.parse(from).toDouble() / rate.toDouble());
            double error = 0;
            for (int y = 0; y < 64; y++) {
                for (int x = 0; x < 96; x++) {
                    error += Math.abs(frame.plane(0).at(x, y) - hill(moment, x, y));
                }
            }
            assertThat(error / (96 * 64))
                    .as("frame %d at %.3f", frame.number(), moment)
                    .isLessThan(0.0025);
        }
    }

    /** Each frame counts by how near it is; held against FFmpeg's minterpolate in media's tests. */
    @Test
    void mixedFramesCountByHowNearTheyAre() {
        FrameSource clip = Clips.painted(FORMAT, 4, (n, p, x, y) -> hill(n, x, y));
        var way = new MadeStage.Way(Optional.empty(), 0.3, false, ScenesByHand.NONE);
        for (Frame frame : frames(chain(clip, Timing.steady(Rational.of(25), 4), "75", way), clip, FrameRange.all())) {
            double moment = Math.min(3, frame.number() / 3.0);
            int before = (int) Math.min(2, Math.floor(moment));
            double share = moment - before;
            for (int x = 0; x < 96; x += 7) {
                assertThat((double) frame.plane(0).at(x, 30))
                        .isCloseTo((1 - share) * hill(before, x, 30) + share * hill(before + 1, x, 30), within(1e-5));
            }
        }
    }

    /** Said by hand that a scene begins with the frame at 0.08 s, nothing is made before it; said that none does where one was found, it is. */
    @Test
    void cutsByHandCountForMoreThanWhatIsFound() {
        FrameSource clip = Clips.painted(FORMAT, 4, (n, p, x, y) -> hill(n, x, y));
        Timing times = Timing.steady(Rational.of(25), 4);
        List<Frame> own = Clips.run(clip, FrameRange.all(), FORMAT.whole());
        var cut = new ScenesByHand(List.of(new ScenesByHand.Mark(0.08, true)));
        List<Frame> held = frames(
                chain(clip, times, "50", new MadeStage.Way(Optional.of(Doubt.MOTION), 2, false, cut)),
                clip,
                FrameRange.all());
        assertThat(held.get(3).plane(0).packed()).isEqualTo(own.get(2).plane(0).packed());
        assertThat(held.get(1).plane(0).packed())
                .isNotEqualTo(own.get(1).plane(0).packed());
        // where all counts as torn, all is held but what is said to be one scene
        var none = new ScenesByHand(List.of(new ScenesByHand.Mark(0.0799, false)));
        List<Frame> made = frames(
                chain(clip, times, "50", new MadeStage.Way(Optional.of(Doubt.MOTION), 0, false, none)),
                clip,
                FrameRange.all());
        assertThat(made.get(1).plane(0).packed()).isEqualTo(own.get(1).plane(0).packed());
        assertThat(made.get(3).plane(0).packed())
                .isNotEqualTo(own.get(2).plane(0).packed());
    }

    private static double surface(int x, int y) {
        return 0.4 + 0.1 * Math.sin(x * 0.5) * Math.sin(y * 0.4);
    }

    /** Root mean square of what lies beside the surface. */
    private static double grain(Frame frame) {
        double sum = 0;
        for (int y = 8; y < 56; y++) {
            for (int x = 8; x < 88; x++) {
                double beside = frame.plane(0).at(x, y) - surface(x, y);
                sum += beside * beside;
            }
        }
        return Math.sqrt(sum / (48 * 80));
    }

    /** Grain that is another in every frame: of the mean it is weaker by the square root of two, kept it is as strong; coarse light is the same. */
    @ParameterizedTest
    @EnumSource(
            value = Chroma.class,
            names = {"GREY", "S420", "RGB"})
    void fineDetailIsTheNearerFramesWhereItIsKept(Chroma chroma) {
        Format format = Clips.format(96, 64, chroma);
        var random = new SplittableRandom(4);
        float[][] grain = new float[3][96 * 64];
        for (float[] one : grain) {
            for (int i = 0; i < one.length; i++) {
                one[i] = (float) (0.01 * random.nextGaussian());
            }
        }
        FrameSource clip = Clips.painted(format, 3, (n, p, x, y) -> surface(x, y) + grain[n][(y * 96 + x) % 6144]);
        Timing times = Timing.steady(Rational.of(25), 3);
        List<Frame> own = Clips.run(clip, FrameRange.all(), format.whole());
        Frame mean = frames(chain(clip, times, "50", new MadeStage.Way(Doubt.MOTION, 2)), clip, FrameRange.all())
                .get(1);
        var kept = new MadeStage.Way(Optional.of(Doubt.MOTION), 2, true, ScenesByHand.NONE);
        Frame sharp =
                frames(chain(clip, times, "50", kept), clip, FrameRange.all()).get(1);
        double wanted = grain(own.getFirst());
        assertThat(grain(mean) / wanted).isLessThan(0.8);
        assertThat(grain(sharp) / wanted).isBetween(0.9, 1.02);
        if (chroma == Chroma.S420) {
            assertThat(sharp.plane(1).data()).isEqualTo(mean.plane(1).data());
        }
        double coarse = 0;
        for (int y = 16; y < 48; y++) {
            for (int x = 16; x < 80; x++) {
                coarse += (sharp.plane(0).at(x, y) - mean.plane(0).at(x, y)) / (64 * 32);
            }
        }
        assertThat(coarse).isCloseTo(0, within(1e-3));
    }

    @Test
    void theClipsOwnFramesStayAsTheyAre() {
        FrameSource clip = Clips.painted(FORMAT, 6, (n, p, x, y) -> hill(n, x, y));
        List<Frame> own = Clips.run(clip, FrameRange.all(), FORMAT.whole());
        List<Frame> made =
                frames(chain(clip, Timing.steady(Rational.of(25), 6), "75", WAY), clip, new FrameRange(0, 100));
        assertThat(made).hasSize(18);
        for (int n = 0; n < 6; n++) {
            assertThat(made.get(3 * n).plane(0).packed())
                    .isEqualTo(own.get(n).plane(0).packed());
        }
    }

    @Test
    void betweenScenesTheNearerFrameIsShown() {
        FrameSource clip = Clips.painted(
                FORMAT,
                8,
                (n, p, x, y) -> n < 4 ? hill(n, x, y) : 0.2 + 0.5 * ((x * 7 + y * 13 + (x * y) % 11) % 17) / 17.0);
        List<Frame> own = Clips.run(clip, FrameRange.all(), FORMAT.whole());
        Chain chain = chain(clip, Timing.steady(Rational.of(10), 8), "40", WAY);
        List<Frame> made = frames(chain, clip, new FrameRange(0, 100));
        for (int n = 12; n <= 16; n++) {
            assertThat(made.get(n).plane(0).packed())
                    .as("frame " + n)
                    .isEqualTo(own.get(n < 14 ? 3 : 4).plane(0).packed());
        }
    }

    @Test
    void aStreamThatBeginsAnywhereGivesTheSameFrames() {
        FrameSource clip = Clips.painted(FORMAT, 8, (n, p, x, y) -> hill(n + 0.2 * (n % 2), x, y));
        Chain chain = chain(clip, Timing.steady(Rational.of(24), 8), "60", WAY);
        List<Frame> all = frames(chain, clip, new FrameRange(0, 100));
        for (int from = 0; from < all.size(); from += 3) {
            List<Frame> some = frames(chain, clip, new FrameRange(from, from + 2));
            assertThat(some.getFirst().plane(0).packed())
                    .isEqualTo(all.get(from).plane(0).packed());
        }
    }

    @Test
    void aSingleFrameIsRepeated() {
        FrameSource clip = Clips.painted(FORMAT, 1, (n, p, x, y) -> hill(n, x, y));
        List<Frame> made =
                frames(chain(clip, Timing.steady(Rational.of(10), 1), "30", WAY), clip, new FrameRange(0, 100));
        assertThat(made).hasSize(3);
        assertThat(made.get(2).plane(0).packed()).isEqualTo(made.get(0).plane(0).packed());
    }

    /** Uneven frames: each is made for its own moment, however long those around it are. */
    @Test
    void framesOfUnevenLengthBecomeEven() {
        long[] at = {0, 40, 60, 140, 180, 260, 300};
        Timing times = new Timing() {
            @Override
            public long count() {
                return at.length - 1;
            }

            @Override
            public Rational at(long frame) {
                return new Rational(at[(int) frame], 1000);
            }

            @Override
            public java.util.Optional<Rational> rate() {
                return java.util.Optional.empty();
            }
        };
        FrameSource clip = Clips.painted(FORMAT, 6, (n, p, x, y) -> hill(at[n] / 40.0, x, y));
        List<Frame> made = frames(chain(clip, times, "50", WAY), clip, new FrameRange(0, 100));
        assertThat(made).hasSize(15);
        for (Frame frame : made.subList(0, 13)) {
            double error = 0;
            for (int i = 0; i < 96; i++) {
                error = Math.max(error, Math.abs(frame.plane(0).at(i, 32) - hill(frame.number() * 20 / 40.0, i, 32)));
            }
            // the camera's path is bent by how far it went, not by how long it took
            assertThat(error).as("frame " + frame.number()).isLessThan(0.06);
        }
    }

    @Test
    void aPathGoesThroughPlacesOfEvenAcceleration() {
        for (float s = 0; s <= 1; s += 0.125f) {
            // places 0, 1, 4, 9: what is moved in one step after the other is 1, 3, 5
            assertThat(Path.besideStraight(1, 3, 5, s) + s * 3).isCloseTo((1 + s) * (1 + s) - 1, within(1e-5f));
            assertThat(Path.besideStraight(2, 2, 2, s)).isCloseTo(0, within(1e-6f));
        }
    }

    /** In three hours of 24000/1001 frames, a second's rate of 60 stays exact. */
    @Test
    void threeHoursLaterTheMomentsAreStillExact() {
        Timing times = Timing.steady(Rational.parse("24000/1001"), 258_942);
        var stage = new MadeStage(FORMAT, times, Rational.of(60), WAY);
        // 10800.0 s are 648000 ticks, and frame 258741 + 117/1001 of the film
        assertThat(stage.position(648_000)).isEqualTo(Rational.of(10800).times(Rational.parse("24000/1001")));
        assertThat(stage.firstFrom(258_942)).isEqualTo(648_003);
    }
}
