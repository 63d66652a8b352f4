package awlsmith.core.resample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Work;
import java.util.Random;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class PlaneResamplerTest {
    static Plane noise(int width, int height, long seed) {
        Plane plane = Plane.of(width, height);
        var random = new Random(seed);
        for (int i = 0; i < plane.data().length; i++) {
            plane.data()[i] = random.nextFloat() * 1.4f - 0.2f;
        }
        return plane;
    }

    private static PlaneResampler resampler(Kernel kernel, int w, int h, int w2, int h2, TapBlend blend) {
        return new PlaneResampler(
                TapTable.of(kernel, w, w2, (double) w / w2, 0), TapTable.of(kernel, h, h2, (double) h / h2, 0), blend);
    }

    private static Plane run(PlaneResampler resampler, Plane src, Work work) {
        Plane dst = Plane.of(resampler.across().targetSize(), resampler.down().targetSize());
        resampler.resample(src, 0, 0, dst, 0, 0, work);
        return dst;
    }

    /** The sum of the definition, sample by sample, in doubles. */
    private static double expected(PlaneResampler r, Plane src, int x, int y) {
        double sum = 0;
        for (int j = 0; j < r.down().taps(); j++) {
            int sy = TapTable.mirror(r.down().first(y) + j, src.height());
            for (int i = 0; i < r.across().taps(); i++) {
                int sx = TapTable.mirror(r.across().first(x) + i, src.width());
                sum += (double) r.down().weight(y, j) * r.across().weight(x, i) * src.at(sx, sy);
            }
        }
        return sum;
    }

    @ParameterizedTest
    @CsvSource({
        "LANCZOS3, 40, 30, 80, 60", "LANCZOS4, 17, 13, 100, 5", "MITCHELL, 40, 30, 31, 77", "AREA, 40, 30, 7, 3",
        "AREA, 4, 3, 40, 30", "CATMULL_ROM, 1, 1, 5, 9", "BILINEAR, 33, 1, 16, 8", "LANCZOS2, 50, 50, 50, 100",
        "LANCZOS3, 300, 3, 2, 2"
    })
    void followsTheDefinition(Kernel kernel, int w, int h, int w2, int h2) {
        Plane src = noise(w, h, 5);
        for (TapBlend blend : new TapBlend[] {new ScalarTapBlend(), new VectorTapBlend()}) {
            var resampler = resampler(kernel, w, h, w2, h2, blend);
            Plane dst = run(resampler, src, Work.alone());
            for (int y = 0; y < h2; y++) {
                for (int x = 0; x < w2; x++) {
                    assertThat((double) dst.at(x, y)).isCloseTo(expected(resampler, src, x, y), within(3e-6));
                }
            }
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 8, 9, 15, 16, 17, 65})
    void twinsGiveTheSameBits(int width) {
        for (Kernel kernel : Kernel.values()) {
            Plane src = noise(width, 21, width);
            Plane a = run(resampler(kernel, width, 21, 2 * width + 1, 43, new ScalarTapBlend()), src, Work.alone());
            Plane b = run(resampler(kernel, width, 21, 2 * width + 1, 43, new VectorTapBlend()), src, Work.alone());
            assertArrayEquals(a.data(), b.data(), kernel.id());
        }
    }

    @ParameterizedTest
    @EnumSource(Kernel.class)
    void anyWindowIsCutFromTheWhole(Kernel kernel) {
        windows(kernel, 150, 100);
        // doubling takes a way of its own
        windows(kernel, 122, 94);
    }

    private static void windows(Kernel kernel, int w2, int h2) {
        Plane src = noise(61, 47, 9);
        var resampler = resampler(kernel, 61, 47, w2, h2, new VectorTapBlend());
        Plane whole = run(resampler, src, Work.alone());
        for (Region part : new Region[] {
            new Region(0, 0, w2, h2),
            new Region(31, 17, 40, 23),
            new Region(30, 18, 41, 8),
            new Region(w2 - 1, h2 - 1, 1, 1),
            new Region(0, 63, 9, h2 - 63)
        }) {
            int x0 = resampler.across().needsFrom(part.x(), part.right());
            int x1 = resampler.across().needsTo(part.x(), part.right());
            int y0 = resampler.down().needsFrom(part.y(), part.bottom());
            int y1 = resampler.down().needsTo(part.y(), part.bottom());
            // only what is said to be needed is there
            float[] held = src.window(new Region(x0, y0, x1 - x0, y1 - y0)).packed();
            Plane needed = new Plane(held, 0, x1 - x0, y1 - y0, x1 - x0);
            Plane dst = Plane.of(part.width(), part.height());
            resampler.resample(needed, x0, y0, dst, part.x(), part.y(), Work.alone());
            assertArrayEquals(whole.window(part).packed(), dst.packed(), part.toString());
        }
    }

    @Test
    void anySplitIntoBandsGivesTheSameBits() {
        Plane src = noise(50, 120, 2);
        var resampler = resampler(Kernel.LANCZOS3, 50, 120, 90, 301, new VectorTapBlend());
        Plane alone = run(resampler, src, Work.alone());
        try (var pool = Executors.newFixedThreadPool(3)) {
            for (int threads : new int[] {2, 3, 7}) {
                Plane shared = run(resampler, src, new Work(pool, threads, new Cancel()));
                assertArrayEquals(alone.data(), shared.data());
            }
        }
    }

    @ParameterizedTest
    @EnumSource(Kernel.class)
    void flatAreasKeepTheirValueAndExcursionsAreNotClipped(Kernel kernel) {
        for (float level : new float[] {-0.4f, 0, 0.5f, 1.3f}) {
            Plane dst = run(
                    resampler(kernel, 20, 20, 47, 13, new VectorTapBlend()),
                    Plane.of(20, 20).fill(level),
                    Work.alone());
            for (float v : dst.data()) {
                assertThat(v).isCloseTo(level, within(1e-6f));
            }
        }
    }

    /** Reducing must not fold fine stripes into coarse ones: they average out. */
    @ParameterizedTest
    @EnumSource(Kernel.class)
    void reducingTakesAwayWhatTheSmallPictureCannotShow(Kernel kernel) {
        Plane stripes = Plane.of(256, 16);
        for (int y = 0; y < 16; y++) {
            for (int x = 0; x < 256; x++) {
                stripes.set(x, y, x & 1);
            }
        }
        Plane dst = run(resampler(kernel, 256, 16, 64, 4, new VectorTapBlend()), stripes, Work.alone());
        for (int x = 4; x < 60; x++) {
            assertThat(dst.at(x, 2)).isCloseTo(0.5f, within(0.02f));
        }
    }
}
