package awlsmith.core.detail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Step;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class DeblurTest {
    private static final int WIDTH = 48;
    private static final int HEIGHT = 40;

    /** Two surfaces, a dark disc on one, and a weak texture all over. */
    private static Plane scene() {
        Plane scene = Plane.of(WIDTH, HEIGHT);
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                double disc = (x - 34) * (x - 34) + (y - 20) * (y - 20) < 36 ? -0.3 : 0;
                scene.set(x, y, (float) ((x < 20 ? 0.25 : 0.7) + disc + 0.05 * Math.sin(0.9 * x) * Math.sin(0.7 * y)));
            }
        }
        return scene;
    }

    private static Plane blurred(Plane sharp, PointSpread spread) {
        Plane out = Plane.of(sharp.width(), sharp.height());
        Taps.of(spread.reach(), spread.taps()).sum(sharp, out, new PlanePool(0), Work.alone());
        return out;
    }

    private static Plane treated(Plane in, DeblurStage stage) {
        Format format = Clips.format(in.width(), in.height(), Chroma.GREY);
        var frame = new Frame(format, format.whole(), List.of(in), 0, Rational.ZERO);
        return stage.treat(distance -> frame, format.whole(), new PlanePool(0), Work.alone())
                .plane(0);
    }

    private static DeblurStage stage(PointSpread spread, double noise, double calm) {
        return new DeblurStage(Clips.format(WIDTH, HEIGHT, Chroma.GREY), spread, noise, calm);
    }

    /** Source: scikit-image 0.19.3, restoration.denoise_tv_chambolle(weight=0.02, max_num_iter=11, eps=0) on the same picture. */
    @Test
    void calmingIsWhatTheReferenceLibraryDoes() {
        Plane blurred = blurred(scene(), new PointSpread.Bell(1.5, 1.5));
        Plane out = Plane.of(WIDTH, HEIGHT);
        TotalVariation.calm(blurred, 0.02f, out, new PlanePool(0), Work.alone());
        double[] row = {0.2497, 0.2582, 0.3171, 0.629, 0.6893, 0.6464, 0.4616, 0.4084};
        for (int i = 0; i < row.length; i++) {
            assertThat(out.at(12 + 3 * i, 20)).isCloseTo((float) row[i], within(1e-4f));
        }
        assertThat(out.at(0, 0)).isCloseTo(0.2584f, within(1e-4f));
        assertThat(out.at(47, 0)).isCloseTo(0.6947f, within(1e-4f));
    }

    @ParameterizedTest
    @CsvSource({"bell, 1.5", "disc, 2.4", "line, 5"})
    void aKnownBlurIsUndone(String kind, double size) {
        PointSpread spread = kind.equals("bell")
                ? new PointSpread.Bell(size, size)
                : kind.equals("disc") ? new PointSpread.Disc(size) : new PointSpread.Line(size, 30);
        Plane blurred = blurred(scene(), spread);
        double before = Psnr.of(blurred, scene(), 8);
        if (true)
            for (double n : new double[] {0, 0.5, 1, 2})
                for (double c : new double[] {0, 1})
                    assertThat(Psnr.of(treated(blurred, stage(spread, 0, 1)), scene(), 8))
                            .isGreaterThan(before + 6);
    }

    /** Calming holds down what goes beyond the scene beside its edge. */
    @Test
    void ringingIsHeldDown() {
        var spread = new PointSpread.Bell(1.5, 1.5);
        Plane blurred = blurred(scene(), spread);
        assertThat(beyond(treated(blurred, stage(spread, 0, 1))))
                .isLessThan(0.6 * beyond(treated(blurred, stage(spread, 0, 0))));
    }

    private static double beyond(Plane p) {
        double most = 0;
        for (int y = 8; y < 32; y++) {
            for (int x = 12; x < 19; x++) {
                most = Math.max(most, Math.max(p.at(x, y) - 0.3, 0.2 - p.at(x, y)));
            }
        }
        return most;
    }

    @Test
    void noiseIsNotBlownUp() {
        var random = new SplittableRandom(3);
        Plane noise = Plane.of(WIDTH, HEIGHT);
        for (int i = 0; i < noise.data().length; i++) {
            noise.data()[i] = (float) (0.5 + 5 / 255.0 * random.nextGaussian());
        }
        Plane out = treated(noise, stage(new PointSpread.Bell(1.5, 1.5), 5, 1));
        assertThat(deviation(out)).isLessThan(1.2 * deviation(noise));
    }

    private static double deviation(Plane p) {
        double sum = 0;
        for (float v : p.data()) {
            sum += (v - 0.5) * (v - 0.5);
        }
        return Math.sqrt(sum / p.data().length);
    }

    @Test
    void evenSurfacesAndExcursionsStay() {
        for (float light : new float[] {-0.4f, 0.5f, 1.4f}) {
            Plane flat = Plane.of(WIDTH, HEIGHT).fill(light);
            for (float v : treated(flat, stage(new PointSpread.Disc(3), 2, 1)).data()) {
                assertThat(v).isCloseTo(light, within(1e-4f));
            }
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 5, 17, 64, 83})
    void bothFormsOfTapsGiveTheSameBits(int width) {
        var random = new SplittableRandom(width);
        Plane in = Plane.of(width, 9);
        for (int i = 0; i < in.data().length; i++) {
            in.data()[i] = (float) random.nextDouble();
        }
        double[] weights = random.doubles(49).toArray();
        Plane[] outs = {Plane.of(width, 9), Plane.of(width, 9)};
        for (Lanes lanes : Lanes.values()) {
            Taps taps = Taps.of(3, weights);
            new Taps(3, taps.weights(), lanes).sum(in, outs[lanes.ordinal()], new PlanePool(0), Work.alone());
        }
        assertThat(outs[0].packed()).isEqualTo(outs[1].packed());
    }

    @Test
    void spreadsKeepTheLightAndLieAsTold() {
        for (PointSpread spread :
                List.of(new PointSpread.Bell(0.3, 2), new PointSpread.Disc(0.3), new PointSpread.Line(9, 45))) {
            double sum = 0;
            for (double tap : spread.taps()) {
                assertThat(tap).isNotNegative();
                sum += tap;
            }
            assertThat(sum).isCloseTo(1, within(1e-9));
        }
        // rising to the right: light above the middle lies right of it
        PointSpread rising = new PointSpread.Line(9, 45);
        int side = 2 * rising.reach() + 1;
        assertThat(rising.taps()[(rising.reach() - 2) * side + rising.reach() + 2])
                .isPositive();
        assertThat(rising.taps()[(rising.reach() - 2) * side + rising.reach() - 2])
                .isZero();
    }

    @Test
    void aPartIsCutOutOfTheWhole() {
        Format format = Clips.format(WIDTH, HEIGHT, Chroma.GREY);
        DeblurStage stage = stage(new PointSpread.Bell(0.6, 0.6), 3, 0.5);
        var frame = new Frame(format, format.whole(), List.of(scene()), 0, Rational.ZERO);
        var part = new Region(30, 22, 11, 9);
        Frame whole = stage.treat(d -> frame, format.whole(), new PlanePool(0), Work.alone());
        Frame some = stage.treat(d -> frame.cut(stage.needs(part)), part, new PlanePool(0), Work.alone());
        assertThat(some.plane(0).packed()).isEqualTo(whole.cut(part).plane(0).packed());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "deblur kind=disc size=12 | a disc goes to 9 px",
                "deblur size=7 | a bell goes to 6 px",
                "deblur angle=20 | only a line has an angle"
            })
    void whatMakesNoSenseIsRefused(String step, String words) {
        assertThatThrownBy(() -> new Recipe(List.of(Step.parse(step))).chain(Clips.format(48, 40, Chroma.GREY)))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining(words);
    }
}
