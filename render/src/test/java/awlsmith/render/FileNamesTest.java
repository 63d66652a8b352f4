package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Tags;
import awlsmith.media.MediaException;
import java.time.LocalDate;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FileNamesTest {
    private static FileNames.Facts facts(String clip) {
        var format = new Format(1440, 1080, Chroma.S420, Siting.LEFT, 10, ColourTags.UNKNOWN, Rational.ONE);
        return new FileNames.Facts(
                clip,
                "B",
                format,
                30000 / 1001.0,
                Deliverable.of("h265", Map.of(), true),
                LocalDate.of(2026, 11, 28),
                7);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{clip} {take} {size} | Pier at dusk B 1440x1080.mp4",
                "{date} {number} {lines} {rate} | 2026-11-28 007 1080 29.97.mp4",
                "{codec}-{depth} | H265-10.mp4",
                "as it stands.MP4 | as it stands.mp4"
            })
    void wordsStandForWhatIsMade(String pattern, String name) {
        assertThat(FileNames.of(pattern, facts("Pier at dusk.mov"), Set.of())).isEqualTo(name);
    }

    /** Whatever a clip is called, its file has a name; what is there already is not overwritten. */
    @Test
    void everyClipHasANameOfItsOwn() {
        assertThat(FileNames.of("{clip}", facts("../../etc/pass$1\\wd"), Set.of()))
                .isEqualTo("_._.._etc_pass_1_wd.mp4");
        assertThat(FileNames.of("{clip}", facts(".hidden"), Set.of())).isEqualTo("_hidden.mp4");
        assertThat(FileNames.of("{clip}", facts("Pier"), Set.of("pier.mp4", "pier 2.mp4")))
                .isEqualTo("Pier 3.mp4");
    }

    @Test
    void theSameWordsStandInWhatAFileSaysOfItself() {
        var tags = new Tags(Map.of("title", "{clip}: take {take}, {lines} lines", "artist", ""));
        assertThat(FileNames.told(tags, facts("Pier: at/dusk")).values())
                .isEqualTo(Map.of("title", "Pier: at/dusk: take B, 1080 lines", "artist", ""));
        assertThatThrownBy(() -> FileNames.told(new Tags(Map.of("title", "{author}")), facts("Pier")))
                .isInstanceOf(MediaException.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"{author}", "", "  ", "../{clip}", "a/b", ".mp4", "x:y", "{clip}?"})
    void whatIsNoNameIsSaidToBeSo(String pattern) {
        assertThatThrownBy(() -> FileNames.of(pattern, facts("Pier"), Set.of()))
                .isInstanceOf(MediaException.class)
                .hasMessageMatching(".*(means nothing in a name|letters before its ending|cannot begin with a dot).*");
    }

    @Test
    void aPatternIsLookedAtBeforeAnythingIsNamed() {
        FileNames.check("{clip} {take} {size} {lines} {rate} {codec} {depth} {date} {number}");
        assertThatThrownBy(() -> FileNames.check("{clip} {year}")).hasMessageContaining("{year} means nothing");
        assertThatThrownBy(() -> FileNames.check("a/{clip}")).hasMessageContaining("cannot begin with a dot or hold");
        assertThatThrownBy(() -> FileNames.check("  ")).hasMessageContaining("1 to 150 letters");
    }
}
