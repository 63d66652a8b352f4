package awlsmith.core.motion;

import awlsmith.core.picture.Plane;

/** A packed plane with its edge samples repeated around it. */
record Padded(float[] data, int stride, int width, int height) {
    /** Samples on each side. */
    static final int PAD = 32;

    private static final float POLE = (float) (Math.sqrt(3) - 2);
    private static final float GAIN = 6;
    /** What goes on for ever before the first sample, and behind the last. */
    private static final float FIRST = 1 / (1 - POLE);

    private static final float LAST = -POLE / (1 - POLE);

    /** @param width at least the plane's: beyond it its edge goes on; @param height likewise */
    static Padded of(Plane p, int width, int height) {
        int stride = width + 2 * PAD;
        float[] data = new float[stride * (height + 2 * PAD)];
        for (int y = -PAD; y < height + PAD; y++) {
            int row = p.row(Math.clamp(y, 0, p.height() - 1));
            int at = (y + PAD) * stride;
            int inner = Math.min(width, p.width());
            for (int x = 0; x < PAD; x++) {
                data[at + x] = p.data()[row];
            }
            System.arraycopy(p.data(), row, data, at + PAD, inner);
            for (int x = PAD + inner; x < stride; x++) {
                data[at + x] = p.data()[row + p.width() - 1];
            }
        }
        return new Padded(data, stride, width, height);
    }

    static Padded of(Plane p) {
        return of(p, p.width(), p.height());
    }

    /**
     * Weights of cubic splines that go through the samples, see {@link EightBetween#spline}.
     *
     * <p>Source: M. Unser, A. Aldroubi and M. Eden, "B-spline signal processing: part II", IEEE Trans. Signal Processing 41(2), 1993: there and back
     * with the pole sqrt(3) - 2, rows and then columns; beyond the edge the picture goes on as it ends.
     */
    Padded splined() {
        float[] all = data.clone();
        int rows = height + 2 * PAD;
        for (int y = 0; y < rows; y++) {
            along(all, y * stride, stride);
        }
        for (int x = 0; x < stride; x++) {
            all[x] *= FIRST;
        }
        for (int y = 1; y < rows; y++) {
            int at = y * stride;
            for (int x = 0; x < stride; x++) {
                all[at + x] += POLE * all[at - stride + x];
            }
        }
        int last = (rows - 1) * stride;
        for (int x = 0; x < stride; x++) {
            all[last + x] *= LAST;
        }
        for (int y = rows - 2; y >= 0; y--) {
            int at = y * stride;
            for (int x = 0; x < stride; x++) {
                all[at + x] = POLE * (all[at + stride + x] - all[at + x]);
            }
        }
        for (int i = 0; i < all.length; i++) {
            all[i] *= GAIN * GAIN;
        }
        return new Padded(all, stride, width, height);
    }

    private static void along(float[] all, int from, int count) {
        float now = all[from] * FIRST;
        all[from] = now;
        for (int i = from + 1; i < from + count; i++) {
            now = all[i] + POLE * now;
            all[i] = now;
        }
        now *= LAST;
        all[from + count - 1] = now;
        for (int i = from + count - 2; i >= from; i--) {
            now = POLE * (now - all[i]);
            all[i] = now;
        }
    }

    int at(int x, int y) {
        return (y + PAD) * stride + x + PAD;
    }

    /** Means of squares; whole ones alone. @param by side of a square, divides both sides */
    Padded shrunk(int by) {
        Plane small = Plane.of(Math.ceilDiv(width, by), Math.ceilDiv(height, by));
        for (int y = 0; y < small.height(); y++) {
            for (int x = 0; x < small.width(); x++) {
                float sum = 0;
                for (int j = 0; j < by; j++) {
                    int at = at(x * by, y * by + j);
                    float row = 0;
                    for (int i = 0; i < by; i++) {
                        row += data[at + i];
                    }
                    sum += row;
                }
                small.set(x, y, sum / (by * by));
            }
        }
        return of(small);
    }
}
