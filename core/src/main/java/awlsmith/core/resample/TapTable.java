package awlsmith.core.resample;

import awlsmith.core.picture.Siting;

/**
 * The weights that make each target sample of one axis out of source samples. Built once per axis; every row of weights
 * sums to 1 to float accuracy, so flat areas keep their value.
 *
 * <p>Target sample i lies at {@code (i + 0.5) * step - 0.5 + shift} in source samples; sample centres lie on whole
 * numbers. When reducing, the curve is widened by the step so that nothing folds over. Beyond the edges the source is
 * mirrored with the edge sample repeated: {@code 2 1 0 [0 1 2 3] 3 2 1}.
 */
public final class TapTable {
    /** Weights below it are rounding. */
    private static final double NOTHING = 1e-12;

    private final int sourceSize;
    private final int targetSize;
    private final int taps;
    private final int[] first;
    private final float[] weights;

    private TapTable(int sourceSize, int targetSize, int taps, int[] first, float[] weights) {
        this.sourceSize = sourceSize;
        this.targetSize = targetSize;
        this.taps = taps;
        this.first = first;
        this.weights = weights;
    }

    /**
     * @param sourceSize samples of the whole source axis
     * @param targetSize samples of the whole target axis
     * @param step source samples per target sample
     * @param shift added to each target position, in source samples
     */
    public static TapTable of(Kernel kernel, int sourceSize, int targetSize, double step, double shift) {
        double stretch = Math.max(1, step);
        double reach = kernel.reach() * stretch;
        // the area curve is integrated over each source sample, which reaches half a sample further
        int taps = kernel == Kernel.AREA && step > 1 ? (int) Math.ceil(step) + 1 : (int) Math.ceil(2 * reach);
        taps = Math.max(1, taps);
        int[] first = new int[targetSize];
        float[] weights = new float[targetSize * taps];
        double[] row = new double[taps];
        for (int i = 0; i < targetSize; i++) {
            double centre = (i + 0.5) * step - 0.5 + shift;
            int from = firstTap(kernel, centre, step, reach);
            double sum = 0;
            for (int k = 0; k < taps; k++) {
                double weight = weightAt(kernel, from + k, centre, step);
                // a sine that should be 0 is not quite: such a tap would touch samples the curve does not reach
                row[k] = Math.abs(weight) < NOTHING ? 0 : weight;
                sum += row[k];
            }
            first[i] = from;
            for (int k = 0; k < taps; k++) {
                weights[i * taps + k] = (float) (row[k] / sum);
            }
        }
        return new TapTable(sourceSize, targetSize, taps, first, weights);
    }

    /**
     * The axis of a luma plane, or of a chroma plane with its siting kept: chroma samples of source and target lie at
     * the same offset from their own luma grids, which are not the same point when the grids differ.
     *
     * @param lumaSource luma samples of the source axis
     * @param lumaTarget luma samples of the target axis
     * @param chromaStep 1 for luma or full chroma, 2 for halved chroma
     * @param offset of the chroma samples in luma samples, see {@link Siting}
     */
    public static TapTable forAxis(Kernel kernel, int lumaSource, int lumaTarget, int chromaStep, double offset) {
        double lumaStep = (double) lumaSource / lumaTarget;
        int source = (lumaSource + chromaStep - 1) / chromaStep;
        int target = (lumaTarget + chromaStep - 1) / chromaStep;
        // target chroma i lies at luma position chromaStep*i + offset of the target; carry that to the source luma grid
        // by the centre rule, then back to source chroma samples
        double atZero = ((offset + 0.5) * lumaStep - 0.5 - offset) / chromaStep;
        double shift = atZero - (0.5 * lumaStep - 0.5);
        return of(kernel, source, target, lumaStep, shift);
    }

    /** Samples of the axis that is read. */
    public int sourceSize() {
        return sourceSize;
    }

    /** Samples of the axis that is made. */
    public int targetSize() {
        return targetSize;
    }

    /** Weights per target sample. */
    public int taps() {
        return taps;
    }

    /** Source sample that the first weight of target sample i belongs to; may lie outside the source. */
    public int first(int i) {
        return first[i];
    }

    /** Weight of tap k of target sample i. */
    public float weight(int i, int k) {
        return weights[i * taps + k];
    }

    int[] firsts() {
        return first;
    }

    float[] weights() {
        return weights;
    }

    /** True when every target sample is one source sample as it is. */
    public boolean isIdentity() {
        if (sourceSize != targetSize) {
            return false;
        }
        for (int i = 0; i < targetSize; i++) {
            for (int k = 0; k < taps; k++) {
                if (weights[i * taps + k] != (first[i] + k == i ? 1f : 0f)) {
                    return false;
                }
            }
        }
        return true;
    }

    /**
     * True when the table doubles: target samples 2i and 2i + 1 have the weights of samples 0 and 1, moved on by i. Then both
     * kinds of sample can be made from contiguous source samples.
     */
    public boolean isDoubling() {
        if (targetSize < 2) {
            return false;
        }
        for (int i = 2; i < targetSize; i++) {
            if (first[i] != first[i - 2] + 1) {
                return false;
            }
            for (int k = 0; k < taps; k++) {
                if (weights[i * taps + k] != weights[(i - 2) * taps + k]) {
                    return false;
                }
            }
        }
        return true;
    }

    /** First source sample, inside the source, that target samples from..to need. */
    public int needsFrom(int from, int to) {
        int least = sourceSize - 1;
        for (int i = from; i < to; i++) {
            for (int k = 0; k < taps; k++) {
                least = Math.min(least, mirror(first[i] + k, sourceSize));
            }
        }
        return least;
    }

    /** One past the last source sample, inside the source, that target samples from..to need. */
    public int needsTo(int from, int to) {
        int most = 0;
        for (int i = from; i < to; i++) {
            for (int k = 0; k < taps; k++) {
                most = Math.max(most, mirror(first[i] + k, sourceSize));
            }
        }
        return most + 1;
    }

    /** MIRROR with the edge repeated: {@code 2 1 0 [0 1 2 3] 3 2 1}; any distance, any size down to 1. */
    public static int mirror(int index, int size) {
        int period = 2 * size;
        int m = Math.floorMod(index, period);
        return m < size ? m : period - 1 - m;
    }

    private static int firstTap(Kernel kernel, double centre, double step, double reach) {
        if (kernel == Kernel.AREA) {
            return (int) Math.floor(step > 1 ? centre - step / 2 + 0.5 : centre + 0.5);
        }
        return (int) Math.floor(centre - reach) + 1;
    }

    private static double weightAt(Kernel kernel, int sample, double centre, double step) {
        if (kernel == Kernel.AREA) {
            return step > 1 ? share(sample, centre, step) : 1;
        }
        return kernel.at((sample - centre) / Math.max(1, step));
    }

    /** Overlap of source sample [n - 0.5, n + 0.5] with the target's box around centre. */
    private static double share(int n, double centre, double width) {
        double lo = Math.max(n - 0.5, centre - width / 2);
        double hi = Math.min(n + 0.5, centre + width / 2);
        return Math.max(0, hi - lo);
    }
}
