package awlsmith.core.resample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class KernelTest {

    /**
     * Mitchell and Netravali 1988, equation 8, worked out by hand at a few points: k(0) = 1 - B/3, k(1) = B/6, k(1/2) and
     * k(3/2) from the two polynomials.
     */
    @ParameterizedTest
    @CsvSource({
        "MITCHELL, 0, 0.888888888888889",
        "MITCHELL, 1, 0.055555555555556",
        "MITCHELL, 0.5, 0.534722222222222",
        "MITCHELL, 1.5, -0.034722222222222",
        "MITCHELL, 2, 0",
        "CATMULL_ROM, 0, 1",
        "CATMULL_ROM, 1, 0",
        "CATMULL_ROM, 0.5, 0.5625",
        "CATMULL_ROM, 1.5, -0.0625"
    })
    void cubicsHaveThePapersValues(Kernel kernel, double x, double expected) {
        assertThat(kernel.at(x)).isCloseTo(expected, within(1e-12));
        assertThat(kernel.at(-x)).isEqualTo(kernel.at(x));
    }

    /** Duchon 1979: sinc(x) sinc(x / n); at half a sample sinc is 2 / pi. */
    @ParameterizedTest
    @CsvSource({"LANCZOS2, 2", "LANCZOS3, 3", "LANCZOS4, 4"})
    void lanczosIsTheWindowedSinc(Kernel kernel, int lobes) {
        double half = 2 / Math.PI * Math.sin(Math.PI / 2 / lobes) / (Math.PI / 2 / lobes);
        assertThat(kernel.at(0.5)).isCloseTo(half, within(1e-12));
        assertThat(kernel.at(0)).isEqualTo(1);
        for (int n = 1; n <= lobes; n++) {
            assertThat(kernel.at(n)).isCloseTo(0, within(1e-12));
        }
        assertThat(kernel.at(lobes + 0.3)).isZero();
    }

    @ParameterizedTest
    @EnumSource(Kernel.class)
    void weightsSumToOneForAnyRatio(Kernel kernel) {
        for (int target : new int[] {1, 7, 50, 99, 100, 101, 200, 333, 1000}) {
            var table = TapTable.of(kernel, 100, target, 100.0 / target, 0);
            for (int i = 0; i < target; i++) {
                double sum = 0;
                for (int k = 0; k < table.taps(); k++) {
                    sum += table.weight(i, k);
                }
                assertThat(sum).as("%s to %d at %d", kernel, target, i).isCloseTo(1, within(1e-6));
            }
        }
    }

    /** Cubics with B + 2C = 1 and the tent reproduce a straight ramp exactly (Mitchell and Netravali 1988, section 4). */
    @ParameterizedTest
    @EnumSource(
            value = Kernel.class,
            names = {"BILINEAR", "MITCHELL", "CATMULL_ROM"})
    void aRampStaysARamp(Kernel kernel) {
        var table = TapTable.of(kernel, 64, 160, 0.4, 0);
        for (int i = 20; i < 140; i++) {
            double value = 0;
            for (int k = 0; k < table.taps(); k++) {
                value += table.weight(i, k) * (table.first(i) + k);
            }
            assertThat(value).isCloseTo((i + 0.5) * 0.4 - 0.5, within(1e-4));
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = Kernel.class,
            names = {"MITCHELL"},
            mode = EnumSource.Mode.EXCLUDE)
    void interpolatingCurvesLeaveEqualSizesAlone(Kernel kernel) {
        assertThat(TapTable.of(kernel, 31, 31, 1, 0).isIdentity()).isTrue();
    }

    @Test
    void areaTakesTheExactMean() {
        var table = TapTable.of(Kernel.AREA, 10, 4, 2.5, 0);
        // target 0 covers samples 0, 1 and half of 2
        assertThat(table.weight(0, 0)).isCloseTo(0.4f, within(1e-6f));
        assertThat(table.weight(0, 1)).isCloseTo(0.4f, within(1e-6f));
        assertThat(table.weight(0, 2)).isCloseTo(0.2f, within(1e-6f));
    }

    @Test
    void edgesAreMirroredAtAnyDistance() {
        int[] expected = {1, 2, 2, 1, 0, 0, 1, 2, 2, 1, 0, 0, 1};
        for (int i = 0; i < expected.length; i++) {
            assertThat(TapTable.mirror(i - 5, 3)).isEqualTo(expected[i]);
        }
        assertThat(TapTable.mirror(-77, 1)).isZero();
    }

    /**
     * H.273 ChromaSampleLocType 0: chroma on the left luma column. Doubling a picture moves luma sample 0 by a quarter
     * pixel, and the chroma grid must follow the luma grid, not its own.
     */
    @Test
    void chromaFollowsTheLumaGrid() {
        var table = TapTable.forAxis(Kernel.BILINEAR, 64, 128, 2, 0);
        double centre = 0;
        for (int k = 0; k < table.taps(); k++) {
            centre += table.weight(40, k) * (table.first(40) + k);
        }
        // target chroma 40 lies on target luma 80 = source luma 39.75 = source chroma 19.875
        assertThat(centre).isCloseTo(19.875, within(1e-5));
        var middle = TapTable.forAxis(Kernel.BILINEAR, 64, 128, 2, 0.5);
        centre = 0;
        for (int k = 0; k < middle.taps(); k++) {
            centre += middle.weight(40, k) * (middle.first(40) + k);
        }
        // type 1: target chroma 40 lies at target luma 80.5 = source luma 40 = source chroma 19.75
        assertThat(centre).isCloseTo(19.75, within(1e-5));
    }
}
