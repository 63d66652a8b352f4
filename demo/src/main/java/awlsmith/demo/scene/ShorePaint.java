package awlsmith.demo.scene;

/** The far bank: wooded hills, a village of gabled houses, a landing stage, reeds. Sheets in metres. */
final class ShorePaint {
    private final Noise fine = new Noise(37);
    private final Noise coarse = new Noise(53);

    /** A range of wooded hills, 400 m long and 60 m high. */
    Texture hills(int seed, int near, int far, double scale) {
        var shape = new Noise(seed);
        var c = new Canvas(400, 60, scale);
        double[] line = new double[2 * 403];
        line[0] = 0;
        line[1] = 60;
        for (int i = 0; i <= 400; i++) {
            line[2 + 2 * i] = i;
            line[3 + 2 * i] =
                    30 - 22 * shape.octaves(i * 0.008, 1.5, 3, 0.5) - 1.6 * fine.octaves(i * 0.35, seed, 4, 0.6);
        }
        line[804] = 400;
        line[805] = 60;
        c.ink(near).area(line);
        c.weather((x, y, p) -> {
            double crowns = fine.octaves(x * 0.42, y * 0.62 + seed, 6, 0.66);
            double fields = coarse.octaves(x * 0.018 + seed, y * 0.05, 3, 0.5);
            Canvas.towards(p, far, 0.55 * Noise.smooth(0.05, 0.5, fields));
            Canvas.shade(p, 1 + 0.42 * crowns);
            Canvas.towards(p, 0xb9bdb2, 0.22 * Noise.smooth(20, 58, y));
        });
        return c.texture();
    }

    /** The bank itself with its village, 220 m long and 26 m high; ground line at 22. */
    Texture village(double scale) {
        var c = new Canvas(220, 26, scale);
        double[] bank = new double[2 * 223];
        bank[0] = 0;
        bank[1] = 26;
        for (int i = 0; i <= 220; i++) {
            bank[2 + 2 * i] = i;
            bank[3 + 2 * i] = 20.6 - 1.1 * coarse.octaves(i * 0.03, 8, 3, 0.5) - 0.3 * fine.octaves(i * 0.9, 2, 3, 0.6);
        }
        bank[444] = 220;
        bank[445] = 26;
        trees(c, 5, 46, 60);
        trees(c, 128, 214, 90);
        c.ink(0x55603f).area(bank);
        c.weather((x, y, p) -> {
            Canvas.shade(p, 1 + 0.36 * fine.octaves(x * 1.6, y * 2.2, 5, 0.66));
            Canvas.towards(p, 0x6f6a5c, 0.8 * Noise.smooth(23.2, 24.2, y + 0.4 * fine.octaves(x * 0.6, 4, 3, 0.6)));
        });
        double[][] houses = {
            {52, 8, 5.2, 0xb8a688, 0x5d4437}, {63, 7, 6.4, 0x94533f, 0x3d3936}, {73, 9, 5.0, 0xc7bfa9, 0x6b3a2d},
            {85, 6.5, 6.0, 0xa9956f, 0x4a3c33}, {94, 8.5, 5.4, 0x7d8a80, 0x52423a}, {106, 7, 6.6, 0xbfa57c, 0x613528},
            {118, 9.5, 5.0, 0xd0c6b0, 0x47413c}, {24, 7.5, 5.2, 0x8f6a4c, 0x3f3833}, {152, 8, 5.6, 0xb39a7a, 0x5a3a2e},
            {182, 9, 5.4, 0x9aa095, 0x4f3c33}
        };
        for (double[] h : houses) {
            house(c, h[0], 20.4 - 0.6 * coarse.at(h[0] * 0.1, 3), h[1], h[2], (int) h[3], (int) h[4]);
        }
        church(c, 137, 20);
        stage(c);
        return c.texture();
    }

    private void house(Canvas c, double x, double ground, double w, double h, int wall, int roof) {
        double rise = w * 0.42;
        double eave = ground - h;
        var paint = new Canvas(w + 2, h + rise + 2.4, c.texelScale());
        double ox = 1;
        double oy = rise + 1;
        paint.ink(wall).box(ox, oy, w, h + 1.2);
        paint.ink(wall).area(ox, oy, ox + w / 2, oy - rise, ox + w, oy);
        paint.weather((px, py, p) -> {
            Canvas.shade(p, 1 + 0.09 * fine.octaves((px + x) * 2.4, py * 5.5, 4, 0.62) - 0.05 * ((int) (py * 3.2) & 1));
            Canvas.towards(p, 0x6b6048, 0.35 * Noise.smooth(h + rise - 0.6, h + rise + 1.2, py));
        });
        paint.ink(roof).line(0.42, ox - 0.5, oy + 0.5, ox + w / 2, oy - rise, ox + w + 0.5, oy + 0.5);
        paint.ink(0xe2dccb).line(0.12, ox - 0.4, oy + 0.72, ox + w / 2, oy - rise + 0.3, ox + w + 0.4, oy + 0.72);
        int columns = w > 8 ? 3 : 2;
        for (int i = 0; i < columns; i++) {
            double wx = ox + w * (i + 0.5) / columns - 0.55;
            pane(paint, wx, oy + h * 0.22, i == 1 && w < 8);
            if (i != columns - 1 || columns == 2) {
                pane(paint, wx, oy + h * 0.60, false);
            }
        }
        paint.ink(0x4d3526).box(ox + w * 0.82 - 0.5, oy + h * 0.55, 1.05, h * 0.45 + 0.6);
        pane(paint, ox + w / 2 - 0.5, oy - rise * 0.42, false);
        c.ink(0x5b4135)
                .box(x + w * 0.68, eave - rise * 0.95, 0.9, rise * 0.7)
                .ink(0x3a2c25)
                .box(x + w * 0.66, eave - rise, 1.1, 0.3);
        c.graphics()
                .drawImage(
                        paint.image(),
                        new java.awt.geom.AffineTransform(
                                1 / c.texelScale(), 0, 0, 1 / c.texelScale(), x - ox, eave - oy),
                        null);
    }

