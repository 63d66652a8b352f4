package awlsmith.demo.scene;

import java.awt.Color;
import java.awt.GradientPaint;

/** Surfaces close at hand on board: planks, cabin wall, railing, winch frame. Sheets in metres. */
final class DeckPaint {
    private final Noise fine = new Noise(61);
    private final Noise coarse = new Noise(67);

    /** Deck planks, 2 m across and 4 m along (down the sheet), repeating. */
    Texture planks() {
        var c = new Canvas(1024, 2048, 1);
        c.ink(0x8a7454).box(0, 0, 1024, 2048);
        c.weather((x, y, p) -> {
            int plank = (int) (x / 64);
            double in = x - plank * 64;
            double shift = 2048 * fine.hash(plank, 3);
            double tone = 0.80 + 0.34 * fine.hash(plank, 1);
            // grain runs along the plank and must meet itself at the sheet's end
            double g = fine.tiled(x * 0.35 + 31 * plank, (y + shift) / 128, 16) * 0.6
                    + fine.tiled(x * 0.9 + 17 * plank, (y + shift) / 32, 64) * 0.4;
            Canvas.shade(p, tone * (1 + 0.20 * g));
            double wear = coarse.tiled(x / 128, y / 128, 8 * 2);
            Canvas.towards(p, 0xa99c84, 0.45 * Noise.smooth(-0.1, 0.7, wear));
            Canvas.towards(p, 0x4b3d2c, 0.40 * Noise.smooth(0.25, 0.7, -wear));
            double seam = Math.min(in, 64 - in);
            Canvas.towards(p, 0x14110d, 0.92 * Noise.smooth(3.2, 1.6, seam));
            double butt = Math.abs(((y + shift) % 1024) - 512);
            Canvas.towards(p, 0x14110d, 0.85 * Noise.smooth(3.0, 1.4, butt));
            double nx = Math.abs(in - 14) < 25 ? in - 14 : in - 50;
            double ny = butt - 14;
            Canvas.towards(p, 0x2f2a24, 0.9 * Noise.smooth(4.2, 2.8, Math.hypot(nx, ny)));
        });
        return c.tile();
    }

    /** The cabin's long wall, 12 m along and 2.4 m high. */
    Texture cabinWall(double scale) {
        var c = new Canvas(12, 2.4, scale);
        c.ink(0xdad3c0).box(0, 0, 12, 2.4).ink(0x7f2a20).box(0, 1.98, 12, 0.42);
        c.ink(0x857c67, 0.8);
        for (double x = 0.16; x < 12; x += 0.16) {
            c.box(x, 0, 0.010, 2.4);
        }
        c.ink(0xf3eedf, 0.55);
        for (double x = 0.17; x < 12; x += 0.16) {
            c.box(x, 0, 0.006, 1.98);
        }
        c.weather((x, y, p) -> {
            Canvas.shade(p, 1 + 0.07 * fine.octaves(x * 2.2, y * 30, 5, 0.6));
            double streak = coarse.octaves(x * 7, y * 0.5, 4, 0.62);
            Canvas.towards(p, 0x86653e, 0.45 * Noise.smooth(0.3, 0.9, streak));
            Canvas.towards(p, 0x8f8a7e, 0.7 * Noise.smooth(0.5, 0.6, fine.octaves(x * 9, y * 9, 5, 0.6)));
            Canvas.towards(p, 0x3c352b, 0.55 * Noise.smooth(2.15, 2.4, y + 0.1 * streak));
        });
        for (int i = 0; i < 4; i++) {
            window(c, 1.2 + 2.7 * i, 0.42, 0.95, 0.9);
        }
        door(c, 2.72, 0.25);
        door(c, 8.1, 0.25);
        c.ink(0x1e2c31)
                .letters("FERRY No 2", 4.75, 1.86, 0.26, 0.05)
                .letters("KEEP CLEAR OF THE ROPE", 9.35, 1.86, 0.115, 0.02);
        for (double x : new double[] {0.55, 5.75}) {
            c.ink(0x151718, 0.35).ring(x + 0.03, 1.08, 0.30, 0.13);
            c.ink(0xb33a29).ring(x, 1.05, 0.30, 0.13).ink(0xece6d6);
            for (int k = 0; k < 4; k++) {
                double a = Math.PI / 4 + k * Math.PI / 2;
                c.line(
                        0.13,
                        x + 0.295 * Math.cos(a - 0.16),
                        1.05 + 0.295 * Math.sin(a - 0.16),
                        x + 0.295 * Math.cos(a + 0.16),
                        1.05 + 0.295 * Math.sin(a + 0.16));
            }
            c.ink(0xd8cba6).ring(x, 1.05, 0.39, 0.018);
        }
        c.ink(0x30312e).box(0, 0.09, 12, 0.035).ink(0x5f5a4c);
        for (double x = 0.4; x < 12; x += 1.1) {
            c.disc(x, 0.107, 0.03);
        }
        return c.texture();
    }

