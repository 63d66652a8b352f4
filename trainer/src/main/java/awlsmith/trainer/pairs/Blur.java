package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;

/** A Gaussian blur with its own width across and down, as of a lens or a careless resize. Edges repeat. */
final class Blur {
    private Blur() {}

    /** @param across standard deviation in samples, 0 for none */
    static Plane gaussian(Plane in, double across, double down) {
        Plane middle = across < 0.05 ? in : along(in, bell(across), 1, 0);
        return down < 0.05 ? middle : along(middle, bell(down), 0, 1);
    }

    private static float[] bell(double sigma) {
        int reach = (int) Math.ceil(3 * sigma);
        float[] taps = new float[2 * reach + 1];
        double sum = 0;
        for (int i = 0; i < taps.length; i++) {
            double d = i - reach;
            taps[i] = (float) Math.exp(-d * d / (2 * sigma * sigma));
            sum += taps[i];
        }
        for (int i = 0; i < taps.length; i++) {
            taps[i] /= (float) sum;
        }
        return taps;
    }

    private static Plane along(Plane in, float[] taps, int dx, int dy) {
        Plane out = Plane.of(in.width(), in.height());
        int reach = taps.length / 2;
        for (int y = 0; y < in.height(); y++) {
            for (int x = 0; x < in.width(); x++) {
                float sum = 0;
                for (int k = -reach; k <= reach; k++) {
                    int u = Math.clamp(x + (long) k * dx, 0, in.width() - 1);
                    int v = Math.clamp(y + (long) k * dy, 0, in.height() - 1);
                    sum += taps[k + reach] * in.at(u, v);
                }
                out.set(x, y, sum);
            }
        }
        return out;
    }
}
