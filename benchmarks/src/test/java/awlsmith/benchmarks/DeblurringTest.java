package awlsmith.benchmarks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.detail.PointSpread;
import awlsmith.core.picture.Plane;
import org.junit.jupiter.api.Test;

class DeblurringTest {
    /**
     * Source: scikit-image 0.19.3, restoration.richardson_lucy(num_iter=5, clip=False) on the same picture and taps; it takes what lies beyond the
     * edges for black, so the middle row is compared.
     */
    @Test
    void theIterationsAreThoseOfTheReferenceLibrary() {
        var spread = new PointSpread.Bell(1.5, 1.5);
        Plane scene = Plane.of(48, 40);
        for (int y = 0; y < 40; y++) {
            for (int x = 0; x < 48; x++) {
                double disc = (x - 34) * (x - 34) + (y - 20) * (y - 20) < 36 ? -0.3 : 0;
                scene.set(x, y, (float) ((x < 20 ? 0.25 : 0.7) + disc + 0.05 * Math.sin(0.9 * x) * Math.sin(0.7 * y)));
            }
        }
        Plane blurred = Deblurring.spread(scene, spread);
        Plane now = Plane.of(48, 40).fill(0.5f);
        for (int i = 0; i < 5; i++) {
            now = Deblurring.lucy(blurred, now, spread);
        }
        double[] row = {0.2432, 0.2441, 0.2905, 0.6541, 0.7306, 0.6534, 0.4312, 0.371};
        for (int i = 0; i < row.length; i++) {
            assertThat(now.at(12 + 3 * i, 20)).as("%d", 12 + 3 * i).isCloseTo((float) row[i], within(0.002f));
        }
    }
}