    private void window(Canvas c, double x, double y, double w, double h) {
        c.ink(0x5e4a31)
                .box(x - 0.08, y - 0.08, w + 0.16, h + 0.16)
                .ink(0x9a7f58)
                .box(x - 0.08, y - 0.08, w + 0.16, 0.03);
        c.graphics()
                .setPaint(new GradientPaint(
                        (float) x,
                        (float) y,
                        new Color(0xa9b8ba),
                        (float) (x + w * 0.5),
                        (float) (y + h),
                        new Color(0x2a3436)));
        c.box(x, y, w, h);
        c.ink(0x5e6e63, 0.8)
                .area(
                        x,
                        y + h * 0.55,
                        x + w * 0.3,
                        y + h * 0.46,
                        x + w * 0.7,
                        y + h * 0.52,
                        x + w,
                        y + h * 0.45,
                        x + w,
                        y + h,
                        x,
                        y + h);
        c.ink(0xf2f5ee, 0.28).area(x + 0.08, y + h, x + 0.5, y, x + 0.66, y, x + 0.24, y + h);
        c.ink(0x5e4a31).box(x + w / 2 - 0.02, y, 0.04, h).box(x, y + h * 0.4, w, 0.03);
        c.ink(0x40331f).box(x - 0.11, y + h + 0.08, w + 0.22, 0.05);
    }

    private void door(Canvas c, double x, double y) {
        c.ink(0x3d2f20).box(x - 0.06, y - 0.06, 0.9, 2.2).ink(0x6b4c2d).box(x, y, 0.78, 2.1);
        c.ink(0x513821)
                .box(x + 0.1, y + 1.0, 0.58, 0.34)
                .box(x + 0.1, y + 1.45, 0.58, 0.45)
                .ink(0x2b3536)
                .box(x + 0.14, y + 0.14, 0.5, 0.66);
        c.ink(0x94a3a2, 0.5).area(x + 0.16, y + 0.8, x + 0.4, y + 0.14, x + 0.52, y + 0.14, x + 0.28, y + 0.8);
        c.ink(0xc99c42)
                .disc(x + 0.09, y + 1.08, 0.035)
                .ink(0x2a2723)
                .box(x + 0.70, y + 0.3, 0.07, 0.1)
                .box(x + 0.70, y + 1.6, 0.07, 0.1);
    }

    /** The railing, 3 m along and 1.1 m high. */
    Texture railing(double scale) {
        var c = new Canvas(3, 1.1, scale);
        for (int i = 0; i < 3; i++) {
            double x = 0.5 + i;
            c.ink(0x23292a).box(x - 0.025, 0.04, 0.05, 1.06).ink(0x59625f).box(x - 0.018, 0.04, 0.012, 1.06);
            c.ink(0x23292a).box(x - 0.07, 1.04, 0.14, 0.06);
        }
        for (double y : new double[] {0.42, 0.62, 0.82}) {
            c.ink(0x2a3131).box(0, y - 0.009, 3, 0.018).ink(0x7d8683).box(0, y - 0.008, 3, 0.005);
        }
        c.ink(0x6d4d2f)
                .box(0, 0.01, 3, 0.065)
                .ink(0xb08a5a)
                .box(0, 0.01, 3, 0.018)
                .ink(0x35261a)
                .box(0, 0.065, 3, 0.012);
        c.weather((x, y, p) -> {
            Canvas.shade(p, 1 + 0.14 * fine.octaves(x * 9, y * 60, 4, 0.6));
            Canvas.towards(
                    p,
                    0x8a5328,
                    0.5 * Noise.smooth(0.35, 0.8, coarse.octaves(x * 6, y * 5, 4, 0.6)) * Noise.smooth(0.08, 0.2, y));
        });
        return c.texture();
    }

