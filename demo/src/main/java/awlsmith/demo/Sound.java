package awlsmith.demo;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;

/** The demo's sound: water, an engine far off, steps, and what tape adds. Mono, 16 bit, written as WAV. */
final class Sound {
    static final int RATE = 48000;

    private final double[] samples;
    private final Random random;

    Sound(double seconds, long seed) {
        samples = new double[(int) Math.round(seconds * RATE)];
        random = new Random(seed);
    }

    /** Lapping water: noise through a slow, swelling low-pass. */
    Sound water(double level) {
        double low = 0;
        double lower = 0;
        for (int i = 0; i < samples.length; i++) {
            double t = (double) i / RATE;
            double swell = 0.55 + 0.45 * Math.sin(2 * Math.PI * 0.43 * t) * Math.sin(2 * Math.PI * 0.17 * t + 1);
            double open = 0.02 + 0.06 * swell;
            low += open * (random.nextGaussian() - low);
            lower += 0.004 * (low - lower);
            samples[i] += level * swell * (low - lower);
        }
        return this;
    }

    /** A slow two-stroke engine. */
    Sound engine(double level) {
        for (int i = 0; i < samples.length; i++) {
            double t = (double) i / RATE;
            double beat = Math.pow(0.5 + 0.5 * Math.sin(2 * Math.PI * 4.6 * t), 4);
            samples[i] += level * beat * (Math.sin(2 * Math.PI * 62 * t) + 0.5 * Math.sin(2 * Math.PI * 127 * t + 0.3));
        }
        return this;
    }

    /** Steps on planks. */
    Sound steps(double perSecond, double level) {
        for (int n = 0; n * RATE / perSecond < samples.length; n++) {
            int from = (int) (n * RATE / perSecond);
            for (int i = 0; i < 5000 && from + i < samples.length; i++) {
                double fade = Math.exp(-i / 700.0);
                samples[from + i] +=
                        level * fade * (Math.sin(i * 2 * Math.PI * 96 / RATE) + 0.35 * random.nextGaussian());
            }
        }
        return this;
    }

    /** Mains hum of 50 hertz with its overtones. */
    Sound hum(double level) {
        for (int i = 0; i < samples.length; i++) {
            double t = 2 * Math.PI * 50 * i / RATE;
            samples[i] += level
                    * (Math.sin(t) + 0.5 * Math.sin(2 * t + 0.4) + 0.3 * Math.sin(3 * t) + 0.12 * Math.sin(5 * t));
        }
        return this;
    }

    Sound hiss(double level) {
        for (int i = 0; i < samples.length; i++) {
            samples[i] += level * random.nextGaussian();
        }
        return this;
    }

    void write(Path file) throws IOException {
        var bytes = ByteBuffer.allocate(44 + 2 * samples.length).order(ByteOrder.LITTLE_ENDIAN);
        bytes.put("RIFF".getBytes()).putInt(36 + 2 * samples.length).put("WAVEfmt ".getBytes());
        bytes.putInt(16).putShort((short) 1).putShort((short) 1).putInt(RATE).putInt(2 * RATE);
        bytes.putShort((short) 2).putShort((short) 16).put("data".getBytes()).putInt(2 * samples.length);
        for (double sample : samples) {
            bytes.putShort((short) Math.round(Math.clamp(sample, -1, 1) * 32767));
        }
        try (OutputStream out = Files.newOutputStream(file)) {
            out.write(bytes.array());
        }
    }
}
