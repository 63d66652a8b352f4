package awlsmith.demo.scene;

import java.util.ArrayList;
import java.util.List;

/** Hand-held along the deck towards the bow: steps, shaking hands, a shutter that rolls down the picture. */
public final class DeckWalkShot implements Shot {
    private static final double DECK = 1.3;

    private final List<Surface> fixed = new ArrayList<>();
    private final List<Surface> shore = new ArrayList<>();
    private final Texture wheel = new FerryPaint().wheel(5);
    private final Sky sky = new Sky(new double[] {0.60, 0.36, 0.70});
    private final Water water = new Water();
    private final Noise hand = new Noise(97);

    public DeckWalkShot() {
        var deck = new DeckPaint();
        var bank = new ShorePaint();
        Texture rail = deck.railing(190);
        for (int i = 0; i < 6; i++) {
            // along the right side, running away from the camera
            fixed.add(Surface.of(
                    rail, new double[] {1.35, DECK + 1.1, 3.0 * i - 1}, new double[] {0, 0, 3}, new double[] {0, -1.1, 0
                    }));
        }
        fixed.add(Surface.of(
                        deck.cabinWall(150),
                        new double[] {-1.25, DECK + 2.4, -2.5},
                        new double[] {0, 0, 12},
                        new double[] {0, -2.4, 0})
                .lit(0.86, 0));
        fixed.add(Surface.standing(deck.gate(180), -1.3, DECK, 16.4, 2.6));
        fixed.add(
                Surface.of(deck.planks(), new double[] {-4, DECK, 17}, new double[] {6, 0, 0}, new double[] {0, 0, -22})
                        .tiled(3, 5.5));
        shore.add(Surface.standing(bank.village(16), -118, -3.2, 74, 220).lit(1, 0.05));
        shore.add(Surface.standing(bank.hills(3, 0x515d43, 0x7d8054, 7), -190, -6, 150, 400)
                .lit(1, 0.24));
        shore.add(Surface.standing(bank.hills(9, 0x5d6a5c, 0x7b856b, 4), -560, -4, 520, 1240)
                .lit(1, 0.5));
    }

    @Override
    public double seconds() {
        return 6;
    }

    @Override
    public double rolling() {
        return 0.024;
    }

    @Override
    public World world(double t) {
        var surfaces = new ArrayList<>(fixed.subList(0, 7));
        surfaces.add(Surface.standing(wheel, -2.05, DECK + 0.1, 14.2, 2.4).turned(t * 0.8));
        surfaces.addAll(fixed.subList(7, fixed.size()));
        double nearer = -0.9 * t;
        var moved = shore.stream().map(surface -> surface.moved(0, 0, nearer)).toList();
        surfaces.addAll(moved);
        return new World(surfaces, moved, sky, water, List.of());
    }

    @Override
    public Camera camera(double t) {
        double step = 2 * Math.PI * 1.75 * t;
        double x = 0.05 + 0.035 * Math.sin(step / 2);
        double y = DECK + 1.58 + 0.028 * Math.abs(Math.sin(step / 2)) - 0.014;
        double pan = 0.085 * Math.sin(t * 0.7 + 0.4) + 0.05 + 0.011 * shake(t, 1) + 0.004 * Math.sin(step);
        double tilt = -0.085 + 0.03 * Math.sin(t * 0.9) + 0.011 * shake(t, 2) + 0.006 * Math.sin(step + 1);
        double roll = 0.012 * shake(t, 3) + 0.008 * Math.sin(step / 2 + 0.6);
        return new Camera(x, y, -1.5 + 0.95 * t, pan, tilt, roll, 0.62);
    }

    private double shake(double t, int axis) {
        return hand.octaves(t * 2.6, 10.0 * axis, 3, 0.55);
    }
}
