package awlsmith.core.mark;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.nio.charset.StandardCharsets;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class MarkTest {
    private static final PlanePool POOL = new PlanePool(0);

    private static Format format(Chroma chroma, int width, int height) {
        return new Format(width, height, chroma, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    private static Frame painted(Format format, long seed) {
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, POOL);
        var random = new SplittableRandom(seed);
        frame.planes().forEach(plane -> {
            for (int y = 0; y < plane.height(); y++) {
                for (int x = 0; x < plane.width(); x++) {
                    plane.set(x, y, (float) random.nextDouble());
                }
            }
        });
        return frame;
    }

    private static Frame treated(Stage stage, Frame frame, Region part) {
        return stage.treat(
                new Stage.Neighbours() {
                    @Override
                    public Frame at(int distance) {
                        return frame;
                    }
                },
                part,
                POOL,
                Work.alone());
    }

    /** Straight bytes: red, half clear green, clear. */
    private static MarkPicture three() {
        byte[] rgba = {(byte) 255, 0, 0, (byte) 255, 0, (byte) 255, 0, (byte) 128, (byte) 255, (byte) 255, (byte) 255, 0
        };
        return MarkPicture.read(MarkPicture.write(3, 1, rgba));
    }

    /** Figures by hand from Porter and Duff's "over": colour times opacity, and what is left of the picture. */
    @Test
    void isLaidOverByItsOpacity() {
        Format format = format(Chroma.RGB, 8, 4);
        Frame frame = painted(format, 1);
        Frame made = treated(new MarkStage(format, three(), 2, 1), frame, format.whole());
        assertThat(made.plane(0).at(2, 1)).isEqualTo(1);
        assertThat(made.plane(1).at(2, 1)).isZero();
        float a = 128 / 255f;
        assertThat(made.plane(1).at(3, 1))
                .isCloseTo(a + (1 - a) * frame.plane(1).at(3, 1), within(1e-6f));
        assertThat(made.plane(0).at(3, 1)).isCloseTo((1 - a) * frame.plane(0).at(3, 1), within(1e-6f));
        assertThat(made.plane(2).at(4, 1)).isEqualTo(frame.plane(2).at(4, 1));
        assertThat(made.plane(0).at(2, 2)).isEqualTo(frame.plane(0).at(2, 2));
    }

    @Test
    void aPartIsCutOutOfTheWholeAlsoWhereTheMarkLiesOutside() {
        var random = new SplittableRandom(7);
        for (int n = 0; n < 60; n++) {
            Format format = format(n % 2 == 0 ? Chroma.RGB : Chroma.GREY, 40, 30);
            Frame frame = painted(format, n);
            byte[] rgba = new byte[4 * 9 * 7];
            random.nextBytes(rgba);
            var mark =
                    MarkPicture.read(MarkPicture.write(9, 7, rgba)).at(1 + random.nextInt(50), 1 + random.nextInt(40));
            var stage = new MarkStage(format, mark, random.nextInt(60) - 30, random.nextInt(50) - 25);
            Frame whole = treated(stage, frame, format.whole());
            int x = random.nextInt(30);
            int y = random.nextInt(20);
            var part = new Region(x, y, 1 + random.nextInt(40 - x), 1 + random.nextInt(30 - y));
            Frame cut = treated(stage, frame, part);
            for (int p = 0; p < whole.planes().size(); p++) {
                for (int row = 0; row < part.height(); row++) {
                    for (int column = 0; column < part.width(); column++) {
                        assertThat(cut.plane(p).at(column, row))
                                .isEqualTo(whole.plane(p).at(x + column, y + row));
                    }
                }
            }
        }
    }

    /** Nothing shines that is clear: no halo of hidden colour comes out of making it smaller or larger. */
    @Test
    void anotherSizeHasNoHaloes() {
        byte[] rgba = new byte[4 * 20 * 20];
        for (int i = 0; i < 400; i++) {
            boolean in = i % 20 >= 5 && i % 20 < 15;
            rgba[4 * i] = (byte) 255;
            rgba[4 * i + 1] = (byte) (in ? 40 : 255);
            rgba[4 * i + 3] = (byte) (in ? 255 : 0);
        }
        var mark = MarkPicture.read(MarkPicture.write(20, 20, rgba));
        for (int size : new int[] {7, 13, 41}) {
            var made = mark.at(size, size);
            for (int i = 0; i < size * size; i++) {
                float a = made.opacity().data()[i];
                assertThat(a).isBetween(0f, 1f);
                assertThat(made.colours().get(1).data()[i]).isBetween(0f, a);
                if (a > 0.2f) {
                    assertThat(made.colours().get(1).data()[i] / a).isCloseTo(40 / 255f, within(0.05f));
                }
            }
        }
    }

    /** White is as bright as ITU-R BT.2408 has graphics, not as bright as a display can be. */
    @Test
    void whiteIsGraphicsWhiteWhereTheRangeIsHigh() {
        byte[] white = {(byte) 255, (byte) 255, (byte) 255, (byte) 255};
        var mark = MarkPicture.read(MarkPicture.write(1, 1, white));
        var pq = new ColourTags(
                ColourTags.Matrix.RGB,
                ColourTags.Range.FULL,
                ColourTags.Transfer.SMPTE2084,
                ColourTags.Primaries.BT2020);
        Format format = format(Chroma.RGB, 4, 4).withColour(pq);
        assertThat(treated(new MarkStage(format, mark, 1, 1), painted(format, 3), format.whole())
                        .plane(0)
                        .at(1, 1))
                .isEqualTo(0.58f);
    }

    @Test
    void whatIsNoPictureIsSaidToBeNone() {
        for (String wrong : new String[] {
            "",
            "P6\n1 1\n255\nabc",
            "P7\nWIDTH 1\nHEIGHT 1\nDEPTH 4\nMAXVAL 255\nENDHDR\nabc",
            "P7\nWIDTH 1\nHEIGHT 1\nDEPTH 3\nMAXVAL 255\nENDHDR\nabc",
            "P7\nWIDTH 999999\nHEIGHT 999999\nDEPTH 4\nMAXVAL 255\nENDHDR\n",
            "P7\nWIDTH x\nHEIGHT 1\nDEPTH 4\nMAXVAL 255\nENDHDR\nabcd"
        }) {
            assertThatThrownBy(() -> MarkPicture.read(wrong.getBytes(StandardCharsets.ISO_8859_1)))
                    .as(wrong)
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageNotContaining("null");
        }
    }
}
