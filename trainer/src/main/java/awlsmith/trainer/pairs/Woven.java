package awlsmith.trainer.pairs;

import awlsmith.benchmarks.footage.Pictures;
import awlsmith.core.picture.Plane;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/**
 * Fields of a picture that moves: a background, and often something before it that goes its own way, each at a speed, turning
 * and growing, some as a hand shakes. Six fields, a sixtieth or fiftieth of a second apart, become three woven frames.
 */
public record Woven() implements PairMaker {
    private static final int WIDE = 104;
    private static final int HIGH = 208;
    private static final int FIELDS = 6;
    private static final int NOW = 2;
    /** One scene for so many samples of the clean picture. */
    private static final double AREA = 22_000;

    @Override
    public String words() {
        return "scenes of six fields: three in ten still, the rest at 0.05 to 14 samples a field, some turning, growing or shaken;"
                + " before two in three a piece of the same picture goes its own way; half with grain of standard deviation up to"
                + " 5 of 255, one in seven changing its light, one in twelve cut within; rounded to eight bits";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        var pairs = new ArrayList<Pair>();
        long scenes = Math.max(1, Math.round((double) sharp.width() * sharp.height() / AREA));
        for (int i = 0; i < scenes; i++) {
            pairs.add(scene(sharp, random));
        }
        return pairs;
    }

    private static Pair scene(Plane sharp, SplittableRandom random) {
        var back = new Layer(sharp, random, true);
        var cutTo = new Layer(sharp, random, true);
        int cut = random.nextInt(12) == 0 ? 1 + random.nextInt(FIELDS - 1) : FIELDS;
        Layer front = random.nextInt(3) < 2 ? new Layer(sharp, random, false) : null;
        double grain = random.nextBoolean() ? 5.0 / 255 * Math.pow(random.nextDouble(), 2) : 0;
        double fade = random.nextInt(7) == 0 ? 0.06 * (random.nextDouble() - 0.5) : 0;
        int parity = random.nextInt(2);
        List<Plane> whole = new ArrayList<>();
        for (int n = 0; n < FIELDS; n++) {
            whole.add(picture(n < cut == NOW < cut ? back : cutTo, front, n - NOW, 1 + fade * (n - NOW)));
        }
        var frames = new ArrayList<Plane>();
        for (int n = 0; n < FIELDS; n += 2) {
            Plane frame = Plane.of(WIDE, HIGH);
            for (int y = 0; y < HIGH; y++) {
                Plane from = whole.get(y % 2 == parity ? n : n + 1);
                System.arraycopy(from.data(), from.row(y), frame.data(), frame.row(y), WIDE);
            }
            for (int i = 0; grain > 0 && i < frame.data().length; i++) {
                frame.data()[i] += (float) (grain * random.nextGaussian());
            }
            frames.add(Pictures.eightBits(frame));
        }
        return new Weaving(frames.get(0), frames.get(1), frames.get(2), parity, whole.get(NOW));
    }

    private static Plane picture(Layer back, Layer front, int time, double light) {
        Plane out = Plane.of(WIDE, HIGH);
        var at = new double[2];
        for (int y = 0; y < HIGH; y++) {
            for (int x = 0; x < WIDE; x++) {
                back.place(x, y, time, at);
                double value = back.sample(at[0], at[1]);
                if (front != null) {
                    front.place(x, y, time, at);
                    double cover = front.cover(at[0], at[1]);
                    if (cover > 0) {
                        value += cover * (front.sample(at[0], at[1]) - value);
                    }
                }
                out.set(x, y, (float) Math.clamp(value * light, 0, 1));
            }
        }
        return out;
    }

    /** A piece of a picture and how it moves; time is in fields from the one that is filled up. */
    private static final class Layer {
        private final Plane picture;
        private final double scale;
        private final double centreX;
        private final double centreY;
        private final double angle;
        private final double turning;
        private final double growing;
        private final double[] goneX = new double[FIELDS];
        private final double[] goneY = new double[FIELDS];
        private final boolean upright;
        private final double[][] blobs;
        private final double gain;
        private final double lift;

