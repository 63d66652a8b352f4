package awlsmith.demo;

import awlsmith.core.picture.Plane;
import java.util.Random;

/** What cameras, films and years do to a plane, in place. Levels are invented. */
final class Spoil {
    private Spoil() {}

    static void grain(Plane plane, double level, long seed) {
        var random = new Random(seed);
        for (int y = 0; y < plane.height(); y++) {
            for (int x = 0; x < plane.width(); x++) {
                plane.data()[plane.row(y) + x] += (float) (level * random.nextGaussian());
            }
        }
    }

    /** Three-tap blur both ways; share of the middle sample. */
    static void soften(Plane plane, float middle) {
        float side = (1 - middle) / 2;
        float[] d = plane.data();
        for (int y = 0; y < plane.height(); y++) {
            float left = d[plane.row(y)];
            for (int x = 0; x < plane.width(); x++) {
                int at = plane.row(y) + x;
                float here = d[at];
                float right = x + 1 < plane.width() ? d[at + 1] : here;
                d[at] = middle * here + side * (left + right);
                left = here;
            }
        }
        for (int x = 0; x < plane.width(); x++) {
            float above = plane.at(x, 0);
            for (int y = 0; y < plane.height(); y++) {
                float here = plane.at(x, y);
                float below = y + 1 < plane.height() ? plane.at(x, y + 1) : here;
                plane.set(x, y, middle * here + side * (above + below));
                above = here;
            }
        }
    }

    /** What small cameras do to look crisp: edges pushed apart, haloes included. */
    static void sharpen(Plane plane, float strength) {
        Plane blurred = new Plane(plane.packed(), 0, plane.width(), plane.height(), plane.width());
        soften(blurred, 0.4f);
        for (int y = 0; y < plane.height(); y++) {
            for (int x = 0; x < plane.width(); x++) {
                float v = plane.at(x, y);
                plane.set(x, y, v + strength * 2 * (v - blurred.at(x, y)));
            }
        }
    }

    /** A lens out of focus: the three-tap blur so often that it is nearly a bell. */
    static void defocus(Plane plane, int times) {
        for (int i = 0; i < times; i++) {
            soften(plane, 0.5f);
        }
    }

    /** Noise of a sensor in the dark: a floor, and more of it where there is light; a little goes over to the neighbours. */
    static void darkNoise(Plane plane, double floor, double byLight, long seed) {
        var random = new Random(seed);
        for (int y = 0; y < plane.height(); y++) {
            float last = 0;
            for (int x = 0; x < plane.width(); x++) {
                int at = plane.row(y) + x;
                double sigma = Math.sqrt(floor * floor + byLight * byLight * Math.max(0, plane.data()[at]));
                float noise = (float) (sigma * random.nextGaussian());
                plane.data()[at] += 0.9f * noise + 0.3f * last;
                last = noise;
            }
        }
    }

    /** Film that has faded: black gone grey, white gone dull, and light that jumps from frame to frame. */
    static void fade(Plane plane, double black, double white, double gain) {
        for (int y = 0; y < plane.height(); y++) {
            for (int x = 0; x < plane.width(); x++) {
                int at = plane.row(y) + x;
                plane.data()[at] = (float) (black + (white - black) * gain * Math.clamp(plane.data()[at], 0, 1));
            }
        }
    }

    /** Dust of one frame, and a scratch that wanders through all of them. */
    static void dust(Plane plane, long number) {
        var random = new Random(77 + number);
        for (int i = random.nextInt(5); i > 0; i--) {
            double x = random.nextDouble() * plane.width();
            double y = random.nextDouble() * plane.height();
            double r = 0.8 + 2.4 * random.nextDouble();
            float light = random.nextBoolean() ? 0.86f : 0.12f;
            for (int dy = -4; dy <= 4; dy++) {
                for (int dx = -4; dx <= 4; dx++) {
                    int px = (int) x + dx;
                    int py = (int) y + dy;
                    boolean inside = px >= 0 && py >= 0 && px < plane.width() && py < plane.height();
                    if (inside && dx * dx * (1 + 0.4 * (i % 3)) + dy * dy < r * r) {
                        plane.set(px, py, light);
                    }
                }
            }
        }
        int scratch = (int) (plane.width() * 0.71 + 5 * Math.sin(number * 0.21) + 2 * random.nextGaussian() * 0.3);
        for (int y = 0; y < plane.height(); y++) {
            if ((y / 40 + number) % 7 != 0) {
                plane.set(scratch, y, plane.at(scratch, y) * 0.75f + 0.2f);
            }
        }
    }
}
