package awlsmith.core.picture;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;

import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The scalar and the vector form give the same bits. */
class CodeRowsTest {
    private static final float[] DITHER = Dither.doubledRows();

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 7, 8, 9, 15, 16, 17, 31, 33, 64, 65, 200})
    void twinsReadTheSame(int width) {
        byte[] raw = new byte[2 * width + 5];
        new Random(width).nextBytes(raw);
        var eight = CodeScale.of(ColourTags.Range.LIMITED, true, 8);
        var ten = CodeScale.of(ColourTags.Range.FULL, false, 10);
        float[] a = new float[width + 2];
        float[] b = new float[width + 2];
        new ScalarCodeRows().fromBytes(raw, 3, a, 1, width, eight);
        new VectorCodeRows().fromBytes(raw, 3, b, 1, width, eight);
        assertArrayEquals(a, b);
        new ScalarCodeRows().fromShorts(raw, 3, a, 1, width, ten);
        new VectorCodeRows().fromShorts(raw, 3, b, 1, width, ten);
        assertArrayEquals(a, b);
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 7, 8, 9, 15, 16, 17, 31, 33, 64, 65, 200})
    void twinsWriteTheSame(int width) {
        float[] values = new float[width + 1];
        var random = new Random(width + 1000);
        for (int i = 0; i < values.length; i++) {
            values[i] = random.nextFloat() * 2 - 0.5f;
        }
        byte[] a = new byte[2 * width + 3];
        byte[] b = new byte[2 * width + 3];
        for (float[] dither : new float[][] {DITHER, null}) {
            for (int depth : new int[] {8, 10, 12, 16}) {
                var scale = CodeScale.of(ColourTags.Range.LIMITED, false, depth);
                if (depth == 8) {
                    new ScalarCodeRows().toBytes(values, 1, a, 2, width, scale, dither, 128);
                    new VectorCodeRows().toBytes(values, 1, b, 2, width, scale, dither, 128);
                } else {
                    new ScalarCodeRows().toShorts(values, 1, a, 2, width, scale, dither, 128);
                    new VectorCodeRows().toShorts(values, 1, b, 2, width, scale, dither, 128);
                }
                assertArrayEquals(a, b, "depth " + depth);
            }
        }
    }
}
