package awlsmith.demo.scene;

import java.util.ArrayList;
import java.util.List;

/** Small sailing boats race past the village; the camera follows the leading ones from the bank. */
public final class RegattaShot implements Shot {
    /** Place across at the start, distance, metres a second, sail's colour, number. */
    private record Boat(double x, double z, double speed, Texture sheet) {}

    private static final double WIDTH = 7.5;

    private final List<Boat> boats = new ArrayList<>();
    private final List<Surface> far = new ArrayList<>();
    private final Sky sky = new Sky(new double[] {0.35, 0.5, -0.6});
    private final Water water = new Water();

    public RegattaShot() {
        boats.add(new Boat(-9, 21, 1.5, boat(0xe9e2cf, 0xb5402d, "14")));
        boats.add(new Boat(-1, 26, 1.75, boat(0xdcd9cd, 0x2c4a63, "7")));
        boats.add(new Boat(-14, 32, 1.35, boat(0xd9b25a, 0x3c3a35, "21")));
        boats.add(new Boat(4, 41, 1.6, boat(0xe4dfd2, 0x6a7d3b, "3")));
        boats.add(new Boat(-22, 47, 1.8, boat(0xc96f4a, 0x2b2f33, "18")));
        var shore = new ShorePaint();
        far.add(Surface.standing(shore.village(14), -100, -3.3, 120, 220).lit(1, 0.10));
        far.add(Surface.standing(shore.hills(3, 0x515d43, 0x7d8054, 6), -230, -8, 230, 460)
                .lit(1, 0.28));
        far.add(Surface.standing(shore.hills(9, 0x5d6a5c, 0x7b856b, 4), -560, -4, 560, 1240)
                .lit(1, 0.5));
    }

    /** A boat on a sheet of 100 x 130, the waterline at 118. */
    private static Texture boat(int sail, int hull, String number) {
        var c = new Canvas(100, 130, 6);
        c.ink(hull).area(6, 106, 94, 104, 82, 122, 18, 122);
        c.ink(0xd8d0bb).line(1.6, 6, 106, 94, 104);
        c.ink(0x4a3826).line(1.7, 48, 106, 50, 4).line(1.2, 48, 98, 92, 96);
        c.ink(sail).area(51, 8, 90, 94, 51, 95);
        c.ink(sail, 0.92).area(46, 16, 44, 97, 12, 100);
        c.ink(0x8d8570, 0.6);
        for (int i = 1; i < 5; i++) {
            c.line(0.5, 51, 8 + i * 18, 51 + i * 8.2, 8 + i * 18);
        }
        c.ink(0x23262a).letters(number, 55, 72, 13, 2.1);
        c.ink(0x3a3a37)
                .disc(62, 97, 4)
                .ink(0xb98f6d)
                .disc(63, 91, 2.6)
                .ink(0x5b4a3a)
                .disc(72, 98, 3.6);
        var fine = new Noise(number.hashCode());
        c.weather((x, y, p) -> {
            Canvas.shade(p, 1 + 0.06 * fine.octaves(x * 0.12, y * 0.2, 4, 0.6));
            Canvas.shade(p, 0.92 + 0.12 * Noise.smooth(40, 95, x));
        });
        return c.texture();
    }

    @Override
    public double seconds() {
        return 3;
    }

    @Override
    public World world(double t) {
        var surfaces = new ArrayList<Surface>();
        var foam = new ArrayList<double[]>();
        for (Boat boat : boats) {
            double x = boat.x() + boat.speed() * t;
            double heave = 0.07 * Math.sin(t * 1.7 + boat.z());
            surfaces.add(Surface.standing(boat.sheet(), x, -12.0 / 100 * WIDTH + heave, boat.z(), WIDTH)
                    .turned(0.07 + 0.03 * Math.sin(t * 1.3 + boat.z())));
            foam.add(new double[] {x + 2.4, boat.z() - 0.3, 2.6, 0.5});
        }
        surfaces.addAll(far);
        return new World(surfaces, surfaces, sky, water, foam);
    }

    @Override
    public Camera camera(double t) {
        return new Camera(0, 2.6, 0, -0.20 + 0.045 * t, 0.055, 0.003 * Math.sin(t), 0.42);
    }
}
