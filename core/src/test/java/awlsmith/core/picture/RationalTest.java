package awlsmith.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RationalTest {

    @Test
    void keepsLowestTermsAndAPositiveDenominator() {
        assertThat(new Rational(-6, -8)).isEqualTo(new Rational(3, 4));
        assertThat(new Rational(6, -8)).isEqualTo(new Rational(-3, 4));
        assertThat(new Rational(0, 5)).isEqualTo(Rational.ZERO);
    }

    /** Rates of film and NTSC television: SMPTE ST 2048-1 table 1 (24/1.001) and BT.601/BT.1543 (60/1.001). */
    @ParameterizedTest
    @CsvSource({"24000/1001, 517482", "30000/1001, 647352", "60000/1001, 1294705"})
    void framesOfSixHoursLieExactlyWhereTheyBelong(String rateText, long frames) {
        Rational rate = Rational.parse(rateText);
        Rational time = Rational.ZERO;
        Rational step = rate.inverse();
        for (int i = 0; i < 1001; i++) {
            time = time.plus(step);
        }
        // 1001 frames last exactly 1001 * 1001 / (n * 1000) seconds
        assertThat(time).isEqualTo(new Rational(1001L * 1001, rate.num()));
        Rational late = Rational.of(frames).dividedBy(rate);
        assertThat(late.times(rate)).isEqualTo(Rational.of(frames));
        // on MPEG's 90 kHz clock (ISO/IEC 13818-1) a frame is a whole number of ticks at 30000/1001: 3003
        if (rate.num() == 30000) {
            assertThat(late.ticks(new Rational(1, 90000))).isEqualTo(frames * 3003);
        }
    }

    @ParameterizedTest
    @CsvSource({"1/3, 1/2, 1", "-1/3, 1/2, -1", "1/4, 1/2, 1", "-1/4, 1/2, 0", "7/2, 1, 4", "0, 1/25, 0"})
    void countsTicksToTheNearestHalvesUp(String value, String tick, long expected) {
        assertThat(Rational.parse(value).ticks(Rational.parse(tick))).isEqualTo(expected);
    }

    @Test
    void readsTheWaysPeopleAndFilesWriteFractions() {
        assertThat(Rational.parse("30000/1001")).isEqualTo(new Rational(30000, 1001));
        assertThat(Rational.parse("16:15")).isEqualTo(new Rational(16, 15));
        assertThat(Rational.parse("12.50")).isEqualTo(new Rational(25, 2));
        assertThat(Rational.parse(" 25 ")).isEqualTo(Rational.of(25));
        assertThat(Rational.parse("1e2")).isEqualTo(Rational.of(100));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "x", "1/0", "1/2/3", "1e99", "0.0000000000000000000001", "nan"})
    void refusesWhatIsNoFraction(String text) {
        assertThatThrownBy(() -> Rational.parse(text)).isInstanceOfAny(IllegalArgumentException.class);
    }

    @Test
    void saysWhenAResultDoesNotFitInsteadOfRounding() {
        Rational odd = new Rational(1, (1L << 62) - 1);
        assertThatThrownBy(() -> odd.plus(new Rational(1, (1L << 61) - 1))).isInstanceOf(ArithmeticException.class);
    }
}
