package awlsmith.trainer.onnx;

import ai.onnx.proto.OnnxMl.AttributeProto;
import ai.onnx.proto.OnnxMl.GraphProto;
import ai.onnx.proto.OnnxMl.ModelProto;
import ai.onnx.proto.OnnxMl.NodeProto;
import ai.onnx.proto.OnnxMl.StringStringEntryProto;
import ai.onnx.proto.OnnxMl.TensorProto;
import ai.onnx.proto.OnnxMl.ValueInfoProto;
import ai.onnxruntime.OnnxTensor;
import ai.onnxruntime.OrtEnvironment;
import ai.onnxruntime.OrtException;
import ai.onnxruntime.OrtSession;
import awlsmith.core.picture.Plane;
import awlsmith.trainer.run.OnnxRun;
import com.google.protobuf.ByteString;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The same net with the layers between its first and its last in whole numbers: values of 8 bits without sign, weights of 8
 * bits with sign and a scale for each channel, as ONNX describes it (QuantizeLinear, DequantizeLinear around every layer). The sums
 * that go around the blocks stay in floating point. Twice as quick where a processor multiplies bytes.
 *
 * <p>Source of the scheme: Jacob et al., "Quantization and training of neural networks for efficient integer-arithmetic-only
 * inference", CVPR 2018; ranges are taken from example pictures, the outermost values cut off.
 */
public final class EightBits {
    /** Share of values cut off at either end of a range. */
    private static final double CUT = 0.00002;
    /** One of so many values is looked at. */
    private static final int EVERY = 7;

    private final GraphProto graph;
    private final Map<String, float[]> ranges;
    private final int first;
    private final List<NodeProto> nodes = new ArrayList<>();
    private final List<TensorProto> tensors = new ArrayList<>();
    private final Map<String, String> asBytes = new HashMap<>();

    private EightBits(GraphProto graph, Map<String, float[]> ranges, int first) {
        this.first = first;
        this.graph = graph;
        this.ranges = ranges;
    }

    /**
     * @param model as {@link OnnxFile} wrote it
     * @param examples planes like those it will see, luma 0..1
     * @param from the first layer in bytes, odd, at least 1: what earlier layers lose, later ones pass on and add to
     * @param out the quick twin; carries the same notes
     */
    public static void write(Path model, List<List<Plane>> examples, int from, Path out)
            throws IOException, OrtException {
        if (from < 1 || from % 2 == 0) {
            throw new IllegalArgumentException("bytes begin with a block, at layer 1, 3, 5 and so on, not at " + from);
        }
        ModelProto proto = ModelProto.parseFrom(Files.readAllBytes(model));
        var ranges = ranges(proto, examples, from);
        GraphProto quick = new EightBits(proto.getGraph(), ranges, from).graph();
        ModelProto.Builder twin = proto.toBuilder().setGraph(quick);
        twin.addMetadataProps(StringStringEntryProto.newBuilder().setKey("bits").setValue("8"));
        Files.write(out, twin.build().toByteArray());
    }

    // --- ranges ---

    /** @param first layer in bytes */
    private static boolean isInner(NodeProto node, int first, int layers) {
        if (!node.getOpType().equals("Conv")) {
            return false;
        }
        int layer = Integer.parseInt(node.getInput(1).substring(1));
        return layer >= first && layer < layers - 1;
    }

    private static int layers(GraphProto graph) {
        return (int) graph.getNodeList().stream()
                .filter(node -> node.getOpType().equals("Conv"))
                .count();
    }

