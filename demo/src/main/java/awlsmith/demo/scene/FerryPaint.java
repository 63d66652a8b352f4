package awlsmith.demo.scene;

import java.awt.Color;
import java.awt.GradientPaint;

/**
 * The ferry Ostrand seen from her side, and her winch wheel. Drawn in units of 1/26 metre on a sheet of 700 x 420, the
 * waterline at 352.
 */
final class FerryPaint {
    static final double SHEET_WIDTH = 700;
    static final double SHEET_HEIGHT = 420;
    static final double WATERLINE = 352;
    /** Middle of the wheel on the sheet. */
    static final double WHEEL_X = 532;

    static final double WHEEL_Y = 186;
    static final double WHEEL_RADIUS = 66;

    private final Noise fine = new Noise(11);
    private final Noise rust = new Noise(23);

    Texture side(double scale) {
        var c = new Canvas(SHEET_WIDTH, SHEET_HEIGHT, scale);
        hull(c);
        c.weather(this::hullWeather);
        house(c);
        rigging(c);
        people(c);
        return c.texture();
    }

    /** What shines on her at night, on the same sheet: windows, ports and lamps with their glow. */
    Texture lights(double scale) {
        var c = new Canvas(SHEET_WIDTH, SHEET_HEIGHT, scale);
        for (int i = 0; i < 4; i++) {
            glow(c, 184 + i * 47, 179, 60, 0.30);
            c.ink(0xf2b54e).box(168 + i * 47, 162, 15, 34).box(185 + i * 47, 162, 15, 34);
            c.ink(0x3a2413).box(176 + i * 47, 182, 12, 14);
        }
        for (int i = 0; i < 3; i++) {
            c.ink(0xd98f36).box(214 + i * 29, 84, 20, 25);
        }
        for (int i = 0; i < 7; i += 2) {
            c.ink(0xe0a24a).disc(92 + i * 84, 300, 5.4);
        }
        for (double[] lamp : LAMPS) {
            glow(c, lamp[0], lamp[1], lamp[2], 0.75);
            c.ink(0xfff3cf).disc(lamp[0], lamp[1], 3.4);
        }
        return c.texture();
    }

    /** Place on the sheet and reach of the glow. */
    private static final double[][] LAMPS = {{180, 107, 46}, {60, 212, 38}, {650, 206, 38}, {252, 8, 30}};

    private static void glow(Canvas c, double x, double y, double reach, double strength) {
        c.graphics()
                .setPaint(new java.awt.RadialGradientPaint(
                        (float) x, (float) y, (float) reach, new float[] {0, 0.25f, 1}, new Color[] {
                            new Color(255, 214, 140, (int) (255 * strength)),
                            new Color(255, 190, 100, (int) (80 * strength)),
                            new Color(255, 180, 90, 0)
                        }));
        c.disc(x, y, reach);
    }

    private void hull(Canvas c) {
        c.ink(0x2c3e44).area(12, 282, 60, 372, 622, 372, 676, 268, 672, 262, 640, 262, 60, 262, 20, 266);
        c.ink(0x742c23).area(40, 344, 60, 376, 622, 376, 640, 344);
        c.ink(0xcfcabb).area(12, 282, 18, 262, 678, 256, 676, 268);
        c.ink(0x8d8574).area(14, 276, 676, 266, 676, 269, 14, 280);
        c.ink(0x1b2427);
        for (int i = 0; i < 9; i++) {
            c.line(0.5, 96 + i * 62, 276, 92 + i * 62, 344);
        }
        c.line(0.45, 30, 312, 648, 308);
        c.line(0.45, 44, 331, 634, 329);
        c.ink(0x3c5057, 0.9);
        for (int i = 0; i < 96; i++) {
            c.disc(48 + i * 6.1, 310, 0.55);
            c.disc(48 + i * 6.1, 290, 0.5);
        }
        for (int i = 0; i < 7; i++) {
            double x = 92 + i * 84;
            c.ink(0x14181a)
                    .disc(x, 300, 11)
                    .ink(0x2a3033)
                    .disc(x - 0.6, 299, 9.6)
                    .ink(0x101416)
                    .disc(x, 300, 5.4);
            c.ink(0x6b6354).line(0.9, x, 289, x, 272);
        }
        c.ink(0xd9d3c1).letters("FERRY No 2 . 84 PERSONS . 1931", 112, 333, 12, 1.9);
        c.ink(0xd9d3c1);
        for (int i = 0; i < 6; i++) {
            c.box(642 - i * 2.4, 300 + i * 8, i % 2 == 0 ? 6 : 3.4, 1.4);
        }
    }

