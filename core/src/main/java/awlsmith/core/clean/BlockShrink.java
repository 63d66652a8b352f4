package awlsmith.core.clean;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;

/**
 * Takes noise out of one plane by the cosines of blocks that overlap: first what is no more than noise is cut, then, with that as a guess of
 * the picture, each coefficient is weighed by how much of it is picture. Blocks begin at every fourth sample of the picture's own grid, so that
 * every part comes out the same; beyond the picture's edges it is mirrored.
 *
 * <p>Source: G. Yu and G. Sapiro, "DCT image denoising: a simple and effective image denoising algorithm", Image Processing On Line 1,
 * 2011; the second pass as in K. Dabov et al., "Image denoising by sparse 3-D transform-domain collaborative filtering", IEEE
 * Transactions on Image Processing 16(8), 2007, section III.B, without its groups.
 */
final class BlockShrink {
    /** Samples around what is wanted that one pass reads. */
    static final int REACH = Blocks.SIDE;

    private static final int STEP = Blocks.COLUMNS;
    /** In deviations; Dabov 2007 takes 2.7. */
    private static final float CUT = 2.7f;

    private static final int LANES = Blocks.LANES;
    private static final int SIDE = Blocks.SIDE;

    private final int width;
    private final int height;
    private final float[] shape;
    private final float[] least = new float[Blocks.SIZE];

    /**
     * @param width of the whole plane; @param height of it
     * @param shape square of the noise of each frequency, for noise of deviation 1
     */
    BlockShrink(int width, int height, float[] shape) {
        this.width = width;
        this.height = height;
        this.shape = shape;
        for (int i = 0; i < least.length; i++) {
            least[i] = CUT * (float) Math.sqrt(shape[i]);
        }
    }

    /** A plane over a part of the picture. */
    record Held(Plane plane, Region part) {}

    /**
     * One pass.
     *
     * @param in at least what is wanted and {@link #REACH} around it
     * @param deviation of the noise of each sample, over the same part as in
     * @param pilot a guess of the picture over what in holds; null for the first pass
     * @param wanted part of the plane
     * @param out gets it
     */
    void pass(Held in, Held deviation, Held pilot, Region wanted, Plane out, Work work) {
        work.bands(wanted.height(), 16, (from, to) -> {
            work.cancel().check();
            new Band(in, deviation, pilot, wanted, wanted.y() + from, wanted.y() + to).run(out);
        });
    }

    private static int mirrored(int at, int size) {
        int i = at < 0 ? -1 - at : at;
        i = i >= size ? 2 * size - 1 - i : i;
        return Math.clamp(i, 0, size - 1);
    }

    /** Some rows of what is wanted, made from all blocks that touch them. */
    private final class Band {
        private final Held in;
        private final Held deviation;
        private final Held pilot;
        private final Region wanted;
        private final int top;
        private final int bottom;
        /** Number of the first block across, a multiple of the lanes on the picture's grid, and how many there are. */
        private final int first;

        private final int count;
        private final float[][] sums;
        /** Of the cells of {@link #STEP} by STEP samples: all samples of one lie in the same blocks. */
        private final float[][] weights;

        private final float[] sigmas;
        private final float[][] rows = new float[SIDE * STEP][];
        private final float[][] guess = new float[SIDE * STEP][];
        private final float[] x = new float[Blocks.SIZE * LANES];
        private final float[] p = new float[Blocks.SIZE * LANES];
        private final float[] sigma = new float[LANES];
        private final float[] weight = new float[LANES];

        Band(Held in, Held deviation, Held pilot, Region wanted, int top, int bottom) {
            this.in = in;
            this.deviation = deviation;
            this.pilot = pilot;
            this.wanted = wanted;
            this.top = top;
            this.bottom = bottom;
            this.first = Math.floorDiv(Math.floorDiv(wanted.x() - SIDE + 1, STEP), LANES) * LANES;
            int end = Math.floorDiv(wanted.right() - 1, STEP) + 1;
            this.count = Math.ceilDiv(end - first, LANES) * LANES;
            this.sums = new float[(bottom - top) * STEP][count + 2];
            this.weights = new float[cell(bottom - 1) + 1][count + 2];
            this.sigmas = new float[count];
            for (int i = 0; i < rows.length; i++) {
                rows[i] = new float[count + 2];
                guess[i] = pilot == null ? null : new float[count + 2];
            }
        }

        /** The cells' row of a row of samples. */
        private int cell(int y) {
            return Math.floorDiv(y, STEP) - Math.floorDiv(top, STEP);
        }

