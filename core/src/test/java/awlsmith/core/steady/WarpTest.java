package awlsmith.core.steady;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class WarpTest {
    private static final double HEIGHT = 0.5625;

    private static Warp drawn(SplittableRandom random) {
        return Warp.similar(0.1 * one(random), 0.1 * one(random), 0.1 * one(random), 1 + 0.05 * one(random))
                .then(new Warp(1, 0.02 * one(random), 0, 0, 1, 0, 0.05 * one(random), 0.05 * one(random)));
    }

    private static double one(SplittableRandom random) {
        return 2 * random.nextDouble() - 1;
    }

    @Test
    void oneAfterTheOtherAndBackIsWhereItWas() {
        var random = new SplittableRandom(5);
        for (int i = 0; i < 50; i++) {
            Warp one = drawn(random);
            Warp other = drawn(random);
            double x = 0.5 * one(random);
            double y = 0.3 * one(random);
            Warp both = one.then(other);
            assertThat(both.x(x, y)).isCloseTo(other.x(one.x(x, y), one.y(x, y)), within(1e-12));
            assertThat(both.y(x, y)).isCloseTo(other.y(one.x(x, y), one.y(x, y)), within(1e-12));
            Warp there = one.then(one.inverse());
            assertThat(there.x(x, y)).isCloseTo(x, within(1e-12));
            assertThat(there.y(x, y)).isCloseTo(y, within(1e-12));
            Warp again = Warp.ofCorners(one.corners(HEIGHT), HEIGHT);
            assertThat(again.x(x, y)).isCloseTo(one.x(x, y), within(1e-9));
            assertThat(again.y(x, y)).isCloseTo(one.y(x, y), within(1e-9));
        }
    }

    @Test
    void aTurnKeepsLengthsAndAZoomDoesNot() {
        Warp turn = Warp.similar(0, 0, 0.3, 1);
        assertThat(Math.hypot(turn.x(0.3, 0.4), turn.y(0.3, 0.4))).isCloseTo(0.5, within(1e-12));
        // clockwise as seen, down being positive
        assertThat(turn.y(1, 0)).isPositive();
        assertThat(turn.angle()).isCloseTo(0.3, within(1e-12));
        assertThat(Warp.similar(0, 0, 0.3, 1.2).zoom()).isCloseTo(1.2, within(1e-12));
    }

    @Test
    void whatIsSeenFromItsEdgeHasNoWayBack() {
        assertThatThrownBy(() -> new Warp(1, 1, 0, 1, 1, 0, 0, 0).inverse()).isInstanceOf(ArithmeticException.class);
        assertThat(Warp.ofCorners(new double[8], HEIGHT)).isEqualTo(Warp.NONE);
    }
}
