package awlsmith.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.CodeScale;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ColourTest {
    private static final PlanePool POOL = new PlanePool(0);

    private static Format format(int width, int height, Chroma chroma, ColourTags.Matrix matrix) {
        var tags = new ColourTags(
                matrix, ColourTags.Range.LIMITED, ColourTags.Transfer.UNSPECIFIED, ColourTags.Primaries.UNSPECIFIED);
        return new Format(width, height, chroma, Siting.LEFT, 8, tags, Rational.ONE);
    }

    /** ITU-R BT.601-7 2.5.1, BT.709-6 3.2 and 3.3, BT.2020-2 table 4: luma weights and divisors of the differences. */
    @ParameterizedTest
    @CsvSource({
        "SMPTE170M, 0.299, 0.587, 0.114, 1.772, 1.402",
        "BT470BG, 0.299, 0.587, 0.114, 1.772, 1.402",
        "BT709, 0.2126, 0.7152, 0.0722, 1.8556, 1.5748",
        "BT2020NC, 0.2627, 0.6780, 0.0593, 1.8814, 1.4746"
    })
    void matricesAreTheRecommendations(
            ColourTags.Matrix matrix, double r, double g, double b, double cbDivisor, double crDivisor) {
        var m = LumaChroma.of(matrix);
        assertThat(m.luma(1, 0, 0)).isCloseTo(r, within(1e-9));
        assertThat(m.luma(0, 1, 0)).isCloseTo(g, within(1e-9));
        assertThat(m.luma(0, 0, 1)).isCloseTo(b, within(1e-9));
        assertThat(m.cbToB()).isCloseTo(cbDivisor, within(1e-9));
        assertThat(m.crToR()).isCloseTo(crDivisor, within(1e-9));
        assertThat(m.cb(m.luma(0, 0, 1), 1)).isCloseTo(0.5, within(1e-9));
        assertThat(m.cr(m.luma(1, 0, 0), 1)).isCloseTo(0.5, within(1e-9));
    }

    /**
     * 75 % colour bars in 8-bit BT.601 code values, as printed in ITU-R BT.1729 for the 4:3 pattern: yellow 162 44 142, cyan
     * 131 156 44, green 112 72 58, magenta 84 184 198, red 65 100 212, blue 35 212 114 (values from memory).
     */
    @ParameterizedTest
    @CsvSource({
        "1, 1, 0, 162, 44, 142",
        "0, 1, 1, 131, 156, 44",
        "0, 1, 0, 112, 72, 58",
        "1, 0, 1, 84, 184, 198",
        "1, 0, 0, 65, 100, 212",
        "0, 0, 1, 35, 212, 114"
    })
    void colourBarsHaveTheirCodes(int r, int g, int b, int y, int cb, int cr) {
        var m = LumaChroma.of(ColourTags.Matrix.SMPTE170M);
        double luma = m.luma(0.75 * r, 0.75 * g, 0.75 * b);
        var lumaScale = CodeScale.of(ColourTags.Range.LIMITED, false, 8);
        var chromaScale = CodeScale.of(ColourTags.Range.LIMITED, true, 8);
        assertThat(lumaScale.code(luma)).isEqualTo(y);
        assertThat(chromaScale.code(m.cb(luma, 0.75 * b))).isEqualTo(cb);
        assertThat(chromaScale.code(m.cr(luma, 0.75 * r))).isEqualTo(cr);
    }

    @Test
    void rgbGoesThroughLumaAndChromaToTheScreenUnchanged() {
        Format rgb = format(16, 8, Chroma.RGB, ColourTags.Matrix.RGB);
        Format yuv = format(16, 8, Chroma.S444, ColourTags.Matrix.BT709);
        Frame in = Frame.blank(rgb, rgb.whole(), 0, Rational.ZERO, POOL);
        var random = new Random(8);
        for (int p = 0; p < 3; p++) {
            for (int i = 0; i < 128; i++) {
                in.plane(p).data()[i] = random.nextInt(256) / 255f;
            }
        }
        var stage = LayoutStages.between(rgb, yuv).getFirst();
        Frame out = stage.treat(d -> in, yuv.whole(), POOL, Work.alone());
        byte[] a = ScreenPicture.of(in, rgb.whole(), 1, POOL, Work.alone()).rgb();
        byte[] b = ScreenPicture.of(out, yuv.whole(), 1, POOL, Work.alone()).rgb();
        for (int i = 0; i < a.length; i++) {
            assertThat(Math.abs((a[i] & 0xff) - (b[i] & 0xff))).isLessThanOrEqualTo(1);
        }
    }

    @Test
    void whiteAndBlackOfTheScreenAreWhiteAndBlackOfTheVideo() {
        Format yuv = format(4, 4, Chroma.S420, ColourTags.Matrix.BT709);
        for (float level : new float[] {-0.05f, 0, 1, 1.08f}) {
            Frame frame = Frame.blank(yuv, yuv.whole(), 0, Rational.ZERO, POOL);
            frame.plane(0).fill(level);
            frame.plane(1).fill(0);
            frame.plane(2).fill(0);
            byte[] rgb =
                    ScreenPicture.of(frame, yuv.whole(), 1, POOL, Work.alone()).rgb();
            assertThat(rgb).containsOnly((byte) (level < 0.5 ? 0 : 255));
        }
    }

    @Test
    void anyPartOfTheScreenPictureIsCutFromTheWhole() {
        for (Chroma chroma : Chroma.values()) {
            Format format = format(31, 21, chroma, ColourTags.Matrix.BT709);
            Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, POOL);
            var random = new Random(2);
            frame.planes().forEach(plane -> {
                for (int i = 0; i < plane.data().length; i++) {
                    plane.data()[i] = random.nextFloat() * 0.5f;
                }
            });
            var whole = ScreenPicture.of(frame, format.whole(), 1, POOL, Work.alone());
            var part = new Region(7, 5, 13, 9);
            Frame needed = frame.cut(ScreenPicture.needs(format, part));
            var cut = ScreenPicture.of(needed, part, 1, POOL, Work.alone());
            for (int y = 0; y < 9; y++) {
                for (int i = 0; i < 39; i++) {
                    assertThat(cut.rgb()[y * 39 + i]).isEqualTo(whole.rgb()[((5 + y) * 31 + 7) * 3 + i]);
                }
            }
        }
    }

    @Test
    void reducedPicturesAreMeans() {
        Format grey = format(5, 4, Chroma.GREY, ColourTags.Matrix.BT709);
        Frame frame = Frame.blank(grey, grey.whole(), 0, Rational.ZERO, POOL);
        for (int i = 0; i < 20; i++) {
            frame.plane(0).data()[i] = (i % 5) / 5f;
        }
        var half = ScreenPicture.of(frame, grey.whole(), 2, POOL, Work.alone());
        assertThat(half.width()).isEqualTo(3);
        assertThat(half.rgb()[0] & 0xff).isEqualTo(Math.round(0.1f * 255));
        assertThat(half.rgb()[6] & 0xff).isEqualTo(Math.round(0.8f * 255));
    }

    @ParameterizedTest
    @CsvSource({"S444, S420", "S422, S420", "S420, S444", "GREY, S420", "RGB, S420"})
    void layoutsComeOutWithTheirChromaInPlace(Chroma from, Chroma to) {
        Format in = format(32, 16, from, from == Chroma.RGB ? ColourTags.Matrix.RGB : ColourTags.Matrix.BT709);
        Format out = format(32, 16, to, ColourTags.Matrix.BT709);
        Frame frame = Frame.blank(in, in.whole(), 0, Rational.ZERO, POOL);
        for (int p = 0; p < from.planes(); p++) {
            // a ramp across: its place tells where the chroma samples lie
            int step = from.stepX(p);
            for (int y = 0; y < frame.plane(p).height(); y++) {
                for (int x = 0; x < frame.plane(p).width(); x++) {
                    frame.plane(p).set(x, y, from == Chroma.RGB ? x / 64f : x * step / 128f);
                }
            }
        }
        Frame now = frame;
        for (var stage : LayoutStages.between(in, out)) {
            Frame before = now;
            now = stage.treat(d -> before, out.whole(), POOL, Work.alone());
        }
        assertThat(now.format().chroma()).isEqualTo(to);
        for (int x = 3; x < now.plane(1).width() - 3; x++) {
            float expected = from == Chroma.GREY || from == Chroma.RGB ? 0 : x * to.stepX() / 128f;
            assertThat(now.plane(1).at(x, 3)).isCloseTo(expected, within(2e-4f));
        }
    }

    /** Code values 15 and 236 of 8-bit video lie beyond black and white (BT.601-7 2.5.3), 16 and 235 do not. */
    @Test
    void whatLiesBeyondBlackAndWhiteIsMarked() {
        Format grey = new Format(4, 1, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        Frame frame = Frame.blank(grey, grey.whole(), 0, Rational.ZERO, POOL);
        int[] codes = {15, 16, 235, 236};
        for (int x = 0; x < 4; x++) {
            frame.plane(0).set(x, 0, (codes[x] - 16) / 219f);
        }
        byte[] plain =
                ScreenPicture.of(frame, grey.whole(), 1, POOL, Work.alone()).rgb();
        byte[] marked = ScreenPicture.of(frame, grey.whole(), 1, true, POOL, Work.alone())
                .rgb();
        assertThat(marked[0] & 255).isEqualTo(60);
        assertThat(marked[2] & 255).isEqualTo(255);
        assertThat(marked[9] & 255).isEqualTo(255);
        assertThat(marked[11] & 255).isEqualTo(60);
        for (int i = 3; i < 9; i++) {
            assertThat(marked[i]).isEqualTo(plain[i]);
        }
    }
}
