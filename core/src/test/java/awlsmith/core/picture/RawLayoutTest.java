package awlsmith.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RawLayoutTest {
    private static Format format(int width, int height, Chroma chroma, int depth) {
        return new Format(width, height, chroma, Siting.LEFT, depth, ColourTags.UNKNOWN, Rational.ONE);
    }

    @ParameterizedTest
    @CsvSource({
        "S420, 8, 64, 48",
        "S420, 8, 1, 1",
        "S420, 10, 37, 23",
        "S422, 12, 33, 2",
        "S444, 16, 19, 5",
        "RGB, 8, 21, 9",
        "RGB, 16, 8, 8",
        "GREY, 8, 17, 3"
    })
    void wholeCodesComeBackAsTheyWereThroughTheDither(Chroma chroma, int depth, int width, int height) {
        var layout = new RawLayout(format(width, height, chroma, depth));
        byte[] raw = new byte[layout.frameBytes()];
        new Random(7).nextBytes(raw);
        if (depth > 8 && depth < 16) {
            for (int i = 1; i < raw.length; i += 2) {
                raw[i] &= (byte) ((1 << (depth - 8)) - 1);
            }
        }
        Frame frame = Frame.blank(layout.format(), layout.format().whole(), 0, Rational.ZERO, new PlanePool(0));
        layout.unpack(raw, frame);
        byte[] back = new byte[raw.length];
        layout.pack(frame, back);
        assertThat(back).isEqualTo(raw);
    }

    @Test
    void aWindowReadsTheSameSamplesAsTheWhole() {
        Format format = format(40, 30, Chroma.S420, 8);
        var layout = new RawLayout(format);
        byte[] raw = new byte[layout.frameBytes()];
        new Random(3).nextBytes(raw);
        var pool = new PlanePool(0);
        Frame whole = Frame.blank(format, format.whole(), 0, Rational.ZERO, pool);
        layout.unpack(raw, whole);
        var part = new Region(10, 8, 17, 9);
        Frame window = Frame.blank(format, part, 0, Rational.ZERO, pool);
        layout.unpack(raw, window);
        for (int p = 0; p < 3; p++) {
            assertThat(window.plane(p).packed())
                    .isEqualTo(whole.cut(part).plane(p).packed());
        }
    }

    /** Rounding to fewer levels must keep the mean: that is what dither is for. */
    @Test
    void aLevelBetweenTwoCodesKeepsItsMean() {
        Format format = format(Dither.SIDE, Dither.SIDE, Chroma.GREY, 8);
        var layout = new RawLayout(format);
        var scale = CodeScale.of(format, 0);
        byte[] raw = new byte[layout.frameBytes()];
        for (double level : new double[] {100.1, 100.25, 100.5, 100.77}) {
            Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, new PlanePool(0));
            frame.plane(0).fill((float) ((level - scale.zero()) / scale.span()));
            layout.pack(frame, raw);
            double sum = 0;
            for (byte b : raw) {
                sum += b & 0xff;
            }
            assertThat(sum / raw.length).isCloseTo(level, within(0.012));
        }
    }

    @Test
    void refusesFramesThatNoArrayHolds() {
        assertThatThrownBy(() -> new RawLayout(format(32768, 32768, Chroma.RGB, 16)))
                .hasMessageContaining("must stay under 2 GiB");
    }
}