    private void pane(Canvas c, double x, double y, boolean lamp) {
        c.ink(0xe4decd)
                .box(x - 0.16, y - 0.16, 1.32, 1.72)
                .ink(lamp ? 0xe8c878 : 0x2a3235)
                .box(x, y, 1, 1.4);
        c.ink(0x93a4a6, 0.6)
                .area(x, y, x + 0.6, y, x, y + 0.9)
                .ink(0xe4decd)
                .box(x + 0.46, y, 0.09, 1.4)
                .box(x, y + 0.62, 1, 0.09);
    }

    private void church(Canvas c, double x, double ground) {
        c.ink(0xcdc6b4)
                .box(x, ground - 7, 9, 8.6)
                .ink(0x4c4a46)
                .area(x - 0.5, ground - 7, x + 1.5, ground - 10, x + 9, ground - 10, x + 9.6, ground - 7);
        c.ink(0xd6cfbd)
                .box(x - 2.6, ground - 11.5, 3, 13)
                .ink(0x4a3b35)
                .area(x - 2.9, ground - 11.5, x - 1.1, ground - 19, x + 0.7, ground - 11.5);
        c.ink(0x2b3032).box(x - 1.6, ground - 9.6, 1, 1.7);
        for (int i = 0; i < 3; i++) {
            c.ink(0x33393b).box(x + 1.4 + i * 2.5, ground - 5.4, 0.9, 2.8);
        }
    }

    private void trees(Canvas c, double from, double to, int count) {
        for (int i = 0; i < count; i++) {
            double x = from + (to - from) * fine.hash(i, 1);
            double size = 1.6 + 2.6 * fine.hash(i, 2);
            double top = 20.2 - 1.2 * size - 3.0 * fine.hash(i, 3);
            int[] greens = {0x3d4a30, 0x475534, 0x33402b, 0x55603a, 0x4a4f33};
            c.ink(0x3b3025).line(0.3, x, 21, x, top);
            c.ink(greens[i % greens.length]);
            for (int k = 0; k < 9; k++) {
                c.disc(
                        x + size * 0.62 * (fine.hash(i, 10 + k) - 0.5) * 2,
                        top + size * 0.62 * (fine.hash(i, 30 + k) - 0.5) * 2,
                        size * (0.34 + 0.26 * fine.hash(i, 50 + k)));
            }
        }
    }

    private void stage(Canvas c) {
        c.ink(0x564a3a).box(96, 21.6, 22, 0.5);
        for (int i = 0; i < 8; i++) {
            c.ink(0x43392c).box(96.4 + i * 3, 21.8, 0.42, 3.2).ink(0x6c5f4b).box(96.4 + i * 3, 20.1, 0.24, 1.7);
        }
        c.ink(0x50463a)
                .box(96.4, 20.4, 21.4, 0.14)
                .ink(0xc9c3b0)
                .box(112, 17.6, 5, 1.5)
                .ink(0x2a3437)
                .letters("OSTRAND", 112.4, 18.75, 0.78, 0.15);
        c.ink(0x43392c).box(112.6, 19, 0.2, 2.7).box(116.2, 19, 0.2, 2.7);
    }

    /** Reeds at the near edge, 30 m long and 3 m high. */
    Texture reeds(double scale) {
        var c = new Canvas(30, 3, scale);
        int[] inks = {0x6d6a41, 0x57592f, 0x80774a, 0x4a4c2b, 0x93875a};
        for (int i = 0; i < 900; i++) {
            double x = 30 * fine.hash(i, 5);
            double cover = 0.35 + 0.65 * Noise.smooth(-0.4, 0.5, coarse.octaves(x * 0.22, 5, 2, 0.5));
            double height = (0.5 + 1.9 * fine.hash(i, 6)) * cover;
            double lean = (fine.hash(i, 7) - 0.45) * 0.7;
            c.ink(inks[i % inks.length])
                    .line(0.012 + 0.03 * fine.hash(i, 8), x, 3, x + lean * 0.3, 3 - height * 0.6, x + lean, 3 - height);
            if (i % 9 == 0) {
                c.ink(0x4b3322).line(0.07, x + lean, 3 - height, x + lean * 1.08, 3 - height - 0.16);
            }
        }
        return c.texture();
    }
}
