package awlsmith.core.motion;

/** Something to look at, by formula. */
final class Scenery {
    private Scenery() {}

    /** Light and dark of several sizes that never repeats: smooth noise in five octaves, as strong as they are large. */
    static double at(double x, double y) {
        double sum = 0.5;
        double strength = 0.28;
        double period = 64;
        for (int octave = 0; octave < 5; octave++) {
            sum += strength * noise(x / period + 17 * octave, y / period);
            strength *= 0.6;
            period /= 2;
        }
        return sum;
    }

    private static double noise(double x, double y) {
        double x0 = Math.floor(x);
        double y0 = Math.floor(y);
        double a = eased(x - x0);
        double b = eased(y - y0);
        double upper = corner(x0, y0) + a * (corner(x0 + 1, y0) - corner(x0, y0));
        double lower = corner(x0, y0 + 1) + a * (corner(x0 + 1, y0 + 1) - corner(x0, y0 + 1));
        return upper + b * (lower - upper);
    }

    private static double eased(double t) {
        return t * t * t * (t * (6 * t - 15) + 10);
    }

    /** -0.5..0.5 */
    private static double corner(double x, double y) {
        long h = ((long) x * 0x9E3779B97F4A7C15L) ^ ((long) y * 0xC2B2AE3D27D4EB4FL);
        h = (h ^ (h >>> 29)) * 0xBF58476D1CE4E5B9L;
        return ((h >>> 40) & 0xFFFF) / 65536.0 - 0.5;
    }
}
