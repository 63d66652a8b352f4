package awlsmith.core.motion;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.motion.PictureBetween.Around;
import awlsmith.core.motion.PictureBetween.Doubt;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Frames that were left out are made again, and what they should have been is known. */
class PictureBetweenTest {
    private static final Format FORMAT = Clips.format(160, 120, Chroma.S420);

    /** Houses on a hillside go by to the left, a disc before them goes to the right. */
    private static double scene(int n, int x, int y) {
        boolean disc = Math.hypot(x - 30 - 5 * n, y - 60) < 18;
        return disc ? 0.2 + Scenery.at(x - 5 * n + 300, y) : Scenery.at(x + 3 * n, y);
    }

    private static List<Frame> clip() {
        return Clips.run(
                Clips.painted(
                        FORMAT, 9, (n, p, x, y) -> p == 0 ? scene(n, x, y) : (scene(n, 2 * x, 2 * y) - 0.5) / (p + 1)),
                FrameRange.all(),
                FORMAT.whole());
    }

    private static double error(Plane a, Plane b) {
        double sum = 0;
        for (int y = 4; y < a.height() - 4; y++) {
            for (int x = 4; x < a.width() - 12; x++) {
                double d = a.at(x, y) - b.at(x, y);
                sum += d * d;
            }
        }
        return Math.sqrt(sum / ((a.height() - 8) * (a.width() - 16)));
    }

    private static Plane faded(Plane a, Plane b, float share) {
        Plane m = Plane.of(a.width(), a.height());
        for (int y = 0; y < m.height(); y++) {
            for (int x = 0; x < m.width(); x++) {
                m.set(x, y, a.at(x, y) + share * (b.at(x, y) - a.at(x, y)));
            }
        }
        return m;
    }

