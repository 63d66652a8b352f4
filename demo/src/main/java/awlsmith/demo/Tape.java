package awlsmith.demo;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import java.util.Random;
import java.util.SplittableRandom;
import java.util.stream.IntStream;

/**
 * What a worn analogue tape does to a woven picture: little width for luma, very little for colour, colour that lags,
 * correlated noise, lines that do not start where they should, dropped-out dashes, a torn bottom. Levels are invented.
 */
final class Tape {
    private final Random random;
    private final int shortest;

    /** @param seed fixed for a clip, so that it always comes out the same */
    Tape(long seed) {
        random = new Random(seed);
        shortest = 24;
    }

    /** @param frame 4:4:4 at tape size, changed in place */
    void wear(Frame frame) {
        Plane luma = frame.plane(0);
        jitter(frame);
        soften(luma, 0.55f);
        for (int p = 1; p < 3; p++) {
            soften(frame.plane(p), 0.16f);
            soften(frame.plane(p), 0.16f);
            lag(frame.plane(p), 3, 2);
        }
        peak(luma, 0.55f);
        noise(luma, 0.020, 0.55);
        noise(frame.plane(1), 0.020, 0.12);
        noise(frame.plane(2), 0.024, 0.12);
        dropouts(luma);
    }

    private void jitter(Frame frame) {
        Plane luma = frame.plane(0);
        double wander = 0;
        for (int y = 0; y < luma.height(); y++) {
            wander = 0.9 * wander + 0.16 * random.nextGaussian();
            int torn = y - (luma.height() - 9);
            double shift = wander + (torn > 0 ? torn * torn * 0.28 + 2 * random.nextDouble() : 0);
            for (int p = 0; p < 3; p++) {
                shift(frame.plane(p), y, shift);
            }
        }
    }

    private static void shift(Plane plane, int y, double by) {
        float[] row = new float[plane.width()];
        int at = plane.row(y);
        System.arraycopy(plane.data(), at, row, 0, row.length);
        for (int x = 0; x < row.length; x++) {
            double from = Math.clamp(x - by, 0, row.length - 1.001);
            int left = (int) from;
            float f = (float) (from - left);
            plane.data()[at + x] = row[left] * (1 - f) + row[left + 1] * f;
        }
    }

    /** One-pole low-pass, run both ways so that nothing moves; share of the new sample 0..1. */
    private static void soften(Plane plane, float share) {
        for (int y = 0; y < plane.height(); y++) {
            int at = plane.row(y);
            float[] d = plane.data();
            float run = d[at];
            for (int x = 0; x < plane.width(); x++) {
                run += share * (d[at + x] - run);
                d[at + x] = run;
            }
            for (int x = plane.width() - 1; x >= 0; x--) {
                run += share * (d[at + x] - run);
                d[at + x] = run;
            }
        }
    }

    /** Colour comes late, and a few lines low. */
    private static void lag(Plane plane, int right, int down) {
        for (int y = plane.height() - 1; y >= 0; y--) {
            int from = plane.row(Math.max(0, y - down));
            int to = plane.row(y);
            for (int x = plane.width() - 1; x >= 0; x--) {
                plane.data()[to + x] = plane.data()[from + Math.max(0, x - right)];
            }
        }
    }

    /** The player's own edge boost, which leaves a dark line behind every bright one. */
    private static void peak(Plane plane, float strength) {
        for (int y = 0; y < plane.height(); y++) {
            int at = plane.row(y);
            float[] d = plane.data();
            float mean = d[at];
            for (int x = 0; x < plane.width(); x++) {
                float v = d[at + x];
                d[at + x] = v + strength * (v - mean);
                mean += 0.30f * (v - mean);
            }
        }
    }

    private void noise(Plane plane, double level, double fineness) {
        double gain = level / Math.sqrt(fineness / (2 - fineness));
        long seed = random.nextLong();
        IntStream.range(0, plane.height()).parallel().forEach(y -> {
            var own = new SplittableRandom(seed + y);
            double run = 0;
            for (int x = 0; x < plane.width(); x++) {
                run += fineness * (bell(own) - run);
                plane.data()[plane.row(y) + x] += (float) (gain * run);
            }
        });
    }

    /** Near enough to a normal deviate of spread 1: the sum of four even ones from one draw. */
    private static double bell(SplittableRandom random) {
        long bits = random.nextLong();
        long sum = (bits & 0xffff) + (bits >>> 16 & 0xffff) + (bits >>> 32 & 0xffff) + (bits >>> 48);
        return (sum - 2 * 65535.0) * (Math.sqrt(3) / 65536);
    }

    private void dropouts(Plane luma) {
        int count = random.nextInt(3);
        for (int i = 0; i < count; i++) {
            int y = random.nextInt(luma.height() - 1);
            int x0 = random.nextInt(luma.width() - shortest);
            int length = shortest + random.nextInt(90);
            for (int x = x0; x < Math.min(luma.width(), x0 + length); x++) {
                double tail = Math.exp(-(x - x0) / 40.0);
                luma.data()[luma.row(y) + x] += (float) (0.55 * tail * (0.6 + 0.4 * random.nextDouble()));
            }
        }
    }
}