    /** An iron plate wall behind the winch, 5 m along and 3 m high, with what is written on it. */
    Texture winchWall(double scale) {
        var c = new Canvas(5, 3, scale);
        c.ink(0x3f5a5c).box(0, 0, 5, 3).ink(0x2f4446);
        for (double x = 1.25; x < 5; x += 1.25) {
            c.box(x - 0.012, 0, 0.024, 3);
        }
        c.box(0, 1.49, 5, 0.02).ink(0x6f8785);
        for (int i = 0; i < 50; i++) {
            for (double y : new double[] {0.06, 1.43, 1.57, 2.94}) {
                c.disc(0.05 + i * 0.1, y, 0.016);
            }
        }
        for (double x : new double[] {1.19, 1.31, 2.44, 2.56, 3.69, 3.81}) {
            for (int i = 0; i < 28; i++) {
                c.disc(x, 0.1 + i * 0.103, 0.014);
            }
        }
        c.weather((x, y, p) -> {
            Canvas.shade(p, 1 + 0.16 * fine.octaves(x * 5, y * 5, 6, 0.64));
            double streak = coarse.octaves(x * 6.5, y * 0.55, 5, 0.62);
            Canvas.towards(p, 0x84502a, 0.72 * Noise.smooth(0.28, 0.85, streak + 0.25 * Noise.smooth(1.5, 3, y)));
            Canvas.towards(p, 0x9a9c92, 0.35 * Noise.smooth(0.55, 0.7, fine.octaves(x * 12, y * 12, 4, 0.6)));
            Canvas.shade(p, 1.05 - 0.3 * Noise.smooth(1.2, 3.2, y));
        });
        c.ink(0xd8d2be)
                .box(0.92, 0.30, 1.22, 0.56)
                .ink(0x23302f)
                .box(0.94, 0.32, 1.18, 0.52)
                .ink(0xd8d2be);
        c.letters("WINCH No 2", 1.02, 0.55, 0.105, 0.02).letters("OSTRAND 1931", 1.02, 0.75, 0.088, 0.016);
        c.ink(0xb5472f)
                .letters("STAND CLEAR", 3.44, 0.52, 0.125, 0.026)
                .ink(0xd8d2be)
                .letters("LOAD 4 T", 3.44, 0.76, 0.125, 0.022);
        c.ink(0x20282a)
                .ring(4.35, 2.05, 0.24, 0.05)
                .ink(0xe2ddcc)
                .disc(4.35, 2.05, 0.215)
                .ink(0x23292a);
        for (int i = 0; i < 13; i++) {
            double a = Math.PI * (0.75 + 1.5 * i / 12);
            c.line(
                    0.012,
                    4.35 + 0.16 * Math.cos(a),
                    2.05 + 0.16 * Math.sin(a),
                    4.35 + 0.2 * Math.cos(a),
                    2.05 + 0.2 * Math.sin(a));
        }
        c.ink(0xa33325).line(0.02, 4.35, 2.05, 4.46, 1.92);
        return c.texture();
    }

    /** One side of the winch's stand, 1 m wide and 1.5 m high. */
    Texture stand(double scale) {
        var c = new Canvas(1, 1.5, scale);
        c.ink(0x33362f).area(0.02, 1.5, 0.36, 0.06, 0.64, 0.06, 0.98, 1.5, 0.76, 1.5, 0.54, 0.5, 0.46, 0.5, 0.24, 1.5);
        c.ink(0x3c4038)
                .box(0.0, 1.38, 1, 0.12)
                .box(0.2, 0.92, 0.6, 0.07)
                .ink(0x23251f)
                .disc(0.5, 0.16, 0.13)
                .ink(0x77766a)
                .disc(0.5, 0.16, 0.07);
        for (double x : new double[] {0.08, 0.3, 0.7, 0.92}) {
            c.ink(0x7a776a).disc(x, 1.44, 0.025);
        }
        c.weather((x, y, p) -> {
            Canvas.shade(p, 1 + 0.24 * fine.octaves(x * 9, y * 9, 5, 0.62));
            Canvas.towards(p, 0x8a5229, 0.55 * Noise.smooth(0.25, 0.8, coarse.octaves(x * 5, y * 3, 4, 0.6)));
        });
        return c.texture();
    }

    /** Coils of rope on the drum, 1 m wide and 0.5 m high. */
    Texture coil(double scale) {
        var c = new Canvas(1, 0.5, scale);
        for (int i = 0; i < 14; i++) {
            double x = 0.035 + i * 0.0715;
            c.ink(0x3d3323)
                    .box(x - 0.036, 0.02, 0.072, 0.46)
                    .ink(0x8c7750)
                    .box(x - 0.03, 0.02, 0.052, 0.46)
                    .ink(0xb6a070)
                    .box(x - 0.02, 0.02, 0.02, 0.46);
        }
        c.weather((x, y, p) -> {
            double lay = Math.abs(((y * 40 + x * 18) % 1 + 1) % 1 * 2 - 1);
            Canvas.shade(p, 0.72 + 0.38 * lay);
            double round = Math.sqrt(Math.max(0, 1 - Math.pow((y - 0.25) / 0.26, 2)));
            Canvas.shade(p, 0.35 + 0.75 * round);
            Canvas.shade(p, 1 + 0.2 * fine.octaves(x * 40, y * 30, 3, 0.6));
        });
        return c.texture();
    }

    /** The bow gate of striped boards, 2.6 m wide and 1 m high. */
    Texture gate(double scale) {
        var c = new Canvas(2.6, 1, scale);
        c.ink(0xc8c2b0)
                .box(0, 0.12, 2.6, 0.16)
                .box(0, 0.5, 2.6, 0.16)
                .ink(0x2d3334)
                .box(0.02, 0, 0.09, 1)
                .box(2.49, 0, 0.09, 1)
                .box(1.26, 0, 0.08, 1);
        c.ink(0xad3b2a);
        for (int i = 0; i < 7; i++) {
            double x = 0.16 + i * 0.36;
            c.area(x, 0.28, x + 0.14, 0.12, x + 0.3, 0.12, x + 0.16, 0.28)
                    .area(x, 0.66, x + 0.14, 0.5, x + 0.3, 0.5, x + 0.16, 0.66);
        }
        c.weather((x, y, p) -> Canvas.shade(p, 1 + 0.12 * fine.octaves(x * 12, y * 24, 4, 0.6)));
        return c.texture();
    }
}