    /** Lowest and highest value of everything that becomes bytes. */
    private static Map<String, float[]> ranges(ModelProto model, List<List<Plane>> examples, int first)
            throws OrtException {
        GraphProto graph = model.getGraph();
        Set<String> wanted = new HashSet<>();
        for (NodeProto node : graph.getNodeList()) {
            if (isInner(node, first, layers(graph))) {
                wanted.add(node.getInput(0));
                wanted.add(behind(graph, node.getOutput(0)));
            }
        }
        GraphProto.Builder open = graph.toBuilder();
        wanted.forEach(name -> open.addOutput(ValueInfoProto.newBuilder().setName(name)));
        var environment = OrtEnvironment.getEnvironment();
        Map<String, float[]> samples = new HashMap<>();
        Map<String, float[]> ranges = new HashMap<>();
        try (var session = environment.createSession(
                model.toBuilder().setGraph(open).build().toByteArray(), new OrtSession.SessionOptions())) {
            for (List<Plane> example : examples) {
                long[] dims = {
                    1,
                    example.size(),
                    example.getFirst().height(),
                    example.getFirst().width()
                };
                try (var input = OnnxTensor.createTensor(environment, OnnxRun.packed(example), dims);
                        var result = session.run(Map.of("frame", input))) {
                    for (String name : wanted) {
                        var values = ((OnnxTensor) result.get(name).orElseThrow()).getFloatBuffer();
                        samples.merge(name, thinned(values), EightBits::joined);
                    }
                }
            }
        }
        samples.forEach((name, values) -> {
            Arrays.sort(values);
            int cut = (int) (CUT * values.length);
            ranges.put(name, new float[] {Math.min(0, values[cut]), Math.max(0, values[values.length - 1 - cut])});
        });
        return ranges;
    }

    /** What a layer's answer becomes: with its lower part cut off where that follows. */
    private static String behind(GraphProto graph, String name) {
        return graph.getNodeList().stream()
                .filter(node ->
                        node.getOpType().equals("Relu") && node.getInput(0).equals(name))
                .map(node -> node.getOutput(0))
                .findFirst()
                .orElse(name);
    }

    private static float[] thinned(FloatBuffer values) {
        float[] some = new float[Math.ceilDiv(values.remaining(), EVERY)];
        for (int i = 0; i < some.length; i++) {
            some[i] = values.get(i * EVERY);
        }
        return some;
    }

    private static float[] joined(float[] a, float[] b) {
        float[] both = Arrays.copyOf(a, a.length + b.length);
        System.arraycopy(b, 0, both, a.length, b.length);
        return both;
    }

    // --- the twin ---

    private GraphProto graph() {
        int layers = layers(graph);
        Map<String, TensorProto> weights = new HashMap<>();
        graph.getInitializerList().forEach(tensor -> weights.put(tensor.getName(), tensor));
        Set<String> inner = new HashSet<>();
        for (NodeProto node : graph.getNodeList()) {
            if (node.getOpType().equals("Relu") && inner.contains(node.getInput(0))) {
                // what was cut off inside of a layer is done there
                continue;
            }
            if (node.getOpType().equals("Add")
                    && ranges.containsKey(node.getOutput(0))
                    && ranges.containsKey(node.getInput(1))) {
                // the path around a block stays in bytes as well: going to and fro would cost as much as the layers
                String sum = node.getOutput(0);
                nodes.add(OnnxFile.node("Add", sum + "/sum", node.getInput(0), bytes(node.getInput(1))));
                requantised(sum + "/sum", sum, ranges.get(sum));
                asBytes.put(sum, sum);
                continue;
            }
            if (!isInner(node, first, layers)) {
                nodes.add(node);
                // weights that stay as they are
                if (node.getOpType().equals("Conv")) {
                    tensors.add(weights.get(node.getInput(1)));
                    tensors.add(weights.get(node.getInput(2)));
                }
                continue;
            }
            String in = bytes(node.getInput(0));
            String name = node.getOutput(0);
            inner.add(name);
            float[] scales = weight(name, weights.get(node.getInput(1)));
            bias(name, weights.get(node.getInput(2)), scales, scale(node.getInput(0)));
            nodes.add(node.toBuilder()
                    .setName(name + "/layer")
                    .clearInput()
                    .addInput(in)
                    .addInput(name + "/w")
                    .addInput(name + "/b")
                    .clearOutput()
                    .addOutput(name + "/sum")
                    .build());
            String behind = behind(graph, name);
            if (behind.equals(name)) {
                // to bytes and back, so that the layer's own answer is one of bytes
                requantised(name + "/sum", name, ranges.get(name));
            } else {
                nodes.add(OnnxFile.node("Relu", name + "/bent", name + "/sum"));
                requantised(name + "/bent", behind, ranges.get(behind));
                asBytes.put(behind, behind);
            }
        }
        return graph.toBuilder()
                .clearNode()
                .addAllNode(nodes)
                .clearInitializer()
                .addAllInitializer(tensors)
                .build();
    }

