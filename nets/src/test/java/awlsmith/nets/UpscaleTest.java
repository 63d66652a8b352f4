package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetRunner;
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
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.upscale.FramesAround;
import awlsmith.core.upscale.Softness;
import awlsmith.core.upscale.UpscaleStage;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class UpscaleTest {
    private final PlanePool pool = new PlanePool(0);

    static List<ModelCard> cards() {
        return Models.enlarging();
    }

    private static Format format(int width, int height, Chroma chroma) {
        return new Format(width, height, chroma, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    /** Edges, slopes and grain, so that every weight matters. */
    private static Frame picture(Format format, Region window) {
        return picture(format, window, 0);
    }

    /** @param n number of the frame; the picture wanders by 3 samples a frame */
    private static Frame picture(Format format, Region window, int n) {
        var planes = new java.util.ArrayList<Plane>();
        for (int p = 0; p < format.chroma().planes(); p++) {
            int sx = format.chroma().stepX(p);
            int sy = format.chroma().stepY(p);
            Plane plane = Plane.of(
                    format.chroma().planeWidth(p, window.width()),
                    format.chroma().planeHeight(p, window.height()));
            for (int y = 0; y < plane.height(); y++) {
                for (int x = 0; x < plane.width(); x++) {
                    int u = x + window.x() / sx + 3 * n;
                    int v = y + window.y() / sy;
                    var grain = new SplittableRandom(u * 7919L + v * 104729L + p);
                    double value = 0.5 + 0.3 * Math.signum(Math.sin(u * 0.21 + v * 0.13)) + 0.1 * grain.nextDouble();
                    plane.set(x, y, (float) (format.chroma().isDifference(p) ? value - 0.5 : value));
                }
            }
            planes.add(plane);
        }
        return new Frame(format, window, planes, n, Rational.ZERO);
    }

    private Frame treated(ModelCard card, Format format, Region wanted, Work work) {
        var stage = new UpscaleStage(format, card, Models.open(card), 1);
        Region needs = stage.needs(wanted);
        return stage.treat(distance -> picture(format, needs, distance), wanted, pool, work);
    }

    /** Tiles must leave no seam: the whole picture run at once is the judge. Source: the net's definition itself. */
    @ParameterizedTest
    @MethodSource("cards")
    void tilesAreTheWhole(ModelCard card) {
        Format format = format(701, 333, Chroma.GREY);
        Frame tiled = treated(card, format, Region.whole(1402, 666), Work.alone());
        Plane in = picture(format, format.whole()).plane(0);
        Plane correction = Plane.of(1402, 666);
        List<Plane> shown = FramesAround.shown(
                d -> d == 0 ? in : picture(format, format.whole(), d).plane(0),
                format.whole(),
                701,
                333,
                format.whole(),
                card.frames(),
                pool,
                Work.alone());
        if (card.told()) {
            shown.add(Plane.of(701, 333).fill(Softness.unknown().sample()));
        }
        Models.open(card).run(shown, correction);
        var plain = new EnlargeStage(format, format(1402, 666, Chroma.GREY), card.base())
                .treat(d -> picture(format, format.whole()), Region.whole(1402, 666), pool, Work.alone());
        double worst = 0;
        for (int y = 0; y < 666; y++) {
            for (int x = 0; x < 1402; x++) {
                double whole = plain.plane(0).at(x, y) + correction.at(x, y);
                worst = Math.max(worst, Math.abs(whole - tiled.plane(0).at(x, y)));
            }
        }
        assertThat(worst).isLessThan(1e-5);
    }

    /** What a still shows must be what the render makes, to the bit. */
    @ParameterizedTest
    @MethodSource("cards")
    void aRegionIsCutFromTheWhole(ModelCard card) {
        Format format = format(430, 390, Chroma.S420);
        Frame whole = treated(card, format, Region.whole(860, 780), Work.alone());
        var wanted = new Region(310, 254, 222, 334);
        try (var threads = new ForkJoinPool(3)) {
            Frame part = treated(card, format, wanted, new Work(threads, 3, new Cancel()));
            Frame cut = whole.cut(wanted);
            for (int p = 0; p < 3; p++) {
                assertThat(part.plane(p).packed()).isEqualTo(cut.plane(p).packed());
            }
        }
    }

    @ParameterizedTest
    @MethodSource("cards")
    void oddSizesWorkAndNothingIsNotANumber(ModelCard card) {
        for (int[] size : new int[][] {{1, 1}, {3, 2}, {5, 41}}) {
            Format format = format(size[0], size[1], Chroma.S420);
            Frame out = treated(card, format, Region.whole(size[0] * 2, size[1] * 2), Work.alone());
            for (float sample : out.plane(0).packed()) {
                assertThat(sample).isBetween(-0.5f, 1.5f);
            }
        }
    }

    @Test
    void redGreenAndBlueGainWhatLumaGains() {
        ModelCard card = Models.enlarging().getFirst();
        Format format = format(64, 48, Chroma.RGB);
        Frame out = treated(card, format, Region.whole(128, 96), Work.alone());
        var plain = new EnlargeStage(format, format(128, 96, Chroma.RGB), card.base())
                .treat(d -> picture(format, format.whole()), Region.whole(128, 96), pool, Work.alone());
        for (int i : new int[] {20, 50, 90}) {
            float red = out.plane(0).at(i, i) - plain.plane(0).at(i, i);
            float blue = out.plane(2).at(i, i) - plain.plane(2).at(i, i);
            assertThat(red).isCloseTo(blue, org.assertj.core.data.Offset.offset(1e-6f));
        }
    }

    @Test
    void noStrengthIsThePlainEnlargement() {
        ModelCard card = Models.enlarging().getFirst();
        Format format = format(40, 30, Chroma.GREY);
        NetRunner never = (frames, correction) -> {
            throw new AssertionError("not needed");
        };
        Frame out = new UpscaleStage(format, card, never, 0)
                .treat(d -> picture(format, format.whole()), Region.whole(80, 60), pool, Work.alone());
        Frame plain = new EnlargeStage(format, format(80, 60, Chroma.GREY), card.base())
                .treat(d -> picture(format, format.whole()), Region.whole(80, 60), pool, Work.alone());
        assertThat(out.plane(0).packed()).isEqualTo(plain.plane(0).packed());
    }
}
