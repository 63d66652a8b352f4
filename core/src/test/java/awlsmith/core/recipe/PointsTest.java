package awlsmith.core.recipe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Settings that are more than a number: curves, colours and values over time. */
class PointsTest {
    private static final Format FILM =
            new Format(1920, 1080, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    @Test
    void betweenPointsGoesStraightAndOutsideStays() {
        var points = Points.parse("1:10, 2:20,4:0");
        assertThat(points.straight(0)).isEqualTo(10);
        assertThat(points.straight(1.5)).isEqualTo(15);
        assertThat(points.straight(3)).isEqualTo(10);
        assertThat(points.straight(9)).isZero();
        assertThat(points).hasToString("1:10,2:20,4:0");
    }

    /** Fritsch and Butland 1984: rises where its points rise, is level at a peak, and never passes a neighbour. */
    @Test
    void aSmoothCurveNeverSwingsBeyondItsPoints() {
        var points = Points.parse("0:0,0.2:0.05,0.5:0.8,0.8:0.82,1:1");
        double last = -1;
        for (double x = 0; x <= 1; x += 0.001) {
            double y = points.smooth(x);
            assertThat(y).isGreaterThanOrEqualTo(last).isBetween(0.0, 1.0);
            last = y;
        }
        for (Points.Point point : points.list()) {
            assertThat(points.smooth(point.x())).isCloseTo(point.y(), within(1e-12));
        }
        var peak = Points.parse("0:0,0.5:1,1:0");
        assertThat(peak.smooth(0.499)).isLessThan(1);
        assertThat(peak.smooth(0.5)).isEqualTo(1);
    }

    /** Worked by hand: slopes 1 and 3 over equal steps meet with their harmonic mean, 1.5. */
    @Test
    void slopesMeetWithTheirWeightedHarmonicMean() {
        var points = Points.parse("0:0,1:1,2:4");
        double slope = (points.smooth(1 + 1e-6) - points.smooth(1 - 1e-6)) / 2e-6;
        assertThat(slope).isCloseTo(1.5, within(1e-4));
        assertThat(points.smooth(-1)).isCloseTo(-1, within(1e-9));
        assertThat(points.smooth(3)).isCloseTo(7, within(1e-9));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "1", "1:2:3", "a:b", "1:1,1:2", "2:0,1:0", "0:NaN,1:1", "0:1,"})
    void whatIsNoCurveIsRefusedWithASentence(String text) {
        assertThatThrownBy(() -> Step.of("levels", Map.of("curve", text)))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("curve is")
                .hasMessageContaining("like 0:0,0.5:0.6,1:1");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "exposure | stops | 0:0,1:7 | stops is 7, outside",
                "exposure | stops | -1:0,1:1 | before the first frame",
                "exposure | neutral | red | not a colour like",
                "exposure | neutral | #12345 | not a colour like",
                "levels | curve | 0:0,1:3 | outside",
                "levels | curve | 0:0 | one point is no curve",
                "crop | left | 0:1,1:2 | not a whole number"
            })
    void aWrongValueIsRefusedWithASentence(String step, String key, String value, String sentence) {
        assertThatThrownBy(() -> Step.of(step, Map.of(key, value)))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining(sentence);
    }

    @Test
    void theOpenFormIsTextAndReadsBackTheSame() {
        var recipe = new Recipe(List.of(
                Step.parse("exposure stops=0:0.5,2.5:-1 neutral=#A0b0C0"),
                Step.parse("levels curve=0:0,0.5:0.6,1:1 black=5")));
        var tree = recipe.toTree();
        assertThat(tree.toString())
                .contains("stops=0:0.5,2.5:-1")
                .contains("neutral=#a0b0c0")
                .contains("curve=0:0,0.5:0.6,1:1");
        assertThat(Recipe.fromTree(tree)).isEqualTo(recipe);
    }

    /** White must stay above black at every time, also between where both are set. */
    @Test
    void blackAndWhiteMayNotMeetAtAnyTime() {
        var recipe = new Recipe(List.of(Step.parse("levels black=0:0,2:60 white=0:100,4:20")));
        assertThatThrownBy(() -> recipe.chain(FILM))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("2 s in")
                .hasMessageContaining("at least 1 % above black");
    }
}
