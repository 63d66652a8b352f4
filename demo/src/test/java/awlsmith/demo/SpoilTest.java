package awlsmith.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SpoilTest {
    private static final Format TAPE =
            new Format(360, 288, Chroma.S444, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    @TempDir
    Path folder;

    /** Left half dark and blueish, right half bright and reddish. */
    private static Frame halves() {
        Frame frame = Frame.blank(TAPE, TAPE.whole(), 0, Rational.ZERO, new PlanePool(0));
        for (int y = 0; y < 288; y++) {
            for (int x = 0; x < 360; x++) {
                frame.plane(0).set(x, y, x < 180 ? 0.3f : 0.7f);
                frame.plane(1).set(x, y, x < 180 ? 0.2f : -0.2f);
                frame.plane(2).set(x, y, x < 180 ? -0.2f : 0.2f);
            }
        }
        return frame;
    }

    private static Frame worn(long seed) {
        Frame frame = halves();
        new Tape(seed).wear(frame);
        return frame;
    }

    /** Columns from a tenth to nine tenths of the step, in the middle lines' mean. */
    private static int widthOfStep(Plane p, double low, double high) {
        int from = 0;
        int to = 0;
        for (int x = 100; x < 260; x++) {
            double mean = 0;
            for (int y = 40; y < 240; y++) {
                mean += p.at(x, y) / 200;
            }
            double share = (mean - low) / (high - low);
            if (share < 0.1) {
                from = x;
            }
            if (share < 0.9) {
                to = x;
            }
        }
        return to - from;
    }

    @Test
    void aTapeIsTheSameForItsSeed() {
        assertThat(worn(5).plane(0).packed()).isEqualTo(worn(5).plane(0).packed());
        assertThat(worn(6).plane(0).packed()).isNotEqualTo(worn(5).plane(0).packed());
    }

    @Test
    void colourIsFarSofterThanLightAndComesLate() {
        Frame worn = worn(5);
        int luma = widthOfStep(worn.plane(0), 0.3, 0.7);
        int chroma = widthOfStep(worn.plane(1), 0.2, -0.2);
        assertThat(luma).isBetween(1, 12);
        assertThat(chroma).isGreaterThan(2 * luma);
        double middle = 0;
        for (int y = 40; y < 240; y++) {
            middle += worn.plane(1).at(180, y) / 200;
        }
        // where the step was, most of the old colour is still seen
        assertThat(middle).isGreaterThan(0.02);
    }

    @Test
    void lightIsNoisyButKeepsItsLevel() {
        Plane luma = worn(5).plane(0);
        double mean = 0;
        double square = 0;
        int count = 0;
        for (int y = 40; y < 240; y++) {
            for (int x = 30; x < 140; x++) {
                mean += luma.at(x, y);
                square += luma.at(x, y) * luma.at(x, y);
                count++;
            }
        }
        mean /= count;
        assertThat(mean).isCloseTo(0.3, within(0.02));
        assertThat(Math.sqrt(square / count - mean * mean)).isBetween(0.012, 0.05);
    }

    // --- sound ---

    private static short[] samples(Path file) throws IOException {
        ByteBuffer bytes = ByteBuffer.wrap(Files.readAllBytes(file)).order(ByteOrder.LITTLE_ENDIAN);
        bytes.position(44);
        short[] samples = new short[bytes.remaining() / 2];
        bytes.asShortBuffer().get(samples);
        return samples;
    }

    /** Strength of one frequency, by the sums of Goertzel. */
    private static double at(double hertz, short[] samples) {
        double sine = 0;
        double cosine = 0;
        for (int i = 0; i < samples.length; i++) {
            double turn = 2 * Math.PI * hertz * i / Sound.RATE;
            sine += samples[i] / 32768.0 * Math.sin(turn);
            cosine += samples[i] / 32768.0 * Math.cos(turn);
        }
        return 2 * Math.hypot(sine, cosine) / samples.length;
    }

    @Test
    void humHasItsFrequenciesAtItsLevels() throws IOException {
        Path file = folder.resolve("hum.wav");
        new Sound(1, 3).hum(0.1).write(file);
        short[] samples = samples(file);
        assertThat(samples).hasSize(48000);
        assertThat(at(50, samples)).isCloseTo(0.1, within(0.002));
        assertThat(at(100, samples)).isCloseTo(0.05, within(0.002));
        assertThat(at(150, samples)).isCloseTo(0.03, within(0.002));
        assertThat(at(75, samples)).isLessThan(0.001);
    }

    /** The platform's own reader must take the header for what it is. */
    @Test
    void theFileIsAWave() throws Exception {
        Path file = folder.resolve("all.wav");
        new Sound(0.5, 3)
                .water(0.3)
                .engine(0.1)
                .steps(4, 0.2)
                .hiss(0.01)
                .hum(0.02)
                .write(file);
        try (var in = AudioSystem.getAudioInputStream(file.toFile())) {
            assertThat(in.getFormat().getSampleRate()).isEqualTo(48000);
            assertThat(in.getFormat().getChannels()).isEqualTo(1);
            assertThat(in.getFormat().getSampleSizeInBits()).isEqualTo(16);
            assertThat(in.getFrameLength()).isEqualTo(24000);
        }
    }

    @Test
    void tooLoudIsCutAndNotWrapped() throws IOException {
        Path file = folder.resolve("loud.wav");
        new Sound(0.1, 3).hum(40).write(file);
        short[] samples = samples(file);
        int most = 0;
        for (int i = 1; i < samples.length; i++) {
            most = Math.max(most, Math.abs(samples[i]));
        }
        assertThat(most).isEqualTo(32767);
        // a wrapped sample would jump across the whole range while the wave stays on one side
        assertThat(samples[40]).isEqualTo((short) 32767);
    }
}
