package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Rational;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TimesTest {
    @ParameterizedTest
    @CsvSource({"12.5, 25/2", "0, 0", "1:02.5, 125/2", "1:02:03, 3723", "90, 90"})
    void readsSecondsAndClocks(String text, String seconds) {
        assertThat(Times.parse(text)).isEqualTo(Rational.parse(seconds));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "x", "-1", "1:60", "1.5:00", "1:2:3:4", "::"})
    void refusesTheRestWithAnExample(String text) {
        assertThatThrownBy(() -> Times.parse(text)).hasMessageContaining("1:02.5");
    }
}
