package awlsmith.core.steady;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.steady.CameraPath.Kind;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SmoothingTest {
    private static final double HEIGHT = 0.75;

    private interface Way {
        Warp at(int frame);
    }

    private static CameraPath path(int frames, int[] scenes, Way step) {
        List<Warp> steps = new ArrayList<>();
        for (int n = 0; n < frames; n++) {
            steps.add(Arrays.binarySearch(scenes, n) >= 0 ? Warp.NONE : step.at(n));
        }
        return new CameraPath(steps, steps, scenes, 0, HEIGHT);
    }

    /** A straight path is its own mean; scenes do not pull at each other. */
    @Test
    void evenMotionIsLeftAlone() {
        CameraPath path = path(50, new int[] {0, 25}, n -> Warp.shift(n < 25 ? 0.01 : -0.02, 0.004));
        for (Warp warp : new Smoothing(path, Kind.TURN, 6, 0)
                .moves(Smoothing.Way.SMOOTH, 0.2)
                .warps()) {
            assertThat(warp.c()).isCloseTo(0, within(1e-9));
            assertThat(warp.f()).isCloseTo(0, within(1e-9));
        }
    }

    /** Straightened, the picture is turned about its middle, and its corners touch the frame's edges from within. */
    @ParameterizedTest
    @ValueSource(doubles = {7, -7, 0.5})
    void aHorizonIsStraightenedByAsLittleAsItTakes(double degrees) {
        CameraPath path = path(20, new int[] {0}, n -> Warp.NONE);
        for (Warp warp : new Smoothing(path, Kind.TURN, 6, 0, new Smoothing.Horizon(degrees, false))
                .moves(Smoothing.Way.SMOOTH, 0.1)
                .warps()) {
            assertThat(Math.toDegrees(warp.angle())).isCloseTo(-degrees, within(1e-9));
            double most = 0;
            double[] corners = warp.corners(HEIGHT);
            for (int k = 0; k < 8; k += 2) {
                most = Math.max(most, Math.max(Math.abs(corners[k]), Math.abs(corners[k + 1]) / HEIGHT));
            }
            assertThat(most).isCloseTo(0.5, within(1e-9));
        }
    }

    /** A camera that leans more and more: level, what is given leans as the scene's mean does, frame by frame. */
    @Test
    void aLevelHorizonLeansAsTheMeanDoes() {
        double lean = Math.toRadians(0.1);
        CameraPath path = path(40, new int[] {0, 20}, n -> Warp.similar(0.002 * Math.sin(n), 0, lean, 1));
        Warp[] warps = new Smoothing(path, Kind.TURN, 6, 0, new Smoothing.Horizon(0, true))
                .moves(Smoothing.Way.SMOOTH, 0.2)
                .warps();
        for (int n = 0; n < 40; n++) {
            double beside = (n % 20 - 9.5) * lean;
            assertThat(warps[n].angle()).isCloseTo(beside, within(1e-6));
        }
    }

    /** A scene's ends are as steady as its middle, and do not hang on their last frame. */
    @Test
    void endsAreSteadyToo() {
        CameraPath path = path(60, new int[] {0}, n -> Warp.shift(n % 2 == 0 ? 0.012 : -0.008, 0));
        Warp[] warps = new Smoothing(path, Kind.SHIFT, 6, 0)
                .moves(Smoothing.Way.SMOOTH, 0.2)
                .warps();
        double camera = 0;
        double before = 0;
        for (int n = 0; n < 60; n++) {
            camera += path.turned().get(n).c();
            double seen = camera - warps[n].c();
            if (n > 0) {
                assertThat(seen - before).isCloseTo(0.002, within(0.002));
            }
            before = seen;
        }
    }

    /** Filled, a scene is enlarged by as little as it takes, and every corner of the picture lies in its frame. */
    @Test
    void aSceneIsEnlargedByAsLittleAsItTakes() {
        CameraPath path = path(60, new int[] {0, 30}, n -> Warp.similar(n < 30 ? 0.01 * Math.sin(2 * n) : 0, 0, 0, 1));
        Warp[] warps = new Smoothing(path, Kind.TURN, 6, 0)
                .filling(Smoothing.Way.SMOOTH, 0.1)
                .warps();
        assertThat(warps[45].zoom()).isCloseTo(1, within(1e-6));
        double closest = 1;
        for (int n = 0; n < 30; n++) {
            assertThat(warps[n].zoom()).isCloseTo(warps[0].zoom(), within(1e-9)).isBetween(0.9, 0.999);
            for (int[] sign : Warp.CORNERS) {
                double x = warps[n].x(sign[0] / 2.0, sign[1] * HEIGHT / 2);
                assertThat(Math.abs(x)).isLessThan(0.5 + 1e-6);
                closest = Math.min(closest, 0.5 - Math.abs(x));
            }
        }
        assertThat(closest).isCloseTo(0, within(1e-5));
    }

    /** A way that leads nowhere, as a damaged record may hold, moves nothing out of sight. */
    @Test
    void aWayWithoutAWayBackDoesNoHarm() {
        CameraPath path = path(
                20,
                new int[] {0},
                n -> n == 9
                        ? new Warp(1, 1, 0, 1, 1, 0, 0, 0)
                        : n == 12 ? new Warp(1, 0, 0, 0, 1, 0, 2.5, 3) : Warp.shift(0.001, 0));
        for (Smoothing.Way way : Smoothing.Way.values()) {
            for (Warp warp : new Smoothing(path, Kind.PERSPECTIVE, 3, 0)
                    .filling(way, 0.1)
                    .warps()) {
                for (double place : warp.corners(HEIGHT)) {
                    assertThat(Math.abs(place)).isLessThan(0.61);
                }
            }
        }
    }

    /** On a tripod what lies in the middle frame stays where it is, turns and all. */
    @Test
    void stillIsTheMiddleFrameThroughout() {
        CameraPath path = path(
                31,
                new int[] {0},
                n -> Warp.similar(0.004 * Math.sin(n), 0.003 * Math.cos(2 * n), 0.004 * Math.sin(3 * n), 1));
        Warp[] warps = new Smoothing(path, Kind.TURN, 6, 0)
                .moves(Smoothing.Way.STILL, 0.2)
                .warps();
        // a place of the middle frame, followed from frame to frame
        double x = 0.2;
        double y = -0.1;
        for (int n = 15; n < 31; n++) {
            if (n > 15) {
                double next = path.turned().get(n).x(x, y);
                y = path.turned().get(n).y(x, y);
                x = next;
            }
            assertThat(warps[n].x(0.2, -0.1)).isCloseTo(x, within(1e-9));
            assertThat(warps[n].y(0.2, -0.1)).isCloseTo(y, within(1e-9));
        }
    }

    /** One even sweep: steps from frame to frame become alike, and their sum stays. */
    @Test
    void aSweepIsEven() {
        CameraPath path = path(40, new int[] {0}, n -> Warp.shift(0.004 + 0.003 * Math.sin(n), 0));
        Warp[] warps = new Smoothing(path, Kind.SHIFT, 6, 0)
                .moves(Smoothing.Way.SWEEP, 0.3)
                .warps();
        double camera = 0;
        double[] seen = new double[40];
        for (int n = 0; n < 40; n++) {
            camera += path.turned().get(n).c();
            seen[n] = camera - warps[n].c();
        }
        double step = (seen[39] - seen[0]) / 39;
        assertThat(step).isCloseTo(0.004, within(0.0005));
        for (int n = 1; n < 40; n++) {
            assertThat(seen[n] - seen[n - 1]).isCloseTo(step, within(1e-9));
        }
    }

    /** Beyond its rim no picture is moved; where less had to do nothing jerks, and it is told. */
    @Test
    void theRimHolds() {
        CameraPath path = path(60, new int[] {0}, n -> Warp.similar(n == 30 ? 0.3 : 0, 0, n == 30 ? 0.1 : 0, 1));
        double rim = 0.05;
        Smoothing.Moves moves = new Smoothing(path, Kind.TURN, 6, 0).moves(Smoothing.Way.SMOOTH, rim);
        assertThat(moves.cramped()).isBetween(10, 45);
        for (Warp warp : moves.warps()) {
            for (int[] sign : Warp.CORNERS) {
                double x = sign[0] * (0.5 - rim);
                double y = sign[1] * (0.5 - rim) * HEIGHT;
                assertThat(Math.abs(warp.x(x, y))).isLessThan(0.5 + 1e-9);
                assertThat(Math.abs(warp.y(x, y))).isLessThan(HEIGHT / 2 + 1e-9);
            }
        }
        assertThat(new Smoothing(path, Kind.TURN, 6, 0)
                        .moves(Smoothing.Way.SMOOTH, 0.49)
                        .cramped())
                .isZero();
    }
}
