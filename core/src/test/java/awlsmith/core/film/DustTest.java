package awlsmith.core.film;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Spots and scratches painted on clips whose clean frames are known. */
class DustTest {
    private static final Format FORMAT = Clips.format(192, 128, Chroma.S420);
    private static final int COUNT = 7;

    private record Spot(int frame, int x, int y, int size, double light) {}

    private static final List<Spot> SPOTS = List.of(
            new Spot(2, 40, 30, 5, 0.95),
            new Spot(3, 41, 90, 8, 0.05),
            new Spot(3, 120, 60, 4, 0.9),
            new Spot(4, 150, 100, 11, 0.08));

    /** Ripples of several sizes that go to the right by 2.3 and down by 1.1 samples a frame, with a light that flickers. */
    private static double scene(int n, int x, int y) {
        double u = x - 2.3 * n;
        double v = y - 1.1 * n;
        double light = 1 + 0.04 * Math.sin(2.1 * n);
        return light
                * (0.5
                        + 0.12 * Math.sin(0.13 * u + 0.02 * v)
                        + 0.1 * Math.sin(0.21 * v + 0.05 * u)
                        + 0.06 * Math.sin(0.6 * u) * Math.sin(0.5 * v));
    }

    private static FrameSource clip(boolean dusty, int scratch) {
        return Clips.painted(FORMAT, COUNT, (n, p, x, y) -> {
            if (p > 0) {
                return 0.1 * Math.sin(0.1 * (x - 1.15 * n));
            }
            double value = scene(n, x, y) + 0.006 * new Random(n * 1_000_003L + y * 4001L + x).nextGaussian();
            for (Spot s : SPOTS) {
                if (dusty && s.frame == n && Math.hypot(x - s.x, y - s.y) <= s.size / 2.0) {
                    return s.light;
                }
            }
            // it wanders a little, and is gone for some rows
            boolean scratched = scratch >= 0 && x == scratch + n % 2 && (y / 20 + n) % 6 != 0;
            return scratched ? value * 0.75 + 0.2 : value;
        });
    }

    private static List<Frame> run(FrameSource clip, DustStage... stages) {
        return Clips.run(clip, FrameRange.all(), FORMAT.whole(), stages);
    }

    private static double worst(Plane a, Plane b, Region part) {
        double worst = 0;
        for (int y = part.y(); y < part.y() + part.height(); y++) {
            for (int x = part.x(); x < part.x() + part.width(); x++) {
                worst = Math.max(worst, Math.abs(a.at(x, y) - b.at(x, y)));
            }
        }
        return worst;
    }

    private static double error(Plane a, Plane b) {
        double sum = 0;
        for (int y = 0; y < a.height(); y++) {
            for (int x = 0; x < a.width(); x++) {
                double d = a.at(x, y) - b.at(x, y);
                sum += d * d;
            }
        }
        return Math.sqrt(sum / (a.width() * a.height()));
    }

    @Test
    void spotsGiveWayToWhatTheirNeighboursShow() {
        List<Frame> clean = run(clip(false, -1));
        List<Frame> made = run(clip(true, -1), new DustStage(FORMAT, 20 / 255.0, 24, false));
        for (Spot s : SPOTS) {
            int reach = s.size / 2 + 1;
            var around = new Region(s.x - reach, s.y - reach, 2 * reach + 1, 2 * reach + 1);
            assertThat(worst(made.get(s.frame).plane(0), clean.get(s.frame).plane(0), around))
                    .as(s.toString())
                    .isLessThan(0.07);
        }
    }

    /** As FFmpeg's tmedian=radius=1 does it: the middle of three samples in the same place. */
    private static Plane median(Plane a, Plane b, Plane c) {
        Plane m = Plane.of(b.width(), b.height());
        for (int y = 0; y < m.height(); y++) {
            for (int x = 0; x < m.width(); x++) {
                float[] three = {a.at(x, y), b.at(x, y), c.at(x, y)};
                Arrays.sort(three);
                m.set(x, y, three[1]);
            }
        }
        return m;
    }

    @Test
    void movingPicturesSufferFarLessThanByAMedianAlongTime() {
        List<Frame> clean = run(clip(false, -1));
        List<Frame> dusty = run(clip(true, -1));
        List<Frame> made = run(clip(true, -1), new DustStage(FORMAT, 20 / 255.0, 24, false));
        for (int n = 2; n <= 4; n++) {
            Plane truth = clean.get(n).plane(0);
            double plain = error(
                    median(
                            dusty.get(n - 1).plane(0),
                            dusty.get(n).plane(0),
                            dusty.get(n + 1).plane(0)),
                    truth);
            double ours = error(made.get(n).plane(0), truth);
            assertThat(ours).isLessThan(plain / 4).isLessThan(error(dusty.get(n).plane(0), truth) / 5);
        }
    }

    @Test
    void cleanFootageIsLeftAlone() {
        List<Frame> clean = run(clip(false, -1));
        List<Frame> made = run(clip(false, -1), new DustStage(FORMAT, 20 / 255.0, 24, true));
        for (int n = 0; n < COUNT; n++) {
            for (int p = 0; p < 3; p++) {
                assertThat(made.get(n).plane(p).packed())
                        .isEqualTo(clean.get(n).plane(p).packed());
            }
        }
    }