    /** A value as it comes back from bytes; made once. */
    private String bytes(String value) {
        return asBytes.computeIfAbsent(value, name -> {
            requantised(name, name + "/8", ranges.get(name));
            return name + "/8";
        });
    }

    private float scale(String value) {
        float[] range = ranges.get(value);
        return Math.max(1e-9f, (range[1] - range[0]) / 255);
    }

    private void requantised(String from, String to, float[] range) {
        float scale = Math.max(1e-9f, (range[1] - range[0]) / 255);
        int zero = Math.clamp(Math.round(-range[0] / scale), 0, 255);
        tensors.add(OnnxFile.tensor(to + "/scale", new float[] {scale}));
        tensors.add(whole(to + "/zero", TensorProto.DataType.UINT8, new byte[] {(byte) zero}));
        nodes.add(OnnxFile.node("QuantizeLinear", to + "/bytes", from, to + "/scale", to + "/zero"));
        nodes.add(OnnxFile.node("DequantizeLinear", to, to + "/bytes", to + "/scale", to + "/zero"));
    }

    /** Weights of 8 bits with a scale for each channel; returns the scales. */
    private float[] weight(String layer, TensorProto tensor) {
        float[] values = floats(tensor);
        int channels = (int) tensor.getDims(0);
        int each = values.length / channels;
        float[] scales = new float[channels];
        byte[] bytes = new byte[values.length];
        for (int c = 0; c < channels; c++) {
            float most = 1e-9f;
            for (int i = 0; i < each; i++) {
                most = Math.max(most, Math.abs(values[c * each + i]));
            }
            scales[c] = most / 127;
            for (int i = 0; i < each; i++) {
                bytes[c * each + i] = (byte) Math.clamp(Math.round(values[c * each + i] / scales[c]), -127, 127);
            }
        }
        long[] dims = tensor.getDimsList().stream().mapToLong(Long::longValue).toArray();
        tensors.add(whole(layer + "/w8", TensorProto.DataType.INT8, bytes, dims));
        dequantised(layer + "/w", layer + "/w8", scales, TensorProto.DataType.INT8);
        return scales;
    }

    private void bias(String layer, TensorProto tensor, float[] scales, float input) {
        float[] values = floats(tensor);
        ByteBuffer raw = ByteBuffer.allocate(4 * values.length).order(ByteOrder.LITTLE_ENDIAN);
        float[] together = new float[values.length];
        for (int c = 0; c < values.length; c++) {
            together[c] = scales[c] * input;
            raw.putInt(Math.round(values[c] / together[c]));
        }
        tensors.add(whole(layer + "/b32", TensorProto.DataType.INT32, raw.array(), values.length));
        dequantised(layer + "/b", layer + "/b32", together, TensorProto.DataType.INT32);
    }

    private void dequantised(String to, String from, float[] scales, TensorProto.DataType type) {
        tensors.add(OnnxFile.tensor(to + "/scales", scales, scales.length));
        tensors.add(whole(
                to + "/zeros",
                type,
                new byte[scales.length * (type == TensorProto.DataType.INT32 ? 4 : 1)],
                scales.length));
        nodes.add(OnnxFile.node("DequantizeLinear", to, from, to + "/scales", to + "/zeros").toBuilder()
                .addAttribute(AttributeProto.newBuilder()
                        .setName("axis")
                        .setType(AttributeProto.AttributeType.INT)
                        .setI(0))
                .build());
    }

    private static float[] floats(TensorProto tensor) {
        ByteBuffer raw = tensor.getRawData().asReadOnlyByteBuffer().order(ByteOrder.LITTLE_ENDIAN);
        float[] values = new float[raw.remaining() / 4];
        raw.asFloatBuffer().get(values);
        return values;
    }

    private static TensorProto whole(String name, TensorProto.DataType type, byte[] raw, long... dims) {
        var tensor = TensorProto.newBuilder()
                .setName(name)
                .setDataType(type.getNumber())
                .setRawData(ByteString.copyFrom(raw));
        for (long d : dims) {
            tensor.addDims(d);
        }
        return tensor.build();
    }
}
