package awlsmith.core.upscale;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.picture.Plane;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

class GradientHashTest {
    private static final int LINES = GradientHash.LINES;
    private static final int STRENGTHS = GradientHash.BUCKETS / (GradientHash.ANGLES * GradientHash.COHERENCES * LINES);

    private static int angle(int bucket) {
        return bucket / (STRENGTHS * GradientHash.COHERENCES * LINES);
    }

    private static int strength(int bucket) {
        return bucket / (GradientHash.COHERENCES * LINES) % STRENGTHS;
    }

    private static int coherence(int bucket) {
        return bucket / LINES % GradientHash.COHERENCES;
    }

    private static int line(int bucket) {
        return bucket % LINES;
    }

    /**
     * Worked by hand: the tensor [[5, 2], [2, 2]] has the eigenvalues 6 and 1, as 5 + 2 = 7 and 5 * 2 - 2 * 2 = 6, and the
     * eigenvector of 6 is (2, 1): direction atan(1/2) = 0.4636 radians. Scaled by 1e-4 the strength is sqrt(6e-4) = 0.0245
     * and the coherence (2.449 - 1) / (2.449 + 1) = 0.42. Source of the formulas: Romano et al. 2016, section III-A.
     */
    @Test
    void aTensorWorkedByHand() {
        int bucket = GradientHash.bucket(5e-4f, 2e-4f, 2e-4f, 0);
        assertThat(angle(bucket)).isEqualTo((int) (0.4636 / (Math.PI / GradientHash.ANGLES)));
        assertThat(coherence(bucket)).isEqualTo((int) (0.42 * GradientHash.COHERENCES));
        assertThat(strength(bucket)).isEqualTo(3);
        assertThat(line(bucket)).isEqualTo(1);
    }

    /** A slope in any direction has full coherence and the direction it was drawn with. */
    @Test
    void slopesHaveTheirDirection() {
        for (int step = 0; step < GradientHash.ANGLES; step++) {
            double angle = (step + 0.5) * Math.PI / GradientHash.ANGLES;
            Plane slope = Plane.of(17, 17);
            for (int y = 0; y < 17; y++) {
                for (int x = 0; x < 17; x++) {
                    slope.set(x, y, (float) (0.5 + 0.02 * (x * Math.cos(angle) + y * Math.sin(angle))));
                }
            }
            int middle = HashedFilters.buckets(slope)[8 * 17 + 8];
            assertThat(angle(middle)).as("angle %d", step).isEqualTo(step);
            assertThat(coherence(middle)).isEqualTo(GradientHash.COHERENCES - 1);
        }
    }

    @Test
    void linesAreToldFromEdgesAndFromEachOther() {
        assertThat(line(middle(x -> x == 8 ? 0.9f : 0.2f))).isEqualTo(2);
        assertThat(line(middle(x -> x == 8 ? 0.2f : 0.9f))).isZero();
        assertThat(line(middle(x -> 0.5f + 0.02f * x))).isEqualTo(1);
    }

    private interface Profile {
        float at(int x);
    }

    private static int middle(Profile profile) {
        Plane p = Plane.of(17, 17);
        for (int y = 0; y < 17; y++) {
            for (int x = 0; x < 17; x++) {
                p.set(x, y, profile.at(x));
            }
        }
        return HashedFilters.buckets(p)[8 * 17 + 8];
    }

    @Test
    void everyBucketIsInRangeAndFlatPlacesShareOne() {
        Set<Integer> seen = new TreeSet<>();
        var random = new java.util.SplittableRandom(5);
        for (int i = 0; i < 20_000; i++) {
            float xx = (float) Math.pow(10, -8 * random.nextDouble());
            float yy = (float) Math.pow(10, -8 * random.nextDouble());
            float xy = (float) ((2 * random.nextDouble() - 1) * Math.sqrt((double) xx * yy));
            seen.add(GradientHash.bucket(xx, xy, yy, (float) (random.nextDouble() - 0.5)));
        }
        assertThat(seen).allMatch(b -> b >= 0 && b < GradientHash.BUCKETS);
        assertThat(seen.size()).isGreaterThan(GradientHash.BUCKETS / 2);
        assertThat(HashedFilters.buckets(Plane.of(9, 9).fill(0.4f))).containsOnly(GradientHash.bucket(0, 0, 0, 0));
    }
}
