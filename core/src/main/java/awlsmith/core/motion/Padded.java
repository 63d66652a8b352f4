package awlsmith.core.motion;

import awlsmith.core.picture.Plane;

/** A packed plane with its edge samples repeated around it. */
record Padded(float[] data, int stride, int width, int height) {
    /** Samples on each side. */
    static final int PAD = 32;

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
