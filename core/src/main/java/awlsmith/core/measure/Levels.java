package awlsmith.core.measure;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;

/**
 * Where the light of a picture lies.
 *
 * @param mean luma, 0..1
 * @param low luma that one sample in a hundred lies below
 * @param high luma that one sample in a hundred lies above
 * @param black share of samples at black or below, @param white share at white or above
 * @param saturation mean distance of chroma from grey, 0..0.7
 * @param castCb mean of the blue difference over the greyest quarter of samples of middle light, @param castCr of the red
 */
public record Levels(
        double mean,
        double low,
        double high,
        double black,
        double white,
        double saturation,
        double castCb,
        double castCr) {
    private static final int BINS = 512;
    /** Light is counted from -0.25 to 1.25. */
    private static final double FLOOR = -0.25;

    private static final double SPAN = 1.5;
    /** Half a code value of 8 bits. */
    private static final double NEAR = 0.5 / 219;

    /** @param frame with luma and, unless it is grey, colour differences */
    public static Levels of(Frame frame) {
        Plane luma = frame.plane(0);
        long[] bins = new long[BINS];
        double sum = 0;
        long black = 0;
        long white = 0;
        float floor = (float) FLOOR;
        float scale = (float) (BINS / SPAN);
        for (int y = 0; y < luma.height(); y++) {
            int row = luma.row(y);
            float ofRow = 0;
            for (int x = 0; x < luma.width(); x++) {
                float v = luma.data()[row + x];
                ofRow += v;
                bins[Math.clamp((int) ((v - floor) * scale), 0, BINS - 1)]++;
                black += v <= NEAR ? 1 : 0;
                white += v >= 1 - NEAR ? 1 : 0;
            }
            sum += ofRow;
        }
        double count = (double) luma.width() * luma.height();
        double[] chroma = frame.planes().size() < 3 ? new double[3] : chroma(frame);
        return new Levels(
                sum / count,
                at(bins, 0.01 * count),
                at(bins, 0.99 * count),
                black / count,
                white / count,
                chroma[0],
                chroma[1],
                chroma[2]);
    }

    private static double at(long[] bins, double below) {
        long seen = 0;
        for (int i = 0; i < BINS; i++) {
            seen += bins[i];
            if (seen > below) {
                return FLOOR + (i + 0.5) * SPAN / BINS;
            }
        }
        return FLOOR + SPAN;
    }

    /** Mean saturation, and the mean colour of what ought to be grey: the least coloured quarter of the middle tones. */
    private static double[] chroma(Frame frame) {
        Plane cb = frame.plane(1);
        Plane cr = frame.plane(2);
        Plane luma = frame.plane(0);
        int sx = frame.format().chroma().stepX();
        int sy = frame.format().chroma().stepY();
        int count = 0;
        double all = 0;
        float[] distance = new float[cb.width() * cb.height()];
        int middle = 0;
        for (int y = 0; y < cb.height(); y++) {
            for (int x = 0; x < cb.width(); x++) {
                float length = (float) Math.sqrt(cb.at(x, y) * cb.at(x, y) + cr.at(x, y) * cr.at(x, y));
                all += length;
                count++;
                float light = luma.at(Math.min(x * sx, luma.width() - 1), Math.min(y * sy, luma.height() - 1));
                if (light > 0.2 && light < 0.8) {
                    distance[middle++] = length;
                }
            }
        }
        if (middle < 64) {
            return new double[] {all / count, 0, 0};
        }
        float limit = Ranked.at(distance, middle, middle / 4);
        double blue = 0;
        double red = 0;
        int grey = 0;
        for (int y = 0; y < cb.height(); y++) {
            for (int x = 0; x < cb.width(); x++) {
                float light = luma.at(Math.min(x * sx, luma.width() - 1), Math.min(y * sy, luma.height() - 1));
                if (light > 0.2
                        && light < 0.8
                        && cb.at(x, y) * cb.at(x, y) + cr.at(x, y) * cr.at(x, y) <= limit * limit) {
                    blue += cb.at(x, y);
                    red += cr.at(x, y);
                    grey++;
                }
            }
        }
        return new double[] {all / count, blue / Math.max(1, grey), red / Math.max(1, grey)};
    }
}
