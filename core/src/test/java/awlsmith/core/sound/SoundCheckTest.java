package awlsmith.core.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

class SoundCheckTest {
    private interface Wave {
        double at(double seconds, int channel);
    }

    private static SoundCheck.Result heard(int channels, double seconds, Wave wave) {
        var check = new SoundCheck(channels);
        int count = (int) (seconds * Loudness.RATE);
        float[] values = new float[count * channels];
        for (int i = 0; i < count; i++) {
            for (int c = 0; c < channels; c++) {
                values[i * channels + c] = (float) wave.at((double) i / Loudness.RATE, c);
            }
        }
        check.add(values, values.length);
        return check.result();
    }

    private static double sine(double hertz, double t) {
        return Math.sin(2 * Math.PI * hertz * t);
    }

    /** EBU Tech 3341, test cases 1 and 2: a stereo sine of 1 kHz at -23 and -33 dBFS measures -23 and -33 LUFS, within 0.1. */
    @Test
    void loudnessOfTheEbusTestTones() {
        for (double level : new double[] {-23, -33}) {
            double amplitude = Math.pow(10, level / 20);
            var result = heard(2, 20, (t, c) -> amplitude * sine(1000, t));
            assertThat(result.loudness()).isCloseTo(level, within(0.1));
        }
    }

    /** EBU Tech 3341, test case 3: 10 s at -36, 60 s at -23 and 10 s at -36 dBFS measure -23 LUFS: the quiet parts are gated. */
    @Test
    void quietPartsAreLeftOut() {
        var result = heard(2, 80, (t, c) -> Math.pow(10, (t < 10 || t > 70 ? -36 : -23) / 20.0) * sine(1000, t));
        assertThat(result.loudness()).isCloseTo(-23, within(0.1));
    }

    @Test
    void pausesTellTheNoiseFloor() {
        var random = new Random(3);
        var result = heard(1, 10, (t, c) -> 0.003 * random.nextGaussian() + (t % 2 < 1.5 ? 0.2 * sine(440, t) : 0));
        assertThat(result.floor()).isCloseTo(20 * Math.log10(0.003), within(1.0));
        assertThat(result.clipped()).isZero();
    }

    @Test
    void humIsHeardWithItsMains() {
        var random = new Random(4);
        var clean = heard(1, 6, (t, c) -> 0.05 * random.nextGaussian());
        assertThat(clean.hum()).isLessThan(5);
        var hum = heard(
                1,
                6,
                (t, c) -> 0.05 * random.nextGaussian()
                        + 0.02 * (sine(60, t) + 0.6 * sine(120, t) + 0.5 * sine(180, t) + 0.3 * sine(240, t)));
        assertThat(hum.hum()).isGreaterThan(12);
        assertThat(hum.mains()).isEqualTo(60);
    }

    @Test
    void whatIsCutOffIsCounted() {
        var result = heard(1, 2, (t, c) -> Math.clamp(1.4 * sine(200, t), -1, 1));
        // a sine of 1.4 lies beyond 1 for 1 - 2 asin(1/1.4) / pi of the time
        assertThat(result.clipped()).isCloseTo(1 - 2 * Math.asin(1 / 1.4) / Math.PI, within(0.02));
        assertThat(heard(1, 2, (t, c) -> 0).loudness()).isEqualTo(-70);
    }
}
