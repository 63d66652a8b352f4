package awlsmith.demo.scene;

/**
 * Smooth noise with the same values on every machine. Source: Perlin, "Improving noise", SIGGRAPH 2002 (gradient noise
 * with the quintic fade), on a hashed lattice.
 */
public final class Noise {
    private final int seed;

    public Noise(int seed) {
        this.seed = seed;
    }

    /** About -1..1, one bump per unit. */
    public double at(double x, double y) {
        int xi = (int) Math.floor(x);
        int yi = (int) Math.floor(y);
        double fx = x - xi;
        double fy = y - yi;
        double u = fade(fx);
        double v = fade(fy);
        double top = mix(slope(xi, yi, fx, fy), slope(xi + 1, yi, fx - 1, fy), u);
        double low = mix(slope(xi, yi + 1, fx, fy - 1), slope(xi + 1, yi + 1, fx - 1, fy - 1), u);
        return 1.4 * mix(top, low, v);
    }

    /** Octaves of noise, each twice as fine and {@code keep} as strong as the one before; about -1..1. */
    public double octaves(double x, double y, int count, double keep) {
        double sum = 0;
        double strength = 1;
        double all = 0;
        for (int i = 0; i < count; i++) {
            sum += strength * at(x + 17.3 * i, y - 9.1 * i);
            all += strength;
            strength *= keep;
            x *= 2;
            y *= 2;
        }
        return sum / all * 1.6;
    }

    /** Noise that repeats after {@code period} units both ways. */
    double tiled(double x, double y, int period) {
        double px = x / period;
        double py = y / period;
        double wx = px - Math.floor(px);
        double wy = py - Math.floor(py);
        double bx = wx * period;
        double by = wy * period;
        int xi = (int) Math.floor(bx);
        int yi = (int) Math.floor(by);
        double fx = bx - xi;
        double fy = by - yi;
        int x1 = (xi + 1) % period;
        int y1 = (yi + 1) % period;
        double u = fade(fx);
        double v = fade(fy);
        double top = mix(slope(xi, yi, fx, fy), slope(x1, yi, fx - 1, fy), u);
        double low = mix(slope(xi, y1, fx, fy - 1), slope(x1, y1, fx - 1, fy - 1), u);
        return 1.4 * mix(top, low, v);
    }

    /** Even values 0..1, one for each lattice point. */
    double hash(int x, int y) {
        return (scramble(x, y) >>> 8) / (double) (1 << 24);
    }

    private double slope(int x, int y, double fx, double fy) {
        int h = scramble(x, y) >>> 29;
        double a = (h & 4) == 0 ? fx : fy;
        double b = (h & 4) == 0 ? fy : fx;
        return ((h & 1) == 0 ? a : -a) + ((h & 2) == 0 ? b : -b) * 0.5;
    }

    private int scramble(int x, int y) {
        int h = x * 0x9E3779B1 ^ y * 0x85EBCA77 ^ seed * 0xC2B2AE3D;
        h = (h ^ h >>> 15) * 0x2C1B3C6D;
        h = (h ^ h >>> 12) * 0x297A2D39;
        return h ^ h >>> 15;
    }

    private static double fade(double t) {
        return t * t * t * (t * (t * 6 - 15) + 10);
    }

    private static double mix(double a, double b, double t) {
        return a + (b - a) * t;
    }

    static double smooth(double low, double high, double x) {
        double t = Math.clamp((x - low) / (high - low), 0, 1);
        return t * t * (3 - 2 * t);
    }
}
