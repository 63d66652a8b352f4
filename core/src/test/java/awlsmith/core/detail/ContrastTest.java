package awlsmith.core.detail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.List;
import org.junit.jupiter.api.Test;

class ContrastTest {
    private static final int SIDE = 96;
    private static final Format RGB = Clips.format(SIDE, SIDE, Chroma.RGB);

    private static Frame frame(float red, float green, float blue, float weave) {
        var planes = new Plane[3];
        float[] colours = {red, green, blue};
        for (int p = 0; p < 3; p++) {
            planes[p] = Plane.of(SIDE, SIDE);
            for (int i = 0; i < planes[p].data().length; i++) {
                float up = (i / 2 + i / SIDE / 2) % 2 == 0 ? weave : -weave;
                planes[p].data()[i] = colours[p] * (i % SIDE < SIDE / 2 ? 1 : 2) + up;
            }
        }
        return new Frame(RGB, RGB.whole(), List.of(planes), 0, Rational.ZERO);
    }

    private static Frame treated(Frame in, double shadows, double overall, double local) {
        return new ContrastStage(RGB, shadows, overall, local)
                .treat(distance -> in, RGB.whole(), new PlanePool(0), Work.alone());
    }

    @Test
    void shadowsAreLiftedAndKeepTheirColour() {
        Frame in = frame(0.1f, 0.05f, 0.05f, 0);
        Frame out = treated(in, 1, 0, 0);
        float red = out.plane(0).at(10, 40);
        float green = out.plane(1).at(10, 40);
        assertThat(red).isGreaterThan(0.2f);
        assertThat((red + 0.02f) / (green + 0.02f)).isCloseTo(0.12f / 0.07f, within(0.01f));
        Frame light = treated(frame(0.45f, 0.45f, 0.45f, 0), 1, 0, 0);
        assertThat(light.plane(1).at(80, 40)).isCloseTo(0.9f, within(0.01f));
    }

    @Test
    void structureGetsStrongerAndEdgesGetNoHalo() {
        Frame in = frame(0.3f, 0.3f, 0.3f, 0.01f);
        Frame out = treated(in, 0, 0, 1);
        assertThat(swing(out, 20)).isCloseTo(2 * swing(in, 20), within(0.004f));
        // beside the edge the surface's own light stays
        for (int x = 36; x < 46; x++) {
            assertThat(mean(out, x)).isCloseTo(0.3f, within(0.025f));
        }
        assertThat(swing(treated(in, 0, 0, -1), 20)).isLessThan(0.3f * swing(in, 20));
    }

    @Test
    void overallLeadsAwayFromTheMiddleAndLeavesTheEnds() {
        Frame in = frame(0.3f, 0.3f, 0.3f, 0);
        Frame out = treated(in, 0, 1, 0);
        assertThat(out.plane(1).at(20, 40)).isLessThan(0.25f);
        assertThat(out.plane(1).at(76, 40)).isGreaterThan(0.62f);
        for (float end : new float[] {-0.3f, 0, 1, 1.3f}) {
            Plane flat = Plane.of(SIDE, SIDE).fill(end);
            Frame all = new Frame(RGB, RGB.whole(), List.of(flat, flat, flat), 0, Rational.ZERO);
            assertThat(treated(all, 1, 1, 1).plane(0).at(5, 5)).isCloseTo(end, within(0.001f));
        }
    }

    @Test
    void aPartIsCutOutOfTheWhole() {
        Frame in = frame(0.2f, 0.3f, 0.25f, 0.02f);
        var stage = new ContrastStage(RGB, 0.5, 0.3, 0.7);
        var part = new Region(41, 13, 30, 20);
        Frame some = stage.treat(d -> in.cut(stage.needs(part)), part, new PlanePool(0), Work.alone());
        Frame whole = stage.treat(d -> in, RGB.whole(), new PlanePool(0), Work.alone());
        for (int p = 0; p < 3; p++) {
            assertThat(some.plane(p).packed())
                    .isEqualTo(whole.cut(part).plane(p).packed());
        }
    }

    @Test
    void colourApartFromLightIsRefused() {
        assertThatThrownBy(() -> new ContrastStage(Clips.format(8, 8, Chroma.S444), 0, 0, 1))
                .isInstanceOf(IllegalArgumentException.class);
    }

    private static float swing(Frame frame, int x) {
        float least = 1;
        float most = 0;
        for (int i = x; i < x + 6; i++) {
            least = Math.min(least, frame.plane(1).at(i, 40));
            most = Math.max(most, frame.plane(1).at(i, 40));
        }
        return most - least;
    }

    private static float mean(Frame frame, int x) {
        float sum = 0;
        for (int y = 20; y < 60; y++) {
            sum += (frame.plane(1).at(x, y) + frame.plane(1).at(x + 1, y)) / 80;
        }
        return sum;
    }
}
