package awlsmith.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CodeScaleTest {

    /** ITU-R BT.709-6 item 4.6 and BT.2020-2 table 5: black, nominal peak, achromatic and peak of colour differences. */
    @ParameterizedTest
    @CsvSource({
        "8, 16, 235, 128, 16, 240",
        "10, 64, 940, 512, 64, 960",
        "12, 256, 3760, 2048, 256, 3840",
        "16, 4096, 60160, 32768, 4096, 61440"
    })
    void limitedRangeHasTheRecommendationsCodes(int depth, int black, int white, int grey, int low, int high) {
        var luma = CodeScale.of(ColourTags.Range.LIMITED, false, depth);
        var chroma = CodeScale.of(ColourTags.Range.LIMITED, true, depth);
        assertThat(luma.code(0)).isEqualTo(black);
        assertThat(luma.code(1)).isEqualTo(white);
        assertThat(chroma.code(0)).isEqualTo(grey);
        assertThat(chroma.code(-0.5)).isEqualTo(low);
        assertThat(chroma.code(0.5)).isEqualTo(high);
    }

    /** ITU-T H.273 equations 20 to 25 for VideoFullRangeFlag equal to 1. */
    @ParameterizedTest
    @CsvSource({"8, 255, 128", "10, 1023, 512", "16, 65535, 32768"})
    void fullRangeUsesEveryCode(int depth, int white, int grey) {
        var luma = CodeScale.of(ColourTags.Range.FULL, false, depth);
        assertThat(luma.code(0)).isZero();
        assertThat(luma.code(1)).isEqualTo(white);
        assertThat(CodeScale.of(ColourTags.Range.FULL, true, depth).code(0)).isEqualTo(grey);
    }

    @Test
    void codesBeyondNominalBlackAndWhiteComeThrough() {
        var luma = CodeScale.of(ColourTags.Range.LIMITED, false, 10);
        assertThat(luma.value(4)).isNegative().isCloseTo(-60f / 876, within(1e-6f));
        assertThat(luma.value(1019)).isGreaterThan(1.09f);
        for (int code = 0; code < 1024; code++) {
            assertThat(luma.code(luma.value(code))).isEqualTo(code);
        }
    }

    @Test
    void clipsOnlyAtTheCodeRange() {
        var luma = CodeScale.of(ColourTags.Range.LIMITED, false, 8);
        assertThat(luma.code(-0.5)).isZero();
        assertThat(luma.code(1.5)).isEqualTo(255);
    }
}
