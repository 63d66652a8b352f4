package awlsmith.core.detail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.Work;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class UnsmearStageTest {
    private static final Format FORMAT = Clips.format(160, 96, Chroma.GREY);

    private static double ground(double x, double y) {
        return 0.45
                + 0.14 * Math.sin(x * 0.9 + 2 * Math.sin(y * 0.11))
                + 0.1 * Math.cos(x * 0.37 - y * 0.29)
                + 0.1 * Math.sin(y * 0.63 + Math.sin(x * 0.07));
    }

    /** The mean of moments while the shutter is open for half the time. */
    private static double smeared(double perFrame, long frame, int x, int y) {
        double sum = 0;
        for (int k = 0; k < 16; k++) {
            sum += ground(x - perFrame * (frame + ((k + 0.5) / 16 - 0.5) / 2), y) / 16;
        }
        return sum;
    }

    private static FrameSource pan(double perFrame) {
        return Clips.painted(FORMAT, 3, (n, p, x, y) -> smeared(perFrame, n, x, y));
    }

    @ParameterizedTest
    @ValueSource(doubles = {5, 8, -6})
    void aPansBlurIsTakenOut(double perFrame) {
        Frame was =
                Clips.run(pan(perFrame), FrameRange.single(1), FORMAT.whole()).getFirst();
        Frame sharp = Clips.run(pan(perFrame), FrameRange.single(1), FORMAT.whole(), new UnsmearStage(FORMAT, 180))
                .getFirst();
        Plane truth = Plane.of(160, 96);
        for (int y = 0; y < 96; y++) {
            for (int x = 0; x < 160; x++) {
                truth.set(x, y, (float) ground(x - perFrame, y));
            }
        }
        assertThat(Psnr.of(sharp.plane(0), truth, 20)).isGreaterThan(Psnr.of(was.plane(0), truth, 20) + 3);
    }

    /** Of what stands not a bit changes, and nothing does where there is no neighbour to tell. */
    @Test
    void whatStandsStays() {
        FrameSource still = Clips.painted(FORMAT, 3, (n, p, x, y) -> ground(x, y));
        FrameSource single = Clips.painted(FORMAT, 1, (n, p, x, y) -> ground(x, y));
        for (FrameSource clip : new FrameSource[] {still, single}) {
            Frame was = Clips.run(clip, FrameRange.single(0), FORMAT.whole()).getFirst();
            Frame now = Clips.run(clip, FrameRange.single(0), FORMAT.whole(), new UnsmearStage(FORMAT, 270))
                    .getFirst();
            assertThat(now.plane(0).packed()).isEqualTo(was.plane(0).packed());
        }
    }

    @Test
    void aPartIsCutOutOfTheWhole() {
        var stage = new UnsmearStage(FORMAT, 180);
        var part = new Region(37, 22, 61, 40);
        Frame whole = Clips.run(pan(6), FrameRange.all(), FORMAT.whole(), stage).get(1);
        Frame alone = Clips.run(pan(6), FrameRange.single(1), part, stage).getFirst();
        assertThat(alone.plane(0).packed())
                .isEqualTo(whole.plane(0).window(part).packed());
    }

    /** The mean of a sine over a way is the sine, smaller by sin(a) / a (Fourier; any textbook on signals), a half the way's phase. */
    @Test
    void aSmearIsTheMeanAlongTheWay() {
        Plane in = Plane.of(64, 8);
        for (int i = 0; i < in.data().length; i++) {
            in.data()[i] = (float) (0.5 + 0.3 * Math.sin(i % 64 * 0.2));
        }
        Plane out = Plane.of(64, 8);
        double half = 4;
        new Smear(Plane.of(64, 8).fill((float) half), Plane.of(64, 8)).of(in, out, Work.alone());
        double less = Math.sin(0.2 * half) / (0.2 * half);
        for (int x = 8; x < 56; x++) {
            assertThat((double) out.at(x, 3)).isCloseTo(0.5 + 0.3 * less * Math.sin(x * 0.2), within(2e-3));
        }
    }

    @Test
    void badShuttersAreRefused() {
        for (double degrees : new double[] {0, -5, 361, Double.NaN}) {
            assertThatThrownBy(() -> new UnsmearStage(FORMAT, degrees)).isInstanceOf(IllegalArgumentException.class);
        }
    }
}
