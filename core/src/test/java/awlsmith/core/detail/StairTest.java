package awlsmith.core.detail;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.fields.Clips;
import awlsmith.core.measure.EdgeWidth;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class StairTest {
    private static final int SIDE = 96;
    private static final Format GREY = Clips.format(SIDE, SIDE, Chroma.GREY);

    private interface Scene {
        double at(double x, double y);
    }

    /** @param fine samples each way that one is the mean of: 1 draws stairs, many draw the truth */
    private static Plane drawn(Scene scene, int fine) {
        Plane p = Plane.of(SIDE, SIDE);
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                double sum = 0;
                for (int v = 0; v < fine; v++) {
                    for (int u = 0; u < fine; u++) {
                        sum += scene.at(x + (u + 0.5) / fine, y + (v + 0.5) / fine);
                    }
                }
                p.set(x, y, (float) (sum / fine / fine));
            }
        }
        return p;
    }

    private static Scene edge(double degrees) {
        double a = Math.toRadians(degrees);
        return (x, y) -> Math.cos(a) * (y - 48) - Math.sin(a) * (x - 48) > 0 ? 0.75 : 0.25;
    }

    private static Plane treated(Plane in, int reach) {
        return treated(in, reach, GREY.whole());
    }

    private static Plane treated(Plane in, int reach, Region part) {
        var frame = new Frame(GREY, GREY.whole(), List.of(in), 0, Rational.ZERO);
        return new StairStage(GREY, reach, 1)
                .treat(distance -> frame, part, new PlanePool(0), Work.alone())
                .plane(0);
    }

    private static double error(Plane a, Plane b) {
        double sum = 0;
        for (int i = 0; i < a.data().length; i++) {
            double d = a.data()[i] - b.data()[i];
            sum += d * d;
        }
        return Math.sqrt(sum / a.data().length);
    }

    /** The truth is the same edge, each sample the mean of 16 by 16 within it. */
    @ParameterizedTest
    @ValueSource(doubles = {8, 17, 30, 41, 55, 80, 120, 163})
    void slantingEdgesComeNearerToTheTruth(double degrees) {
        Plane stairs = drawn(edge(degrees), 1);
        Plane truth = drawn(edge(degrees), 16);
        assertThat(error(treated(stairs, 5), truth)).isLessThan(0.75 * error(stairs, truth));
    }

    @ParameterizedTest
    @CsvSource({"20", "70"})
    void edgesStaySteep(double degrees) {
        Plane truth = drawn(edge(degrees), 16);
        Plane out = treated(drawn(edge(degrees), 1), 5);
        assertThat(EdgeWidth.of(out).width()).isLessThan(EdgeWidth.of(truth).width() + 1);
    }

    @Test
    void levelEdgesSurfacesAndCornersStay() {
        Plane box = drawn((x, y) -> x > 30 && x < 66 && y > 30 && y < 66 ? 0.8 : 0.3, 1);
        Plane out = treated(box, 4);
        assertThat(error(out, box)).isLessThan(0.012);
        Plane flat = Plane.of(SIDE, SIDE).fill(1.3f);
        assertThat(treated(flat, 4).data()).isEqualTo(flat.data());
    }

    @Test
    void partsAreTheSame() {
        Plane stairs = drawn(edge(23), 1);
        Plane all = treated(stairs, 6);
        var part = new Region(17, 40, 33, 21);
        assertThat(treated(stairs, 6, part).packed()).isEqualTo(all.window(part).packed());
    }
}
