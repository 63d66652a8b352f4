package awlsmith.core.clean;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SurfaceMeansTest {
    @ParameterizedTest
    @CsvSource({"1, 53, 0", "3, 53, 7", "3, 5, 0", "1, 128, 3"})
    void bothFormsGiveTheSameBits(int planes, int width, int left) {
        var random = new SplittableRandom(planes * 31L + width);
        List<Plane> in = pictures(planes, width, random);
        List<Plane> guide = pictures(planes, width, random);
        int count = width - left;
        for (int y : new int[] {0, 4, 8}) {
            float[][][] sums = new float[2][planes][count];
            float[][] all = new float[2][count];
            for (Lanes lanes : Lanes.values()) {
                new SurfaceMeans(in, guide, 2, 4, lanes).row(y, left, sums[lanes.ordinal()], all[lanes.ordinal()]);
            }
            assertThat(all[1]).isEqualTo(all[0]);
            for (int p = 0; p < planes; p++) {
                assertThat(sums[1][p]).isEqualTo(sums[0][p]);
            }
        }
    }

    private static List<Plane> pictures(int planes, int width, SplittableRandom random) {
        return IntStream.range(0, planes)
                .mapToObj(p -> {
                    Plane plane = Plane.of(width, 9);
                    for (int i = 0; i < plane.data().length; i++) {
                        plane.data()[i] = (float) random.nextDouble();
                    }
                    return plane;
                })
                .toList();
    }
}
