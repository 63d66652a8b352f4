package awlsmith.core.upscale;

import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.resample.TapTable;
import java.util.List;
import java.util.Objects;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;

/**
 * The fast kind of model: each input sample's surroundings choose one set of filters, which give the correction for all
 * phases of that sample. After Romano, Isidoro and Milanfar 2016; their filters work on the enlarged picture, these on
 * the small one, which looks four times as far for the same work.
 *
 * <p>Rows of eight floats, seven used, so that a row is one vector.
 */
public final class HashedFilters implements NetRunner {
    /** Rows and columns of a filter. */
    public static final int SIDE = 7;

    /** Floats kept for a row of a filter; the last is 0. */
    public static final int ROW = 8;

    public static final int FILTER = SIDE * ROW;

    /** Samples around a sample that its answer depends on. */
    public static final int REACH = Math.max(SIDE / 2, GradientHash.REACH);

    private static final FilterRows ROWS = FilterRows.of(Lanes.chosen());
    private static final int MARGIN = REACH + 1;

    private final int factor;
    private final float[] filters;
    /** One for each call that runs at the same time; threads themselves come and go. */
    private final Queue<Scratch> free = new ConcurrentLinkedQueue<>();

    /**
     * @param filters one after the other: by bucket, then by phase (dy * factor + dx), then by row; see {@link #FILTER}
     */
    public HashedFilters(int factor, float[] filters) {
        int expected = GradientHash.BUCKETS * factor * factor * FILTER;
        if (filters.length != expected) {
            throw new IllegalArgumentException(
                    "hashed filters for factor " + factor + " are " + expected + " numbers, not " + filters.length);
        }
        this.factor = factor;
        this.filters = filters.clone();
    }

    @Override
    public void run(List<Plane> frames, Plane correction) {
        Plane in = frames.getFirst();
        Scratch s = Objects.requireNonNullElseGet(free.poll(), Scratch::new);
        s.fit(in.width(), in.height());
        s.widen(in);
        s.gradients();
        for (int y = 0; y < in.height(); y++) {
            s.tensorRow(y);
            filterRow(s, y, correction);
        }
        free.add(s);
    }

    private void filterRow(Scratch s, int y, Plane correction) {
        float[] answers = s.answers(factor * factor);
        float[] out = correction.data();
        for (int x = 0; x < s.width; x++) {
            int bucket = GradientHash.bucket(s.xx[x], s.xy[x], s.yy[x], s.standsOut(x, y));
            int at = (y + MARGIN - SIDE / 2) * s.stride + x + MARGIN - SIDE / 2;
            ROWS.answer(s.wide, at, s.stride, filters, bucket * answers.length * FILTER, answers);
            for (int phase = 0; phase < answers.length; phase++) {
                out[correction.row(y * factor + phase / factor) + x * factor + phase % factor] = answers[phase];
            }
        }
    }

    /** The bucket of every sample of a plane, for training and tests; edges mirrored. */
    public static int[] buckets(Plane in) {
        var s = new Scratch();
        s.fit(in.width(), in.height());
        s.widen(in);
        s.gradients();
        int[] all = new int[in.width() * in.height()];
        for (int y = 0; y < in.height(); y++) {
            s.tensorRow(y);
            for (int x = 0; x < in.width(); x++) {
                all[y * in.width() + x] = GradientHash.bucket(s.xx[x], s.xy[x], s.yy[x], s.standsOut(x, y));
            }
        }
        return all;
    }

    /** One call's working memory: the plane with a mirrored margin, and the tensor's rows. */
    private static final class Scratch {
        private int width;
        private int height;
        private int stride;
        private float[] wide = {};
        private float[] gx = {};
        private float[] gy = {};
        private float[] xx = {};
        private float[] xy = {};
        private float[] yy = {};
        private float[] downXx = {};
        private float[] downXy = {};
        private float[] downYy = {};
        private float[] answers = {};

