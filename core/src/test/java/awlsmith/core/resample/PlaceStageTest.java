package awlsmith.core.resample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Work;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlaceStageTest {
    private final PlanePool pool = new PlanePool(0);

    private static Format format(int width, int height) {
        return new Format(width, height, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    /** Every sample tells its plane and place. */
    private static Frame picture(Format format) {
        Frame frame = Frame.blank(format, format.whole(), 3, Rational.ONE, new PlanePool(0));
        for (int p = 0; p < 3; p++) {
            Plane plane = frame.plane(p);
            for (int y = 0; y < plane.height(); y++) {
                for (int x = 0; x < plane.width(); x++) {
                    plane.set(x, y, 1 + p + 0.01f * x + 0.0001f * y);
                }
            }
        }
        return frame;
    }

    @ParameterizedTest
    @CsvSource({"10, 6, 40, 30", "-8, -4, 14, 12", "0, 4, 20, 30", "-2, 0, 30, 16", "12, -6, 30, 9", "2, 2, 25, 21"})
    void everySampleIsWhereItBelongsAndTheRestIsBlack(int x, int y, int width, int height) {
        Format in = format(20, 16);
        var stage = new PlaceStage(in, format(width, height), x, y);
        Frame out = stage.treat(d -> picture(in), stage.output().whole(), pool, Work.alone());
        for (int p = 0; p < 3; p++) {
            int step = p == 0 ? 1 : 2;
            Plane source = picture(in).plane(p);
            Plane placed = out.plane(p);
            for (int v = 0; v < placed.height(); v++) {
                for (int u = 0; u < placed.width(); u++) {
                    int a = u - x / step;
                    int b = v - y / step;
                    boolean inside = a >= 0 && b >= 0 && a < source.width() && b < source.height();
                    assertThat(placed.at(u, v)).isEqualTo(inside ? source.at(a, b) : 0);
                }
            }
        }
        assertThat(out.number()).isEqualTo(3);
    }

    @Test
    void aRegionIsCutFromTheWholeAndAsksForNoMoreThanItSees() {
        Format in = format(20, 16);
        var stage = new PlaceStage(in, format(40, 30), 10, 6);
        Frame whole = stage.treat(d -> picture(in), stage.output().whole(), pool, Work.alone());
        for (Region wanted : new Region[] {
            new Region(0, 0, 4, 4), new Region(8, 4, 6, 6), new Region(24, 18, 16, 12), new Region(36, 28, 4, 2)
        }) {
            Region needs = stage.needs(wanted);
            assertThat(needs.area()).isLessThanOrEqualTo(Math.max(4, wanted.area()));
            Frame part = stage.treat(d -> picture(in).cut(needs), wanted, pool, Work.alone());
            for (int p = 0; p < 3; p++) {
                assertThat(part.plane(p).packed())
                        .isEqualTo(whole.cut(wanted).plane(p).packed());
            }
        }
    }

    @Test
    void whereAPictureLiesFollowsThroughLaterSteps() {
        Format small = format(20, 16);
        Format framed = format(40, 30);
        var place = Placement.over(small).within(small, new PlaceStage(small, framed, 10, 6).placement());
        assertThat(place).isEqualTo(new Placement(10, 6, 20, 16));
        assertThat(place.within(framed, Placement.over(format(80, 90)))).isEqualTo(new Placement(20, 18, 40, 48));
    }

    @Test
    void refusesWhatWouldSplitAChromaSampleOrShowNothing() {
        assertThatThrownBy(() -> new PlaceStage(format(20, 16), format(40, 30), 1, 0))
                .hasMessageContaining("cannot be put at 1,0");
        assertThatThrownBy(() -> new PlaceStage(format(20, 16), format(40, 30), 40, 0))
                .hasMessageContaining("nothing of the picture is seen");
    }
}
