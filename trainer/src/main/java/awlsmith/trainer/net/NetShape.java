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
 */
public record NetShape(int planes, int channels, int blocks, int factor) {
    /** What the correction is added to. */
    public static final Kernel BASE = Kernel.CATMULL_ROM;

    public NetShape {
        if (planes < 1 || channels < 1 || blocks < 1 || factor < 1 || factor > 4) {
            throw new IllegalArgumentException("no net has " + planes + " planes, " + channels + " channels, " + blocks
                    + " blocks and factor " + factor);
        }
    }

    /** Samples around an input sample that an answer depends on. */
    public int reach() {
        return 2 * blocks + 3;
    }

    /** Weights and biases. */
    public int weights() {
        int body = channels * channels * 9 + channels;
        return planes * channels * 9
                + channels
                + (2 * blocks + 1) * body
                + channels * factor * factor * 9
                + factor * factor;
    }
}
