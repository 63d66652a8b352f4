package awlsmith.core.motion;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.fields.Clips;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Frames that were left out are made again, and what they should have been is known. */
class BetweenTest {
    private static final Format FORMAT = Clips.format(160, 120, Chroma.S420);

    /** Houses on a hillside go by to the left, a disc before them goes to the right. */
    private static double scene(int n, int x, int y) {
        boolean disc = Math.hypot(x - 30 - 5 * n, y - 60) < 18;
        return disc ? 0.2 + Scenery.at(x - 5 * n + 300, y) : Scenery.at(x + 3 * n, y);
    }

    private static List<Frame> clip() {
        return Clips.run(
                Clips.painted(
                        FORMAT, 9, (n, p, x, y) -> p == 0 ? scene(n, x, y) : (scene(n, 2 * x, 2 * y) - 0.5) / (p + 1)),
                FrameRange.all(),
                FORMAT.whole());
    }

    private static double error(Plane a, Plane b) {
        double sum = 0;
        for (int y = 4; y < a.height() - 4; y++) {
            for (int x = 4; x < a.width() - 12; x++) {
                double d = a.at(x, y) - b.at(x, y);
                sum += d * d;
            }
        }
        return Math.sqrt(sum / ((a.height() - 8) * (a.width() - 16)));
    }

    private static Plane faded(Plane a, Plane b, float share) {
        Plane m = Plane.of(a.width(), a.height());
        for (int y = 0; y < m.height(); y++) {
            for (int x = 0; x < m.width(); x++) {
                m.set(x, y, a.at(x, y) + share * (b.at(x, y) - a.at(x, y)));
            }
        }
        return m;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3})
    void aLostFrameComesBackFarBetterThanByAFade(int lost) {
        List<Frame> all = clip();
        Frame a = all.get(2);
        Frame b = all.get(6);
        float share = lost / 4f;
        Frame made = new Between(a, b, Work.alone()).at(share, 2 + lost, Rational.ONE, new PlanePool(0));
        for (int p = 0; p < 2; p++) {
            Plane truth = all.get(2 + lost).plane(p);
            assertThat(error(made.plane(p), truth))
                    .as("plane " + p)
                    .isLessThan(error(faded(a.plane(p), b.plane(p), share), truth) / 1.9);
        }
    }

    @Test
    void betweenTwoScenesTheNearerFrameIsRepeated() {
        Frame a = clip().getFirst();
        Frame b = Clips.run(
                        Clips.painted(FORMAT, 1, (n, p, x, y) -> p > 0 ? 0 : (x / 11 + y / 7) % 2 == 0 ? 0.9 : 0.1),
                        FrameRange.all(),
                        FORMAT.whole())
                .getFirst();
        var between = new Between(a, b, Work.alone());
        assertThat(between.at(0.3f, 1, Rational.ONE, new PlanePool(0)).plane(0).packed())
                .isEqualTo(a.plane(0).packed());
        assertThat(between.at(0.7f, 2, Rational.ONE, new PlanePool(0)).plane(0).packed())
                .isEqualTo(b.plane(0).packed());
    }
}
