package awlsmith.core.detail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import java.util.SplittableRandom;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Kernels that run along vectors, against their plain twins. */
class RowFormsTest {
    private static Plane picture(int width, int height) {
        var random = new SplittableRandom(width * 31L + height);
        Plane p = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                // posts with seams beside them, and some noise
                int at = Math.floorMod(x + y / 3, 24);
                double light = at < 12 ? 0.2 : 0.7;
                double seam = at == 0 || at == 23 ? at == 0 ? -0.1 : 0.1 : 0;
                p.set(x, y, (float) (light + seam + 0.004 * random.nextGaussian()));
            }
        }
        return p;
    }

    @ParameterizedTest
    @CsvSource({"1, 1, 0", "7, 3, 0", "80, 20, 0", "133, 9, 5"})
    void variances(int width, int height, int left) {
        Plane p = picture(width, height);
        float[] scalar = new float[width - left];
        float[] vector = new float[width - left];
        for (int y = 0; y < height; y++) {
            new Variances(2, Lanes.SCALAR).row(p, y, left, scalar);
            new Variances(2, Lanes.VECTOR).row(p, y, left, vector);
            assertThat(vector).isEqualTo(scalar);
            for (int x = 0; x < scalar.length; x += 3) {
                assertThat((double) scalar[x]).isCloseTo(variance(p, left + x, y), within(1e-6));
            }
        }
    }

    /** By definition, in the square as far as the picture goes. */
    private static double variance(Plane p, int x, int y) {
        double sum = 0;
        double squares = 0;
        int count = 0;
        for (int v = Math.max(0, y - 2); v <= Math.min(p.height() - 1, y + 2); v++) {
            for (int u = Math.max(0, x - 2); u <= Math.min(p.width() - 1, x + 2); u++) {
                sum += p.at(u, v);
                squares += p.at(u, v) * (double) p.at(u, v);
                count++;
            }
        }
        return squares / count - sum / count * sum / count;
    }

    @ParameterizedTest
    @CsvSource({"5, 5, 2, 0", "90, 40, 1, 0", "131, 33, 3, 11", "64, 64, 8, 0"})
    void haloes(int width, int height, int wide, int left) {
        Plane p = picture(width, height);
        Plane scalar = Plane.of(width - left, height);
        Plane vector = Plane.of(width - left, height);
        int moved = 0;
        for (int y = 0; y < height; y++) {
            new HaloRule(wide, Lanes.SCALAR).row(p, left, y, scalar, y);
            new HaloRule(wide, Lanes.VECTOR).row(p, left, y, vector, y);
            for (int x = 0; x < scalar.width(); x++) {
                moved += scalar.at(x, y) == p.at(left + x, y) ? 0 : 1;
            }
        }
        assertThat(vector.data()).isEqualTo(scalar.data());
        if (width > 60 && wide < 8) {
            assertThat(moved).isGreaterThan(width * height / 40);
        }
    }
}
