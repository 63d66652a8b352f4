package awlsmith.demo.scene;

import java.util.ArrayList;
import java.util.List;

/** Close to the winch: the spoked wheel turns, rope runs off, the river passes behind. */
public final class WinchShot implements Shot {
    private static final double DECK = 1.3;

    private final Texture wheel = new FerryPaint().wheel(9);
    private final Texture rope = RopePaint.rope(0.35, 0xa08a5e);
    private final Surface standFront;
    private final Surface standBack;
    private final Surface coil;
    private final Surface wall;
    private final Surface planks;
    private final Surface rail;
    private final List<Surface> shore = new ArrayList<>();
    private final Sky sky = new Sky(new double[] {0.50, 0.42, 0.75});
    private final Water water = new Water();

    public WinchShot() {
        var deck = new DeckPaint();
        var bank = new ShorePaint();
        standFront = Surface.standing(deck.stand(420), -0.62, DECK, 2.86, 1.15);
        standBack = Surface.standing(deck.stand(420), -0.38, DECK, 3.5, 1.15).lit(0.7, 0);
        coil = Surface.standing(deck.coil(420), -0.30, DECK + 1.30, 3.2, 0.75);
        wall = Surface.standing(deck.winchWall(230), -3.6, DECK - 0.02, 4.3, 5).lit(0.95, 0);
        planks = Surface.of(
                        deck.planks(), new double[] {-5, DECK, 6.2}, new double[] {10, 0, 0}, new double[] {0, 0, -8})
                .tiled(5, 2);
        rail = Surface.standing(deck.railing(200), 1.45, DECK, 5.4, 3);
        shore.add(Surface.standing(bank.village(16), -60, -3.2, 95, 220).lit(1, 0.08));
        shore.add(Surface.standing(bank.hills(3, 0x515d43, 0x7d8054, 6), -150, -7, 190, 420)
                .lit(1, 0.28));
    }

    @Override
    public double seconds() {
        return 8;
    }

    @Override
    public World world(double t) {
        // it hesitates once, as old winches do
        double turn = 0.75 * t - 0.55 * Noise.smooth(3.0, 4.6, t) * 0.9;
        double run = turn * 0.3;
        var surfaces = new ArrayList<Surface>();
        double side = 2.15;
        surfaces.add(standFront);
        surfaces.add(Surface.standing(wheel, -0.045 - side / 2, DECK + 1.37 - side / 2, 2.95, side)
                .turned(turn));
        surfaces.add(RopePaint.between(rope, 0.30, DECK + 1.06, 3.2, 6.5 + run, DECK + 0.72, 4.2, 0.055));
        surfaces.add(coil);
        surfaces.add(standBack);
        surfaces.add(wall);
        surfaces.add(rail);
        surfaces.add(planks);
        var moved = shore.stream().map(surface -> surface.moved(-1.1 * t, 0, 0)).toList();
        surfaces.addAll(moved);
        return new World(surfaces, moved, sky, water, List.of());
    }

    @Override
    public Camera camera(double t) {
        double sway = 0.012 * Math.sin(t * 0.9);
        return new Camera(
                0.25 + 0.03 * t,
                DECK + 1.45 + 0.01 * Math.sin(t * 1.1),
                0,
                0.05 + sway - 0.012 * t,
                -0.035 + 0.006 * Math.sin(t * 1.7),
                0.008 * Math.sin(t * 0.8),
                0.62 - 0.012 * t);
    }
}