        float[] answers(int phases) {
            if (answers.length != phases) {
                answers = new float[phases];
            }
            return answers;
        }

        void fit(int newWidth, int newHeight) {
            width = newWidth;
            height = newHeight;
            stride = width + 2 * MARGIN + ROW;
            int samples = stride * (height + 2 * MARGIN);
            if (wide.length < samples) {
                wide = new float[samples];
                gx = new float[samples];
                gy = new float[samples];
            }
            if (downXx.length < stride) {
                xx = new float[stride];
                xy = new float[stride];
                yy = new float[stride];
                downXx = new float[stride];
                downXy = new float[stride];
                downYy = new float[stride];
            }
        }

        void widen(Plane in) {
            for (int y = 0; y < height + 2 * MARGIN; y++) {
                int from = in.row(TapTable.mirror(y - MARGIN, height));
                int to = y * stride;
                System.arraycopy(in.data(), from, wide, to + MARGIN, width);
                for (int x = 0; x < MARGIN; x++) {
                    wide[to + x] = in.data()[from + TapTable.mirror(x - MARGIN, width)];
                }
                for (int x = MARGIN + width; x < stride; x++) {
                    wide[to + x] = in.data()[from + TapTable.mirror(x - MARGIN, width)];
                }
            }
        }

        /** Central differences everywhere but on the outermost ring. */
        void gradients() {
            for (int y = 1; y < height + 2 * MARGIN - 1; y++) {
                int row = y * stride;
                for (int i = row + 1; i < row + stride - 1; i++) {
                    gx[i] = 0.5f * (wide[i + 1] - wide[i - 1]);
                    gy[i] = 0.5f * (wide[i + stride] - wide[i - stride]);
                }
            }
        }

        /** The structure tensor of one row: products of the gradients, weighted over 5x5. */
        void tensorRow(int y) {
            float w0 = GradientHash.WINDOW[0];
            float w1 = GradientHash.WINDOW[1];
            float w2 = GradientHash.WINDOW[2];
            int middle = (y + MARGIN) * stride;
            for (int x = 0; x < stride; x++) {
                int a = middle - 2 * stride + x;
                int b = a + stride;
                int c = b + stride;
                int d = c + stride;
                int e = d + stride;
                downXx[x] = w0 * (gx[a] * gx[a] + gx[e] * gx[e])
                        + w1 * (gx[b] * gx[b] + gx[d] * gx[d])
                        + w2 * gx[c] * gx[c];
                downXy[x] = w0 * (gx[a] * gy[a] + gx[e] * gy[e])
                        + w1 * (gx[b] * gy[b] + gx[d] * gy[d])
                        + w2 * gx[c] * gy[c];
                downYy[x] = w0 * (gy[a] * gy[a] + gy[e] * gy[e])
                        + w1 * (gy[b] * gy[b] + gy[d] * gy[d])
                        + w2 * gy[c] * gy[c];
            }
            across(downXx, xx);
            across(downXy, xy);
            across(downYy, yy);
        }

        private void across(float[] from, float[] to) {
            float w0 = GradientHash.WINDOW[0];
            float w1 = GradientHash.WINDOW[1];
            float w2 = GradientHash.WINDOW[2];
            for (int x = 0; x < width; x++) {
                int m = x + MARGIN;
                to[x] = w0 * (from[m - 2] + from[m + 2]) + w1 * (from[m - 1] + from[m + 1]) + w2 * from[m];
            }
        }

        float standsOut(int x, int y) {
            int m = (y + MARGIN) * stride + x + MARGIN;
            float around = wide[m - stride - 1]
                    + wide[m - stride]
                    + wide[m - stride + 1]
                    + wide[m - 1]
                    + wide[m]
                    + wide[m + 1]
                    + wide[m + stride - 1]
                    + wide[m + stride]
                    + wide[m + stride + 1];
            return wide[m] - around * (1 / 9f);
        }
    }
}
