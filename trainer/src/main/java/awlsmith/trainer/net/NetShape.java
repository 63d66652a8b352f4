package awlsmith.trainer.net;

import awlsmith.core.resample.Kernel;

/**
 * The size of a residual net that corrects a plain enlargement, after Lim et al., "Enhanced deep residual networks for
 * single image super-resolution", CVPR workshops 2017: a first layer, blocks of two layers with a path around each, a
 * path around them all, and a last layer that gives one plane per phase of the enlargement. All layers are 3x3.
 *
 * @param planes read at once; 1 is the luma of one frame
 * @param channels of every layer but the last
 * @param blocks of two layers
 * @param factor of the enlargement; 1 improves without enlarging
 * @param step samples across and down that the net reads as one, each a plane of its own: with 2 all layers work at half
 *     the size, a quarter of the work, and see twice as far (Zhang et al., "FFDNet", IEEE TIP 2018, do so against noise)
 */
public record NetShape(int planes, int channels, int blocks, int factor, int step) {
    /** What the correction is added to. */
    public static final Kernel BASE = Kernel.CATMULL_ROM;

    public NetShape {
        if (planes < 1 || channels < 1 || blocks < 1 || factor < 1 || factor > 4 || step < 1 || step > 2) {
            throw new IllegalArgumentException("no net has " + planes + " planes, " + channels + " channels, " + blocks
                    + " blocks, factor " + factor + " and step " + step);
        }
    }

    /** Layers of weights. */
    public int layers() {
        return 2 * blocks + 3;
    }

    /** Planes that the first layer reads. */
    public int in() {
        return planes * step * step;
    }

    /** Planes that the last layer gives. */
    public int out() {
        return factor * factor * step * step;
    }

    /** Planes that a layer reads. */
    public int in(int layer) {
        return layer == 0 ? in() : channels;
    }

    /** Planes that a layer gives. */
    public int out(int layer) {
        return layer == layers() - 1 ? out() : channels;
    }

    /** Samples around an input sample that an answer depends on. */
    public int reach() {
        return step * layers() + step - 1;
    }

    /** Weights and biases. */
    public int weights() {
        int sum = 0;
        for (int i = 0; i < layers(); i++) {
            sum += in(i) * out(i) * 9 + out(i);
        }
        return sum;
    }
}
