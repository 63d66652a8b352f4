package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import java.util.SplittableRandom;

/** Noise of the kinds that footage has. */
enum Noise {
    /** From sample to sample, as a sensor has it. */
    WHITE,
    /** Blurred, as of film, of what was enlarged, of what a camera smoothed. */
    COARSE,
    /** Means of 2x2, as of a picture that was shifted by half a sample. */
    MEANS,
    /** Of a sensor with a colour filter, filled up between its samples. */
    MOSAIC;

    /** Shares of luma, ITU-R BT.709. */
    private static final double[] SHARES = {0.2126, 0.7152, 0.0722};

    /** A field of deviation 1. */
    Plane field(int width, int height, SplittableRandom random) {
        Plane field = switch (this) {
            case WHITE -> white(width, height, random);
            case COARSE -> {
                double width1 = 0.45 + 0.75 * random.nextDouble();
                yield Blur.gaussian(white(width, height, random), width1, width1);
            }
            case MEANS -> means(white(width, height, random));
            case MOSAIC -> mosaic(white(width, height, random));
        };
        return ofUnitDeviation(field);
    }

    /** White noise laid together by a bell, of deviation 1; @param clump the bell's deviation in samples */
    static Plane clumped(int width, int height, double clump, SplittableRandom random) {
        return ofUnitDeviation(Blur.gaussian(white(width, height, random), clump, clump));
    }

    private static Plane ofUnitDeviation(Plane field) {
        double squares = 0;
        for (float v : field.data()) {
            squares += (double) v * v;
        }
        float scale = (float) (1 / Math.sqrt(squares / field.data().length));
        for (int i = 0; i < field.data().length; i++) {
            field.data()[i] *= scale;
        }
        return field;
    }

    private static Plane white(int width, int height, SplittableRandom random) {
        Plane field = Plane.of(width, height);
        for (int i = 0; i < field.data().length; i++) {
            field.data()[i] = (float) random.nextGaussian();
        }
        return field;
    }

    private static Plane means(Plane in) {
        Plane out = Plane.of(in.width(), in.height());
        for (int y = 0; y < in.height(); y++) {
            for (int x = 0; x < in.width(); x++) {
                out.set(x, y, at(in, x, y) + at(in, x + 1, y) + at(in, x, y + 1) + at(in, x + 1, y + 1));
            }
        }
        return out;
    }

    /** Red at even rows and columns, blue at odd ones, green at the others; between them means of the nearest. */
    private static Plane mosaic(Plane in) {
        Plane out = Plane.of(in.width(), in.height());
        for (int y = 0; y < in.height(); y++) {
            for (int x = 0; x < in.width(); x++) {
                double own = at(in, x, y);
                double beside = (at(in, x - 1, y) + at(in, x + 1, y)) / 2;
                double above = (at(in, x, y - 1) + at(in, x, y + 1)) / 2;
                double corners =
                        (at(in, x - 1, y - 1) + at(in, x + 1, y - 1) + at(in, x - 1, y + 1) + at(in, x + 1, y + 1)) / 4;
                boolean green = (x + y) % 2 == 1;
                double first = green ? (y % 2 == 0 ? beside : above) : own;
                double last = green ? (y % 2 == 0 ? above : beside) : corners;
                boolean redOwn = y % 2 == 0;
                double red = green || redOwn ? first : last;
                double blue = green || redOwn ? last : first;
                out.set(x, y, (float)
                        (SHARES[0] * red + SHARES[1] * (green ? own : (beside + above) / 2) + SHARES[2] * blue));
            }
        }
        return out;
    }

    private static float at(Plane p, int x, int y) {
        return p.at(Math.clamp(x, 0, p.width() - 1), Math.clamp(y, 0, p.height() - 1));
    }
}
