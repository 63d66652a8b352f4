package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SegmentSizeTest {
    /** About ten seconds' work; whole groups of pictures where one takes no longer, and never less than a dozen frames. */
    @ParameterizedTest
    @CsvSource({
        "0.1, 48, 96",
        "0.08, 48, 96",
        "0.2, 48, 48",
        "0.5, 48, 20",
        "40, 48, 12",
        "0.001, 48, 960",
        "0.02, 250, 500",
        "0.001, 250, 750",
        "0.001, 600, 600",
        "0, 48, 960",
        "0.05, 1, 200",
        "3, 1, 12",
        "0.0001, 1, 960"
    })
    void aSegmentIsTenSecondsWork(double seconds, int gop, int frames) {
        assertThat(SegmentSize.fitting(seconds, gop)).isEqualTo(frames);
    }
}