    private void hullWeather(double x, double y, double[] c) {
        double plate = fine.octaves(x * 0.09, y * 0.16, 6, 0.6);
        Canvas.shade(c, 1 + 0.13 * plate);
        double streak = rust.octaves(x * 0.22, y * 0.018, 4, 0.65) + 0.35 * rust.octaves(x * 1.1, y * 0.08, 3, 0.6);
        double run = Noise.smooth(0.18, 0.75, streak) * Noise.smooth(268, 300, y);
        Canvas.towards(c, 0x7d4a26, 0.75 * run);
        double wet = Noise.smooth(334, 350, y + 5 * fine.octaves(x * 0.05, 3, 4, 0.6));
        Canvas.towards(c, 0x1b2420, 0.5 * wet);
        Canvas.shade(c, 1.06 - 0.12 * Noise.smooth(262, 350, y));
    }

    private void house(Canvas c) {
        var house = new Canvas(SHEET_WIDTH, SHEET_HEIGHT, c.texelScale());
        house.ink(0xdcd5c2).box(150, 142, 238, 120);
        house.ink(0xcfc7b2).box(206, 72, 96, 62);
        boards(house, 150, 142, 238, 120, 9.2);
        boards(house, 206, 72, 96, 62, 7.4);
        house.weather((x, y, p) -> {
            double grain = fine.octaves(x * 0.06, y * 0.9, 5, 0.62);
            Canvas.shade(p, 1 + 0.055 * grain);
            double streak = rust.octaves(x * 0.35 + 9, y * 0.03, 4, 0.6);
            Canvas.towards(p, 0x8a7350, 0.42 * Noise.smooth(0.25, 0.85, streak));
            double flake = fine.octaves(x * 0.5 + 40, y * 0.5, 4, 0.6);
            Canvas.towards(p, 0x8c8478, 0.6 * Noise.smooth(0.52, 0.62, flake));
            Canvas.shade(p, 0.86 + 0.14 * Noise.smooth(0, 12, y - (y > 138 ? 142 : 72)));
        });
        c.graphics()
                .drawImage(
                        house.image(),
                        java.awt.geom.AffineTransform.getScaleInstance(1 / c.texelScale(), 1 / c.texelScale()),
                        null);
        roof(c, 138, 128, 262, 15);
        roof(c, 198, 60, 112, 12);
        for (int i = 0; i < 4; i++) {
            window(c, 166 + i * 47, 160, 36, 38);
        }
        for (int i = 0; i < 3; i++) {
            window(c, 213 + i * 29, 82, 22, 28);
        }
        door(c, 358, 172, 24, 88);
        c.ink(0x1d2b30).letters("OSTRAND", 168, 248, 27, 4.8);
        c.ink(0x9a3225)
                .ring(138, 246, 8, 4.2)
                .ink(0xe9e4d6)
                .line(4.2, 131.8, 240.8, 133.4, 239.4)
                .line(4.2, 144.2, 251.2, 142.6, 252.6);
        c.ink(0x782a20)
                .box(330, 34, 24, 96)
                .ink(0xe3ddcb)
                .box(329, 50, 26, 11)
                .ink(0x1f2224)
                .box(329, 30, 26, 6);
        c.ink(0x5b1f18, 0.6).box(330, 34, 5, 96).ink(0xa54a38, 0.5).box(342, 34, 4, 96);
        c.ink(0x3a3d3c)
                .line(2.2, 186, 128, 186, 104)
                .line(2.2, 188, 106, 180, 104)
                .ink(0xf0dfae)
                .disc(180, 107, 3.2);
        c.ink(0x53493a);
        for (int i = 0; i < 3; i++) {
            double x = 420 + i * 30;
            c.line(1.8, x, 262, x, 246).line(1.8, x + 20, 262, x + 20, 246);
            c.ink(0x7b5c3b).box(x - 3, 243, 26, 3.4).box(x - 3, 232, 26, 2.6).ink(0x53493a);
            c.line(1.4, x - 1, 246, x - 2, 230);
        }
    }