    @Test
    void whatIsLargerThanASpotStays() {
        List<Frame> dusty = run(clip(true, -1));
        List<Frame> made = run(clip(true, -1), new DustStage(FORMAT, 20 / 255.0, 6, false));
        assertThat(made.get(4).plane(0).at(150, 100))
                .isEqualTo(dusty.get(4).plane(0).at(150, 100));
        assertThat(made.get(3).plane(0).at(120, 60))
                .isNotEqualTo(dusty.get(3).plane(0).at(120, 60));
    }

    @Test
    void aBallThatFliesThroughAndACutStay() {
        FrameSource flying = Clips.painted(FORMAT, COUNT, (n, p, x, y) -> {
            int u = n < 4 ? x : 300 - x;
            double scene = scene(0, u, n < 4 ? y : y + 70);
            return p > 0 ? 0 : Math.hypot(x - 20 - 9 * n, y - 64) < 8 ? 0.95 : scene;
        });
        List<Frame> before = run(flying);
        List<Frame> made = run(flying, new DustStage(FORMAT, 20 / 255.0, 24, false));
        for (int n = 0; n < COUNT; n++) {
            assertThat(error(made.get(n).plane(0), before.get(n).plane(0)))
                    .as("frame " + n)
                    .isLessThan(0.004);
        }
    }

    @Test
    void aScratchGivesWayToWhatStandsBesideIt() {
        List<Frame> clean = run(clip(false, 70));
        List<Frame> truth = run(clip(false, -1));
        List<Frame> made = run(clip(false, 70), new DustStage(FORMAT, 20 / 255.0, 24, true));
        for (int n = 0; n < COUNT; n++) {
            var along = new Region(66, 0, 9, 128);
            double was = 0;
            double is = 0;
            for (int y = 0; y < along.height(); y++) {
                for (int x = along.x(); x < along.x() + along.width(); x++) {
                    was += Math.abs(clean.get(n).plane(0).at(x, y)
                            - truth.get(n).plane(0).at(x, y));
                    is += Math.abs(made.get(n).plane(0).at(x, y)
                            - truth.get(n).plane(0).at(x, y));
                }
            }
            assertThat(is).as("frame " + n).isLessThan(was / 4);
        }
    }

    /** A pole is as straight as a scratch, but wider or not as high. */
    @Test
    void polesStay() {
        FrameSource poles = Clips.painted(FORMAT, COUNT, (n, p, x, y) -> {
            boolean mast = x >= 60 && x < 62 && y > 60;
            boolean pole = x >= 120 && x < 128;
            return p > 0 ? 0 : mast || pole ? 0.15 : scene(0, x, y);
        });
        List<Frame> before = run(poles);
        List<Frame> made = run(poles, new DustStage(FORMAT, 20 / 255.0, 24, true));
        assertThat(error(made.get(3).plane(0), before.get(3).plane(0))).isZero();
    }

    @Test
    void aPartIsMadeAsTheWholeIs() {
        var stage = new DustStage(FORMAT, 20 / 255.0, 24, true);
        Frame whole = Clips.run(clip(true, 70), FrameRange.single(3), FORMAT.whole(), stage)
                .getFirst();
        var part = new Region(32, 50, 100, 60);
        Frame cut = Clips.run(clip(true, 70), FrameRange.single(3), part, stage).getFirst();
        for (int p = 0; p < 3; p++) {
            assertThat(cut.plane(p).packed()).isEqualTo(whole.cut(part).plane(p).packed());
        }
    }

    /** The last column of an odd picture is one luma and one chroma sample wide. */
    @Test
    void theLastColumnOfAnOddPictureIsMadeAsTheWholeIs() {
        Format odd = Clips.format(161, 121, Chroma.S420);
        FrameSource dusty = Clips.painted(odd, 3, (n, p, x, y) -> {
            boolean spot = n == 1 && Math.hypot((p == 0 ? x : 2 * x) - 158, (p == 0 ? y : 2 * y) - 60) < 5;
            return p == 0 ? (spot ? 0.95 : scene(n, x, y)) : spot ? 0.4 : 0.02 * n;
        });
        var stage = new DustStage(odd, 20 / 255.0, 24, false);
        Frame whole = Clips.run(dusty, FrameRange.single(1), odd.whole(), stage).getFirst();
        var part = new Region(160, 50, 1, 20);
        Frame cut = Clips.run(dusty, FrameRange.single(1), part, stage).getFirst();
        for (int p = 0; p < 3; p++) {
            assertThat(cut.plane(p).packed()).isEqualTo(whole.cut(part).plane(p).packed());
        }
        assertThat(whole.plane(1).at(79, 30)).isLessThan(0.1f);
    }

    @Test
    void outOfRangeIsRefused() {
        assertThatThrownBy(() -> new DustStage(FORMAT, 0, 24, true)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new DustStage(FORMAT, 0.1, 500, true)).isInstanceOf(IllegalArgumentException.class);
    }
}
