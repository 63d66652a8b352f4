package awlsmith.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import java.util.Random;
import org.junit.jupiter.api.Test;

class MeasureTest {
    private static Plane texture(int width, int height) {
        Plane plane = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                plane.set(x, y, (float) (0.5 + 0.3 * Math.sin(x * 0.7) * Math.cos(y * 0.45)));
            }
        }
        return plane;
    }

    private static Plane noisy(Plane clean, double sigma) {
        var random = new Random(4);
        Plane out = Plane.of(clean.width(), clean.height());
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] = clean.data()[i] + (float) (sigma * random.nextGaussian());
        }
        return out;
    }

    /** Of a plane wave all structure runs one way; of white noise hardly any does. */
    @Test
    void strokesHaveADirectionAndNoiseHasNone() {
        Plane flat = Plane.of(160, 128).fill(0.5f);
        Plane noise = noisy(flat, 0.02);
        Plane strokes = Plane.of(160, 128);
        for (int y = 0; y < 128; y++) {
            for (int x = 0; x < 160; x++) {
                strokes.set(x, y, (float) (0.5 + 0.02 * Math.sin(1.1 * x + 0.6 * y)));
            }
        }
        assertThat(Direction.ofQuiet(strokes, strokes, 8)).isGreaterThan(0.95);
        assertThat(Direction.ofQuiet(noise, noise, 8)).isLessThan(0.1);
        // the quiet half is where the other plane is quiet
        Plane half = Plane.of(160, 128).fill(0.5f);
        for (int y = 0; y < 128; y++) {
            for (int x = 0; x < 160; x++) {
                half.set(x, y, x < 48 ? strokes.at(x, y) : noise.at(x, y));
            }
        }
        Plane loudLeft = Plane.of(160, 128).fill(0.5f);
        for (int y = 0; y < 128; y++) {
            for (int x = 0; x < 48; x++) {
                loudLeft.set(x, y, (x + y) % 2);
            }
        }
        assertThat(Direction.ofQuiet(half, loudLeft, 0)).isLessThan(0.25);
        // what was taken away
        assertThat(Direction.ofChange(noise, flat)).isLessThan(0.1);
        assertThat(Direction.ofChange(strokes, flat)).isGreaterThan(0.95);
        assertThat(Direction.ofChange(flat, flat)).isNaN();
    }

    /** By definition: a mean squared error of sigma squared is -20 log10(sigma) dB below white. */
    @Test
    void psnrOfKnownNoise() {
        Plane clean = texture(256, 256);
        assertThat(Psnr.of(clean, noisy(clean, 0.02), 8)).isCloseTo(-20 * Math.log10(0.02), within(0.1));
        assertThat(Psnr.of(clean, clean, 0)).isInfinite();
    }

    /** Wang et al. 2004, equation 13 and its three factors: the bounds and what each one answers to. */
    @Test
    void ssimHasThePapersProperties() {
        Plane clean = texture(64, 64);
        assertThat(Ssim.of(clean, clean, 0)).isCloseTo(1, within(1e-12));
        Plane noisy = noisy(clean, 0.05);
        assertThat(Ssim.of(clean, noisy, 0))
                .isCloseTo(Ssim.of(noisy, clean, 0), within(1e-12))
                .isBetween(0.5, 0.99);
        // two flat areas: only the luminance term (equation 6) is left
        double expected = (2 * 0.4 * 0.6 + 1e-4) / (0.4 * 0.4 + 0.6 * 0.6 + 1e-4);
        assertThat(Ssim.of(Plane.of(32, 32).fill(0.4f), Plane.of(32, 32).fill(0.6f), 0))
                .isCloseTo(expected, within(1e-6));
        // the structure term turns negative for the opposite pattern
        Plane opposite = Plane.of(64, 64);
        for (int i = 0; i < opposite.data().length; i++) {
            opposite.data()[i] = 1 - clean.data()[i];
        }
        assertThat(Ssim.of(clean, opposite, 0)).isNegative();
    }

    @Test
    void moreNoiseIsAlwaysWorse() {
        Plane clean = texture(96, 96);
        double last = 1;
        for (double sigma : new double[] {0.005, 0.01, 0.02, 0.04, 0.08}) {
            double now = Ssim.of(clean, noisy(clean, sigma), 8);
            assertThat(now).isLessThan(last);
            last = now;
        }
    }

    @Test
    void theGradientOfASlopeIsItsSteps() {
        Plane slope = Plane.of(20, 20);
        for (int y = 0; y < 20; y++) {
            for (int x = 0; x < 20; x++) {
                slope.set(x, y, 0.02f * x - 0.01f * y);
            }
        }
        assertThat(Gradient.mean(slope, 2)).isCloseTo(0.03, within(1e-6));
        assertThatThrownBy(() -> Gradient.mean(slope, 0)).hasMessageContaining("at least 1");
    }

    @Test
    void refusesWhatCannotBeCompared() {
        assertThatThrownBy(() -> Psnr.of(Plane.of(4, 4), Plane.of(4, 5), 0)).hasMessageContaining("differ in size");
        assertThatThrownBy(() -> Psnr.of(Plane.of(4, 4), Plane.of(4, 4), 2)).hasMessageContaining("leaves nothing");
        assertThatThrownBy(() -> Ssim.of(Plane.of(10, 10), Plane.of(10, 10), 0)).hasMessageContaining("at least 11x11");
    }
}
