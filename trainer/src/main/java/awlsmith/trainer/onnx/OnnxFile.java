package awlsmith.trainer.onnx;

import ai.onnx.proto.OnnxMl.AttributeProto;
import ai.onnx.proto.OnnxMl.GraphProto;
import ai.onnx.proto.OnnxMl.ModelProto;
import ai.onnx.proto.OnnxMl.NodeProto;
import ai.onnx.proto.OnnxMl.OperatorSetIdProto;
import ai.onnx.proto.OnnxMl.StringStringEntryProto;
import ai.onnx.proto.OnnxMl.TensorProto;
import ai.onnx.proto.OnnxMl.TensorShapeProto;
import ai.onnx.proto.OnnxMl.TypeProto;
import ai.onnx.proto.OnnxMl.ValueInfoProto;
import awlsmith.trainer.net.NetShape;
import awlsmith.trainer.net.Weights;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * A {@link awlsmith.trainer.net.ResidualNet} as an ONNX file (onnx.ai, operator set 17): input "frame" (1, planes, height,
 * width), its sides multiples of the net's step, output "correction" (1, 1, factor * height, factor * width), to be added
 * to the plain enlargement. The file also is what a stopped run goes on from.
 */
public final class OnnxFile {
    private static final int OPERATORS = 17;
    private static final int IR = 8;

    private OnnxFile() {}