        /** @param back fills the picture; else a few blobs and boxes of it are seen */
        Layer(Plane picture, SplittableRandom random, boolean back) {
            this.picture = picture;
            scale = Math.exp(0.5 * (random.nextDouble() - 0.6));
            centreX = picture.width() * (0.15 + 0.7 * random.nextDouble());
            centreY = picture.height() * (0.15 + 0.7 * random.nextDouble());
            upright = random.nextBoolean();
            angle = random.nextInt(4) == 0 ? 0.4 * random.nextGaussian() : 0;
            boolean still = random.nextDouble() < (back ? 0.42 : 0.1);
            turning = !still && random.nextInt(4) == 0 ? 0.01 * random.nextGaussian() : 0;
            growing = !still && random.nextInt(4) == 0 ? 0.008 * random.nextGaussian() : 0;
            double speed = still ? 0 : 0.05 * Math.pow(280, random.nextDouble());
            double way = 2 * Math.PI * random.nextDouble();
            // half of what moves goes level or plumb, as pans, traffic and titles do
            if (random.nextBoolean()) {
                way = Math.rint(way / (Math.PI / 2)) * (Math.PI / 2);
            }
            double shake = !still && random.nextInt(3) == 0 ? 2 * random.nextDouble() : 0;
            double swing = random.nextGaussian() * 0.1 * speed;
            for (int n = 0; n < FIELDS; n++) {
                int t = n - NOW;
                goneX[n] = Math.cos(way) * (speed * t + swing * t * t) + shake * random.nextGaussian();
                goneY[n] = Math.sin(way) * (speed * t + swing * t * t) + shake * random.nextGaussian();
            }
            blobs = new double[back ? 0 : 1 + random.nextInt(3)][];
            for (int i = 0; i < blobs.length; i++) {
                blobs[i] = new double[] {
                    WIDE * (random.nextDouble() - 0.5),
                    HIGH * (random.nextDouble() - 0.5),
                    3 + 40 * Math.pow(random.nextDouble(), 2),
                    3 + 60 * Math.pow(random.nextDouble(), 2),
                    random.nextBoolean() ? 2 : 8
                };
            }
            gain = back ? 1 : 0.5 + random.nextDouble();
            lift = back ? 0 : 0.4 * (random.nextDouble() - 0.5);
        }

        /** Where in the layer a sample lies, from its middle. */
        void place(int x, int y, int time, double[] at) {
            double turn = angle + turning * time;
            double size = scale * (1 + growing * time);
            double u = x - WIDE / 2.0 + goneX[time + NOW];
            double v = y - HIGH / 2.0 + goneY[time + NOW];
            at[0] = size * (Math.cos(turn) * u - Math.sin(turn) * v);
            at[1] = size * (Math.sin(turn) * u + Math.cos(turn) * v);
        }

        /** 0 beside the blobs, 1 within, a sample of both between. */
        double cover(double x, double y) {
            double most = 0;
            for (double[] b : blobs) {
                double u = Math.abs(x - b[0]) / b[2];
                double v = Math.abs(y - b[1]) / b[3];
                // a power of 2 makes an ellipse, 8 nearly a box
                double far = Math.pow(Math.pow(u, b[4]) + Math.pow(v, b[4]), 1 / b[4]);
                most = Math.max(most, Math.clamp((1 - far) * Math.min(b[2], b[3]) + 0.5, 0, 1));
            }
            return most;
        }

        /** Between the picture's samples by a cubic of Catmull and Rom; beyond its edges it is mirrored. */
        double sample(double x, double y) {
            double px = centreX + (upright ? x : y);
            double py = centreY + (upright ? y : x);
            int left = (int) Math.floor(px);
            int top = (int) Math.floor(py);
            double sum = 0;
            for (int j = -1; j < 3; j++) {
                double row = 0;
                int v = mirrored(top + j, picture.height());
                for (int i = -1; i < 3; i++) {
                    row += weight(px - left - i) * picture.at(mirrored(left + i, picture.width()), v);
                }
                sum += weight(py - top - j) * row;
            }
            return sum * gain + lift;
        }

        private static double weight(double distance) {
            double d = Math.abs(distance);
            return d < 1 ? 1 + d * d * (1.5 * d - 2.5) : d < 2 ? 2 + d * (-4 + d * (2.5 - 0.5 * d)) : 0;
        }

        private static int mirrored(int at, int count) {
            int round = Math.floorMod(at, 2 * count);
            return round < count ? round : 2 * count - 1 - round;
        }
    }
}
