package awlsmith.trainer.net;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Plane;
import awlsmith.trainer.onnx.OnnxFile;
import awlsmith.trainer.run.OnnxRun;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WeightsTest {
    @TempDir
    Path folder;

    private static Weights drawn(NetShape shape) {
        var random = new SplittableRandom(3);
        var arrays = new ArrayList<float[]>();
        for (int i = 0; i < shape.layers(); i++) {
            float[] w = new float[shape.in(i) * shape.out(i) * 9];
            float[] b = new float[shape.out(i)];
            for (int k = 0; k < w.length; k++) {
                w[k] = (float) (0.2 * random.nextGaussian());
            }
            for (int k = 0; k < b.length; k++) {
                b[k] = (float) (0.2 * random.nextGaussian());
            }
            arrays.add(w);
            arrays.add(b);
        }
        return new Weights(shape, arrays);
    }

    private static Plane picture(int seed) {
        var random = new SplittableRandom(seed);
        Plane p = Plane.of(20, 16);
        for (int i = 0; i < p.data().length; i++) {
            p.data()[i] = (float) random.nextDouble();
        }
        return p;
    }

    private float[] answer(Weights weights, List<Plane> shown) throws Exception {
        Path file = folder.resolve("net.onnx");
        OnnxFile.write(file, weights, Map.of());
        int factor = weights.shape().factor();
        Plane out = Plane.of(20 * factor, 16 * factor);
        try (var run = new OnnxRun(file)) {
            run.run(shown, out);
        }
        return out.packed();
    }

    @ParameterizedTest
    @CsvSource({"2, 1", "1, 2"})
    void moreBlocksAndPlanesChangeNothingYet(int factor, int step) throws Exception {
        Weights small = drawn(new NetShape(1, 6, 2, factor, step));
        Weights large = small.widened(5).deepened(4, 9);
        assertThat(large.shape()).isEqualTo(new NetShape(5, 6, 4, factor, step));
        float[] one = answer(small, List.of(picture(1)));
        float[] five = answer(large, List.of(picture(1), picture(2), picture(3), picture(4), picture(5)));
        for (int i = 0; i < one.length; i++) {
            assertThat(five[i]).isCloseTo(one[i], org.assertj.core.data.Offset.offset(1e-4f));
        }
    }

    @Test
    void fewerAreRefused() {
        Weights weights = drawn(new NetShape(3, 4, 2, 2, 1));
        assertThatThrownBy(() -> weights.widened(1)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> weights.deepened(1, 1)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void narrowingKeepsTheChannelsThatCarrySomething() {
        // channels 1 and 4 of six are made of little and read by little, everywhere
        Weights wide = drawn(new NetShape(2, 6, 2, 2, 1));
        NetShape shape = wide.shape();
        for (int i = 0; i < shape.layers(); i++) {
            for (int k = 0; k < wide.weight(i).length; k++) {
                int out = k / 9 / shape.in(i);
                int in = k / 9 % shape.in(i);
                boolean dead = i < shape.layers() - 1 && (out == 1 || out == 4) || i > 0 && (in == 1 || in == 4);
                wide.weight(i)[k] *= dead ? 1e-12f : 1;
            }
        }
        Weights narrow = wide.narrowed(4);
        assertThat(narrow.shape()).isEqualTo(new NetShape(2, 4, 2, 2, 1));
        int[] kept = {0, 2, 3, 5};
        for (int i = 0; i < shape.layers(); i++) {
            int outs = narrow.shape().out(i);
            int ins = narrow.shape().in(i);
            for (int k = 0; k < outs; k++) {
                int from = i == shape.layers() - 1 ? k : kept[k];
                assertThat(narrow.bias(i)[k]).isEqualTo(wide.bias(i)[from]);
                for (int c = 0; c < ins; c++) {
                    int seen = i == 0 ? c : kept[c];
                    assertThat(narrow.weight(i)[(k * ins + c) * 9 + 4])
                            .isEqualTo(wide.weight(i)[(from * shape.in(i) + seen) * 9 + 4]);
                }
            }
        }
        assertThat(wide.narrowed(6)).isSameAs(wide);
        assertThatThrownBy(() -> wide.narrowed(7)).hasMessageContaining("6 channels cannot become one of 7");
    }
}
