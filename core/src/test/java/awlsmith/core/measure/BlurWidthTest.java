package awlsmith.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BlurWidthTest {
    /** Posts whose edges are a bell's integral, which is what a bell makes of a step. */
    private static Plane posts(double across, double down) {
        Plane p = Plane.of(160, 160);
        for (int y = 0; y < 160; y++) {
            for (int x = 0; x < 160; x++) {
                // upright ones above, lying ones below
                double at = y < 80 ? x : y;
                double sigma = y < 80 ? across : down;
                double from = Math.abs(at % 40 - 20) - 10;
                p.set(x, y, (float) (0.5 + 0.3 * erf(from / (sigma * Math.sqrt(2)))));
            }
        }
        return p;
    }

    /** Source: M. Abramowitz and I. Stegun, "Handbook of mathematical functions", 1964, 7.1.26. */
    private static double erf(double x) {
        double t = 1 / (1 + 0.3275911 * Math.abs(x));
        double sum = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
        return Math.signum(x) * (1 - sum * Math.exp(-x * x));
    }

    @ParameterizedTest
    @CsvSource({"0.8, 0.8", "1.2, 2", "2, 1.2", "2.5, 2.5"})
    void aBellIsToldByTheSlopesOfItsEdges(double across, double down) {
        BlurWidth.Widths widths = BlurWidth.of(posts(across, down));
        assertThat(widths.across()).isCloseTo(seen(across), within(0.1));
        assertThat(widths.down()).isCloseTo(seen(down), within(0.1));
        assertThat(widths.both()).isBetween(seen(Math.min(across, down)) - 0.1, seen(Math.max(across, down)) + 0.1);
    }

    /** The slope over two samples is a mean of theirs, whose variance of a third adds up with the bell's. */
    private static double seen(double sigma) {
        return Math.sqrt(sigma * sigma + 1.0 / 3);
    }

    @Test
    void nothingIsSaidWithoutEdges() {
        BlurWidth.Widths none = BlurWidth.of(Plane.of(64, 64).fill(0.4f));
        assertThat(none.both()).isNaN();
    }
}
