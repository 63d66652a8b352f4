package awlsmith.core.detail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.List;
import org.junit.jupiter.api.Test;

class SurfaceAndLineTest {
    private static final int WIDTH = 64;
    private static final int HEIGHT = 48;
    private static final Format GREY = Clips.format(WIDTH, HEIGHT, Chroma.GREY);

    /** Two surfaces with a fine weave, a dark line of two samples on the first and a wide dark bar on the second. */
    private static Plane scene() {
        Plane p = Plane.of(WIDTH, HEIGHT);
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                float weave = (x / 2 + y / 2) % 2 == 0 ? 0.008f : -0.008f;
                float light = x < 32 ? 0.8f : 0.5f;
                boolean line = x == 12 || x == 13;
                boolean bar = x >= 44 && x < 56;
                p.set(x, y, light + weave - (line ? 0.3f : bar ? 0.3f : 0));
            }
        }
        return p;
    }

    private static Plane treated(Stage stage, Region part) {
        var frame = new Frame(GREY, GREY.whole(), List.of(scene()), 0, Rational.ZERO);
        return stage.treat(distance -> frame.cut(stage.needs(part)), part, new PlanePool(0), Work.alone())
                .plane(0);
    }

    @Test
    void surfacesAreCalmedAndEdgesStay() {
        Plane out = treated(new SmoothStage(GREY, 3, 8 / 255.0, 1), GREY.whole());
        assertThat(Math.abs(out.at(24, 20) - out.at(26, 20))).isLessThan(0.004f);
        assertThat(out.at(31, 20) - out.at(32, 20)).isGreaterThan(0.27f);
        Plane half = treated(new SmoothStage(GREY, 3, 8 / 255.0, 0.5), GREY.whole());
        assertThat(Math.abs(half.at(24, 20) - half.at(26, 20))).isCloseTo(0.008f, within(0.002f));
    }

    @Test
    void linesGetDeeperAndWideBarsStay() {
        Plane in = scene();
        Plane out = treated(new LineStage(GREY, 3, 0.5, 0.04), GREY.whole());
        // the line's depth beside its surface is 0.3: half of what lies beyond the threshold is added
        assertThat(in.at(12, 20) - out.at(12, 20)).isCloseTo(0.13f, within(0.02f));
        assertThat(out.at(50, 20)).isEqualTo(in.at(50, 20));
        assertThat(out.at(24, 20)).isEqualTo(in.at(24, 20));
    }

    @Test
    void partsAreCutOutOfTheWhole() {
        var part = new Region(9, 6, 30, 21);
        for (Stage stage : List.of(new SmoothStage(GREY, 2, 0.05, 0.7), new LineStage(GREY, 5, 1, 0.01))) {
            assertThat(treated(stage, part).packed())
                    .isEqualTo(treated(stage, GREY.whole()).window(part).packed());
        }
    }
}