    private static Frame made(Frame a, Frame b, MotionBetween motion, float share, Region part, Work work) {
        Frame out = Frame.blank(FORMAT, part, 1, Rational.ONE, new PlanePool(0));
        new PictureBetween(motion, share, new float[2], Doubt.MOTION).make(Around.of(a), Around.of(b), out, work);
        return out;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3})
    void aLostFrameComesBackFarBetterThanByAFade(int lost) {
        List<Frame> all = clip();
        Frame a = all.get(2);
        Frame b = all.get(6);
        float share = lost / 4f;
        MotionBetween motion = new BetweenFinder(a.light(), b.light(), Work.alone()).at(share);
        Frame made = made(a, b, motion, share, FORMAT.whole(), Work.alone());
        for (int p = 0; p < 2; p++) {
            Plane truth = all.get(2 + lost).plane(p);
            assertThat(error(made.plane(p), truth))
                    .as("plane " + p)
                    .isLessThan(error(faded(a.plane(p), b.plane(p), share), truth) / 1.9);
        }
    }

    @ParameterizedTest
    @ValueSource(floats = {0.2f, 0.75f})
    void whatWasFoundForTheMiddleLeadsOtherMoments(float share) {
        List<Frame> all = clip();
        var finder = new BetweenFinder(all.get(2).light(), all.get(6).light(), Work.alone());
        MotionBetween led = finder.at(share, finder.at(0.5f), 0.5f);
        MotionBetween alone = finder.at(share);
        assertThat(led.meanMisfit()).isLessThan(1.1 * alone.meanMisfit());
    }

    @Test
    void motionThatIsKnownIsFound() {
        Plane a = Plane.of(128, 96);
        Plane b = Plane.of(128, 96);
        for (int y = 0; y < 96; y++) {
            for (int x = 0; x < 128; x++) {
                a.set(x, y, (float) Scenery.at(x, y));
                b.set(x, y, (float) Scenery.at(x - 7.3, y + 3.6));
            }
        }
        MotionBetween motion = new BetweenFinder(a, b, Work.alone()).at(0.5f);
        // away from the edges, where what comes in was not there before
        for (int row = 5; row < motion.rows() - 5; row++) {
            for (int column = 5; column < motion.columns() - 5; column++) {
                int at = row * motion.columns() + column;
                assertThat(motion.u()[at]).isCloseTo(7.3f, within(0.1f));
                assertThat(motion.v()[at]).isCloseTo(-3.6f, within(0.1f));
            }
        }
        assertThat(motion.camera()[0]).isCloseTo(7.3f, within(0.05f));
        assertThat(motion.torn()).isLessThan(0.1);
    }

    @Test
    void inAFadeMotionIsFoundAllTheSame() {
        Plane a = Plane.of(128, 96);
        Plane b = Plane.of(128, 96);
        for (int y = 0; y < 96; y++) {
            for (int x = 0; x < 128; x++) {
                a.set(x, y, (float) Scenery.at(x, y));
                b.set(x, y, (float) (0.6 * Scenery.at(x - 5, y)));
            }
        }
        float[] camera = new BetweenFinder(a, b, Work.alone()).at(0.5f).camera();
        assertThat(camera[0]).isCloseTo(5, within(0.3f));
        assertThat(camera[1]).isCloseTo(0, within(0.3f));
    }

    /** Lettering and borders before a scene that moves are not bent. */
    @Test
    void whatStandsStillStaysToTheSample() {
        Plane a = Plane.of(128, 96);
        Plane b = Plane.of(128, 96);
        for (int y = 0; y < 96; y++) {
            for (int x = 0; x < 128; x++) {
                boolean border = y < 24 || y >= 72;
                a.set(x, y, border ? 0 : (float) Scenery.at(x, y));
                b.set(x, y, border ? 0 : (float) Scenery.at(x - 6, y));
            }
        }
        Format grey = Clips.format(128, 96, Chroma.GREY);
        Frame first = new Frame(grey, grey.whole(), List.of(a), 0, Rational.ZERO);
        Frame second = new Frame(grey, grey.whole(), List.of(b), 1, Rational.ONE);
        MotionBetween motion = new BetweenFinder(a, b, Work.alone()).at(0.5f);
        Frame out = Frame.blank(grey, grey.whole(), 1, Rational.ONE, new PlanePool(0));
        new PictureBetween(motion, 0.5f, new float[2], Doubt.MOTION)
                .make(Around.of(first), Around.of(second), out, Work.alone());
        for (int y = 0; y < 18; y++) {
            for (int x = 0; x < 128; x++) {
                // a quarter of a code value: splines swing out, and die away by a factor of four a sample
                assertThat(out.plane(0).at(x, y)).isEqualTo(0, within(1e-3f));
                assertThat(out.plane(0).at(x, 95 - y)).isEqualTo(0, within(1e-3f));
            }
        }
    }

    /** Light that no motion explains: as it is found, mixed, or the nearer picture's. */
    @Test
    void inDoubtItIsDoneAsChosen() {
        Format grey = Clips.format(64, 48, Chroma.GREY);
        Frame first = new Frame(grey, grey.whole(), List.of(Plane.of(64, 48).fill(0.2f)), 0, Rational.ZERO);
        Frame second = new Frame(grey, grey.whole(), List.of(Plane.of(64, 48).fill(0.8f)), 1, Rational.ONE);
        MotionBetween motion = new BetweenFinder(first.light(), second.light(), Work.alone()).at(0.5f);
        for (Doubt doubt : Doubt.values()) {
            Frame out = Frame.blank(grey, grey.whole(), 1, Rational.ONE, new PlanePool(0));
            new PictureBetween(motion, 0.3f, new float[2], doubt)
                    .make(Around.of(first), Around.of(second), out, Work.alone());
            float wanted = doubt == Doubt.NEARER ? 0.2f : 0.38f;
            assertThat(out.plane(0).at(30, 20)).as("%s", doubt).isCloseTo(wanted, within(1e-5f));
        }
    }

    @Test
    void partsAndThreadsGiveTheSameBits() {
        List<Frame> all = clip();
        Frame a = all.get(2);
        Frame b = all.get(4);
        MotionBetween motion = new BetweenFinder(a.light(), b.light(), Work.alone()).at(0.5f);
        Frame whole = made(a, b, motion, 0.4f, FORMAT.whole(), Work.alone());
        try (var threads = new ForkJoinPool(3)) {
            var work = new Work(threads, 3, new Cancel());
            MotionBetween other = new BetweenFinder(a.light(), b.light(), work).at(0.5f);
            assertThat(other.u()).isEqualTo(motion.u());
            assertThat(other.v()).isEqualTo(motion.v());
            Region part = new Region(38, 22, 50, 34);
            Frame piece = made(a, b, motion, 0.4f, part, work);
            for (int p = 0; p < 3; p++) {
                assertThat(piece.plane(p).packed())
                        .isEqualTo(whole.cut(part).plane(p).packed());
            }
        }
    }

    @Test
    void betweenTwoScenesMotionIsTorn() {
        Plane a = clip().getFirst().light();
        Plane b = Plane.of(a.width(), a.height());
        for (int y = 0; y < b.height(); y++) {
            for (int x = 0; x < b.width(); x++) {
                b.set(x, y, (float) Scenery.at(4 * y + 900, 3 * x));
            }
        }
        assertThat(new BetweenFinder(a, b, Work.alone()).at(0.5f).torn()).isGreaterThan(0.4);
        assertThat(new BetweenFinder(a, clip().get(2).light(), Work.alone())
                        .at(0.5f)
                        .torn())
                .isLessThan(0.2);
    }

    @Test
    void bothFormsOfTheKernelsGiveTheSameBits() {
        var random = new SplittableRandom(4);
        float[] data = new float[600];
        for (int i = 0; i < data.length; i++) {
            data[i] = (float) random.nextDouble();
        }
        var a = new SquarePair.Place(data, 3, 20, 0.3f, 0.8f);
        var b = new SquarePair.Place(data, 241, 24, 0.6f, 0.1f);
        SquarePair scalar = SquarePair.of(Lanes.SCALAR);
        SquarePair vector = SquarePair.of(Lanes.VECTOR);
        assertThat(vector.misfit(a, b)).isEqualTo(scalar.misfit(a, b));
        float[] one = new float[5];
        float[] other = new float[5];
        scalar.slopes(a, b, 0.3f, one);
        vector.slopes(a, b, 0.3f, other);
        assertThat(other).isEqualTo(one);
        var sums = new BetweenRows.Sums(80, true);
        var same = new BetweenRows.Sums(80, true);
        float[] other8 = java.util.Arrays.copyOfRange(data, 300, 364);
        for (int at : new int[] {0, 5, 9}) {
            BetweenRows.of(Lanes.SCALAR).add(data, other8, 3, data, 100 + at, 9, 0.2f, sums, at, 11);
            BetweenRows.of(Lanes.VECTOR).add(data, other8, 3, data, 100 + at, 9, 0.2f, same, at, 11);
        }
        float[] counts = other8.clone();
        BetweenRows.of(Lanes.SCALAR).weigh(data, 0.7f, counts);
        BetweenRows.of(Lanes.VECTOR).weigh(data, 0.7f, other8);
        assertThat(other8).isEqualTo(counts);
        float[] plain = new float[40];
        float[] quick = new float[40];
        EightBetween.of(Lanes.SCALAR).rows(data, 7, 20, data, 200, 300, 5, plain);
        EightBetween.of(Lanes.VECTOR).rows(data, 7, 20, data, 200, 300, 5, quick);
        assertThat(quick).isEqualTo(plain);
        assertThat(same.samples()).isEqualTo(sums.samples());
        assertThat(same.weights()).isEqualTo(sums.weights());
        assertThat(same.apart()).isEqualTo(sums.apart());
        assertThat(same.lighter()).isEqualTo(sums.lighter());
    }

    /**
     * Splines go through the samples, and are a polynomial of third degree wherever the samples are (Unser, Aldroubi and Eden 1993): cubics come out as
     * they are at every place between samples, well within the edges, which go on as they end.
     */
    @Test
    void splinesGoThroughSamplesAndKeepCubics() {
        Plane cubic = Plane.of(64, 48);
        for (int y = 0; y < 48; y++) {
            for (int x = 0; x < 64; x++) {
                cubic.set(x, y, (float) (polynomial(x / 64.0) * polynomial(y / 48.0)));
            }
        }
        Padded spline = Padded.of(cubic).splined();
        float[] weights = EightBetween.spline(8);
        float[] out = new float[8];
        for (int across = 0; across < 8; across++) {
            for (int down = 0; down < 8; down++) {
                EightBetween.of(Lanes.SCALAR)
                        .rows(spline.data(), spline.at(29, 21), spline.stride(), weights, 4 * across, 4 * down, 1, out);
                for (int k = 0; k < 8; k++) {
                    double x = (30 + k + across / 8.0) / 64;
                    double y = (22 + down / 8.0) / 48;
                    assertThat((double) out[k]).isCloseTo(polynomial(x) * polynomial(y), within(3e-6));
                }
            }
        }
    }

    private static double polynomial(double t) {
        return 0.2 + t * (1.1 + t * (-2.3 + 1.5 * t));
    }

    /** The sums of a square's slopes lead one step to where a shift of half a sample lies. */
    @Test
    void slopesLeadToTheShift() {
        float[] first = new float[400];
        float[] second = new float[400];
        for (int i = 0; i < 400; i++) {
            double x = i % 20;
            double y = i / 20;
            first[i] = (float) (Math.sin(0.1 * x) + Math.cos(0.08 * y));
            second[i] = (float) (Math.sin(0.1 * (x - 0.5)) + Math.cos(0.08 * (y + 0.25)));
        }
        float[] sums = new float[5];
        var here = new SquarePair.Place(first, 84, 20, 0, 0);
        SquarePair.of(Lanes.SCALAR).slopes(here, new SquarePair.Place(second, 84, 20, 0, 0), 0.5f, sums);
        double determinant = sums[0] * sums[2] - sums[1] * sums[1];
        assertThat(-(sums[2] * sums[3] - sums[1] * sums[4]) / determinant).isCloseTo(0.5, within(0.05));
        assertThat(-(sums[0] * sums[4] - sums[1] * sums[3]) / determinant).isCloseTo(-0.25, within(0.05));
    }
}
