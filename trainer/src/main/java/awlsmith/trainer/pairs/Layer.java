package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import java.util.SplittableRandom;

/** A piece of a picture and how it moves; time is counted from the picture that matters. */
final class Layer {
    /** How its samples lie on the picture's. */
    enum Sampling {
        /** Some larger, some smaller, some turned. */
        FREE,
        /** A little smaller, so that what is between samples is as sharp as what lies on them. */
        SMALLER,
        /** Sample on sample, moving by whole ones: nothing is lost. */
        WHOLE
    }

    private final Plane picture;
    private final int wide;
    private final int high;
    private final int now;
    private final double scale;
    private final double centreX;
    private final double centreY;
    private final double angle;
    private final double turning;
    private final double growing;
    private final double[] goneX;
    private final double[] goneY;
    private final boolean upright;
    private final double[][] blobs;
    private final double gain;
    private final double lift;

    /** @param back fills the picture; else a few blobs and boxes of it are seen */
    Layer(
            Plane picture,
            int wide,
            int high,
            int times,
            int now,
            Sampling sampling,
            SplittableRandom random,
            boolean back) {
        this.picture = picture;
        this.wide = wide;
        this.high = high;
        this.now = now;
        boolean whole = sampling == Sampling.WHOLE;
        double size = random.nextDouble();
        scale = switch (sampling) {
            case FREE -> Math.exp(0.5 * (size - 0.6));
            case SMALLER -> 1.1 + 0.25 * size;
            case WHOLE -> 1;
        };
        double middleX = picture.width() * (0.15 + 0.7 * random.nextDouble());
        double middleY = picture.height() * (0.15 + 0.7 * random.nextDouble());
        centreX = whole ? Math.rint(middleX) : middleX;
        centreY = whole ? Math.rint(middleY) : middleY;
        goneX = new double[times];
        goneY = new double[times];
        upright = random.nextBoolean();
        angle = !whole && random.nextInt(4) == 0 ? 0.4 * random.nextGaussian() : 0;
        boolean still = random.nextDouble() < (back ? 0.42 : 0.1);
        turning = !still && !whole && random.nextInt(4) == 0 ? 0.01 * random.nextGaussian() : 0;
        growing = !still && !whole && random.nextInt(4) == 0 ? 0.008 * random.nextGaussian() : 0;
        double speed = still ? 0 : 0.05 * Math.pow(280, random.nextDouble());
        double way = 2 * Math.PI * random.nextDouble();
        // half of what moves goes level or plumb, as pans, traffic and titles do
        if (random.nextBoolean()) {
            way = Math.rint(way / (Math.PI / 2)) * (Math.PI / 2);
        }
        double shake = !still && random.nextInt(3) == 0 ? 2 * random.nextDouble() : 0;
        double swing = random.nextGaussian() * 0.1 * speed;
        for (int n = 0; n < times; n++) {
            int t = n - now;
            goneX[n] = Math.cos(way) * (speed * t + swing * t * t) + shake * random.nextGaussian();
            goneY[n] = Math.sin(way) * (speed * t + swing * t * t) + shake * random.nextGaussian();
            if (whole) {
                goneX[n] = Math.rint(goneX[n]);
                goneY[n] = Math.rint(goneY[n]);
            }
        }
        blobs = new double[back ? 0 : 1 + random.nextInt(3)][];
        for (int i = 0; i < blobs.length; i++) {
            blobs[i] = new double[] {
                wide * (random.nextDouble() - 0.5),
                high * (random.nextDouble() - 0.5),
                3 + 0.4 * wide * Math.pow(random.nextDouble(), 2),
                3 + 0.3 * high * Math.pow(random.nextDouble(), 2),
                random.nextBoolean() ? 2 : 8
            };
        }
        gain = back ? 1 : 0.5 + random.nextDouble();
        lift = back ? 0 : 0.4 * (random.nextDouble() - 0.5);
    }

    /**
     * What is seen at a time.
     *
     * @param front goes before the other, or null
     * @param light factor on both
     */
    static Plane picture(Layer back, Layer front, int wide, int high, int time, double light) {
        Plane out = Plane.of(wide, high);
        var at = new double[2];
        for (int y = 0; y < high; y++) {
            for (int x = 0; x < wide; x++) {
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

    /** Where in the layer a sample lies, from its middle. */
    void place(int x, int y, int time, double[] at) {
        double turn = angle + turning * time;
        double size = scale * (1 + growing * time);
        double u = x - wide / 2.0 + goneX[time + now];
        double v = y - high / 2.0 + goneY[time + now];
        at[0] = size * (Math.cos(turn) * u - Math.sin(turn) * v);
        at[1] = size * (Math.sin(turn) * u + Math.cos(turn) * v);
    }

    /** 0 beside the blobs, 1 within, a sample of both between. */
    double cover(double x, double y) {
        double most = 0;
        for (double[] b : blobs) {
            double u = Math.abs(x - b[0]) / b[2];
            double v = Math.abs(y - b[1]) / b[3];
            if (u >= 1.2 || v >= 1.2) {
                continue;
            }
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