    /** @param notes kept in the file's metadata beside the net's shape */
    public static void write(Path file, Weights weights, Map<String, String> notes) throws IOException {
        NetShape shape = weights.shape();
        var nodes = new ArrayList<NodeProto>();
        var tensors = new ArrayList<TensorProto>();
        int last = weights.layers() - 1;
        for (int i = 0; i <= last; i++) {
            tensors.add(tensor("w" + i, weights.weight(i), shape.out(i), shape.in(i), 3, 3));
            tensors.add(tensor("b" + i, weights.bias(i), shape.out(i)));
        }
        if (shape.step() > 1) {
            nodes.add(NodeProto.newBuilder(node("SpaceToDepth", "steps", "frame"))
                    .addAttribute(whole("blocksize", shape.step()))
                    .build());
        }
        nodes.add(conv(0, shape.step() > 1 ? "steps" : "frame", "head"));
        String x = "head";
        for (int i = 0; i < shape.blocks(); i++) {
            nodes.add(conv(1 + 2 * i, x, "inner" + i));
            nodes.add(node("Relu", "bent" + i, "inner" + i));
            nodes.add(conv(2 + 2 * i, "bent" + i, "change" + i));
            nodes.add(node("Add", "block" + i, "change" + i, x));
            x = "block" + i;
        }
        nodes.add(conv(last - 1, x, "body"));
        nodes.add(node("Add", "around", "body", "head"));
        int shuffled = shape.factor() * shape.step();
        boolean shuffle = shuffled > 1;
        nodes.add(conv(last, "around", shuffle ? "phases" : "correction"));
        if (shuffle) {
            nodes.add(NodeProto.newBuilder(node("DepthToSpace", "correction", "phases"))
                    .addAttribute(whole("blocksize", shuffled))
                    .addAttribute(AttributeProto.newBuilder()
                            .setName("mode")
                            .setType(AttributeProto.AttributeType.STRING)
                            .setS(com.google.protobuf.ByteString.copyFromUtf8("CRD")))
                    .build());
        }
        var all = new TreeMap<>(notes);
        all.put("planes", "" + shape.planes());
        all.put("channels", "" + shape.channels());
        all.put("blocks", "" + shape.blocks());
        all.put("factor", "" + shape.factor());
        all.put("step", "" + shape.step());
        all.put("base", NetShape.BASE.id());
        all.put("reach", "" + shape.reach());
        ModelProto.Builder model = ModelProto.newBuilder()
                .setIrVersion(IR)
                .setProducerName("Awlsmith trainer")
                .addOpsetImport(OperatorSetIdProto.newBuilder().setDomain("").setVersion(OPERATORS))
                .setGraph(GraphProto.newBuilder()
                        .setName("correction")
                        .addAllNode(nodes)
                        .addAllInitializer(tensors)
                        .addInput(value("frame", shape.planes(), "height", "width"))
                        .addOutput(value("correction", 1, "rows", "columns")));
        all.forEach((k, v) -> model.addMetadataProps(
                StringStringEntryProto.newBuilder().setKey(k).setValue(v)));
        Path fresh = file.resolveSibling(file.getFileName() + ".new");
        Files.write(fresh, model.build().toByteArray());
        Files.move(fresh, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
    }

    /** What {@link #write} noted. */
    public static Map<String, String> notes(Path file) throws IOException {
        var notes = new TreeMap<String, String>();
        ModelProto.parseFrom(Files.readAllBytes(file))
                .getMetadataPropsList()
                .forEach(e -> notes.put(e.getKey(), e.getValue()));
        return notes;
    }

    /** The weights in a file that {@link #write} made. */
    public static Weights read(Path file) throws IOException {
        ModelProto model = ModelProto.parseFrom(Files.readAllBytes(file));
        Map<String, String> notes = notes(file);
        var shape = new NetShape(
                Integer.parseInt(notes.get("planes")),
                Integer.parseInt(notes.get("channels")),
                Integer.parseInt(notes.get("blocks")),
                Integer.parseInt(notes.get("factor")),
                Integer.parseInt(notes.getOrDefault("step", "1")));
        var tensors = new HashMap<String, float[]>();
        for (TensorProto t : model.getGraph().getInitializerList()) {
            ByteBuffer raw = t.getRawData().asReadOnlyByteBuffer().order(ByteOrder.LITTLE_ENDIAN);
            float[] values = new float[raw.remaining() / 4];
            raw.asFloatBuffer().get(values);
            tensors.put(t.getName(), values);
        }
        var arrays = new ArrayList<float[]>();
        for (int i = 0; i < shape.layers(); i++) {
            arrays.add(tensors.get("w" + i));
            arrays.add(tensors.get("b" + i));
        }
        return new Weights(shape, arrays);
    }

    private static NodeProto conv(int layer, String in, String out) {
        return NodeProto.newBuilder()
                .setOpType("Conv")
                .setName(out)
                .addInput(in)
                .addInput("w" + layer)
                .addInput("b" + layer)
                .addOutput(out)
                .addAttribute(wholes("kernel_shape", 3, 3))
                .addAttribute(wholes("pads", 1, 1, 1, 1))
                .build();
    }

    static NodeProto node(String operator, String out, String... in) {
        return NodeProto.newBuilder()
                .setOpType(operator)
                .setName(out)
                .addAllInput(List.of(in))
                .addOutput(out)
                .build();
    }

    private static AttributeProto whole(String name, long value) {
        return AttributeProto.newBuilder()
                .setName(name)
                .setType(AttributeProto.AttributeType.INT)
                .setI(value)
                .build();
    }

    private static AttributeProto wholes(String name, long... values) {
        var attribute = AttributeProto.newBuilder().setName(name).setType(AttributeProto.AttributeType.INTS);
        for (long v : values) {
            attribute.addInts(v);
        }
        return attribute.build();
    }

    static TensorProto tensor(String name, float[] values, long... dims) {
        ByteBuffer raw = ByteBuffer.allocate(values.length * 4).order(ByteOrder.LITTLE_ENDIAN);
        raw.asFloatBuffer().put(values);
        var tensor = TensorProto.newBuilder()
                .setName(name)
                .setDataType(TensorProto.DataType.FLOAT.getNumber())
                .setRawData(com.google.protobuf.ByteString.copyFrom(raw));
        for (long d : dims) {
            tensor.addDims(d);
        }
        return tensor.build();
    }

    private static ValueInfoProto value(String name, int planes, String height, String width) {
        return ValueInfoProto.newBuilder()
                .setName(name)
                .setType(TypeProto.newBuilder()
                        .setTensorType(TypeProto.Tensor.newBuilder()
                                .setElemType(TensorProto.DataType.FLOAT.getNumber())
                                .setShape(TensorShapeProto.newBuilder()
                                        .addDim(TensorShapeProto.Dimension.newBuilder()
                                                .setDimValue(1))
                                        .addDim(TensorShapeProto.Dimension.newBuilder()
                                                .setDimValue(planes))
                                        .addDim(TensorShapeProto.Dimension.newBuilder()
                                                .setDimParam(height))
                                        .addDim(TensorShapeProto.Dimension.newBuilder()
                                                .setDimParam(width)))))
                .build();
    }
}
