package awlsmith.core.motion;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AlignmentTest {
    private static final int WIDTH = 150;
    private static final int HEIGHT = 118;

    /** Smooth waves of many directions: known between samples too, so that moved pictures are exact. */
    private static Plane waves(double dx, double dy, double grain, long seed) {
        var random = new SplittableRandom(7);
        double[][] waves = new double[40][];
        for (int i = 0; i < waves.length; i++) {
            double way = 2 * Math.PI * random.nextDouble();
            double rate = 0.03 + 0.75 * random.nextDouble();
            waves[i] = new double[] {Math.cos(way) * rate, Math.sin(way) * rate, 2 * Math.PI * random.nextDouble()};
        }
        var noise = new SplittableRandom(seed);
        Plane p = Plane.of(WIDTH, HEIGHT);
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                double sum = 0.5;
                for (double[] w : waves) {
                    sum += 0.03 * Math.sin(w[0] * (x - dx) + w[1] * (y - dy) + w[2]);
                }
                p.set(x, y, (float) (sum + grain * noise.nextGaussian()));
            }
        }
        return p;
    }

    private static Region all() {
        return new Region(0, 0, WIDTH, HEIGHT);
    }

    private static Plane laid(Plane here, Plane there, Region hold, Region part) {
        Plane out = Plane.of(part.width(), part.height());
        new Alignment(here, hold, WIDTH, HEIGHT, part).lay(there, hold, out, Work.alone());
        return out;
    }

    /** Root of the mean squared difference, a margin left out that moved in from outside. */
    private static double apart(Plane a, Plane b, int margin) {
        double sum = 0;
        int count = 0;
        for (int y = margin; y < a.height() - margin; y++) {
            for (int x = margin; x < a.width() - margin; x++) {
                sum += Math.pow(a.at(x, y) - b.at(x, y), 2);
                count++;
            }
        }
        return Math.sqrt(sum / count);
    }

    @ParameterizedTest
    @CsvSource({"0,0", "1,0", "-3,2", "0.5,0.25", "7.25,-11.5", "-15,14", "16,-16"})
    void followsWhatMoved(double dx, double dy) {
        Plane here = waves(0, 0, 0, 1);
        Plane laid = laid(here, waves(dx, dy, 0, 1), all(), all());
        // a sixteenth of the contrast (0.13) or less is left, of what was up to the whole of it
        assertThat(apart(laid, here, 24)).isLessThan(0.008);
    }

    @Test
    void grainOfAStillPictureIsNotFollowed() {
        Plane here = waves(0, 0, 0.06, 1);
        Plane there = waves(0, 0, 0.06, 2);
        // nearly everywhere the neighbour comes through as it is: its grain stays its own, so that a mean takes grain
        // away
        assertThat(apart(laid(here, there, all(), all()), there, 0)).isLessThan(0.025);
    }

    @Test
    void aPartComesOutAsInTheWhole() {
        Plane here = waves(0, 0, 0.02, 1);
        Plane there = waves(5.5, -7.25, 0.02, 2);
        Plane whole = laid(here, there, all(), all());
        for (Region part : new Region[] {
            new Region(70, 66, 23, 17), new Region(0, 0, 1, 1), new Region(149, 117, 1, 1), new Region(131, 3, 19, 50)
        }) {
            Region hold = Alignment.needs(part, WIDTH, HEIGHT);
            Plane out = laid(here.window(hold), there.window(hold), hold, part);
            assertThat(out.packed()).isEqualTo(whole.window(part).packed());
        }
    }

    @Test
    void tooSmallAPieceIsRefused() {
        Region hold = new Region(0, 0, 40, 40);
        Plane piece = Plane.of(40, 40);
        assertThatThrownBy(() -> new Alignment(piece, hold, WIDTH, HEIGHT, hold))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("needs");
    }

    @Test
    void tinyPicturesAreLaidToo() {
        Plane here = Plane.of(3, 2).fill(0.25f);
        Plane there = Plane.of(3, 2).fill(0.5f);
        Region whole = new Region(0, 0, 3, 2);
        Plane out = Plane.of(3, 2);
        new Alignment(here, whole, 3, 2, whole).lay(there, whole, out, Work.alone());
        assertThat(out.packed()).containsOnly(0.5f);
    }

    @Test
    void bothFormsOfTheMisfitGiveTheSameBits() {
        Plane a = waves(0, 0, 0.1, 1);
        Plane b = waves(2, 1, 0.1, 2);
        var scalar = new SquareMisfit.Scalar();
        var vector = new SquareMisfit.Vector();
        for (int y = 0; y < 100; y += 7) {
            for (int x = 0; x < 130; x += 3) {
                float one = scalar.of(a.data(), a.row(y) + x, a.stride(), b.data(), b.row(y + 1) + x + 2, b.stride());
                float other = vector.of(a.data(), a.row(y) + x, a.stride(), b.data(), b.row(y + 1) + x + 2, b.stride());
                assertThat(other).isEqualTo(one);
            }
        }
    }

    @Test
    void eightSamplesBetweenOthersAreTheSameInBothForms() {
        Plane a = waves(1, 2, 0.1, 3);
        float[] weights = {9, -0.07f, 0.5f, 0.6f, -0.03f};
        float[] scalar = new float[12];
        float[] vector = new float[12];
        for (int y = 0; y < 90; y += 11) {
            for (int step : new int[] {1, a.stride()}) {
                new EightBetween.Scalars().of(a.data(), a.row(y) + y, step, weights, 1, scalar, 3);
                new EightBetween.Vectors().of(a.data(), a.row(y) + y, step, weights, 1, vector, 3);
                assertThat(vector).isEqualTo(scalar);
            }
        }
        assertThat(scalar[2]).isZero();
        assertThat(scalar[3]).isNotZero();
    }

    @Test
    void nineSquaresSideBySideAreAsFarAsEachAlone() {
        var random = new java.util.Random(8);
        float[] a = new float[40 * 12];
        float[] b = new float[44 * 14];
        for (int i = 0; i < a.length; i++) {
            a[i] = random.nextFloat();
        }
        for (int i = 0; i < b.length; i++) {
            b[i] = random.nextFloat();
        }
        float[] scalar = new float[RowMisfits.PLACES];
        float[] vector = new float[RowMisfits.PLACES];
        new RowMisfits.Scalars().of(a, 43, 40, b, 50, 44, scalar);
        new RowMisfits.Vectors().of(a, 43, 40, b, 50, 44, vector);
        assertThat(vector).isEqualTo(scalar);
        double by = 0;
        for (int row = 0; row < 6; row++) {
            for (int k = 0; k < 6; k++) {
                by += Math.pow(a[43 + row * 40 + k] - b[50 + 3 + row * 44 + k], 2);
            }
        }
        assertThat((double) vector[3]).isCloseTo(by, org.assertj.core.api.Assertions.within(1e-5));
    }
}