        void run(Plane out) {
            int firstRow = Math.floorDiv(top - SIDE + 1, STEP) * STEP;
            for (int y = firstRow; y < bottom; y += STEP) {
                split(in, rows, y, y > firstRow);
                if (pilot != null) {
                    split(pilot, guess, y, y > firstRow);
                }
                measure(y);
                for (int group = 0; group < count; group += LANES) {
                    blocks(y, group);
                }
            }
            for (int y = top; y < bottom; y++) {
                float[] all = weights[cell(y)];
                for (int phase = 0; phase < STEP; phase++) {
                    float[] sum = sums[(y - top) * STEP + phase];
                    int begin = wanted.x() + Math.floorMod(phase - wanted.x(), STEP);
                    int at = Math.floorDiv(begin, STEP) - first;
                    int to = out.row(y - wanted.y()) - wanted.x();
                    for (int i = begin; i < wanted.right(); i += STEP, at++) {
                        out.data()[to + i] = sum[at] / all[at];
                    }
                }
            }
        }

        /** Eight rows as four columns of samples each: every fourth sample stands beside the next. @param isNext whether four rows below the last */
        private void split(Held from, float[][] into, int y, boolean isNext) {
            Region part = from.part();
            // the lower half of the blocks above is the upper half of these
            int half = SIDE / 2 * STEP;
            for (int i = 0; i < half && isNext; i++) {
                float[] upper = into[i];
                into[i] = into[half + i];
                into[half + i] = upper;
            }
            for (int r = isNext ? SIDE / 2 : 0; r < SIDE; r++) {
                int row = Math.clamp(mirrored(y + r, height) - part.y(), 0, part.height() - 1);
                int at = from.plane().row(row) - part.x();
                float[] data = from.plane().data();
                for (int phase = 0; phase < STEP; phase++) {
                    float[] to = into[r * STEP + phase];
                    int begin = Math.clamp(Math.ceilDiv(part.x() - phase, STEP) - first, 0, count + 2);
                    int end = Math.clamp(Math.floorDiv(part.right() - 1 - phase, STEP) + 1 - first, begin, count + 2);
                    for (int i = 0; i < begin; i++) {
                        to[i] = data[at + outside((first + i) * STEP + phase, part)];
                    }
                    int column = at + first * STEP + phase;
                    for (int i = begin; i < end; i++) {
                        to[i] = data[column + i * STEP];
                    }
                    for (int i = end; i < count + 2; i++) {
                        to[i] = data[at + outside((first + i) * STEP + phase, part)];
                    }
                }
            }
        }

        /** Beyond the picture its mirror image; beyond what is held, of what is not wanted anyway, any sample. */
        private int outside(int column, Region part) {
            return Math.clamp(mirrored(column, width), part.x(), part.right() - 1);
        }

        private void blocks(int y, int group) {
            Blocks.CHOSEN.load(rows, group, x);
            System.arraycopy(sigmas, group, sigma, 0, LANES);
            Blocks.CHOSEN.forward(x);
            if (pilot == null) {
                Blocks.CHOSEN.cut(x, least, sigma, weight);
            } else {
                Blocks.CHOSEN.load(guess, group, p);
                Blocks.CHOSEN.forward(p);
                Blocks.CHOSEN.weigh(x, p, shape, sigma, weight);
            }
            Blocks.CHOSEN.inverse(x);
            for (int r = Math.max(0, top - y); r < Math.min(SIDE, bottom - y); r++) {
                Blocks.CHOSEN.add(x, r, weight, sums, (y + r - top) * STEP, group);
            }
            for (int row = Math.max(0, cell(y)); row <= Math.min(cell(y) + 1, weights.length - 1); row++) {
                float[] all = weights[row];
                for (int b = 0; b < LANES; b++) {
                    all[group + b] += weight[b];
                }
                for (int b = 0; b < LANES; b++) {
                    all[group + 1 + b] += weight[b];
                }
            }
        }

        /** The noise of a row of blocks: of each that of four of its samples. */
        private void measure(int y) {
            Region part = deviation.part();
            float[] data = deviation.plane().data();
            int upper = row(y + 1) - part.x();
            int lower = row(y + SIDE - 2) - part.x();
            for (int b = 0; b < count; b++) {
                int left = column((first + b) * STEP + 1);
                int right = column((first + b) * STEP + SIDE - 2);
                float sum = square(data[upper + left]);
                sum += square(data[upper + right]);
                sum += square(data[lower + left]);
                sum += square(data[lower + right]);
                sigmas[b] = (float) Math.sqrt(sum / 4);
            }
        }

        private static float square(float one) {
            return one * one;
        }

        private int row(int y) {
            Region part = deviation.part();
            return deviation.plane().row(Math.clamp(mirrored(y, height) - part.y(), 0, part.height() - 1));
        }

        private int column(int x) {
            Region part = deviation.part();
            return x >= part.x() && x < part.right() && x < width ? x : outside(x, part);
        }
    }
}