    private void boards(Canvas c, double x, double y, double w, double h, double pitch) {
        c.ink(0x8f866f, 0.75);
        for (double at = x + pitch; at < x + w - 1; at += pitch) {
            c.box(at, y, 0.55, h);
        }
        c.ink(0xf4efe0, 0.5);
        for (double at = x + pitch + 0.6; at < x + w - 1; at += pitch) {
            c.box(at, y, 0.4, h);
        }
    }

    private void roof(Canvas c, double x, double y, double w, double h) {
        c.graphics()
                .setPaint(
                        new GradientPaint(0, (float) y, new Color(0xa8402f), 0, (float) (y + h), new Color(0x742a20)));
        c.box(x, y, w, h);
        c.ink(0x541d16).box(x, y + h - 1.6, w, 1.6).ink(0xc26651, 0.6).box(x, y, w, 0.9);
        c.ink(0x5f241b, 0.7);
        for (double at = x + 7; at < x + w; at += 13) {
            c.box(at, y, 0.6, h);
        }
        c.ink(0x10110f, 0.35).box(x + 10, y + h, w - 20, 4);
    }

    private void window(Canvas c, double x, double y, double w, double h) {
        c.ink(0x6f5a3e).box(x - 2.6, y - 2.6, w + 5.2, h + 5.2);
        c.ink(0xa58d68).box(x - 2.6, y - 2.6, w + 5.2, 1.1).ink(0x493a28).box(x - 3.4, y + h + 1.8, w + 6.8, 1.8);
        c.graphics()
                .setPaint(new GradientPaint(
                        (float) x,
                        (float) y,
                        new Color(0x93a7ab),
                        (float) (x + w * 0.4),
                        (float) (y + h),
                        new Color(0x1d2629)));
        c.box(x, y, w, h);
        c.ink(0xe9efe9, 0.33)
                .area(x + w * 0.12, y + h * 0.8, x + w * 0.55, y, x + w * 0.75, y, x + w * 0.3, y + h * 0.8);
        c.ink(0x0d1112, 0.5).area(x, y + h, x + w * 0.3, y + h * 0.62, x + w * 0.7, y + h * 0.7, x + w, y + h);
        c.ink(0xb9ab8f, 0.5).box(x + w * 0.04, y, w * 0.13, h * 0.7).box(x + w * 0.83, y, w * 0.13, h * 0.7);
        c.ink(0x6f5a3e).box(x + w / 2 - 0.9, y, 1.8, h).box(x, y + h * 0.32, w, 1.3);
    }

    private void door(Canvas c, double x, double y, double w, double h) {
        c.ink(0x4b3a29).box(x - 2, y - 2, w + 4, h + 2).ink(0x6f5132).box(x, y, w, h);
        c.ink(0x553d25)
                .box(x + 3, y + 46, w - 6, 16)
                .box(x + 3, y + 66, w - 6, 18)
                .ink(0x27302f)
                .box(x + 4, y + 6, w - 8, 32);
        c.ink(0x9fb0b0, 0.5).area(x + 5, y + 34, x + 14, y + 7, x + 18, y + 7, x + 9, y + 34);
        c.ink(0xd1a74b).disc(x + 4, y + 50, 1.4);
    }

    private void rigging(Canvas c) {
        c.ink(0x262b2b).line(3.4, 252, 62, 252, 6).line(1.6, 228, 26, 276, 26);
        c.line(0.9, 252, 8, 40, 258)
                .line(0.9, 252, 8, 470, 150)
                .line(0.8, 252, 26, 344, 36)
                .line(0.7, 252, 8, 660, 250);
        c.ink(0x9d3222)
                .area(253, 7, 288, 9, 283, 15, 290, 21, 253, 19)
                .ink(0xe5dfcd)
                .box(253, 11, 32, 3.4);
        c.ink(0x2b3030);
        for (int i = 0; i < 9; i++) {
            rail(c, 26 + i * 15.2);
        }
        for (int i = 0; i < 6; i++) {
            rail(c, 594 + i * 15.2);
        }
        c.line(1.2, 22, 234, 150, 231).line(0.8, 22, 243, 150, 240).line(0.8, 22, 252, 150, 250);
        c.line(1.2, 590, 228, 674, 226).line(0.8, 590, 237, 674, 235).line(0.8, 590, 247, 674, 244);
        c.ink(0x3c3a33).area(470, 262, 478, 190, 486, 190, 492, 262).area(572, 262, 578, 190, 586, 190, 594, 262);
        c.ink(0x4c473c).box(470, 256, 126, 6);
        c.ink(0x2b3030)
                .line(1.4, 60, 232, 60, 214)
                .ink(0xeadfb6)
                .disc(60, 212, 3)
                .ink(0x2b3030)
                .line(1.4, 650, 228, 650, 208)
                .ink(0xeadfb6)
                .disc(650, 206, 3);
    }

