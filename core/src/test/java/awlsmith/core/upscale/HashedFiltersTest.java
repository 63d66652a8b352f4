package awlsmith.core.upscale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.TapTable;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class HashedFiltersTest {
    private static final int SIDE = HashedFilters.SIDE;

    private static float[] filters(int factor) {
        var random = new SplittableRandom(3);
        float[] all = new float[GradientHash.BUCKETS * factor * factor * HashedFilters.FILTER];
        for (int i = 0; i < all.length; i++) {
            all[i] = i % HashedFilters.ROW == SIDE ? 0 : (float) (random.nextDouble() - 0.5);
        }
        return all;
    }

    private static Plane picture(int width, int height) {
        var random = new SplittableRandom(9);
        Plane p = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                p.set(x, y, (float) (0.5 + 0.3 * Math.sin(x * 0.5 + y * 0.2) + 0.1 * random.nextDouble()));
            }
        }
        return p;
    }

    /** Against the plain definition: for each sample, its bucket's filters over its mirrored surroundings. */
    @Test
    void doesWhatItsDefinitionSays() {
        for (int factor : new int[] {1, 2, 3}) {
            float[] filters = filters(factor);
            Plane in = picture(23, 14);
            Plane out = Plane.of(23 * factor, 14 * factor);
            new HashedFilters(factor, filters).run(List.of(in), out);
            int[] buckets = HashedFilters.buckets(in);
            for (int y = 0; y < out.height(); y++) {
                for (int x = 0; x < out.width(); x++) {
                    int u = x / factor;
                    int v = y / factor;
                    int phase = y % factor * factor + x % factor;
                    int at = (buckets[v * 23 + u] * factor * factor + phase) * HashedFilters.FILTER;
                    double sum = 0;
                    for (int j = 0; j < SIDE; j++) {
                        for (int i = 0; i < SIDE; i++) {
                            sum += filters[at + j * HashedFilters.ROW + i]
                                    * in.at(
                                            TapTable.mirror(u + i - SIDE / 2, 23),
                                            TapTable.mirror(v + j - SIDE / 2, 14));
                        }
                    }
                    assertThat(out.at(x, y)).isCloseTo((float) sum, within(1e-5f));
                }
            }
        }
    }

    @Test
    void oneObjectServesPicturesOfAnySizeInTurn() {
        var hashed = new HashedFilters(2, filters(2));
        Plane first = Plane.of(80, 60);
        hashed.run(List.of(picture(40, 30)), first);
        hashed.run(List.of(picture(1, 1)), Plane.of(2, 2));
        Plane again = Plane.of(80, 60);
        hashed.run(List.of(picture(40, 30)), again);
        assertThat(again.data()).isEqualTo(first.data());
    }

    @Test
    void filtersOfAnotherSizeAreRefused() {
        assertThatThrownBy(() -> new HashedFilters(2, new float[100])).hasMessageContaining("not 100");
    }

    @Test
    void bothFormsOfTheFiltersAreOne() {
        var random = new java.util.Random(5);
        float[] wide = new float[40 * 9];
        float[] filters = new float[5 * HashedFilters.FILTER];
        for (int i = 0; i < wide.length; i++) {
            wide[i] = random.nextFloat();
        }
        for (int i = 0; i < filters.length; i++) {
            filters[i] = random.nextFloat() - 0.5f;
        }
        float[] plain = new float[4];
        float[] vector = new float[4];
        for (int at = 0; at < 30; at++) {
            new FilterRows.Scalar().answer(wide, at, 40, filters, HashedFilters.FILTER, plain);
            new FilterRows.Vector().answer(wide, at, 40, filters, HashedFilters.FILTER, vector);
            assertThat(vector).isEqualTo(plain);
        }
    }
}
