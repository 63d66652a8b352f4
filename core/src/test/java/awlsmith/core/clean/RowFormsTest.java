package awlsmith.core.clean;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Lanes;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Kernels that run along vectors, against their plain twins. */
class RowFormsTest {
    private static float[] samples(int count, double most) {
        var random = new SplittableRandom(count);
        float[] all = new float[count];
        for (int i = 0; i < count; i++) {
            all[i] = (float) (random.nextDouble() * most);
        }
        return all;
    }

    @ParameterizedTest
    @CsvSource({"1, 1", "9, 4", "77, 16", "140, 64", "140, 128"})
    void bands(int width, int far) {
        float[] data = samples(3 * width, 0.02);
        var scalar = new BandRows(0.01f, 0.002f, Lanes.SCALAR);
        var vector = new BandRows(0.01f, 0.002f, Lanes.VECTOR);
        float[] one = new float[width];
        float[] other = new float[width];
        // across, down, and at the picture's top and bottom
        int[][] places = {{-far, far, far}, {-width, width, 0}, {BandRows.NONE, width, 0}, {-width, BandRows.NONE, 0}};
        for (int[] place : places) {
            int before = place[0] == BandRows.NONE ? BandRows.NONE : width + place[0];
            int after = place[1] == BandRows.NONE ? BandRows.NONE : width + place[1];
            scalar.mean(data, width, before, after, place[2], width, one, 0);
            vector.mean(data, width, before, after, place[2], width, other, 0);
            assertThat(other).isEqualTo(one);
        }
        scalar.level(data, 0, width, width, one);
        vector.level(data, 0, width, width, other);
        assertThat(other).isEqualTo(one);
        float[] share = samples(width, 1);
        scalar.mixed(data, 0, data, width, share, 0, one, 0, width);
        vector.mixed(data, 0, data, width, share, 0, other, 0, width);
        assertThat(other).isEqualTo(one);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 15, 16, 130})
    void grain(int width) {
        GrainRows vector = GrainRows.of(GrainStage.film(0.05));
        var scalar = new GrainRows(vector.start(), vector.ramps(), Lanes.SCALAR);
        vector = new GrainRows(vector.start(), vector.ramps(), Lanes.VECTOR);
        float[] one = new float[width];
        float[] other = new float[width];
        scalar.noise(one, -3, 0x123456789ABCDEFL);
        vector.noise(other, -3, 0x123456789ABCDEFL);
        assertThat(other).isEqualTo(one);
        float[] light = samples(width, 1.4);
        float[] toOne = new float[width];
        float[] toOther = new float[width];
        scalar.added(light, 0, one, toOne, 0);
        vector.added(light, 0, one, toOther, 0);
        assertThat(toOther).isEqualTo(toOne);
        scalar.added(light, 0, 0.3f, one, toOne, 0);
        vector.added(light, 0, 0.3f, one, toOther, 0);
        assertThat(toOther).isEqualTo(toOne);
    }

    /** Between the places of the light straight lines, at the places what was given. */
    @Test
    void grainIsAsStrongAsItsLevels() {
        List<Double> levels = List.of(0.1, 0.3, 0.2, 0.05, 0.4, 0.0, 0.7, 0.2);
        float[] light = {-0.2f, 0, 1 / 7f, 1.5f / 7, 5 / 7f, 6 / 7f, 1, 1.3f};
        float[] to = new float[light.length];
        float[] ones = new float[light.length];
        java.util.Arrays.fill(ones, 1);
        GrainRows.of(levels).added(light, 0, ones, to, 0);
        double[] wanted = {0.1, 0.1, 0.3, 0.25, 0, 0.7, 0.2, 0.2};
        for (int i = 0; i < wanted.length; i++) {
            assertThat(to[i] - light[i]).isCloseTo((float) wanted[i], within(2e-6f));
        }
    }

    @Test
    void chanceIsEvenAndKnowsNothingOfItsNeighbours() {
        int side = 256;
        float[][] rows = new float[side][side];
        var rowsOf = GrainRows.of(GrainStage.film(1));
        var random = new SplittableRandom(4);
        for (float[] row : rows) {
            rowsOf.noise(row, 0, random.nextLong());
        }
        double sum = 0;
        double squares = 0;
        double[] beside = new double[9];
        for (int y = 0; y + 1 < side; y++) {
            for (int x = 0; x + 8 < side; x++) {
                float v = rows[y][x];
                sum += v;
                squares += v * v;
                for (int k = 1; k < 9; k++) {
                    beside[k] += v * rows[y][x + k];
                }
                beside[0] += v * rows[y + 1][x];
            }
        }
        double count = (side - 1) * (side - 8.0);
        assertThat(sum / count).isCloseTo(0, within(0.015));
        assertThat(squares / count).isCloseTo(1, within(0.02));
        for (double product : beside) {
            assertThat(product / count).isCloseTo(0, within(0.015));
        }
    }
}
