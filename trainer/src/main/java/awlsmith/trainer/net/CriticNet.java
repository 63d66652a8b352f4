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

/**
 * Tells pictures that are true from pictures that were made: reads (N, 2 phases, H, W), the phases of the detail and of the plain
 * enlargement it stands on, and gives (N, 1, H / 2, W / 2), one opinion for every square of about 30 samples of the large picture. Phases
 * and not the large picture: a third of the computing. Squares and not all of the picture: texture is judged, not what is shown (Isola et al., "Image-to-image translation with conditional adversarial networks", CVPR 2017).
 */
public final class CriticNet extends AbstractBlock {
    private static final float LEAK = 0.2f;
    /** Channels and stride of each layer; strided ones have a kernel of four, the rest of three. */
    private static final int[][] LAYERS = {{32, 1}, {48, 2}, {64, 1}, {1, 1}};

    private final List<Conv2d> layers = new ArrayList<>();

    public CriticNet() {
        for (int[] layer : LAYERS) {
            int side = layer[1] == 2 ? 4 : 3;
            layers.add(addChildBlock(
                    "layer",
                    Conv2d.builder()
                            .setKernelShape(new Shape(side, side))
                            .optStride(new Shape(layer[1], layer[1]))
                            .optPadding(new Shape(1, 1))
                            .setFilters(layer[0])
                            .build()));
        }
    }

    /** Draws every weight as He et al. 2015 do, the last layer's a tenth of that: at first it has no opinion. */
    public void fill(long seed) {
        var random = new SplittableRandom(seed);
        for (int i = 0; i < layers.size(); i++) {
            Parameter weight = layers.get(i).getParameters().get("weight");
            NDArray w = weight.getArray();
            long[] dims = w.getShape().getShape();
            double spread = Math.sqrt(2.0 / (dims[1] * dims[2] * dims[3])) * (i == layers.size() - 1 ? 0.1 : 1);
            var values = new float[(int) w.size()];
            for (int k = 0; k < values.length; k++) {
                values[k] = (float) (random.nextGaussian() * spread);
            }
            w.set(values);
            NDArray b = layers.get(i).getParameters().get("bias").getArray();
            b.set(new float[(int) b.size()]);
        }
    }

    @Override
    protected NDList forwardInternal(
            ParameterStore store, NDList inputs, boolean training, PairList<String, Object> more) {
        NDArray x = inputs.singletonOrThrow();
        for (int i = 0; i < layers.size(); i++) {
            x = layers.get(i).forward(store, new NDList(x), training).singletonOrThrow();
            if (i < layers.size() - 1) {
                x = Activation.leakyRelu(x, LEAK);
            }
        }
        return new NDList(x);
    }

    @Override
    public Shape[] getOutputShapes(Shape[] inputs) {
        Shape in = inputs[0];
        return new Shape[] {new Shape(in.get(0), 1, in.get(2) / 2, in.get(3) / 2)};
    }

    @Override
    protected void initializeChildBlocks(NDManager manager, DataType type, Shape... inputs) {
        Shape at = inputs[0];
        for (Conv2d layer : layers) {
            layer.initialize(manager, type, at);
            at = layer.getOutputShapes(new Shape[] {at})[0];
        }
    }
}
