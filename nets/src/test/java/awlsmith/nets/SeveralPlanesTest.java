package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ai.onnxruntime.OrtException;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Plane;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Nets that read several planes and give several, as those that clean colour do. */
class SeveralPlanesTest {
    @Test
    void everyPlaneGivenIsItsOwn() throws OrtException {
        try (OnnxNet net = OnnxNet.of(identity(), 1, 4, false)) {
            var in = new ArrayList<Plane>();
            var out = new ArrayList<Plane>();
            for (int p = 0; p < 3; p++) {
                Plane plane = Plane.of(10, 7);
                for (int i = 0; i < plane.data().length; i++) {
                    plane.data()[i] = 100 * p + i;
                }
                in.add(plane);
                out.add(Plane.of(10, 7));
            }
            net.run(in, out);
            for (int p = 0; p < 3; p++) {
                assertThat(out.get(p).packed()).isEqualTo(in.get(p).packed());
            }
        }
    }

    @Test
    void aNetOfOnePlaneIsNotAskedForMore() {
        NetRunner one = (frames, correction) -> correction.fill(1);
        Plane plane = Plane.of(2, 2);
        assertThatThrownBy(() -> one.run(List.of(plane), List.of(plane, plane)))
                .hasMessageContaining("2 planes are asked");
        one.run(List.of(plane), List.of(plane));
        assertThat(plane.at(1, 1)).isEqualTo(1);
    }

    /** A model of one node that gives what it reads; fields as onnx.proto numbers them (ONNX 1.15, IR version 8, opset 13). */
    private static byte[] identity() {
        byte[] node = joined(text(1, "in"), text(2, "out"), text(4, "Identity"));
        byte[] graph = joined(part(1, node), text(2, "same"), part(11, value("in")), part(12, value("out")));
        return joined(number(1, 8), part(8, number(2, 13)), part(7, graph));
    }

    private static byte[] value(String name) {
        byte[] any = part(1, text(2, "any"));
        byte[] shape = joined(any, any, any, any);
        return joined(text(1, name), part(2, part(1, joined(number(1, 1), part(2, shape)))));
    }

    private static byte[] number(int field, int value) {
        return new byte[] {(byte) (field << 3), (byte) value};
    }

    private static byte[] text(int field, String text) {
        return part(field, text.getBytes(StandardCharsets.US_ASCII));
    }

    private static byte[] part(int field, byte[] body) {
        return joined(new byte[] {(byte) (field << 3 | 2), (byte) body.length}, body);
    }

    private static byte[] joined(byte[]... parts) {
        var all = new ByteArrayOutputStream();
        for (byte[] one : parts) {
            all.writeBytes(one);
        }
        return all.toByteArray();
    }
}
