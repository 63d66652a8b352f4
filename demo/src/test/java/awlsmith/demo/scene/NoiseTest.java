package awlsmith.demo.scene;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class NoiseTest {
    private final Noise noise = new Noise(7);

    /** Perlin 2002: gradient noise is nothing at every lattice point. */
    @Test
    void latticePointsAreNothing() {
        for (int x = -3; x < 4; x++) {
            for (int y = -3; y < 4; y++) {
                assertThat(noise.at(x, y)).isCloseTo(0, within(1e-12));
            }
        }
    }

    @Test
    void itFillsItsRangeAndHasNoJumps() {
        double least = 0;
        double most = 0;
        double sum = 0;
        int count = 0;
        for (double y = 0; y < 40; y += 0.173) {
            double before = noise.at(-0.01, y);
            for (double x = 0; x < 40; x += 0.01) {
                double now = noise.at(x, y);
                assertThat(Math.abs(now - before)).isLessThan(0.06);
                before = now;
                least = Math.min(least, now);
                most = Math.max(most, now);
                sum += now;
                count++;
            }
        }
        assertThat(least).isBetween(-1.3, -0.6);
        assertThat(most).isBetween(0.6, 1.3);
        assertThat(sum / count).isCloseTo(0, within(0.05));
    }

    @Test
    void tiledNoiseRepeats() {
        for (double at : new double[] {0.3, 2.7, 4.99}) {
            double there = noise.tiled(at, at / 2, 5);
            assertThat(noise.tiled(at + 5, at / 2, 5)).isCloseTo(there, within(1e-9));
            assertThat(noise.tiled(at, at / 2 - 10, 5)).isCloseTo(there, within(1e-9));
        }
    }

    @Test
    void hashedValuesAreEvenAndTheSeedMatters() {
        int[] tenths = new int[10];
        int same = 0;
        var other = new Noise(8);
        for (int x = 0; x < 100; x++) {
            for (int y = 0; y < 100; y++) {
                tenths[(int) (noise.hash(x, y) * 10)]++;
                same += noise.hash(x, y) == other.hash(x, y) ? 1 : 0;
            }
        }
        for (int count : tenths) {
            assertThat(count).isBetween(850, 1150);
        }
        assertThat(same).isLessThan(10);
    }

    @Test
    void octavesStayAboutWithinOne() {
        for (double x = 0; x < 30; x += 0.37) {
            assertThat(noise.octaves(x, x * 0.7, 5, 0.5)).isBetween(-1.6, 1.6);
        }
    }
}
