package awlsmith.trainer.onnx;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import ai.djl.Model;
import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.NDList;
import ai.djl.ndarray.NDManager;
import ai.djl.ndarray.types.DataType;
import ai.djl.ndarray.types.Shape;
import ai.djl.training.ParameterStore;
import awlsmith.core.picture.Plane;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.net.ResidualNet;
import awlsmith.trainer.net.Weights;
import awlsmith.trainer.run.OnnxRun;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class OnnxFileTest {
    @TempDir
    Path folder;

    private static Weights weights(NetShape shape, long seed) {
        var random = new SplittableRandom(seed);
        var arrays = new ArrayList<float[]>();
        for (int i = 0; i < shape.layers(); i++) {
            arrays.add(drawn(shape.out(i) * shape.in(i) * 9, random));
            arrays.add(drawn(shape.out(i), random));
        }
        return new Weights(shape, arrays);
    }

    private static float[] drawn(int count, SplittableRandom random) {
        float[] values = new float[count];
        for (int i = 0; i < count; i++) {
            values[i] = (float) (0.15 * random.nextGaussian());
        }
        return values;
    }

    private static Plane picture(int width, int height) {
        var random = new SplittableRandom(4);
        Plane p = Plane.of(width, height);
        for (int i = 0; i < p.data().length; i++) {
            p.data()[i] = (float) random.nextDouble();
        }
        return p;
    }

    private Plane run(Weights weights, Plane in) throws Exception {
        Path file = folder.resolve("net.onnx");
        OnnxFile.write(file, weights, Map.of());
        Plane out = Plane.of(
                in.width() * weights.shape().factor(),
                in.height() * weights.shape().factor());
        try (var run = new OnnxRun(file)) {
            run.run(List.of(in), out);
        }
        return out;
    }

    /** The file must be the net that was trained, in another runtime. */
    @Test
    void theFileGivesWhatTheTrainingEngineGives() throws Exception {
        for (int[] size : new int[][] {{1, 1}, {2, 1}, {3, 1}, {1, 2}, {2, 2}}) {
            int step = size[1];
            int all = size[0] * step;
            var shape = new NetShape(1, 6, 2, size[0], step);
            Weights weights = weights(shape, size[0]);
            Plane in = picture(18, 14);
            Plane byFile = run(weights, in);
            var net = new ResidualNet(shape);
            try (Model model = Model.newInstance("net", "PyTorch");
                    NDManager manager = NDManager.newBaseManager("PyTorch")) {
                int width = 18 / step;
                int height = 14 / step;
                float[] planes = new float[18 * 14];
                for (int i = 0; i < planes.length; i++) {
                    int x = i % 18;
                    int y = i / 18;
                    planes[((y % step * step + x % step) * height + y / step) * width + x / step] = in.at(x, y);
                }
                net.initialize(manager, DataType.FLOAT32, new Shape(1, shape.in(), height, width));
                net.fill(weights, 0);
                NDArray x = manager.create(planes, new Shape(1, shape.in(), height, width));
                float[] phases = net.forward(new ParameterStore(manager, false), new NDList(x), false)
                        .singletonOrThrow()
                        .toFloatArray();
                for (int y = 0; y < byFile.height(); y++) {
                    for (int u = 0; u < byFile.width(); u++) {
                        int phase = y % all * all + u % all;
                        assertThat(byFile.at(u, y))
                                .isCloseTo(phases[(phase * height + y / all) * width + u / all], within(1e-4f));
                    }
                }
            }
        }
    }

    /** Planes of several fields go in one after the other. */
    @Test
    void severalPlanesAreReadInTheirOrder() throws Exception {
        var shape = new NetShape(3, 5, 1, 1, 1);
        Weights weights = weights(shape, 4);
        List<Plane> in = List.of(picture(10, 8), picture(10, 8), picture(10, 8));
        in.get(1).fill(0.25f);
        for (int i = 0; i < 80; i++) {
            in.get(2).data()[i] *= 0.5f;
        }
        Path file = folder.resolve("planes.onnx");
        OnnxFile.write(file, weights, Map.of());
        Plane out = Plane.of(10, 8);
        try (var run = new OnnxRun(file)) {
            run.run(in, out);
        }
        var net = new ResidualNet(shape);
        try (Model model = Model.newInstance("net", "PyTorch");
                NDManager manager = NDManager.newBaseManager("PyTorch")) {
            net.initialize(manager, DataType.FLOAT32, new Shape(1, 3, 8, 10));
            net.fill(weights, 0);
            NDArray x = manager.create(OnnxRun.packed(in).array(), new Shape(1, 3, 8, 10));
            float[] byEngine = net.forward(new ParameterStore(manager, false), new NDList(x), false)
                    .singletonOrThrow()
                    .toFloatArray();
            assertThat(out.data()).containsExactly(byEngine, within(1e-4f));
        }
    }

    /** With a step the planes of one phase lie together: the file must read whole pictures as patches were laid out. */
    @Test
    void severalPlanesAreReadInStepsAsPatchesLayThemOut() throws Exception {
        var shape = new NetShape(2, 6, 1, 1, 2);
        Weights weights = weights(shape, 8);
        List<Plane> in = List.of(picture(12, 8), picture(12, 8));
        for (int i = 0; i < 96; i++) {
            in.get(1).data()[i] = 0.3f * in.get(1).data()[95 - i];
        }
        Path file = folder.resolve("steps.onnx");
        OnnxFile.write(file, weights, Map.of());
        Plane out = Plane.of(12, 8);
        try (var run = new OnnxRun(file)) {
            run.run(in, out);
        }
        float[] laid = new float[2 * 96];
        for (int p = 0; p < 2; p++) {
            for (int i = 0; i < 96; i++) {
                int x = i % 12;
                int y = i / 12;
                laid[((y % 2 * 2 + x % 2) * 2 + p) * 24 + y / 2 * 6 + x / 2] =
                        in.get(p).at(x, y);
            }
        }
        var net = new ResidualNet(shape);
        try (Model model = Model.newInstance("net", "PyTorch");
                NDManager manager = NDManager.newBaseManager("PyTorch")) {
            net.initialize(manager, DataType.FLOAT32, new Shape(1, 8, 4, 6));
            net.fill(weights, 0);
            float[] phases = net.forward(
                            new ParameterStore(manager, false),
                            new NDList(manager.create(laid, new Shape(1, 8, 4, 6))),
                            false)
                    .singletonOrThrow()
                    .toFloatArray();
            for (int y = 0; y < 8; y++) {
                for (int x = 0; x < 12; x++) {
                    assertThat(out.at(x, y))
                            .isCloseTo(phases[(y % 2 * 2 + x % 2) * 24 + y / 2 * 6 + x / 2], within(1e-4f));
                }
            }
        }
    }

    /** A net that was made deeper must go on from where it was. */
    @Test
    void aDeeperNetGivesTheSameAtFirst() throws Exception {
        Weights weights = weights(new NetShape(1, 6, 2, 2, 1), 9);
        Weights deeper = weights.deepened(5, 3);
        assertThat(deeper.shape().blocks()).isEqualTo(5);
        Plane in = picture(16, 12);
        assertThat(run(deeper, in).data()).containsExactly(run(weights, in).data(), within(1e-5f));
        assertThat(weights.deepened(2, 3).arrays()).isEqualTo(weights.arrays());
        assertThatThrownBy(() -> weights.deepened(1, 3)).hasMessageContaining("cannot become one of 1");
    }

    /** What the card will promise: samples farther away change nothing, on either side. */
    @Test
    void theReachIsTheFarthestSampleThatMatters() throws Exception {
        for (int step : new int[] {1, 2}) {
            var shape = new NetShape(1, 4, 1, 2, step);
            Weights weights = weights(shape, 3);
            Plane in = picture(48, 8);
            Plane before = run(weights, in);
            in.set(24, 4, 5);
            Plane after = run(weights, in);
            int least = 96;
            int most = 0;
            for (int x = 0; x < 96; x++) {
                for (int y = 0; y < 16; y++) {
                    if (before.at(x, y) != after.at(x, y)) {
                        least = Math.min(least, x / 2);
                        most = Math.max(most, x / 2);
                    }
                }
            }
            assertThat(Math.max(24 - least, most - 24)).isEqualTo(shape.reach());
        }
    }

    /**
     * Worked by hand, after the operators' definitions at onnx.ai: Conv correlates and pads with nothing; DepthToSpace in
     * CRD mode puts channel dy * 2 + dx at (2 x + dx, 2 y + dy). The first layer copies its input, the block and the layer
     * before last give nothing, the last layer looks at the right neighbour and adds the phase.
     */
    @Test
    void convolutionAndPixelShuffleAsTheSpecificationHasThem() throws Exception {
        var shape = new NetShape(1, 1, 1, 2, 1);
        float[] copy = new float[9];
        copy[4] = 1;
        float[] rightNeighbour = new float[36];
        for (int phase = 0; phase < 4; phase++) {
            rightNeighbour[phase * 9 + 5] = 1;
        }
        float[] none = new float[9];
        var weights = new Weights(
                shape,
                List.of(
                        copy,
                        new float[1],
                        none,
                        new float[1],
                        none,
                        new float[1],
                        none,
                        new float[1],
                        rightNeighbour,
                        new float[] {0, 10, 20, 30}));
        Plane in = new Plane(new float[] {1, 2, 3, 4}, 0, 2, 2, 2);
        assertThat(run(weights, in).packed())
                .containsExactly(2, 12, 0, 10, 22, 32, 20, 30, 4, 14, 0, 10, 24, 34, 20, 30);
    }

    @Test
    void aFileGivesBackItsWeightsAndNotes() throws Exception {
        Weights weights = weights(new NetShape(2, 5, 3, 2, 1), 8);
        Path file = folder.resolve("kept.onnx");
        OnnxFile.write(file, weights, Map.of("iterations", "12"));
        Weights back = OnnxFile.read(file);
        assertThat(back.shape()).isEqualTo(weights.shape());
        for (int i = 0; i < weights.layers(); i++) {
            assertThat(back.weight(i)).isEqualTo(weights.weight(i));
            assertThat(back.bias(i)).isEqualTo(weights.bias(i));
        }
        assertThat(OnnxFile.notes(file)).containsEntry("iterations", "12").containsEntry("reach", "9");
    }

    /** In eight bits a net answers as in floating point but for the steps of its bytes: within a few hundredths of its range. */
    @ParameterizedTest
    @ValueSource(ints = {1, 3, 7})
    void theEightBitTwinAnswersNearlyTheSame(int from) throws Exception {
        var shape = new NetShape(1, 8, 3, 2, 1);
        Plane in = picture(40, 32);
        Plane whole = run(weights(shape, 7), in);
        Path twin = folder.resolve("net-8.onnx");
        EightBits.write(folder.resolve("net.onnx"), List.of(List.of(in), List.of(picture(24, 24))), from, twin);
        Plane quick = Plane.of(80, 64);
        try (var run = new OnnxRun(twin)) {
            run.run(List.of(in), quick);
        }
        double error = 0;
        double most = 0;
        for (int i = 0; i < quick.data().length; i++) {
            double d = quick.data()[i] - whole.data()[i];
            error += d * d / quick.data().length;
            most = Math.max(most, Math.abs(whole.data()[i]));
        }
        // the fewer layers are in bytes, the less is lost
        assertThat(Math.sqrt(error)).isBetween(1e-9, (from == 1 ? 0.02 : 0.012) * most);
        assertThat(OnnxFile.notes(twin)).containsEntry("bits", "8").containsEntry("channels", "8");
    }
}
