package awlsmith.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.mark.Digits;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.FrameRange;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class ContactSheetTest {
    private static Deliverable sheet(Map<String, ?> settings) {
        return Deliverable.of("sheet", settings, Optional.of(Container.PNG), Sound.NONE);
    }

    private static Format of(int width, int height, Rational sar) {
        return new Format(width, height, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, sar, Scan.PROGRESSIVE);
    }

    @Test
    void framesAreTakenFromTheMiddleOfEqualParts() {
        Deliverable four = sheet(Map.of("columns", 2, "rows", 2));
        assertThat(four.picks(new FrameRange(100, 180))).containsExactly(110L, 130L, 150L, 170L);
        assertThat(four.picks(new FrameRange(7, 10))).containsExactly(7L, 8L, 9L);
        assertThat(four.taking()).isEqualTo(Taking.FEW);
    }

    @Test
    void framesKeepTheirShapeAndLieWithinTheSheet() {
        for (Format format : new Format[] {
            of(720, 576, new Rational(16, 15)), of(180, 320, Rational.ONE), of(4000, 100, Rational.ONE)
        }) {
            var settings = sheet(Map.of("columns", 3, "rows", 2, "width", 900)).settings();
            ContactSheet.Layout layout = ContactSheet.layout(format, settings, 5);
            double shape = format.displayAspect().toDouble();
            assertThat(layout.width() / (double) layout.height()).isBetween(shape * 0.9, shape * 1.1);
            assertThat(layout.sheetWidth()).isLessThanOrEqualTo(900);
            assertThat(layout.left(4) + layout.width()).isLessThanOrEqualTo(layout.sheetWidth());
            assertThat(layout.top(4) + layout.height() + layout.caption()).isLessThanOrEqualTo(layout.sheetHeight());
        }
    }

    @Test
    void timesAreToldAsTheyAreRead() {
        assertThat(ContactSheet.words(new Rational(1234, 100), Optional.empty()))
                .isEqualTo("0:12.34");
        assertThat(ContactSheet.words(Rational.of(3725), Optional.empty())).isEqualTo("1:02:05.0");
        assertThat(ContactSheet.words(Rational.of(3725), Optional.of("10:00:00;00")))
                .isEqualTo("10:00:00;00");
    }

    @Test
    void figuresAreDrawnWithinThePictureAlone() {
        var picture = new ScreenPicture(20, 9, new byte[3 * 20 * 9]);
        Digits.draw(picture, 14, 1, 1, "81", 255);
        int lit = 0;
        for (byte one : picture.rgb()) {
            lit += one != 0 ? 1 : 0;
        }
        // the dots of an eight, and none of what lies beyond
        assertThat(lit).isEqualTo(3 * 17);
    }
}
