package awlsmith.core.upscale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.NetRunner;
import awlsmith.core.model.Tiles;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Work;
import org.junit.jupiter.api.Test;

class UpscaleStageTest {
    private static final ModelCard CARD = TestCards.of(ModelCard.Job.ENLARGE, 2, 4);
    private final PlanePool pool = new PlanePool(0);

    private static Format grey(int width, int height) {
        return new Format(width, height, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    private static Frame flat(Format format, Region window, float value) {
        return new Frame(
                format,
                window,
                java.util.List.of(Plane.of(window.width(), window.height()).fill(value)),
                0,
                Rational.ZERO);
    }

    @Test
    void noTileIsLargerThanItsBoundWithItsReach() {
        Format format = grey(1000, 700);
        var stage = new UpscaleStage(
                format,
                CARD,
                (frames, correction) -> {
                    int side = Tiles.SIDE;
                    int width = frames.getFirst().width() - 2 * CARD.reach();
                    int height = frames.getFirst().height() - 2 * CARD.reach();
                    assertThat(width * height).isLessThanOrEqualTo(side * side);
                    correction.fill(0.125f);
                },
                1);
        Frame out = stage.treat(d -> flat(format, format.whole(), 0.5f), Region.whole(2000, 1400), pool, Work.alone());
        assertThat(out.plane(0).packed()).containsOnly(0.625f);
    }

    /** 640x360 on two threads: two halves side by side or on top of each other, whichever computes less twice. */
    @Test
    void tilesKeepAllThreadsBusyAndComputeLittleTwice() {
        for (int[] size : new int[][] {{640, 360}, {360, 640}, {3, 1000}, {1, 1}, {1920, 1080}}) {
            Format format = grey(size[0], size[1]);
            var seen = new java.util.concurrent.ConcurrentLinkedQueue<Long>();
            NetRunner net = (frames, correction) -> {
                seen.add((long) frames.getFirst().width() * frames.getFirst().height());
                correction.fill(0);
            };
            new UpscaleStage(format, CARD, net, 1)
                    .treat(
                            d -> flat(format, format.whole(), 0.5f),
                            Region.whole(size[0] * 2, size[1] * 2),
                            pool,
                            new Work(Runnable::run, 2, new Cancel()));
            long computed = seen.stream().mapToLong(Long::longValue).sum();
            assertThat(computed).isLessThan((long) (1.06 * size[0] * size[1] + 1));
            if (size[0] * size[1] > 100_000) {
                assertThat(seen).hasSizeGreaterThanOrEqualTo(2);
            }
        }
    }

    @Test
    void strengthWeighsTheCorrectionAndExcursionsAreBounded() {
        Format format = grey(10, 10);
        NetRunner much = (frames, correction) -> correction.fill(4);
        Region whole = Region.whole(20, 20);
        Frame bounded = new UpscaleStage(format, CARD, much, 1)
                .treat(d -> flat(format, format.whole(), 0.5f), whole, pool, Work.alone());
        assertThat(bounded.plane(0).packed()).containsOnly(1.5f);
        Frame half = new UpscaleStage(format, CARD, much, 0.125)
                .treat(d -> flat(format, format.whole(), 0.25f), whole, pool, Work.alone());
        assertThat(half.plane(0).packed()).containsOnly(0.75f);
    }

    @Test
    void aRegionAsksForItsSurroundingsAndNoMore() {
        var stage = new UpscaleStage(grey(400, 300), CARD, (frames, correction) -> correction.fill(0), 1);
        assertThat(stage.needs(new Region(100, 80, 40, 20))).isEqualTo(new Region(46, 36, 28, 18));
        assertThat(stage.needs(new Region(0, 0, 800, 600))).isEqualTo(Region.whole(400, 300));
    }

    @Test
    void aCancelStopsBetweenTiles() {
        var cancel = new Cancel();
        Format format = grey(1000, 700);
        var stage = new UpscaleStage(
                format,
                CARD,
                (frames, correction) -> {
                    correction.fill(0);
                    cancel.ask();
                },
                1);
        assertThatThrownBy(() -> stage.treat(
                        d -> flat(format, format.whole(), 0.5f),
                        Region.whole(2000, 1400),
                        pool,
                        new Work(Runnable::run, 1, cancel)))
                .isInstanceOf(Cancel.Stopped.class);
    }

    /** A net that reads five frames: what it is shown comes out, each plane with a weight of its own. */
    private static final ModelCard FIVE = TestCards.of(ModelCard.Job.ENLARGE, 2, 4, 5);

    private static void tell(java.util.List<Plane> frames, Plane correction) {
        assertThat(frames).hasSize(5);
        for (int y = 0; y < correction.height(); y++) {
            for (int x = 0; x < correction.width(); x++) {
                float sum = 0;
                for (int i = 0; i < 5; i++) {
                    sum += frames.get(i).at(x / 2, y / 2) * (i + 1) / 64;
                }
                correction.set(x, y, sum);
            }
        }
    }

    /** Frame n is a picture that wanders by (2, 1) a frame over waves. */
    private static Frame wandering(Format format, Region window, int n) {
        Plane p = Plane.of(window.width(), window.height());
        for (int y = 0; y < p.height(); y++) {
            for (int x = 0; x < p.width(); x++) {
                int u = x + window.x() - 2 * n;
                int v = y + window.y() - n;
                p.set(x, y, (float) (0.5
                        + 0.1 * Math.sin(0.35 * u + 0.2 * v)
                        + 0.1 * Math.sin(0.21 * u - 0.43 * v)
                        + 0.1 * Math.sin(0.9 * u + 0.1 * v)
                        + 0.1 * Math.sin(0.15 * u + 0.75 * v)));
            }
        }
        return new Frame(format, window, java.util.List.of(p), n, Rational.ZERO);
    }

    @Test
    void severalFramesAreLaidOverEachOtherAndAnyPartComesOutAsInTheWhole() {
        Format format = grey(210, 170);
        var stage = new UpscaleStage(format, FIVE, UpscaleStageTest::tell, 1);
        assertThat(stage.before()).isEqualTo(2);
        assertThat(stage.after()).isEqualTo(2);
        Frame whole =
                stage.treat(d -> wandering(format, format.whole(), 7 + d), Region.whole(420, 340), pool, Work.alone());
        for (Region part :
                new Region[] {new Region(200, 160, 30, 22), new Region(0, 0, 2, 2), new Region(399, 301, 21, 39)}) {
            Region needs = stage.needs(part);
            Frame cut = stage.treat(d -> wandering(format, needs, 7 + d), part, pool, Work.alone());
            assertThat(cut.plane(0).packed())
                    .isEqualTo(whole.plane(0).window(part).packed());
        }
        // laid along the motion all five show the same: their sum is fifteen times the one
        var plain = new UpscaleStage(format, FIVE, UpscaleStageTest::tell, 0)
                .treat(d -> wandering(format, format.whole(), 7), Region.whole(420, 340), pool, Work.alone());
        Frame here = wandering(format, format.whole(), 7);
        int right = 0;
        for (int y = 30; y < 140; y++) {
            for (int x = 30; x < 180; x++) {
                float added = whole.plane(0).at(2 * x, 2 * y) - plain.plane(0).at(2 * x, 2 * y);
                right += Math.abs(added - here.plane(0).at(x, y) * 15 / 64) < 0.004 ? 1 : 0;
            }
        }
        assertThat(right).isGreaterThan(110 * 150 * 95 / 100);
    }

    @Test
    void aStillAndASecondPassShowTheFrameAlone() {
        Format format = grey(64, 48);
        NetRunner net = (frames, correction) -> {
            for (Plane frame : frames) {
                assertThat(frame.packed()).isEqualTo(frames.getFirst().packed());
            }
            correction.fill(0);
        };
        Region all = Region.whole(128, 96);
        new UpscaleStage(format, FIVE, net, 1)
                .treat(d -> wandering(format, format.whole(), 3), all, pool, Work.alone());
        var second = new UpscaleStage(format, FIVE, net, 1, false, Softness.unknown());
        assertThat(second.before()).isZero();
        second.treat(
                d -> {
                    assertThat(d).isZero();
                    return wandering(format, format.whole(), 3);
                },
                all,
                pool,
                Work.alone());
    }

    @Test
    void aModelThatCanBeToldReadsHowSoftFootageIsAfterTheLight() {
        Format format = grey(30, 20);
        ModelCard told = TestCards.of(ModelCard.Job.ENLARGE, 2, 4, 1, true);
        var seen = new java.util.TreeSet<Float>();
        NetRunner net = (frames, correction) -> {
            assertThat(frames).hasSize(2);
            assertThat(frames.get(0).packed()).containsOnly(0.5f);
            seen.add(frames.get(1).at(0, 0));
            assertThat(frames.get(1).packed()).containsOnly(frames.get(1).at(0, 0));
            correction.fill(0);
        };
        for (Softness softness :
                new Softness[] {Softness.unknown(), Softness.of(0), Softness.of(0.5), Softness.of(1)}) {
            new UpscaleStage(format, told, net, 1, true, softness)
                    .treat(d -> flat(format, format.whole(), 0.5f), Region.whole(60, 40), pool, Work.alone());
        }
        assertThat(seen).hasSize(4).first().isEqualTo(0f);
        assertThatThrownBy(() -> Softness.of(1.01)).isInstanceOf(IllegalArgumentException.class);
    }
}
