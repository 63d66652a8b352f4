package awlsmith.core.fields;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.Timing;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class FieldsTest {
    private static final Format FORMAT = Clips.format(96, 72, Chroma.S420);

    /** Detail everywhere; t in fields. */
    private static double scene(double t, int p, int x, int y) {
        double u = x - t;
        return (p == 0 ? 0.5 : 0)
                + 0.2 * Math.sin(u * 0.5 + 2 * Math.sin(y * 0.21))
                + 0.1 * Math.cos(y * 1.1 + u * 0.07);
    }

    private static FrameSource woven(Scan order, double speed) {
        Format format = FORMAT.withScan(order);
        return Clips.painted(format, 12, (n, p, x, y) -> {
            boolean upper = y % 2 == 0;
            boolean second = upper != (order == Scan.TOP_FIRST);
            return scene(speed * (2 * n + (second ? 1 : 0)), p, x, y);
        });
    }

    @ParameterizedTest
    @EnumSource(
            value = Scan.class,
            names = {"TOP_FIRST", "BOTTOM_FIRST"})
    void whatStandsStillComesOutAsItWas(Scan order) {
        var stage = new DeinterlaceStage(FORMAT.withScan(order), order, true);
        var out = Clips.run(woven(order, 0), new FrameRange(4, 8), FORMAT.whole(), stage);
        assertThat(out).hasSize(4);
        assertThat(out.getFirst().format().scan()).isEqualTo(Scan.PROGRESSIVE);
        for (Frame frame : out) {
            for (int p = 0; p < 3; p++) {
                Plane plane = frame.plane(p);
                for (int y = 0; y < plane.height(); y++) {
                    for (int x = 0; x < plane.width(); x++) {
                        assertThat(plane.at(x, y))
                                .isEqualTo((float) scene(0, p, x, y), org.assertj.core.data.Offset.offset(1e-6f));
                    }
                }
            }
        }
    }

    /** A line that a field has is never touched, and times lie half a frame apart. */
    @ParameterizedTest
    @EnumSource(
            value = Scan.class,
            names = {"TOP_FIRST", "BOTTOM_FIRST"})
    void everyFieldBecomesAFrame(Scan order) {
        var stage = new DeinterlaceStage(FORMAT.withScan(order), order, true);
        var out = Clips.run(woven(order, 1.5), FrameRange.all(), FORMAT.whole(), stage);
        assertThat(out).hasSize(24);
        for (int n = 0; n < 24; n++) {
            Frame frame = out.get(n);
            assertThat(frame.number()).isEqualTo(n);
            assertThat(frame.time()).isEqualTo(new Rational(n, 50));
            boolean upper = (order == Scan.TOP_FIRST) == (n % 2 == 0);
            for (int y = upper ? 0 : 1; y < 72; y += 2) {
                assertThat(frame.plane(0).at(40, y)).isEqualTo((float) scene(1.5 * n, 0, 40, y));
            }
        }
        Plane truth = Plane.of(96, 72);
        for (int y = 0; y < 72; y++) {
            for (int x = 0; x < 96; x++) {
                truth.set(x, y, (float) scene(1.5 * 11, 0, x, y));
            }
        }
        // woven as it came, the picture is combed; what is made of it must be far nearer
        Frame combed = Clips.run(woven(order, 1.5), FrameRange.single(5), FORMAT.whole())
                .getFirst();
        assertThat(Psnr.of(out.get(11).plane(0), truth, 8)).isGreaterThan(Psnr.of(combed.plane(0), truth, 8) + 8);
    }

    @Test
    void anyPartAndSpanIsTheSameAsOfTheWhole() {
        var stage = new DeinterlaceStage(FORMAT.withScan(Scan.TOP_FIRST), Scan.TOP_FIRST, true);
        var whole = Clips.run(woven(Scan.TOP_FIRST, 1.5), FrameRange.all(), FORMAT.whole(), stage);
        for (Region part : List.of(new Region(22, 18, 30, 20), new Region(0, 50, 96, 22), new Region(60, 0, 36, 4))) {
            var some = Clips.run(woven(Scan.TOP_FIRST, 1.5), new FrameRange(7, 10), part, stage);
            assertThat(some).hasSize(3);
            for (int i = 0; i < 3; i++) {
                Frame expected = whole.get(7 + i).cut(part);
                assertThat(some.get(i).number()).isEqualTo(7 + i);
                for (int p = 0; p < 3; p++) {
                    assertThat(some.get(i).plane(p).packed())
                            .isEqualTo(expected.plane(p).packed());
                }
            }
        }
    }

    @Test
    void framesAreThinnedInTheirRhythm() {
        var clip = Clips.painted(FORMAT, 23, (n, p, x, y) -> n / 100.0);
        var stage = CadenceStage.frames(FORMAT, 5, 3);
        var out = Clips.run(clip, FrameRange.all(), FORMAT.whole(), stage);
        assertThat(out.stream().map(f -> Math.round(100 * f.plane(0).at(0, 0))))
                .containsExactly(0, 1, 2, 4, 5, 6, 7, 9, 10, 11, 12, 14, 15, 16, 17, 19, 20, 21, 22);
        var chain = new Chain(FORMAT, List.of(stage));
        assertThat(chain.times(Timing.steady(Rational.of(30), 23)))
                .satisfies(times -> assertThat(times.rate()).contains(Rational.of(24)))
                .satisfies(times -> assertThat(times.count()).isEqualTo(19));
        assertThat(chain.outputOf(new FrameRange(8, 14))).isEqualTo(new FrameRange(7, 11));
        assertThat(chain.position(7)).isEqualTo(Rational.of(9));
        assertThatThrownBy(() -> CadenceStage.frames(FORMAT, 5, 5)).isInstanceOf(IllegalArgumentException.class);
    }

    /** 3:2 after SMPTE RP 197: of four film pictures come five frames, the third and fourth woven of two pictures each. */
    @ParameterizedTest
    @EnumSource(
            value = Scan.class,
            names = {"TOP_FIRST", "BOTTOM_FIRST"})
    void filmComesBackAsItWas(Scan order) {
        int[] first = {0, 1, 1, 2, 3};
        int[] second = {0, 1, 2, 3, 3};
        int shift = 2;
        var clip = Clips.painted(FORMAT.withScan(order), 20, (n, p, x, y) -> {
            int at = n + shift;
            boolean isFirst = (y % 2 == 0) == (order == Scan.TOP_FIRST);
            int picture = 4 * (at / 5) + (isFirst ? first[at % 5] : second[at % 5]);
            return scene(2 * picture, p, x, y);
        });
        // the pair of woven frames lies at 2 and 3 of each five, and the clip begins in the middle of one
        var stage = CadenceStage.film(FORMAT.withScan(order), order, 0);
        var out = Clips.run(clip, FrameRange.all(), FORMAT.whole(), stage);
        assertThat(out).hasSize(16);
        for (int n = 0; n < 16; n++) {
            int picture = n + 2;
            for (int y = 0; y < 72; y++) {
                assertThat(out.get(n).plane(0).at(31, y)).isEqualTo((float) scene(2 * picture, 0, 31, y));
            }
        }
    }

    @Test
    void spansAreCountedInOutputFrames() {
        var chain = new Chain(
                FORMAT,
                List.of(
                        CadenceStage.frames(FORMAT, 2, 1),
                        new DeinterlaceStage(FORMAT.withScan(Scan.TOP_FIRST), Scan.TOP_FIRST, true)));
        assertThat(chain.times(Timing.steady(Rational.of(50), 9)).rate()).contains(Rational.of(50));
        assertThat(chain.outputOf(new FrameRange(4, 8))).isEqualTo(new FrameRange(4, 8));
        assertThat(chain.position(5)).isEqualTo(Rational.of(5));
        assertThat(chain.outputOf(FrameRange.all()).isOpen()).isTrue();
    }
}
