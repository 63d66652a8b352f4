package awlsmith.core.upscale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

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
}
