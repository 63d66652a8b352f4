package awlsmith.demo.scene;

/** Laid rope: three strands twisted. */
final class RopePaint {
    private RopePaint() {}

    /** A repeating piece of rope, 4 wide and 1 high. */
    static Texture rope(double dirt, int colour) {
        var noise = new Noise(83);
        var c = new Canvas(256, 64, 1);
        c.ink(colour).box(0, 6, 256, 52);
        c.weather((x, y, p) -> {
            double lay = Math.abs(((x * 0.75 + y * 1.1) % 32 + 32) % 32 / 16 - 1);
            double round = Math.sqrt(Math.max(0, 1 - Math.pow((y - 32) / 27, 2)));
            Canvas.shade(p, (0.45 + 0.62 * round) * (0.55 + 0.6 * Math.sqrt(lay)));
            Canvas.shade(p, 1 + 0.22 * noise.octaves(x * 0.25 + y * 0.36, (y - x) * 0.07, 3, 0.6));
            Canvas.towards(p, 0x2f2a22, dirt * Noise.smooth(-0.2, 0.6, noise.octaves(x * 0.03, y * 0.02, 3, 0.5)));
        });
        return c.tile();
    }

    /** A straight length of rope from one point to another that faces the first camera. */
    static Surface between(
            Texture rope, double x0, double y0, double z0, double x1, double y1, double z1, double thick) {
        double length = Math.hypot(x1 - x0, Math.hypot(y1 - y0, z1 - z0));
        double flat = Math.hypot(x1 - x0, y1 - y0);
        double dx = (y1 - y0) / flat * thick;
        double dy = -(x1 - x0) / flat * thick;
        if (dy > 0) {
            dx = -dx;
            dy = -dy;
        }
        return Surface.of(
                        rope,
                        new double[] {x0 - dx / 2, y0 - dy / 2, z0},
                        new double[] {x1 - x0, y1 - y0, z1 - z0},
                        new double[] {dx, dy, 0})
                .tiled(length / thick / 4, 1);
    }
}
