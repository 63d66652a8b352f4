package awlsmith.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TapRowsTest {
    @ParameterizedTest
    @ValueSource(ints = {1, 5, 16, 37, 64, 131})
    void bothFormsGiveTheSameBitsAndTheSum(int count) {
        var random = new SplittableRandom(count);
        float[] data = new float[400];
        for (int i = 0; i < data.length; i++) {
            data[i] = (float) (random.nextDouble() * 2 - 0.5);
        }
        float[] taps = {0.1f, -0.3f, 0.9f, 0.25f};
        int[] starts = {0, 7, 250, 8};
        float[] scalar = new float[count + 3];
        float[] vector = new float[count + 3];
        new TapRows(taps, Lanes.SCALAR).sum(data, starts, scalar, 3, count);
        new TapRows(taps, Lanes.VECTOR).sum(data, starts, vector, 3, count);
        assertThat(vector).isEqualTo(scalar);
        for (int x = 0; x < count; x++) {
            double sum = 0;
            for (int k = 0; k < taps.length; k++) {
                sum += taps[k] * data[starts[k] + x];
            }
            assertThat((double) scalar[3 + x]).isCloseTo(sum, within(1e-6));
        }
    }

    @Test
    void aRowGoesOnWithItsEdges() {
        Plane p = Plane.of(3, 2);
        p.set(0, 1, 1);
        p.set(1, 1, 2);
        p.set(2, 1, 3);
        float[] row = new float[7];
        p.rowAround(1, -2, row);
        assertThat(row).containsExactly(1, 1, 1, 2, 3, 3, 3);
        float[] beyond = new float[2];
        p.rowAround(1, 5, beyond);
        assertThat(beyond).containsExactly(3, 3);
        p.rowAround(1, -9, beyond);
        assertThat(beyond).containsExactly(1, 1);
        float[] within = new float[2];
        p.rowAround(1, 1, within);
        assertThat(within).containsExactly(2, 3);
    }
}
