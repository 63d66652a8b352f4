package awlsmith.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimeCodeTest {
    private static final Rational NTSC = new Rational(30000, 1001);

    /**
     * Source: SMPTE ST 12-1, drop-frame compensation: 108 numbers are dropped an hour, so an hour holds 107 892 frames and
     * ten minutes 17 982; the first minute ends with :29 and goes on with ;02.
     */
    @ParameterizedTest
    @CsvSource({
        "00:00:00;00, 0",
        "00:00:59;29, 1799",
        "00:01:00;02, 1800",
        "00:02:00;02, 3598",
        "00:09:59;29, 17981",
        "00:10:00;00, 17982",
        "01:00:00;00, 107892",
        "23:59:59;29, 2589407"
    })
    void droppedNumbersKeepStepWithTheClock(String text, long frame) {
        assertThat(TimeCode.parse(text, NTSC).orElseThrow().frame()).isEqualTo(frame);
        assertThat(new TimeCode(frame, 30, true)).hasToString(text);
    }

    @ParameterizedTest
    @CsvSource({"10:00:00:00,25,900000", "00:01:00:00,25,1500", "01:02:03:04,24,89356", "00:00:01:00,60,60"})
    void otherLabelsAreOnlyCounted(String text, int rate, long frame) {
        var code = TimeCode.parse(text, Rational.of(rate)).orElseThrow();
        assertThat(code.frame()).isEqualTo(frame);
        assertThat(code).hasToString(text);
    }

    @ParameterizedTest
    @CsvSource({"00:01:00;01", "00:00:61:00", "00:00:00:30", "yesterday", "1:2:3"})
    void whatIsNoLabelIsNone(String text) {
        assertThat(TimeCode.parse(text, NTSC)).isEmpty();
    }

    @Test
    void labelsAreCountedOnAndFiner() {
        var code = TimeCode.parse("23:59:59:24", Rational.of(25)).orElseThrow();
        assertThat(code.plus(1)).hasToString("00:00:00:00");
        assertThat(TimeCode.parse("00:00:59;29", NTSC).orElseThrow().plus(1)).hasToString("00:01:00;02");
        assertThat(TimeCode.parse("00:10:00:05", Rational.of(25)).orElseThrow().times(2))
                .hasToString("00:10:00:10");
        assertThatThrownBy(() -> new TimeCode(0, 25, true)).hasMessageContaining("30 and its multiples");
    }

    /** Every label of a day's first hour reads back as itself. */
    @Test
    void writingAndReadingAreInverse() {
        for (long n = 0; n < 107_892; n += 7) {
            assertThat(TimeCode.parse(new TimeCode(n, 30, true).toString(), NTSC)
                            .orElseThrow()
                            .frame())
                    .isEqualTo(n);
        }
    }

    /** The label of the same second; of its frames the one below (common practice, no source). */
    @ParameterizedTest
    @CsvSource({
        "01:02:03:12, 25, 50, 01:02:03:24",
        "01:02:03:12, 25, 25, 01:02:03:12",
        "10:00:00;28, 30000/1001, 24000/1001, 10:00:00:22",
        "01:02:03:13, 25, 24, 01:02:03:12",
        "10:00:00:00, 25, 25/2,",
        "10:00:00:00, 25, 47,10:00:00:00"
    })
    void aMomentIsCountedAtAnotherRate(String label, String rate, String other, String wanted) {
        Optional<String> found = TimeCode.parse(label, Rational.parse(rate))
                .orElseThrow()
                .at(Rational.parse(other))
                .map(TimeCode::toString);
        assertThat(found).isEqualTo(Optional.ofNullable(wanted));
    }
}
