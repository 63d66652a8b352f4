package awlsmith.core.steady;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class CameraFitTest {
    private static final int WIDTH = 320;
    private static final int HEIGHT = 180;
    private static final double HIGH = (double) HEIGHT / WIDTH;

    /** A wall of waves of many lengths and ways, in widths. */
    private static double wall(double x, double y) {
        double light = 0.5;
        for (int k = 0; k < 14; k++) {
            double turn = 2.39996 * k;
            double length = 18 + 9 * k;
            light += 0.035 * Math.sin(length * (x * Math.cos(turn) + y * Math.sin(turn)) + k * k);
        }
        return light;
    }

    private interface Scene {
        double at(double x, double y);
    }

    private static Plane painted(Scene scene) {
        Plane plane = Plane.of(WIDTH, HEIGHT);
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                plane.set(x, y, (float) scene.at((x - (WIDTH - 1) / 2.0) / WIDTH, (y - (HEIGHT - 1) / 2.0) / WIDTH));
            }
        }
        return plane;
    }

    /** The wall, and the wall as it lies once it went by a warp. */
    private static CameraFit fit(Warp warp) {
        Warp back = warp.inverse();
        return CameraFit.between(
                painted(CameraFitTest::wall), painted((x, y) -> wall(back.x(x, y), back.y(x, y))), 1, Work.alone());
    }

    private static void assertNear(Warp found, Warp wanted, double samples) {
        double[] is = found.corners(HIGH);
        double[] should = wanted.corners(HIGH);
        for (int k = 0; k < 8; k++) {
            assertThat(is[k] * WIDTH).isCloseTo(should[k] * WIDTH, within(samples));
        }
    }

    /** To a tenth of a sample at the corners, where squares alone are good to a quarter. */
    @Test
    void shiftsTurnsAndZoomAreFound() {
        assertNear(fit(Warp.shift(0.011, -0.007)).turned(), Warp.shift(0.011, -0.007), 0.1);
        Warp turn = Warp.similar(-0.006, 0.009, 0.012, 1.006);
        assertNear(fit(turn).turned(), turn, 0.12);
        assertThat(fit(turn).agreed()).isGreaterThan(0.8);
    }

    @Test
    void perspectiveIsFoundWhereItIsThere() {
        Warp tilt = Warp.similar(0.004, 0.003, 0.004, 1).then(new Warp(1, 0, 0, 0, 1, 0, 0.03, -0.02));
        assertNear(fit(tilt).seen(), tilt, 0.25);
    }

    /** A third of the picture that goes another way does not lead the camera. */
    @Test
    void whatPassesBeforeTheCameraDoesNotPullIt() {
        Warp camera = Warp.similar(0.008, 0.004, 0.006, 1);
        Warp back = camera.inverse();
        Scene passes =
                (x, y) -> Math.abs(x + 0.05) < 0.17 ? 0.45 + 0.9 * (wall(1.3 * x + 3, 1.3 * y) - 0.5) : wall(x, y);
        Scene later = (x, y) -> Math.abs(x + 0.05 - 0.02) < 0.17
                ? 0.45 + 0.9 * (wall(1.3 * (x - 0.02) + 3, 1.3 * (y + 0.012)) - 0.5)
                : wall(back.x(x, y), back.y(x, y));
        assertNear(
                CameraFit.between(painted(passes), painted(later), 1, Work.alone())
                        .turned(),
                camera,
                0.3);
    }

    @Test
    void whereNothingCanBeToldNothingIs() {
        Plane even = Plane.of(WIDTH, HEIGHT).fill(0.4f);
        assertThat(CameraFit.between(even, even, 1, Work.alone())).isEqualTo(CameraFit.NONE);
        var random = new Random(3);
        Plane one = painted((x, y) -> random.nextDouble());
        Plane other = painted((x, y) -> random.nextDouble());
        assertThat(CameraFit.between(one, other, 1, Work.alone()).turned()).isEqualTo(Warp.NONE);
    }

    /** Rows that are read one after the other lean as the speed changes, and tell how long it takes. */
    @Test
    void theTimeThatRowsAreReadInIsFound() {
        double rolling = 0.6;
        List<CameraFit> fits = new ArrayList<>();
        Plane before = null;
        for (int n = 0; n < 24; n++) {
            int at = n;
            Plane here = painted((x, y) -> wall(x - 0.008 * Math.sin(1.3 * (at + rolling * y / HIGH)), y));
            fits.add(before == null ? CameraFit.NONE : CameraFit.between(before, here, 1, Work.alone()));
            before = here;
        }
        assertThat(RollingShutter.of(fits, path(fits))).isCloseTo(rolling, within(0.1));
        assertThat(RollingShutter.of(fits.subList(0, 8), path(fits.subList(0, 8))))
                .isZero();
    }

    private static CameraPath path(List<CameraFit> fits) {
        List<Warp> turned = fits.stream().map(CameraFit::turned).toList();
        return new CameraPath(turned, turned, new int[] {0}, 0, HIGH);
    }
}
