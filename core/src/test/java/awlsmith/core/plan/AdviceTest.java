package awlsmith.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import java.util.Map;
import org.junit.jupiter.api.Test;

class AdviceTest {
    private static Format bits(int depth) {
        return new Format(
                1920, 1080, Chroma.S422, Siting.LEFT, depth, ColourTags.UNKNOWN, Rational.ONE, Scan.PROGRESSIVE);
    }

    @Test
    void deepSourcesAreWorthKeepingForTheGrade() {
        Deliverable watch = Deliverable.usual(Codecs.H264);
        var advice = Advice.of(bits(10), false, watch).orElseThrow();
        assertThat(advice.preset().deliverable().codec()).isEqualTo(Codecs.PRORES);
        assertThat(advice.why()).contains("10 bits").contains("To cut");
        assertThat(Advice.of(bits(12), true, watch).orElseThrow().why())
                .contains("logarithmic")
                .contains("12 bits");
    }

    @Test
    void nothingIsAdvisedWhereNothingIsLost() {
        assertThat(Advice.of(bits(8), false, Deliverable.usual(Codecs.H264))).isEmpty();
        assertThat(Advice.of(bits(10), true, Deliverable.usual(Codecs.PRORES))).isEmpty();
        assertThat(Advice.of(bits(10), false, Deliverable.of("sound", Map.of(), true)))
                .isEmpty();
    }
}
