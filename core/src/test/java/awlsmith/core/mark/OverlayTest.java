package awlsmith.core.mark;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class OverlayTest {
    private static final PlanePool POOL = new PlanePool(1 << 20);

    private static Format format(Chroma chroma, Alpha alpha) {
        var tags = new ColourTags(
                chroma == Chroma.RGB ? ColourTags.Matrix.RGB : ColourTags.Matrix.BT709,
                ColourTags.Range.LIMITED,
                ColourTags.Transfer.BT709,
                ColourTags.Primaries.BT709);
        return new Format(32, 24, chroma, Siting.LEFT, 8, tags, Rational.ONE, Scan.PROGRESSIVE, alpha);
    }

    private static Frame grey(Format format) {
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, POOL);
        for (int p = 0; p < frame.planes().size(); p++) {
            boolean isDifference = p > 0 && format.chroma() != Chroma.RGB;
            Arrays.fill(frame.plane(p).data(), isDifference ? 0.1f : 0.4f);
        }
        return frame;
    }

    /** Of one colour and opacity all over. */
    private static MarkPicture mark(int width, int height, float r, float g, float b, float a) {
        var planes = List.of(Plane.of(width, height), Plane.of(width, height), Plane.of(width, height));
        Plane opacity = Plane.of(width, height);
        float[] colour = {r, g, b};
        for (int c = 0; c < 3; c++) {
            Arrays.fill(planes.get(c).data(), a * colour[c]);
        }
        Arrays.fill(opacity.data(), a);
        return new MarkPicture(planes, opacity);
    }

    /** Porter and Duff's over, of luma and colour differences by BT.709-6 items 3.2 and 3.3: red is 0.2126, -0.1146, 0.5. */
    @ParameterizedTest
    @EnumSource(
            value = Chroma.class,
            names = {"S420", "S422", "S444", "RGB"})
    void coversByItsOpacityAndTouchesNothingBeside(Chroma chroma) {
        Format format = format(chroma, Alpha.NONE);
        Frame in = grey(format);
        Frame out = new Overlay(format, mark(12, 8, 1, 0, 0, 0.75f), 8, 4).over(in, POOL);
        float[] red = chroma == Chroma.RGB ? new float[] {1, 0, 0} : new float[] {0.2126f, -0.1146f, 0.5f};
        for (int p = 0; p < 3; p++) {
            int x = 14 / chroma.stepX(p);
            int y = 8 / chroma.stepY(p);
            float was = in.plane(p).at(x, y);
            assertThat(out.plane(p).at(x, y)).isCloseTo(0.25f * was + 0.75f * red[p], within(1e-4f));
            assertThat(out.plane(p).at(0, 0)).isEqualTo(in.plane(p).at(0, 0));
            assertThat(out.plane(p).at(22 / chroma.stepX(p), 14 / chroma.stepY(p)))
                    .isEqualTo(was);
        }
        // the edge lies where it was asked to
        assertThat(out.plane(0).at(7, 6)).isEqualTo(in.plane(0).at(7, 6));
        assertThat(out.plane(0).at(8, 6)).isNotEqualTo(in.plane(0).at(8, 6));
    }

    @Test
    void onGreyPicturesItsLumaStands() {
        Format format = format(Chroma.GREY, Alpha.NONE);
        Frame out = new Overlay(format, mark(4, 4, 0, 1, 0, 1), 0, 0).over(grey(format), POOL);
        assertThat(out.plane(0).at(1, 1)).isCloseTo(0.7152f, within(1e-4f));
    }

    @Test
    void isRefusedWhereItCannotLie() {
        Format format = format(Chroma.S420, Alpha.NONE);
        MarkPicture mark = mark(8, 8, 1, 1, 1, 1);
        assertThatThrownBy(() -> new Overlay(format, mark, 3, 0)).hasMessageContaining("whole chroma sample");
        assertThatThrownBy(() -> new Overlay(format, mark, 26, 0)).hasMessageContaining("within the frame");
    }
}
