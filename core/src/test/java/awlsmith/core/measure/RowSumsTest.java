package awlsmith.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Both forms give the same bits, and what the definitions say. */
class RowSumsTest {
    private static final RowSums PLAIN = new ScalarRowSums();
    private static final RowSums VECTOR = new VectorRowSums();

    private static float[] random(int count, long seed) {
        var random = new Random(seed);
        float[] values = new float[count];
        for (int i = 0; i < count; i++) {
            values[i] = random.nextFloat();
        }
        return values;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 8, 9, 16, 41, 1328})
    void bothFormsAreOne(int width) {
        float[] d = random(6 * width + 9, 1);
        float[] b = random(6 * width + 9, 2);
        float[] one = random(width, 3);
        float[] two = one.clone();
        PLAIN.addApart(one, d, 3, b, 5, width);
        VECTOR.addApart(two, d, 3, b, 5, width);
        assertThat(two).isEqualTo(one);
        PLAIN.addSquares(one, d, 2, width + 4, width);
        VECTOR.addSquares(two, d, 2, width + 4, width);
        assertThat(two).isEqualTo(one);
        assertThat(VECTOR.addRow(two, d, 9, width)).isEqualTo(PLAIN.addRow(one, d, 9, width));
        assertThat(two).isEqualTo(one);
        var outer = new RowSums.Outer(0, 2 * width, width);
        float[] plain = new float[3];
        float[] vector = new float[3];
        PLAIN.fits(d, outer, b, 4, b, 3 * width, width, plain);
        VECTOR.fits(d, outer, b, 4, b, 3 * width, width, vector);
        assertThat(vector).isEqualTo(plain);
        double past = 0;
        double own = 0;
        for (int x = 0; x < width; x++) {
            past += Math.abs(d[x] + d[2 * width + x] - 2 * b[4 + x]);
            own += Math.abs(d[x] + d[2 * width + x] - 2 * d[width + x]);
        }
        assertThat((double) plain[0]).isCloseTo(past, within(1e-5 * width));
        assertThat((double) plain[2]).isCloseTo(own, within(1e-5 * width));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 5, 64, 1001})
    void aRankIsThatOfTheSorted(int count) {
        float[] values = random(count, 4);
        for (int i = 0; i < count; i += 3) {
            values[i] = 0.5f;
        }
        float[] sorted = values.clone();
        java.util.Arrays.sort(sorted);
        for (int rank = 0; rank < count; rank += 1 + count / 7) {
            assertThat(Ranked.at(values.clone(), count, rank)).isEqualTo(sorted[rank]);
        }
    }
}
