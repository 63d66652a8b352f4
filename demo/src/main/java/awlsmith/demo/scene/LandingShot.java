package awlsmith.demo.scene;

import java.util.ArrayList;
import java.util.List;

/** From the ferry's deck towards the landing, as somebody filmed it long ago: the village comes nearer, a boat lies there. */
public final class LandingShot implements Shot {
    private final List<Surface> shore = new ArrayList<>();
    private final Texture side = new FerryPaint().side(2.4);
    private final Texture rope = RopePaint.rope(0.35, 0x8a8578);
    private final Sky sky = new Sky(new double[] {-0.5, 0.5, -0.5});
    private final Water water = new Water();

    public LandingShot() {
        var bank = new ShorePaint();
        shore.add(Surface.standing(bank.village(16), -96, -3.2, 72, 180).lit(1, 0.05));
        shore.add(Surface.standing(bank.hills(3, 0x515d43, 0x7d8054, 6), -150, -7, 140, 330)
                .lit(1, 0.25));
        shore.add(Surface.standing(bank.hills(9, 0x5d6a5c, 0x7b856b, 4), -420, -4, 420, 940)
                .lit(1, 0.5));
    }

    @Override
    public double seconds() {
        return 4;
    }

    @Override
    public World world(double t) {
        double nearer = -1.6 * t;
        var moved = new ArrayList<Surface>();
        moved.add(
                Surface.standing(side, 6, -68.0 / 26 * 0.62, 58 + nearer, 16.5).lit(0.95, 0.04));
        shore.forEach(surface -> moved.add(surface.moved(0, 0, nearer)));
        var surfaces = new ArrayList<Surface>();
        surfaces.add(RopePaint.between(rope, -2.6, 2.1, 3.2, 14, 1.0, 60 + nearer, 0.05));
        surfaces.addAll(moved);
        return new World(surfaces, moved, sky, water, List.of());
    }

    @Override
    public Camera camera(double t) {
        return new Camera(
                0, 3.2 + 0.03 * Math.sin(t * 1.2), 0, 0.03 + 0.02 * Math.sin(t * 0.5), 0.01, 0.006 * Math.sin(t), 0.46);
    }
}