    private void rail(Canvas c, double x) {
        c.line(1.5, x, 262, x, 231);
    }

    private void people(Canvas c) {
        person(c, 78, 258, 0x32424f, 0x53483d);
        person(c, 96, 259, 0x6f3b33, 0x2d2c2a);
        person(c, 124, 258, 0x585a4b, 0x3b332c);
        person(c, 612, 257, 0x2f3a3b, 0x28241f);
        person(c, 440, 250, 0x7b6a4a, 0x3d3a36);
    }

    /** A figure far off: coat, legs, hat; no face to be seen. */
    private void person(Canvas c, double x, double feet, int coat, int legs) {
        c.ink(legs).box(x - 3.6, feet - 20, 3.2, 21).box(x + 0.6, feet - 20, 3.2, 21);
        c.ink(coat).area(x - 5.6, feet - 17, x - 4.6, feet - 39, x + 4.6, feet - 39, x + 5.8, feet - 17);
        c.ink(0xc39a7c)
                .disc(x, feet - 43.4, 3.5)
                .ink(0x2a2622)
                .box(x - 3.8, feet - 48, 7.6, 3)
                .box(x - 5, feet - 45.6, 10, 1);
    }

    /** Square sheet of the wheel alone, 150 units wide, for turning. */
    Texture wheel(double scale) {
        double m = 75;
        var c = new Canvas(150, 150, scale);
        double r = WHEEL_RADIUS;
        c.ink(0x3a2d20)
                .ring(m, m, r - 4.5, 10.5)
                .ink(0x6d563d)
                .ring(m, m, r - 4, 8.4)
                .ink(0x84694a)
                .ring(m, m, r - 2.2, 2.2);
        c.ink(0x2b2218).ring(m, m, r - 12, 2);
        for (int i = 0; i < 16; i++) {
            double a = i * Math.PI / 8 + 0.1;
            double ca = Math.cos(a);
            double sa = Math.sin(a);
            c.ink(0x3b2e21).line(4.6, m + 12 * ca, m + 12 * sa, m + (r - 8) * ca, m + (r - 8) * sa);
            c.ink(0x7a6146).line(2.9, m + 12 * ca, m + 12 * sa, m + (r - 8) * ca, m + (r - 8) * sa);
            c.ink(0x1f1c18).disc(m + (r - 4) * ca, m + (r - 4) * sa, 1.5);
        }
        c.ink(0x2c241b)
                .disc(m, m, 16)
                .ink(0x4a3d2e)
                .disc(m, m, 13.6)
                .ink(0x23211e)
                .disc(m, m, 6)
                .ink(0x8c8778)
                .disc(m - 1, m - 1, 3);
        for (int i = 0; i < 6; i++) {
            c.ink(0x1c1a17).disc(m + 10 * Math.cos(i * Math.PI / 3), m + 10 * Math.sin(i * Math.PI / 3), 1.5);
        }
        c.ink(0xb4402f).box(m - 2.6, m - r + 0.6, 5.2, 7);
        c.weather((x, y, p) -> {
            double a = Math.atan2(y - m, x - m);
            double d = Math.hypot(x - m, y - m);
            double along = d > 52 ? fine.octaves(a * 16, d * 0.9, 4, 0.6) : fine.octaves(x * 0.7, y * 0.7, 5, 0.6);
            Canvas.shade(p, 1 + 0.20 * along);
            Canvas.towards(p, 0x8a5a30, 0.35 * Noise.smooth(0.35, 0.8, rust.octaves(x * 0.12, y * 0.12, 4, 0.6)));
        });
        return c.texture();
    }
}
