package awlsmith.demo.scene;

import java.util.ArrayList;
import java.util.List;

/** The ferry lies at her landing by night; only her lamps and a few windows ashore give light, and the river mirrors them. */
public final class LampNightShot implements Shot {
    private static final double FERRY_AWAY = 40;
    private static final double METRES_PER_UNIT = 26.0 / 700;
    private static final double DARK = 0.2;

    private final Texture side = new FerryPaint().side(3.2);
    private final Texture lights = new FerryPaint().lights(3.2);
    private final Texture wheel = new FerryPaint().wheel(3.2);
    private final Texture ashore = ashore();
    private final List<Surface> far = new ArrayList<>();
    private final Sky sky = new Sky(new double[] {0.7, -0.4, 0.6}, 0.085);
    private final Water water = new Water();

    public LampNightShot() {
        var shore = new ShorePaint();
        far.add(Surface.standing(ashore, -60, -1.5, 149, 130));
        far.add(Surface.standing(shore.village(10), -100, -3.3, 150, 220).lit(0.13, 0));
        far.add(Surface.standing(shore.hills(3, 0x515d43, 0x7d8054, 5), -230, -8, 260, 460)
                .lit(0.09, 0));
    }

    /** Lit windows and street lamps on the far bank. */
    private static Texture ashore() {
        var c = new Canvas(520, 60, 5);
        var noise = new Noise(41);
        for (int i = 0; i < 26; i++) {
            double x = 10 + i * 19.4 + 5 * noise.octaves(i * 1.7, 3, 2, 0.5);
            double y = 34 + 8 * noise.octaves(i * 0.9, 9, 2, 0.5);
            if (i % 3 == 0) {
                c.ink(0xffd9a0, 0.10).disc(x, y - 8, 6).ink(0xffe9c8).disc(x, y - 8, 1.1);
            } else if (i % 4 != 1) {
                c.ink(0xd9962f).box(x, y, 2.2, 2.8);
            }
        }
        return c.texture();
    }

    @Override
    public double seconds() {
        return 3;
    }

    @Override
    public World world(double t) {
        double x = -14.4 + 0.06 * Math.sin(t * 0.8);
        double heave = 0.05 * Math.sin(t * 1.3);
        double sheet = FerryPaint.SHEET_WIDTH * METRES_PER_UNIT;
        double floor = -(FerryPaint.SHEET_HEIGHT - FerryPaint.WATERLINE) * METRES_PER_UNIT + heave;
        double wheelSide = 150 * METRES_PER_UNIT;
        double wheelX = x + FerryPaint.WHEEL_X * METRES_PER_UNIT - wheelSide / 2;
        double wheelY = floor + (FerryPaint.SHEET_HEIGHT - FerryPaint.WHEEL_Y) * METRES_PER_UNIT - wheelSide / 2;
        // lamps burn a little unevenly, as they do on a small dynamo
        double lamp = 1 - 0.04 * Math.abs(Math.sin(t * 7.3));
        Surface shining =
                Surface.standing(lights, x, floor, FERRY_AWAY - 0.3, sheet).lit(lamp, 0);
        Surface hull = Surface.standing(side, x, floor, FERRY_AWAY, sheet).lit(DARK, 0);
        var surfaces = new ArrayList<Surface>();
        surfaces.add(shining);
        surfaces.add(Surface.standing(wheel, wheelX, wheelY, FERRY_AWAY - 0.25, wheelSide)
                .lit(DARK, 0));
        surfaces.add(hull);
        surfaces.addAll(far);
        var mirrored = new ArrayList<Surface>();
        mirrored.add(shining);
        mirrored.add(hull);
        mirrored.addAll(far);
        return new World(surfaces, mirrored, sky, water, List.of());
    }

    @Override
    public Camera camera(double t) {
        return new Camera(0, 3.4, 0, -0.03 + 0.012 * t, 0.012, 0.002, 0.36);
    }
}
