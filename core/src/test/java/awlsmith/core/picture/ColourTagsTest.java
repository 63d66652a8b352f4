package awlsmith.core.picture;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.picture.ColourTags.Matrix;
import awlsmith.core.picture.ColourTags.Primaries;
import awlsmith.core.picture.ColourTags.Range;
import awlsmith.core.picture.ColourTags.Transfer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ColourTagsTest {
    private static ColourTags matrixOnly(Matrix matrix) {
        return new ColourTags(matrix, Range.UNSPECIFIED, Transfer.UNSPECIFIED, Primaries.UNSPECIFIED);
    }

    /**
     * Each matrix with the curve and primaries of its own recommendation: ITU-R BT.709-6, BT.601-7 (625 and 525 lines), BT.2020-2, SMPTE
     * 240M. Code points by ITU-T H.273 tables 2 to 4.
     */
    @ParameterizedTest
    @CsvSource({
        "BT709, 1080, 1, 1",
        "BT470BG, 576, 6, 5",
        "SMPTE170M, 480, 6, 6",
        "SMPTE170M, 576, 6, 5",
        "SMPTE170M, 288, 6, 5",
        "BT2020NC, 2160, 14, 9",
        "SMPTE240M, 1035, 7, 7",
        // untagged: BT.601 up to 576 lines, BT.709 above (common practice, no source)
        "UNSPECIFIED, 480, 6, 6",
        "UNSPECIFIED, 720, 1, 1"
    })
    void whatAFileDoesNotTellIsThatOfItsMatrix(Matrix matrix, int lines, int transfer, int primaries) {
        ColourTags all = matrixOnly(matrix).resolved(Chroma.S420, lines);
        assertThat(all.transfer().code()).isEqualTo(transfer);
        assertThat(all.primaries().code()).isEqualTo(primaries);
        assertThat(all.range()).isEqualTo(Range.LIMITED);
        assertThat(all.matrix()).isNotEqualTo(Matrix.UNSPECIFIED);
    }

    /** IEC 61966-2-1: pictures without a matrix have sRGB's curve and BT.709's primaries (common practice, no source). */
    @Test
    void picturesWithoutAMatrixAreTakenForThoseOfScreens() {
        ColourTags all = matrixOnly(Matrix.RGB).resolved(Chroma.RGB, 720);
        assertThat(all.transfer()).isEqualTo(Transfer.IEC61966_2_1);
        assertThat(all.primaries()).isEqualTo(Primaries.BT709);
        assertThat(all.range()).isEqualTo(Range.FULL);
    }

    @Test
    void whatAFileTellsStays() {
        var told = new ColourTags(Matrix.BT2020NC, Range.FULL, Transfer.SMPTE2084, Primaries.SMPTE432);
        assertThat(told.resolved(Chroma.S420, 480)).isEqualTo(told);
    }
}
