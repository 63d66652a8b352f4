package awlsmith.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.junit.jupiter.api.Test;

class NumberArrayTest {
    private final float[] values = {1.5f, -2, Float.MIN_VALUE, 3e30f};

    @Test
    void comesBackAsItWas() {
        assertThat(NumberArray.read(NumberArray.write(values))).isEqualTo(values);
    }

    /** Source: NumPy documentation, numpy.lib.format, "Format Version 1.0": numbers start at a multiple of 64. */
    @Test
    void isLaidOutAsNumpyDocumentsIt() {
        byte[] file = NumberArray.write(values);
        assertThat(Arrays.copyOf(file, 8)).isEqualTo(new byte[] {(byte) 0x93, 'N', 'U', 'M', 'P', 'Y', 1, 0});
        int header = (file[8] & 255) + ((file[9] & 255) << 8);
        assertThat((10 + header) % 64).isZero();
        String text = new String(file, 10, header, StandardCharsets.US_ASCII);
        assertThat(text)
                .startsWith("{'descr': '<f4', 'fortran_order': False, 'shape': (4,), }")
                .endsWith("\n");
        assertThat(file.length).isEqualTo(10 + header + 16);
    }

    @Test
    void damageIsSeen() {
        byte[] file = NumberArray.write(values);
        for (int length : new int[] {0, 5, 9, 40, file.length - 1, file.length - 4}) {
            assertThatThrownBy(() -> NumberArray.read(Arrays.copyOf(file, length)))
                    .isInstanceOf(IllegalArgumentException.class);
        }
        byte[] other = file.clone();
        other[1] = 'X';
        assertThatThrownBy(() -> NumberArray.read(other)).hasMessageContaining("not an NPY file");
    }
}
