package awlsmith.demo;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import java.util.Random;
import org.junit.jupiter.api.Test;

class GeneratedTest {
    /** A rough surface beside an even one, and an edge between them. */
    private static Plane scene() {
        var random = new Random(4);
        Plane plane = Plane.of(96, 64);
        for (int y = 0; y < 64; y++) {
            for (int x = 0; x < 96; x++) {
                plane.set(x, y, x < 48 ? 0.3f : (float) (0.6 + 0.02 * random.nextGaussian()));
            }
        }
        return plane;
    }

    private static Plane spoilt(long frame) {
        Plane plane = scene();
        new Generated().spoil(plane, frame, Work.alone());
        return plane;
    }

    /** Of a still scene too, texture is another in every frame, and the same frame is the same every time. */
    @Test
    void textureSwimsAndNothingIsLeftToChance() {
        assertThat(spoilt(3).packed()).isEqualTo(spoilt(3).packed());
        assertThat(Psnr.of(spoilt(3), spoilt(6), 2)).isLessThan(45);
    }

    @Test
    void evenSurfacesBearALittleAndEdgesStandNearTheirPlace() {
        Plane made = spoilt(1);
        // what turns about is gone in the mean, and so is what the surface had
        Plane mean = Plane.of(96, 64);
        for (int n = 0; n < 80; n++) {
            Plane one = spoilt(n);
            for (int i = 0; i < mean.data().length; i++) {
                mean.data()[i] += one.data()[i] / 80;
            }
        }
        assertThat(Gradient.mean(mean, 2)).isLessThan(Gradient.mean(scene(), 2));
        for (int y = 4; y < 60; y++) {
            assertThat(made.at(20, y)).isBetween(0.26f, 0.34f);
            assertThat(made.at(44, y)).isLessThan(0.45f);
            assertThat(made.at(51, y)).isGreaterThan(0.45f);
        }
    }
}
