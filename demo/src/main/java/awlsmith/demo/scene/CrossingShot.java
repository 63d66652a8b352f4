package awlsmith.demo.scene;

import java.util.ArrayList;
import java.util.List;

/** From the bank: the ferry crosses, the camera on a tripod follows and closes in a little. */
public final class CrossingShot implements Shot {
    private static final double FERRY_AWAY = 40;
    private static final double METRES_PER_UNIT = 26.0 / 700;

    private final Texture side;
    private final Texture wheel;
    private final List<Surface> far = new ArrayList<>();
    private final Surface reeds;
    private final Texture rope;
    private final Sky sky = new Sky(new double[] {-0.55, 0.34, 0.76});
    private final Water water = new Water();

    public CrossingShot() {
        var ferry = new FerryPaint();
        side = ferry.side(4.2);
        wheel = ferry.wheel(4.2);
        var shore = new ShorePaint();
        far.add(Surface.standing(shore.village(14), -100, -3.3, 150, 220).lit(1, 0.12));
        far.add(Surface.standing(shore.hills(3, 0x515d43, 0x7d8054, 6), -230, -8, 260, 460)
                .lit(1, 0.30));
        far.add(Surface.standing(shore.hills(9, 0x5d6a5c, 0x7b856b, 4), -560, -4, 620, 1240)
                .lit(1, 0.55));
        reeds = Surface.standing(shore.reeds(70), -13, -0.5, 9, 26).lit(0.82, 0);
        rope = RopePaint.rope(0.30, 0x6d6048);
    }

    @Override
    public double seconds() {
        return 6;
    }

    @Override
    public World world(double t) {
        double x = -17.2 + 1.15 * t;
        double heave = 0.05 * Math.sin(t * 1.3);
        double sheet = FerryPaint.SHEET_WIDTH * METRES_PER_UNIT;
        double floor = -(FerryPaint.SHEET_HEIGHT - FerryPaint.WATERLINE) * METRES_PER_UNIT + heave;
        var surfaces = new ArrayList<Surface>();
        surfaces.add(reeds);
        double wheelSide = 150 * METRES_PER_UNIT;
        double wheelX = x + FerryPaint.WHEEL_X * METRES_PER_UNIT - wheelSide / 2;
        double wheelY = floor + (FerryPaint.SHEET_HEIGHT - FerryPaint.WHEEL_Y) * METRES_PER_UNIT - wheelSide / 2;
        surfaces.add(Surface.standing(wheel, wheelX, wheelY, FERRY_AWAY - 0.25, wheelSide)
                .turned(t * 0.55));
        double drumX = x + FerryPaint.WHEEL_X * METRES_PER_UNIT;
        double drumY = floor + (FerryPaint.SHEET_HEIGHT - FerryPaint.WHEEL_Y) * METRES_PER_UNIT - 2.4;
        surfaces.add(RopePaint.between(rope, drumX, drumY, FERRY_AWAY - 0.1, drumX + 44, 1.2, FERRY_AWAY + 50, 0.09));
        Surface hull = Surface.standing(side, x, floor, FERRY_AWAY, sheet);
        surfaces.add(hull);
        surfaces.add(RopePaint.between(rope, x + 1.2, floor + 5.0, FERRY_AWAY, x - 46, 0.7, FERRY_AWAY + 6, 0.09));
        surfaces.addAll(far);
        var mirrored = new ArrayList<Surface>();
        mirrored.add(hull);
        mirrored.addAll(far);
        return new World(
                surfaces,
                mirrored,
                sky,
                water,
                List.of(
                        new double[] {x + 24.6, FERRY_AWAY - 0.5, 3.4, 1.5},
                        new double[] {x + 12, FERRY_AWAY - 0.6, 13.5, 0.8},
                        new double[] {x - 5, FERRY_AWAY - 0.3, 9.0, 1.7}));
    }

    @Override
    public Camera camera(double t) {
        double close = Noise.smooth(0, 6, t);
        return new Camera(0, 3.4, 0, -0.035 + 0.016 * t, 0.028 + 0.010 * close, 0.004, 0.40 - 0.035 * close);
    }
}
