package awlsmith.core.clean;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.measure.Bands;
import awlsmith.core.measure.Dots;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Bands become slopes and dots go, while edges, lines and texture stay. */
class SurfacesTest {
    private static final PlanePool POOL = new PlanePool(0);
    private static final int WIDTH = 200;
    private static final int HEIGHT = 120;
    private static final float CODE = 1 / 219f;

    private interface Paint {
        double at(int p, int x, int y);
    }

    private static Frame frame(Chroma chroma, Paint paint) {
        var format = new Format(WIDTH, HEIGHT, chroma, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, POOL);
        for (int p = 0; p < frame.planes().size(); p++) {
            Plane plane = frame.plane(p);
            for (int y = 0; y < plane.height(); y++) {
                for (int x = 0; x < plane.width(); x++) {
                    plane.set(x, y, (float) paint.at(p, x, y));
                }
            }
        }
        return frame;
    }

    private static Frame whole(Stage stage, Frame in) {
        return stage.treat(d -> in, in.format().whole(), POOL, Work.alone());
    }

    private static double slope(int x, int y) {
        return 0.4 + 0.02 * x * CODE + 0.013 * y * CODE;
    }

    private static double coded(double value) {
        return Math.rint(value / CODE) * CODE;
    }

    /** A slope of one code value in fifty samples: rounded it is off by a quarter of one on average, smoothed by a fifth of that. */
    @Test
    void bandsBecomeTheSlopeTheyWereMadeOf() {
        Frame banded = frame(Chroma.S420, (p, x, y) -> p == 0 ? coded(slope(x, y)) : 0);
        Frame made = whole(new BandStage(banded.format(), 1.5, 6), banded);
        double before = 0;
        double after = 0;
        for (int y = 20; y < HEIGHT - 20; y++) {
            for (int x = 20; x < WIDTH - 20; x++) {
                before += Math.abs(banded.plane(0).at(x, y) - slope(x, y));
                after += Math.abs(made.plane(0).at(x, y) - slope(x, y));
            }
        }
        assertThat(after).isLessThan(before * 0.35);
        assertThat(Bands.share(banded.plane(0))).isGreaterThan(0.8);
        assertThat(Bands.share(made.plane(0))).isLessThan(0.05);
    }

    /** Faint texture and noise of half a code value have no level pieces; edges of more than a few code values are none of its business. */
    @Test
    void textureAndEdgesStay() {
        var random = new Random(1);
        Frame rough = frame(Chroma.GREY, (p, x, y) -> coded(slope(x, y) + CODE * random.nextGaussian()));
        Frame made = whole(new BandStage(rough.format(), 1.5, 6), rough);
        assertThat(Arrays.equals(made.plane(0).packed(), rough.plane(0).packed()))
                .isTrue();
        assertThat(Bands.share(rough.plane(0))).isLessThan(0.02);
        Frame edge = frame(Chroma.GREY, (p, x, y) -> x < 100 ? 0.3 : 0.35);
        Frame kept = whole(new BandStage(edge.format(), 1.5, 6), edge);
        assertThat(kept.plane(0).at(99, 60)).isCloseTo(0.3f, within(1e-6f));
        assertThat(kept.plane(0).at(100, 60)).isCloseTo(0.35f, within(1e-6f));
    }

    /** A blue and an orange surface with a dark line of two samples between, every seventh sample a dot of the next colour. */
    private static double drawn(int p, int x, int y, boolean dotted) {
        double[] colour = Math.abs(x - 100) < 1 || x == 99
                ? new double[] {0.14, 0.14, 0}
                : x < 100 ? new double[] {0.29, 0.43, 0.67} : new double[] {0.86, 0.57, 0};
        boolean dot = dotted && (x * 3 + y * 5) % 14 == 0 && (x < 97 || x > 102);
        return colour[p] + (dot && p != 2 ? 0.14 : 0);
    }

    @Test
    void dotsGoAndLinesStay() {
        Frame dotted = frame(Chroma.RGB, (p, x, y) -> drawn(p, x, y, true));
        Frame made = whole(new DitherStage(dotted.format(), 64 / 255.0, 4), dotted);
        assertThat(Dots.of(dotted.plane(1)).dots()).isGreaterThan(0.04);
        assertThat(Dots.of(made.plane(1)).dots()).isZero();
        for (int y = 10; y < HEIGHT - 10; y++) {
            for (int x = 10; x < WIDTH - 10; x++) {
                for (int p = 0; p < 3; p++) {
                    // dots are a fourteenth of the surface, and lift it by a hundredth
                    float wanted = (float) (drawn(p, x, y, false) + (p != 2 && Math.abs(x - 100) > 8 ? 0.01 : 0));
                    assertThat(made.plane(p).at(x, y))
                            .as("%d at %d, %d", p, x, y)
                            .isCloseTo(wanted, within(0.03f));
                }
            }
        }
    }

    /** What dots and bands are looked for in, and not found: noise, and flat colour without any. */
    @Test
    void noiseIsNoDither() {
        var random = new Random(2);
        Frame noisy = frame(Chroma.GREY, (p, x, y) -> 0.5 + 0.03 * random.nextGaussian());
        assertThat(Dots.of(noisy.plane(0)).flat()).isLessThan(0.05);
        Frame flat = frame(Chroma.GREY, (p, x, y) -> x < 80 ? 0.2 : 0.7);
        assertThat(Dots.of(flat.plane(0)).dots()).isZero();
        assertThat(Bands.share(flat.plane(0))).isZero();
    }

    static Stream<Stage> stages() {
        Format luma = frame(Chroma.S420, (p, x, y) -> 0).format();
        Format colours = frame(Chroma.RGB, (p, x, y) -> 0).format();
        return Stream.of(new BandStage(luma, 2, 4), new DitherStage(colours, 0.2, 3));
    }

    @ParameterizedTest
    @MethodSource("stages")
    void everyPartIsCutOutOfTheWhole(Stage stage) {
        var random = new Random(3);
        Frame in = frame(
                stage.output().chroma(),
                (p, x, y) -> coded(slope(x, y)) + (random.nextInt(9) == 0 ? 0.1 : 0) + (x > 120 ? 0.2 : 0));
        Frame all = whole(stage, in);
        for (Region part : List.of(
                new Region(0, 0, 40, 30),
                new Region(64, 40, 50, 36),
                new Region(150, 88, 50, 32),
                new Region(20, 0, 2, 120))) {
            Frame some = stage.treat(d -> in.cut(stage.needs(part)), part, POOL, Work.alone());
            for (int p = 0; p < 3; p++) {
                assertThat(Arrays.equals(
                                some.plane(p).packed(), all.cut(part).plane(p).packed()))
                        .as("%s plane %d", part, p)
                        .isTrue();
            }
        }
    }

    @Test
    void settingsBeyondAllBoundsAreRefused() {
        Format luma = frame(Chroma.S420, (p, x, y) -> 0).format();
        Format colours = frame(Chroma.RGB, (p, x, y) -> 0).format();
        assertThatThrownBy(() -> new BandStage(luma, 0, 3)).hasMessageContaining("step is 0");
        assertThatThrownBy(() -> new BandStage(luma, 1, 9)).hasMessageContaining("rounds 9");
        assertThatThrownBy(() -> new DitherStage(luma, 0.2, 3)).hasMessageContaining("no samples of their own");
        assertThatThrownBy(() -> new DitherStage(colours, 0.2, 9)).hasMessageContaining("radius 9");
    }
}
