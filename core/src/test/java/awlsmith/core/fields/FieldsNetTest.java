package awlsmith.core.fields;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.upscale.TestCards;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** A net's correction of missing lines, with nets whose answers can be told by hand. */
class FieldsNetTest {
    private static final int REACH = 2;
    private static final ModelCard CARD = TestCards.of(ModelCard.Job.FIELDS, 1, REACH);

    /** Takes a little of everything within its reach. */
    private static final NetRunner AROUND = (planes, correction) -> {
        for (int y = 0; y < correction.height(); y++) {
            for (int x = 0; x < correction.width(); x++) {
                float sum = 0;
                for (int k = 0; k < planes.size(); k++) {
                    Plane plane = planes.get(k);
                    for (int v = Math.max(0, y - REACH); v <= Math.min(plane.height() - 1, y + REACH); v++) {
                        for (int u = Math.max(0, x - REACH); u <= Math.min(plane.width() - 1, x + REACH); u++) {
                            sum += plane.at(u, v) * (0.001f * (k + 1) + 0.0003f * (u - x) - 0.0007f * (v - y));
                        }
                    }
                }
                correction.set(x, y, sum);
            }
        }
    };

    private static FrameSource woven(Format format, Scan order) {
        return Clips.painted(format.withScan(order), 6, (n, p, x, y) -> {
            boolean second = (y % 2 == 0) != (order == Scan.TOP_FIRST);
            double u = x - 1.5 * (2 * n + (second ? 1 : 0));
            return 0.4 + 0.2 * Math.sin(u * 0.5 + 2 * Math.sin(y * 0.21)) + 0.05 * p;
        });
    }

    @ParameterizedTest
    @CsvSource({"S420,TOP_FIRST", "S420,BOTTOM_FIRST", "RGB,TOP_FIRST", "GREY,BOTTOM_FIRST"})
    void anyPartIsTheSameAsOfTheWhole(Chroma chroma, Scan order) {
        Format format = Clips.format(96, 72, chroma);
        var stage = new DeinterlaceStage(format.withScan(order), order, true, CARD, AROUND);
        var whole = Clips.run(woven(format, order), FrameRange.all(), format.whole(), stage);
        for (Region part : List.of(new Region(22, 18, 30, 20), new Region(0, 50, 96, 22), new Region(60, 0, 36, 4))) {
            var some = Clips.run(woven(format, order), new FrameRange(4, 6), part, stage);
            for (int i = 0; i < 2; i++) {
                Frame expected = whole.get(4 + i).cut(part);
                for (int p = 0; p < expected.planes().size(); p++) {
                    assertThat(some.get(i).plane(p).packed())
                            .isEqualTo(expected.plane(p).packed());
                }
            }
        }
    }

    /** The correction goes to the lines the field lacks, of the light alone. */
    @ParameterizedTest
    @EnumSource(
            value = Scan.class,
            names = {"TOP_FIRST", "BOTTOM_FIRST"})
    void onlyMissingLinesOfTheLightAreCorrected(Scan order) {
        Format format = Clips.format(48, 40, Chroma.S420).withScan(order);
        NetRunner more = (planes, correction) -> correction.fill(0.125f);
        var with = Clips.run(
                woven(format, order),
                FrameRange.all(),
                format.whole(),
                new DeinterlaceStage(format, order, true, CARD, more));
        var without = Clips.run(
                woven(format, order), FrameRange.all(), format.whole(), new DeinterlaceStage(format, order, true));
        for (int n = 0; n < with.size(); n++) {
            boolean upperKept = (order == Scan.TOP_FIRST) == (n % 2 == 0);
            for (int y = 0; y < 40; y++) {
                boolean kept = (y % 2 == 0) == upperKept;
                for (int x = 0; x < 48; x++) {
                    float plain = without.get(n).plane(0).at(x, y);
                    assertThat(with.get(n).plane(0).at(x, y)).isEqualTo(kept ? plain : plain + 0.125f);
                }
            }
            assertThat(with.get(n).plane(1).packed())
                    .isEqualTo(without.get(n).plane(1).packed());
        }
    }

    /** What the net reads lies where it should: rows told apart by their number and their frame. */
    @ParameterizedTest
    @CsvSource({"0", "1"})
    void theSixPlanesLieAroundTheMissingLines(int parity) {
        Plane[] frames = new Plane[3];
        for (int n = 0; n < 3; n++) {
            frames[n] = Plane.of(4, 12);
            for (int y = 0; y < 12; y++) {
                for (int x = 0; x < 4; x++) {
                    frames[n].set(x, y, 100 * n + y);
                }
            }
        }
        var fields = FieldsAround.ofFirst(frames[0], frames[1], frames[2], parity);
        var seen = fields.seen(new Region(1, 1, 2, 3), new PlanePool(0));
        assertThat(seen).hasSize(FieldsAround.SEEN);
        int missing = 2 + 1 - parity;
        for (int row = 0; row < 3; row++) {
            int y = missing + 2 * row;
            assertThat(seen.get(1).at(0, row)).isEqualTo(y);
            assertThat(seen.get(2).at(0, row)).isEqualTo(100 + y);
            assertThat(seen.get(3).at(0, row)).isEqualTo(100 + y - 1);
            assertThat(seen.get(4).at(0, row)).isEqualTo(y - 1);
            assertThat(seen.get(5).at(0, row)).isEqualTo(200 + y - 1);
        }
    }

    @Test
    void aModelIsNamedForWhoeverEstimatesItsTime() {
        Format format = Clips.format(48, 40, Chroma.S420);
        assertThat(new DeinterlaceStage(format, Scan.TOP_FIRST, true, CARD, AROUND).model())
                .contains(CARD);
        assertThat(new DeinterlaceStage(format, Scan.TOP_FIRST, true).model()).isEmpty();
    }
}
