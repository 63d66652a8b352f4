package awlsmith.trainer.net;

import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.NDList;
import ai.djl.ndarray.NDManager;
import ai.djl.ndarray.types.DataType;
import ai.djl.ndarray.types.Shape;
import ai.djl.nn.AbstractBlock;
import ai.djl.nn.Activation;
import ai.djl.nn.Parameter;
import ai.djl.nn.convolutional.Conv2d;
import ai.djl.training.ParameterStore;
import ai.djl.util.PairList;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/** The net of a {@link NetShape} in the training engine. Reads (N, in, H, W), gives (N, out, H, W). */
public final class ResidualNet extends AbstractBlock {
    private final NetShape shape;
    private final List<Conv2d> layers = new ArrayList<>();

    public ResidualNet(NetShape shape) {
        this.shape = shape;
        for (int i = 0; i < shape.layers(); i++) {
            layer(shape.out(i));
        }
    }

    private void layer(int filters) {
        layers.add(addChildBlock(
                "layer",
                Conv2d.builder()
                        .setKernelShape(new Shape(3, 3))
                        .optPadding(new Shape(1, 1))
                        .setFilters(filters)
                        .build()));
    }

    public NetShape shape() {
        return shape;
    }

    /** Weights and bias of a layer, first to last. */
    public Parameter weight(int layer) {
        return layers.get(layer).getParameters().get("weight");
    }

    public Parameter bias(int layer) {
        return layers.get(layer).getParameters().get("bias");
    }

    public int layers() {
        return layers.size();
    }

    /**
     * Sets every weight: from given arrays, or where none are given, as He et al. 2015 draw them ("Delving deep into
     * rectifiers"), the second layer of a block a tenth of that, and the last layer nothing, so that an untrained net
     * leaves the plain enlargement as it is.
     */
    public void fill(Weights known, long seed) {
        var random = new SplittableRandom(seed);
        for (int i = 0; i < layers.size(); i++) {
            NDArray w = weight(i).getArray();
            NDArray b = bias(i).getArray();
            if (known != null) {
                w.set(known.weight(i));
                b.set(known.bias(i));
                continue;
            }
            long[] dims = w.getShape().getShape();
            double spread = Math.sqrt(2.0 / (dims[1] * 9));
            boolean last = i == layers.size() - 1;
            boolean second = i > 0 && i % 2 == 0;
            float[] values = new float[(int) w.size()];
            for (int k = 0; k < values.length; k++) {
                values[k] = last ? 0 : (float) (random.nextGaussian() * spread * (second ? 0.1 : 1));
            }
            w.set(values);
            b.set(new float[(int) b.size()]);
        }
    }

    public Weights weights() {
        var all = new ArrayList<float[]>();
        for (int i = 0; i < layers.size(); i++) {
            all.add(weight(i).getArray().toFloatArray());
            all.add(bias(i).getArray().toFloatArray());
        }
        return new Weights(shape, all);
    }

    @Override
    protected NDList forwardInternal(
            ParameterStore store, NDList inputs, boolean training, PairList<String, Object> more) {
        NDArray head = run(0, store, inputs.singletonOrThrow(), training);
        NDArray x = head;
        for (int i = 0; i < shape.blocks(); i++) {
            NDArray inner = Activation.relu(run(1 + 2 * i, store, x, training));
            x = x.add(run(2 + 2 * i, store, inner, training));
        }
        int after = 1 + 2 * shape.blocks();
        x = head.add(run(after, store, x, training));
        return new NDList(run(after + 1, store, x, training));
    }

    private NDArray run(int layer, ParameterStore store, NDArray x, boolean training) {
        return layers.get(layer).forward(store, new NDList(x), training).singletonOrThrow();
    }

    @Override
    public Shape[] getOutputShapes(Shape[] inputs) {
        Shape in = inputs[0];
        return new Shape[] {new Shape(in.get(0), shape.out(), in.get(2), in.get(3))};
    }

    @Override
    protected void initializeChildBlocks(NDManager manager, DataType type, Shape... inputs) {
        Shape in = inputs[0];
        Shape wide = new Shape(in.get(0), shape.channels(), in.get(2), in.get(3));
        for (int i = 0; i < layers.size(); i++) {
            layers.get(i).initialize(manager, type, i == 0 ? in : wide);
        }
    }
}
