package awlsmith.core.motion;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Work;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Motion that is known, because the pictures are drawn by formula where it has moved them. */
class FlowFinderTest {
    private interface Place {
        double[] at(int x, int y);
    }

    private static Plane drawn(int width, int height, Place place) {
        Plane p = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                double[] at = place.at(x, y);
                p.set(x, y, (float) Scenery.at(at[0], at[1]));
            }
        }
        return p;
    }

    /** The mean distance between found and true ends, a margin left out: the end-point error. */
    private static double error(Flow flow, Place truth, int margin) {
        double sum = 0;
        int n = 0;
        for (int y = margin; y < flow.height() - margin; y++) {
            for (int x = margin; x < flow.width() - margin; x++) {
                double[] t = truth.at(x, y);
                sum += Math.hypot(flow.u().at(x, y) - t[0], flow.v().at(x, y) - t[1]);
                n++;
            }
        }
        return sum / n;
    }

    @ParameterizedTest
    @CsvSource({"0, 0", "0.5, -0.25", "3, 2", "-7.3, 4.6", "18, -11"})
    void aShiftIsFoundToATenthOfASample(double u, double v) {
        Plane from = drawn(200, 150, (x, y) -> new double[] {x, y});
        Plane to = drawn(200, 150, (x, y) -> new double[] {x - u, y - v});
        Flow flow = FlowFinder.find(from, to, Work.alone());
        assertThat(error(flow, (x, y) -> new double[] {u, v}, 24)).isLessThan(0.1);
    }

    @Test
    void aTurnAndZoomIsFound() {
        // forth: q = c + s R (p - c); so the picture after shows at q what was at p
        double s = 1.04;
        double angle = Math.toRadians(2.5);
        double c = Math.cos(angle) * s;
        double d = Math.sin(angle) * s;
        Place after = (x, y) -> new double[] {
            120 + (c * (x - 120) + d * (y - 90)) / (s * s), 90 + (-d * (x - 120) + c * (y - 90)) / (s * s)
        };
        Place moved =
                (x, y) -> new double[] {120 + c * (x - 120) - d * (y - 90) - x, 90 + d * (x - 120) + c * (y - 90) - y};
        Plane from = drawn(240, 180, (x, y) -> new double[] {x, y});
        Flow flow = FlowFinder.find(from, drawn(240, 180, after), Work.alone());
        assertThat(error(flow, moved, 16)).isLessThan(0.2);
    }

    @Test
    void aPictureLargerThanTheFinestSearchIsStillExact() {
        Plane from = drawn(900, 300, (x, y) -> new double[] {x / 3.0, y / 3.0});
        Plane to = drawn(900, 300, (x, y) -> new double[] {(x - 9) / 3.0, (y + 5) / 3.0});
        assertThat(error(FlowFinder.find(from, to, Work.alone()), (x, y) -> new double[] {9, -5}, 30))
                .isLessThan(0.25);
    }

    @Test
    void aSpotInOnePictureDoesNotLeadTheMotionAroundIt() {
        Plane from = drawn(200, 150, (x, y) -> new double[] {x, y});
        Plane to = drawn(200, 150, (x, y) -> new double[] {x - 4, y - 1});
        for (int y = 70; y < 79; y++) {
            for (int x = 100; x < 109; x++) {
                from.set(x, y, 1);
            }
        }
        Flow flow = FlowFinder.find(from, to, Work.alone());
        assertThat(flow.u().at(104, 74)).isBetween(3.5f, 4.5f);
        assertThat(flow.v().at(104, 74)).isBetween(0.5f, 1.5f);
    }

    @Test
    void brighterIsNotMoved() {
        Plane from = drawn(160, 120, (x, y) -> new double[] {x, y});
        Plane to = drawn(160, 120, (x, y) -> new double[] {x, y});
        for (int i = 0; i < to.data().length; i++) {
            to.data()[i] += 0.1f;
        }
        assertThat(error(FlowFinder.find(from, to, Work.alone()), (x, y) -> new double[] {0, 0}, 8))
                .isLessThan(0.05);
    }

    @Test
    void warpingByTheFlowBringsThePictureBack() {
        Plane from = drawn(200, 150, (x, y) -> new double[] {x, y});
        Plane to = drawn(200, 150, (x, y) -> new double[] {x - 5.5, y + 2.5});
        Flow flow = FlowFinder.find(from, to, Work.alone());
        Plane back = flow.warp(to, Work.alone());
        double sum = 0;
        for (int y = 20; y < 130; y++) {
            for (int x = 20; x < 180; x++) {
                sum += Math.abs(back.at(x, y) - from.at(x, y));
            }
        }
        assertThat(sum / (110 * 160)).isLessThan(0.01);
    }

    @Test
    void halvedPlanesAreWarpedByHalfTheMotion() {
        var flow = new Flow(Plane.of(40, 40).fill(4), Plane.of(40, 40).fill(-2));
        Plane half = Plane.of(20, 20);
        half.set(12, 9, 1);
        Plane made = flow.warp(half, Work.alone());
        assertThat(made.at(10, 10)).isEqualTo(1);
        assertThat(made.at(12, 9)).isZero();
    }

    @Test
    void threadsDoNotChangeABit() {
        Plane from = drawn(333, 187, (x, y) -> new double[] {x, y});
        Plane to = drawn(333, 187, (x, y) -> new double[] {x * 1.01 - 3, y + 2});
        try (var pool = Executors.newFixedThreadPool(3)) {
            Flow one = FlowFinder.find(from, to, Work.alone());
            Flow many = FlowFinder.find(from, to, new Work(pool, 3, new Cancel()));
            assertThat(many.u().packed()).isEqualTo(one.u().packed());
            assertThat(many.v().packed()).isEqualTo(one.v().packed());
        }
    }

    @Test
    void tinyPicturesStandStillAndUnlikeOnesAreRefused() {
        Flow still = FlowFinder.find(Plane.of(9, 40), Plane.of(9, 40), Work.alone());
        assertThat(still.u().packed()).containsOnly(0);
        assertThatThrownBy(() -> FlowFinder.find(Plane.of(32, 32), Plane.of(32, 31), Work.alone()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("32x31");
    }
}
