package awlsmith.core.upscale;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.measure.Psnr;
import awlsmith.core.model.ModelCard;
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
import awlsmith.core.resample.Kernel;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class GuidedChromaTest {
    private static final ModelCard CARD = TestCards.of(ModelCard.Job.ENLARGE, 2, 1);
    private static final NetRunner NOTHING = (frames, correction) -> correction.fill(0);
    private final PlanePool pool = new PlanePool(0);

    private static Format format(int width, int height, Chroma chroma, Siting siting) {
        return new Format(width, height, chroma, siting, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    /** A soft disc, sampled where a grid's samples lie: at (x * step + offset) of a picture this much smaller. */
    private static Plane disc(int width, int height, double step, double left, double top, double soft) {
        Plane p = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                double d = Math.hypot(x * step + left - 60.3, y * step + top - 44.8) - 25;
                p.set(x, y, (float) (1 / (1 + Math.exp(d / soft))));
            }
        }
        return p;
    }

    /** Colour and light change at the same edge, as they do at the edges of things. */
    private static Frame picture(Format f, double scale, boolean colourHasTheEdge) {
        Frame frame = Frame.blank(f, f.whole(), 0, Rational.ZERO, new PlanePool(0));
        int sx = f.chroma().stepX();
        int sy = f.chroma().stepY();
        for (int p = 0; p < 3; p++) {
            boolean luma = p == 0;
            double across = luma ? 0 : f.siting().across(sx);
            double down = luma ? 0 : f.siting().down(sy);
            Plane plane = frame.plane(p);
            // centres: sample 0 of a grid scale times as fine lies half its own width in
            Plane made = disc(
                    plane.width(),
                    plane.height(),
                    (luma ? 1 : sx) * scale,
                    (across + 0.5) * scale - 0.5,
                    (down + 0.5) * scale - 0.5,
                    0.4 * Math.max(1, luma ? scale : 2 * scale));
            for (int i = 0; i < made.data().length; i++) {
                float value = made.data()[i];
                plane.data()[i] = luma ? 0.2f + 0.5f * value : colourHasTheEdge ? 0.3f * value - 0.1f : 0.1f;
            }
        }
        return frame;
    }

    private Frame treated(Frame in, float strength) {
        return new UpscaleStage(in.format(), CARD, NOTHING, strength)
                .treat(
                        d -> in,
                        Region.whole(in.format().width() * 2, in.format().height() * 2),
                        pool,
                        Work.alone());
    }

    @ParameterizedTest
    @MethodSource("sitings")
    void colourEdgesFollowTheLight(Siting siting) {
        Frame small = picture(format(120, 90, Chroma.S420, siting), 1, true);
        Plane truth = picture(format(240, 180, Chroma.S420, siting), 0.5, true).plane(1);
        double plain = Psnr.of(
                new EnlargeStage(small.format(), small.format().withSize(240, 180, Rational.ONE), Kernel.CATMULL_ROM)
                        .treat(d -> small, Region.whole(240, 180), pool, Work.alone())
                        .plane(1),
                truth,
                4);
        double guided = Psnr.of(treated(small, 1).plane(1), truth, 4);
        assertThat(guided).isGreaterThan(plain + 2);
    }

    @Test
    void lightAloneBringsNoColour() {
        Frame small = picture(format(120, 90, Chroma.S420, Siting.LEFT), 1, false);
        for (float sample : treated(small, 1).plane(2).packed()) {
            assertThat(sample).isBetween(0.1f - 1e-5f, 0.1f + 1e-5f);
        }
    }

    static List<Siting> sitings() {
        // the last ones are of pictures that were mirrored or turned
        return List.of(Siting.LEFT, Siting.CENTRE, Siting.TOP_LEFT, Siting.TOP, Siting.BOTTOM_LEFT, new Siting(1, 0.5));
    }

    @ParameterizedTest
    @CsvSource({"S420, 0, 0.5", "S420, 0, 0", "S422, 0, 0.5", "S420, 1, 0.5", "S420, 0.5, 1"})
    void aRegionIsCutFromTheWhole(Chroma chroma, double across, double down) {
        var siting = new Siting(across, down);
        Format f = format(61, 47, chroma, siting);
        var random = new SplittableRandom(3);
        Frame in = Frame.blank(f, f.whole(), 0, Rational.ZERO, pool);
        in.planes().forEach(p -> {
            for (int i = 0; i < p.data().length; i++) {
                p.data()[i] = (float) random.nextDouble() - 0.3f;
            }
        });
        var stage = new UpscaleStage(f, CARD, NOTHING, 1);
        Frame whole = stage.treat(d -> in, stage.output().whole(), pool, Work.alone());
        try (var threads = new ForkJoinPool(3)) {
            for (Region wanted :
                    new Region[] {new Region(0, 0, 20, 14), new Region(40, 30, 18, 22), new Region(100, 80, 22, 14)}) {
                Region needs = stage.needs(wanted);
                Frame part = stage.treat(d -> in.cut(needs), wanted, pool, new Work(threads, 3, new Cancel()));
                for (int p = 0; p < 3; p++) {
                    assertThat(part.plane(p).packed())
                            .isEqualTo(whole.cut(wanted).plane(p).packed());
                }
            }
        }
    }
}
