package awlsmith.trainer.hash;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import awlsmith.core.upscale.GradientHash;
import awlsmith.core.upscale.HashedFilters;
import awlsmith.trainer.pairs.Pair;
import awlsmith.trainer.pairs.Reduced;
import awlsmith.trainer.run.Validation;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class HashedTrainingTest {
    private static List<Pair> pairs(long seed) {
        var random = new SplittableRandom(seed);
        Plane sharp = Plane.of(480, 360);
        double[] tilt = random.doubles(40, 0, Math.PI).toArray();
        for (int y = 0; y < 360; y++) {
            for (int x = 0; x < 480; x++) {
                double a = tilt[(x / 60 + y / 60 * 8) % 40];
                sharp.set(x, y, Math.sin((x * Math.cos(a) + y * Math.sin(a)) * 0.35) > 0 ? 0.8f : 0.3f);
            }
        }
        return new Reduced(List.of(Kernel.CATMULL_ROM)).of(sharp, 2, random);
    }

    @Test
    void edgesOfUnseenDirectionsGetBetter() {
        var training = new HashedTraining(2);
        training.learn(pairs(1), 1);
        float[] filters = training.filters();
        assertThat(new Validation(pairs(2)).of(new HashedFilters(2, filters)).gain())
                .isGreaterThan(0.5);
    }

    /** No filter may change a flat place, whatever its brightness. */
    @Test
    void everyFilterSumsToNothing() {
        var training = new HashedTraining(2);
        training.learn(pairs(1), 1);
        float[] filters = training.filters();
        for (int f = 0; f < GradientHash.BUCKETS * 4; f++) {
            double sum = 0;
            for (int i = 0; i < HashedFilters.FILTER; i++) {
                sum += filters[f * HashedFilters.FILTER + i];
            }
            assertThat(sum).isCloseTo(0, within(1e-4));
        }
    }

    /** Worked by hand: products [[2, 1], [1, 3]], answers (1, 2): w = (1/5, 3/5); leaning on (0, 0) by 1: (2/11, 5/11). */
    @Test
    void leastSquaresWorkedByHand() {
        double[] products = {2, 1, 0, 3};
        double[] plain = LeastSquares.solve(products, new double[] {1, 2}, 2, 1, new double[2], 0);
        assertThat(plain[0]).isCloseTo(0.2, within(1e-12));
        assertThat(plain[1]).isCloseTo(0.6, within(1e-12));
        double[] leaning = LeastSquares.solve(products, new double[] {1, 2}, 2, 1, new double[2], 1);
        assertThat(leaning[0]).isCloseTo(2 / 11.0, within(1e-12));
        assertThat(leaning[1]).isCloseTo(5 / 11.0, within(1e-12));
    }
}
