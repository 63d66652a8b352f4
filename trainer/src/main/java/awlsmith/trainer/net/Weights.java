package awlsmith.trainer.net;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;

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

    /**
     * A net with fewer channels that begins near this one's function: those are kept that carry most, by what makes them
     * and what reads them (Li et al., "Pruning filters for efficient convnets", ICLR 2017, by what makes them). Some
     * training has to follow.
     *
     * @param channels at most as many as there are
     */
    public Weights narrowed(int channels) {
        if (channels > shape.channels()) {
            throw new IllegalArgumentException(
                    "a net of " + shape.channels() + " channels cannot become one of " + channels);
        }
        if (channels == shape.channels()) {
            return this;
        }
        var smaller = new NetShape(shape.planes(), channels, shape.blocks(), shape.factor(), shape.step());
        int last = layers() - 1;
        // what goes around the blocks is one set of channels: the first layer, every block's second and the last but
        // one make it
        double[] made = new double[shape.channels()];
        double[] read = new double[shape.channels()];
        for (int i = 0; i <= last; i++) {
            if (makesTrunk(i)) {
                addPower(i, true, made);
            }
            if (readsTrunk(i)) {
                addPower(i, false, read);
            }
        }
        int[] trunk = strongest(made, read, channels);
        var all = new ArrayList<float[]>();
        int[] inner = trunk;
        for (int i = 0; i <= last; i++) {
            if (!makesTrunk(i) && i < last) {
                double[] from = new double[shape.channels()];
                double[] to = new double[shape.channels()];
                addPower(i, true, from);
                addPower(i + 1, false, to);
                inner = strongest(from, to, channels);
            }
            int[] out = i == last ? all(shape.out()) : makesTrunk(i) ? trunk : inner;
            int[] in = i == 0 ? all(shape.in()) : readsTrunk(i) ? trunk : inner;
            all.add(kept(weight(i), shape.in(i), out, in));
            float[] bias = new float[out.length];
            for (int k = 0; k < out.length; k++) {
                bias[k] = bias(i)[out[k]];
            }
            all.add(bias);
        }
        return new Weights(smaller, all);
    }

    private boolean makesTrunk(int layer) {
        return layer % 2 == 0 && layer < layers() - 1 || layer == layers() - 2;
    }

    private boolean readsTrunk(int layer) {
        return layer > 0 && (layer % 2 == 1 || layer == layers() - 1);
    }

    /** Adds the sum of squares of what makes each of a layer's channels, or of what reads each of those it is shown. */
    private void addPower(int layer, boolean making, double[] power) {
        float[] w = weight(layer);
        int in = shape.in(layer);
        for (int i = 0; i < w.length; i++) {
            int square = i / 9;
            power[making ? square / in : square % in] += w[i] * w[i];
        }
    }

    private static int[] strongest(double[] made, double[] read, int count) {
        return IntStream.range(0, made.length)
                .boxed()
                .sorted(Comparator.comparingDouble(i -> -made[i] * read[i]))
                .limit(count)
                .sorted()
                .mapToInt(i -> i)
                .toArray();
    }

    private static int[] all(int count) {
        return IntStream.range(0, count).toArray();
    }

    private static float[] kept(float[] weight, int ins, int[] out, int[] in) {
        float[] kept = new float[out.length * in.length * 9];
        for (int k = 0; k < out.length; k++) {
            for (int c = 0; c < in.length; c++) {
                System.arraycopy(weight, (out[k] * ins + in[c]) * 9, kept, (k * in.length + c) * 9, 9);
            }
        }
        return kept;
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
