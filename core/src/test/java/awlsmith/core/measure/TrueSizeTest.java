package awlsmith.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TrueSizeTest {
    /** Waves of several lengths, an edge and fine grain: a picture with steps of all sizes. */
    private static Plane picture(int width, int height) {
        Plane p = noise(width, height, new SplittableRandom(3), 0.03);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                double waves = 0.1 * Math.sin(0.31 * x + 0.17 * y) + 0.1 * Math.sin(0.113 * x - 0.27 * y);
                double edge = x + 0.4 * y > width * 0.6 ? 0.25 : 0;
                p.set(x, y, (float) (0.4 + waves + p.at(x, y) + edge));
            }
        }
        return p;
    }

    private static Plane noise(int width, int height, SplittableRandom random, double sigma) {
        Plane p = Plane.of(width, height);
        for (int i = 0; i < p.data().length; i++) {
            p.data()[i] = (float) (sigma * random.nextGaussian());
        }
        return p;
    }

    private static Plane resized(Plane in, int width, int height, Kernel kernel) {
        Plane out = Plane.of(width, height);
        new PlaneResampler(
                        TapTable.forAxis(kernel, in.width(), width, 1, 0),
                        TapTable.forAxis(kernel, in.height(), height, 1, 0))
                .resample(in, 0, 0, out, 0, 0, Work.alone());
        return out;
    }

    @ParameterizedTest
    @CsvSource({"2", "3", "4"})
    void repeatedSamplesAreFound(int times) {
        Plane small = picture(120, 90);
        TrueSize found = TrueSize.of(resized(small, 120 * times, 90 * times, Kernel.AREA));
        assertThat(found).isEqualTo(new TrueSize(times, times, true));
    }

    @ParameterizedTest
    @CsvSource({
        "BILINEAR, 2, 2",
        "CATMULL_ROM, 2, 2",
        "CATMULL_ROM, 1.5, 3",
        "BILINEAR, 3, 1.5",
        "CATMULL_ROM, 1.8, 2.25"
    })
    void theRhythmOfAKernelIsFound(Kernel kernel, double times, double other) {
        Plane small = picture(240, 180);
        TrueSize found =
                TrueSize.of(resized(small, (int) Math.round(240 * times), (int) Math.round(180 * times), kernel));
        assertThat(found.repeated()).isFalse();
        assertThat(found.factor()).isCloseTo(Math.min(times, other), within(0.03));
        assertThat(found.orElse()).isCloseTo(Math.max(times, other), within(0.08));
    }

    @Test
    void aPictureOfItsOwnSizeIsLeftAlone() {
        assertThat(TrueSize.of(picture(320, 240)).factor()).isEqualTo(1);
        assertThat(TrueSize.of(Plane.of(320, 240).fill(0.5f)).factor()).isEqualTo(1);
        assertThat(TrueSize.of(picture(40, 30)).factor()).isEqualTo(1);
        assertThat(TrueSize.of(resized(picture(640, 480), 320, 240, Kernel.LANCZOS3))
                        .factor())
                .isEqualTo(1);
    }
}
