package awlsmith.core.detail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** Source: He, Sun and Tang, "Guided image filtering", ECCV 2010, equations 5, 6 and 8, written down once more sample by sample. */
class GuidedBaseTest {
    private static final int WIDTH = 41;
    private static final int HEIGHT = 29;

    @Test
    void itIsWhatTheEquationsSay() {
        Plane picture = picture(0.3);
        for (int radius : new int[] {1, 3, 20}) {
            Plane base = base(picture, radius, 0.1, Region.whole(WIDTH, HEIGHT));
            for (int y = 0; y < HEIGHT; y++) {
                for (int x = 0; x < WIDTH; x++) {
                    assertThat(base.at(x, y))
                            .as("%d,%d", x, y)
                            .isCloseTo((float) slowly(picture, radius, 0.1, x, y), within(1e-4f));
                }
            }
        }
    }

    @Test
    void aPartIsCutOutOfTheWhole() {
        Plane picture = picture(0.3);
        Plane whole = base(picture, 3, 0.05, Region.whole(WIDTH, HEIGHT));
        var part = new Region(9, 5, 17, 13);
        assertThat(base(picture, 3, 0.05, part).packed())
                .isEqualTo(whole.window(part).packed());
    }

    @Test
    void edgesStayAndTextureGoes() {
        Plane picture = Plane.of(WIDTH, HEIGHT);
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                picture.set(x, y, (x < 20 ? 0.2f : 0.8f) + ((x + y) % 2 == 0 ? 0.01f : -0.01f));
            }
        }
        Plane base = base(picture, 3, 0.04, Region.whole(WIDTH, HEIGHT));
        assertThat(base.at(20, 14) - base.at(19, 14)).isGreaterThan(0.5f);
        assertThat(base.at(5, 14)).isCloseTo(0.2f, within(0.002f));
        assertThat(base.at(6, 14)).isCloseTo(0.2f, within(0.002f));
    }

    private static Plane base(Plane picture, int radius, double surface, Region part) {
        var base = new GuidedBase(WIDTH, HEIGHT, radius, surface);
        Region held = base.needs(part);
        Plane out = Plane.of(part.width(), part.height());
        base.of(picture.window(held), held, part, out, new PlanePool(0), Work.alone());
        return out;
    }

    private static Plane picture(double contrast) {
        var random = new SplittableRandom(4);
        Plane picture = Plane.of(WIDTH, HEIGHT);
        for (int i = 0; i < picture.data().length; i++) {
            picture.data()[i] = (float) (-0.2 + 1.2 * random.nextDouble() + contrast * (i % WIDTH > 20 ? 1 : 0));
        }
        return picture;
    }

    private static double slowly(Plane picture, int radius, double surface, int x, int y) {
        double slopes = 0;
        double levels = 0;
        int windows = 0;
        for (int v = Math.max(0, y - radius); v <= Math.min(HEIGHT - 1, y + radius); v++) {
            for (int u = Math.max(0, x - radius); u <= Math.min(WIDTH - 1, x + radius); u++) {
                double sum = 0;
                double square = 0;
                int count = 0;
                for (int j = Math.max(0, v - radius); j <= Math.min(HEIGHT - 1, v + radius); j++) {
                    for (int i = Math.max(0, u - radius); i <= Math.min(WIDTH - 1, u + radius); i++) {
                        sum += picture.at(i, j);
                        square += picture.at(i, j) * picture.at(i, j);
                        count++;
                    }
                }
                double mean = sum / count;
                double variance = square / count - mean * mean;
                double slope = variance / (variance + surface * surface);
                slopes += slope;
                levels += (1 - slope) * mean;
                windows++;
            }
        }
        return (slopes * picture.at(x, y) + levels) / windows;
    }
}
