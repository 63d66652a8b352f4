package awlsmith.benchmarks;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.resample.FreePlaces;
import awlsmith.core.steady.Warp;
import java.util.SplittableRandom;

/** A hand's shake of known kind: sums of waves of half a turn to five turns a second, drawn by a seed (how large they are is invented). */
final class Shaking {
    private static final int WAVES = 7;
    private static final double SLOWEST = 0.5;
    private static final double QUICKEST = 5;

    /** What shakes, and how much: standard deviations. @param shift share of the width; @param turn degrees; @param zoom share; @param rolling share of a frame's time */
    record Kind(String name, double shift, double turn, double zoom, double tilt, double rolling) {}

    private final Kind kind;
    private final double rate;
    private final double[][][] waves = new double[6][WAVES][];

    Shaking(Kind kind, double rate, long seed) {
        this.kind = kind;
        this.rate = rate;
        var random = new SplittableRandom(seed);
        double[] sizes = {kind.shift, 0.7 * kind.shift, Math.toRadians(kind.turn), kind.zoom, kind.tilt, kind.tilt};
        for (int k = 0; k < waves.length; k++) {
            for (int w = 0; w < WAVES; w++) {
                double turns = SLOWEST * Math.pow(QUICKEST / SLOWEST, random.nextDouble());
                waves[k][w] = new double[] {
                    sizes[k] * Math.sqrt(2.0 / WAVES), 2 * Math.PI * turns, 2 * Math.PI * random.nextDouble()
                };
            }
        }
    }

    private double at(int what, double frame) {
        double sum = 0;
        for (double[] wave : waves[what]) {
            sum += wave[0] * Math.sin(wave[1] * frame / rate + wave[2]);
        }
        return sum;
    }

    /** Where what a still camera sees lies in the clean frame's middle as the shaken one has it; without rolling shutter and tilt. */
    Warp way(int frame) {
        return Warp.similar(at(0, frame), at(1, frame), at(2, frame), 1 + at(3, frame));
    }

    /** The middle of a frame as the shaken camera sees it; its planes take up the middle of the frame's. */
    void shake(Frame clean, Frame shaken) {
        Chroma chroma = clean.format().chroma();
        int width = shaken.format().width();
        int height = shaken.format().height();
        for (int p = 0; p < shaken.planes().size(); p++) {
            Plane from = clean.plane(p);
            Plane to = shaken.plane(p);
            int sx = chroma.stepX(p);
            int sy = chroma.stepY(p);
            for (int row = 0; row < to.height(); row++) {
                double y = (row * sy + (sy - 1) / 2.0 - (height - 1) / 2.0) / width;
                double time = clean.number() + kind.rolling * y * width / height;
                double zoom = 1 + at(3, time);
                double cos = zoom * Math.cos(at(2, time));
                double sin = zoom * Math.sin(at(2, time));
                double right = at(0, time);
                double down = at(1, time);
                double tiltX = at(4, time);
                double tiltY = at(5, time);
                for (int column = 0; column < to.width(); column++) {
                    double x = (column * sx + (sx - 1) / 2.0 - (width - 1) / 2.0) / width;
                    double w = 1 + tiltX * x + tiltY * y;
                    double u = ((cos * x - sin * y + right) / w * width
                                    + (clean.format().width() - 1) / 2.0
                                    - (sx - 1) / 2.0)
                            / sx;
                    double v = ((sin * x + cos * y + down) / w * width
                                    + (clean.format().height() - 1) / 2.0
                                    - (sy - 1) / 2.0)
                            / sy;
                    to.set(column, row, FreePlaces.at(from, 0, 0, u, v));
                }
            }
        }
    }
}
