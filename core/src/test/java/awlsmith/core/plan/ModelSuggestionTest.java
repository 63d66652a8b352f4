package awlsmith.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** The limits are common practice, no source; the arithmetic is bits a second over pixels a second. */
class ModelSuggestionTest {
    @Test
    void strongCompressionAndOldCodecsSpeakForWorn() {
        assertThat(ModelSuggestion.of("h264", "H.264", 320, 240, 12.5, 51_658))
                .isEqualTo(new ModelSuggestion("worn", "0.05 bits a pixel in H.264 is strong compression"));
        assertThat(ModelSuggestion.of("mpeg2video", "MPEG-2", 720, 576, 25, 6_200_000))
                .isEqualTo(new ModelSuggestion("worn", "MPEG-2 is a codec of tapes, discs and early cameras"));
    }

    @Test
    void lightCompressionAndUnknownRatesDoNot() {
        assertThat(ModelSuggestion.of("h264", "H.264", 640, 360, 30, 1_161_000))
                .isEqualTo(new ModelSuggestion("photographic", "0.17 bits a pixel in H.264 is light compression"));
        assertThat(ModelSuggestion.of("hevc", "H.265", 1920, 1080, 25, 4_000_000)
                        .model())
                .isEqualTo("photographic");
        assertThat(ModelSuggestion.of("ffv1", "FFV1", 720, 576, 25, 0).model()).isEqualTo("photographic");
    }
}
