package awlsmith.trainer.net;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/**
 * A net's weights outside any engine.
 *
 * @param arrays weights (out, in, 3, 3) and biases (out) in turn, layer by layer
 */
public record Weights(NetShape shape, List<float[]> arrays) {
    public Weights {
        long sum = arrays.stream().mapToLong(a -> a.length).sum();
        if (sum != shape.weights()) {
            throw new IllegalArgumentException(
                    "a net of " + shape + " has " + shape.weights() + " weights, not " + sum);
        }
    }

    public int layers() {
        return arrays.size() / 2;
    }

    public float[] weight(int layer) {
        return arrays.get(2 * layer);
    }

    public float[] bias(int layer) {
        return arrays.get(2 * layer + 1);
    }

    /**
     * The same function in a net with more blocks: those that are added give nothing yet, as their second layer is all zeros
     * (Chen et al., "Net2Net", ICLR 2016, deepen nets so).
     *
     * @param blocks at least as many as there are
     */
    public Weights deepened(int blocks, long seed) {
        if (blocks < shape.blocks()) {
            throw new IllegalArgumentException("a net of " + shape.blocks() + " blocks cannot become one of " + blocks);
        }
        var larger = new NetShape(shape.planes(), shape.channels(), blocks, shape.factor(), shape.step());
        var random = new SplittableRandom(seed);
        int body = 1 + 2 * shape.blocks();
        var all = new ArrayList<>(arrays.subList(0, 2 * body));
        int c = shape.channels();
        double spread = Math.sqrt(2.0 / (c * 9));
        for (int i = shape.blocks(); i < blocks; i++) {
            float[] first = new float[c * c * 9];
            for (int k = 0; k < first.length; k++) {
                first[k] = (float) (random.nextGaussian() * spread);
            }
            all.addAll(List.of(first, new float[c], new float[c * c * 9], new float[c]));
        }
        all.addAll(arrays.subList(2 * body, arrays.size()));
        return new Weights(larger, all);
    }

    /**
     * The same function in a net that reads more planes: what is added counts for nothing yet.
     *
     * @param planes at least as many as there are
     */
    public Weights widened(int planes) {
        if (planes < shape.planes()) {
            throw new IllegalArgumentException("a net of " + shape.planes() + " planes cannot become one of " + planes);
        }
        var larger = new NetShape(planes, shape.channels(), shape.blocks(), shape.factor(), shape.step());
        // the planes of one phase of the step lie together
        int few = shape.planes() * 9;
        int many = larger.planes() * 9;
        int groups = shape.channels() * shape.step() * shape.step();
        float[] old = weight(0);
        float[] first = new float[many * groups];
        for (int g = 0; g < groups; g++) {
            System.arraycopy(old, g * few, first, g * many, few);
        }
        var all = new ArrayList<>(arrays);
        all.set(0, first);
        return new Weights(larger, all);
    }

    /** This moved a share of the way towards other weights, in place: a running mean over training. */
    public void follow(Weights other, float share) {
        for (int i = 0; i < arrays.size(); i++) {
            float[] a = arrays.get(i);
            float[] b = other.arrays.get(i);
            for (int k = 0; k < a.length; k++) {
                a[k] += share * (b[k] - a[k]);
            }
        }
    }
}
