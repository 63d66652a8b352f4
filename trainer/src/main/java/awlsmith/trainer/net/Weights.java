package awlsmith.trainer.net;

import java.util.List;

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
