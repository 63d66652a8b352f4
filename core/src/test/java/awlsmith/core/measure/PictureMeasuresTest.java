package awlsmith.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The measures of single pictures on pictures whose faults are known. */
class PictureMeasuresTest {
    /** A sky, a textured ground and hard edges: a little of what pictures have. */
    static Plane scene(int width, int height) {
        Plane plane = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                double v = 0.35 + 0.3 * y / height;
                if (y > height * 0.7) {
                    v = 0.4
                            + 0.12
                                    * Math.sin(x * 0.9 + 4 * Math.sin(x * 0.05 + y * 0.01))
                                    * Math.cos(y * 0.8 + 3 * Math.sin(y * 0.07));
                }
                if (x > width * 0.3 && x < width * 0.45 && y > height * 0.3) {
                    v = 0.75;
                }
                plane.set(x, y, (float) v);
            }
        }
        return plane;
    }

    static Plane with(Plane clean, double sigma, long seed) {
        var random = new Random(seed);
        Plane out = Plane.of(clean.width(), clean.height());
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] = clean.data()[i] + (float) (sigma * random.nextGaussian());
        }
        return out;
    }

    /** Known noise is found within a tenth, as the plan asks; Immerkaer 1996 reports similar errors for his estimate. */
    @ParameterizedTest
    @ValueSource(doubles = {2, 5, 8, 17, 25})
    void addedNoiseIsFound(double of255) {
        var found = NoiseLevel.of(with(scene(480, 360), of255 / 255, 3));
        assertThat(255 * found.sigma()).isCloseTo(of255, within(0.1 * of255));
        assertThat(found.grain()).isLessThan(1.25);
        assertThat(255 * found.bands().get(1)).isCloseTo(of255, within(0.15 * of255));
    }

    @Test
    void aCleanPictureHasNoNoise() {
        assertThat(255 * NoiseLevel.of(scene(480, 360)).level()).isLessThan(0.3);
        assertThat(NoiseLevel.of(scene(480, 360)).flat()).isLessThan(0.95);
        assertThat(NoiseLevel.of(Plane.of(16, 16).fill(0.5f)).level()).isZero();
    }

    @Test
    void enlargedGrainIsCoarse() {
        Plane small = with(Plane.of(240, 180).fill(0.5f), 8.0 / 255, 5);
        Plane large = Plane.of(480, 360);
        for (int y = 0; y < 360; y++) {
            for (int x = 0; x < 480; x++) {
                float left = small.at(x / 2, y / 2);
                float right = small.at(Math.min(239, x / 2 + 1), y / 2);
                large.set(x, y, x % 2 == 0 ? left : (left + right) / 2);
            }
        }
        var found = NoiseLevel.of(large);
        assertThat(found.grain()).isGreaterThan(1.4);
        assertThat(255 * found.level()).isBetween(4.0, 9.0);
    }

    private static Plane blocky(Plane clean, int side, double share) {
        Plane out = Plane.of(clean.width(), clean.height());
        for (int y0 = 0; y0 < clean.height(); y0 += side) {
            for (int x0 = 0; x0 < clean.width(); x0 += side) {
                double mean = 0;
                int count = 0;
                for (int y = y0; y < Math.min(y0 + side, clean.height()); y++) {
                    for (int x = x0; x < Math.min(x0 + side, clean.width()); x++) {
                        mean += clean.at(x, y);
                        count++;
                    }
                }
                for (int y = y0; y < Math.min(y0 + side, clean.height()); y++) {
                    for (int x = x0; x < Math.min(x0 + side, clean.width()); x++) {
                        out.set(x, y, (float) ((1 - share) * clean.at(x, y) + share * mean / count));
                    }
                }
            }
        }
        return out;
    }

    @ParameterizedTest
    @ValueSource(ints = {8, 12, 16})
    void blocksAreFoundWithTheirSide(int side) {
        Plane clean = with(scene(480, 384), 2.0 / 255, 9);
        double last = Blocking.of(clean).strength();
        assertThat(last).isLessThan(1.1);
        for (double share : new double[] {0.3, 0.6, 0.9}) {
            var found = Blocking.of(blocky(clean, side, share));
            assertThat(found.strength()).isGreaterThan(last);
            last = found.strength();
        }
        assertThat(Blocking.of(blocky(clean, side, 0.9)).period()).isEqualTo(side);
    }

    private static Plane step(double sigma, double unsharp) {
        Plane plane = Plane.of(320, 120);
        for (int y = 0; y < 120; y++) {
            for (int x = 0; x < 320; x++) {
                double d = (x % 40) - 19.5;
                // a bar of light every 40 samples, its edges blurred by a Gaussian
                double v = 0.2 + 0.5 * (phi((d + 10) / sigma) - phi((d - 10) / sigma));
                double wide = 0.2 + 0.5 * (phi((d + 10) / (2 * sigma)) - phi((d - 10) / (2 * sigma)));
                plane.set(x, y, (float) (v + unsharp * (v - wide)));
            }
        }
        return plane;
    }

    private static double phi(double z) {
        // logistic form of the normal distribution; from memory, right within 0.01
        return 1 / (1 + Math.exp(-1.702 * z));
    }

    /** From 10 to 90 % a Gaussian edge rises within 2.563 standard deviations (table of the normal distribution). */
    @ParameterizedTest
    @ValueSource(doubles = {1.0, 1.6, 2.4})
    void edgesAreAsWideAsTheirBlur(double sigma) {
        var edges = EdgeWidth.of(step(sigma, 0));
        assertThat(edges.across()).isCloseTo(2.563 * sigma / 0.8, within(0.15 * 2.563 * sigma / 0.8));
        assertThat(edges.down()).isNaN();
        assertThat(edges.overshoot()).isLessThan(0.03);
    }

    /** Discs, whose edges run all ways alike, blurred along a line of 13 samples. */
    private static Plane smeared(double degrees) {
        double dx = Math.cos(Math.toRadians(degrees));
        double dy = -Math.sin(Math.toRadians(degrees));
        Plane plane = Plane.of(320, 240);
        for (int y = 0; y < 240; y++) {
            for (int x = 0; x < 320; x++) {
                double sum = 0;
                for (double t = -6; t <= 6; t += 0.5) {
                    double u = Math.floorMod(Math.round(4 * (x + t * dx)), 320) / 4.0 - 40;
                    double v = Math.floorMod(Math.round(4 * (y + t * dy)), 320) / 4.0 - 40;
                    sum += Math.clamp((26 - Math.hypot(u, v)) / 2, 0, 1);
                }
                plane.set(x, y, (float) (0.2 + 0.6 * sum / 25));
            }
        }
        return plane;
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, 20, 45, 70, 90, 120, 135, 160})
    void aBlurOfOneWayHasItsAngle(double degrees) {
        var edges = EdgeWidth.of(smeared(degrees));
        double off = Math.abs(edges.angle() - degrees);
        assertThat(Math.min(off, 180 - off)).isLessThan(4);
        assertThat(edges.lopsided()).isGreaterThan(1.4);
        // along a line of 13 samples
        assertThat(edges.smear()).isBetween(9.0, 15.5);
    }

    @Test
    void sharpeningLeavesHaloes() {
        double last = EdgeWidth.of(step(1, 0)).overshoot();
        for (double strength : new double[] {0.5, 1, 2}) {
            double now = EdgeWidth.of(step(1, strength)).overshoot();
            assertThat(now).isGreaterThan(last + 0.02);
            last = now;
        }
    }

    /** Bars that move two samples a field. */
    private static Plane moment(double t) {
        Plane plane = Plane.of(256, 192);
        for (int y = 0; y < 192; y++) {
            for (int x = 0; x < 256; x++) {
                plane.set(x, y, (float) (0.5 + 0.3 * Math.sin((x - 2 * t) * 0.21 + 0.013 * y)));
            }
        }
        return plane;
    }

    private static Plane woven(double t, boolean topFirst) {
        Plane first = moment(t);
        Plane second = moment(t + 1);
        Plane out = Plane.of(256, 192);
        for (int y = 0; y < 192; y++) {
            Plane from = (y % 2 == 0) == topFirst ? first : second;
            System.arraycopy(from.data(), from.row(y), out.data(), out.row(y), 256);
        }
        return out;
    }

    @Test
    void fieldOrderIsFound() {
        for (boolean top : new boolean[] {true, false}) {
            var fit = Fields.fit(woven(0, top), woven(2, top), woven(4, top));
            assertThat(Fields.verdict(fit)).isEqualTo(top ? Fields.Verdict.TOP_FIRST : Fields.Verdict.BOTTOM_FIRST);
            assertThat(Fields.combed(woven(2, top))).isGreaterThan(0.5);
        }
        assertThat(Fields.verdict(Fields.fit(moment(0), moment(2), moment(4)))).isEqualTo(Fields.Verdict.PROGRESSIVE);
        assertThat(Fields.combed(moment(2))).isZero();
    }

    @Test
    void doubledLinesAreStairSteps() {
        Plane clean = scene(320, 240);
        assertThat(StairSteps.of(clean)).isLessThan(0.15);
        Plane doubled = Plane.of(320, 240);
        for (int y = 0; y < 240; y++) {
            System.arraycopy(clean.data(), clean.row(y / 2 * 2), doubled.data(), doubled.row(y), 320);
        }
        assertThat(StairSteps.of(doubled)).isGreaterThan(0.95);
    }

    @Test
    void bordersAreCounted() {
        Plane plane = Plane.of(200, 100).fill(0.01f);
        for (int y = 12; y < 91; y++) {
            for (int x = 6; x < 196; x++) {
                plane.set(x, y, 0.4f);
            }
        }
        assertThat(Borders.of(plane)).contains(new Borders(6, 12, 4, 9));
        assertThat(Borders.of(Plane.of(64, 64))).isEmpty();
        assertThat(new Borders(6, 12, 4, 9).common(new Borders(2, 20, 8, 9))).isEqualTo(new Borders(2, 12, 4, 9));
    }

    @Test
    void shiftsAreMeasuredBetweenSamples() {
        Plane before = Plane.of(300, 200);
        Plane here = Plane.of(300, 200);
        for (int y = 0; y < 200; y++) {
            for (int x = 0; x < 300; x++) {
                before.set(x, y, (float) bumps(x, y));
                here.set(x, y, (float) bumps(x - 3.4, y + 1.7));
            }
        }
        var shift = GlobalShift.between(GlobalShift.Profiles.of(before), GlobalShift.Profiles.of(here));
        assertThat(shift.dx()).isCloseTo(3.4, within(0.15));
        assertThat(shift.dy()).isCloseTo(-1.7, within(0.15));
        assertThat(shift.trust()).isGreaterThan(0.5);
    }

    private static double bumps(double x, double y) {
        return 0.5
                + 0.1 * Math.sin(x * 0.11)
                + 0.1 * Math.sin(x * 0.043 + 1)
                + 0.1 * Math.sin(y * 0.09)
                + 0.1 * Math.sin(y * 0.037 + 2);
    }

    /** ITU-R BT.601: nominal black and white are 0 and 1 here; whatever reaches them is cut off. */
    @Test
    void levelsTellLightAndCast() {
        var format = new Format(64, 64, Chroma.S444, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, new PlanePool(0));
        frame.plane(0).fill(0.5f);
        frame.plane(1).fill(-0.04f);
        frame.plane(2).fill(0.02f);
        for (int x = 0; x < 64; x++) {
            frame.plane(0).set(x, 0, -0.01f);
            frame.plane(0).set(x, 1, 1.02f);
        }
        var levels = Levels.of(frame);
        assertThat(levels.black()).isCloseTo(1.0 / 64, within(1e-9));
        assertThat(levels.white()).isCloseTo(1.0 / 64, within(1e-9));
        assertThat(levels.castCb()).isCloseTo(-0.04, within(1e-6));
        assertThat(levels.castCr()).isCloseTo(0.02, within(1e-6));
        assertThat(levels.saturation()).isCloseTo(Math.hypot(0.04, 0.02), within(1e-6));
        assertThat(levels.high() - levels.low()).isGreaterThan(0.9);
    }
}
