package awlsmith.core.clean;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import awlsmith.core.resample.Kernel;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.IntUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class CleanTest {
    private static final PlanePool POOL = new PlanePool(0);

    private static float[] noise(int count, long seed) {
        var random = new Random(seed);
        float[] x = new float[count];
        for (int i = 0; i < count; i++) {
            x[i] = (float) random.nextGaussian();
        }
        return x;
    }

    @Test
    void bothFormsOfTheBlocksGiveTheSameBits() {
        Blocks vector = Blocks.of(Lanes.VECTOR);
        Blocks scalar = Blocks.of(Lanes.SCALAR);
        int size = Blocks.SIZE * Blocks.LANES;
        float[] a = noise(size, 1);
        float[] b = a.clone();
        float[] pilot = noise(size, 2);
        float[] sigma = {0.1f, 0.5f, 1, 2, 0, 0.7f, 1.4f, 3};
        float[] wa = new float[Blocks.LANES];
        float[] wb = new float[Blocks.LANES];
        float[] shape = new float[Blocks.SIZE];
        java.util.Arrays.fill(shape, 1);
        vector.forward(a);
        scalar.forward(b);
        assertThat(a).isEqualTo(b);
        float[] cutA = a.clone();
        float[] cutB = b.clone();
        vector.cut(cutA, shape, sigma, wa);
        scalar.cut(cutB, shape, sigma, wb);
        assertThat(cutA).isEqualTo(cutB);
        assertThat(wa).isEqualTo(wb);
        vector.weigh(a, pilot, shape, sigma, wa);
        scalar.weigh(b, pilot, shape, sigma, wb);
        assertThat(a).isEqualTo(b);
        assertThat(wa).isEqualTo(wb);
        vector.inverse(a);
        scalar.inverse(b);
        assertThat(a).isEqualTo(b);
        float[][] rows = new float[Blocks.SIDE * Blocks.COLUMNS][];
        for (int i = 0; i < rows.length; i++) {
            rows[i] = noise(3 * Blocks.LANES + 1, 100 + i);
        }
        vector.load(rows, 5, a);
        scalar.load(rows, 5, b);
        assertThat(a).isEqualTo(b);
        float[][] sums = new float[2][];
        for (Blocks form : new Blocks[] {vector, scalar}) {
            float[][] into = new float[Blocks.COLUMNS + 2][3 * Blocks.LANES + 1];
            form.add(a, 3, wa, into, 2, 5);
            form.add(a, 6, wa, into, 2, 7);
            sums[form == vector ? 0 : 1] = into[3];
            assertThat(into[0]).containsOnly(0);
        }
        assertThat(sums[0]).isEqualTo(sums[1]);
    }

    /** The noise of every block is its own, so light and dark blocks side by side are each cut by theirs; a part comes out as the whole does. */
    @Test
    void blocksAreWeighedByTheNoiseWhereTheyLie() {
        int width = 75;
        int height = 41;
        float[] shape = new float[Blocks.SIZE];
        java.util.Arrays.fill(shape, 1);
        var shrink = new BlockShrink(width, height, shape);
        var all = new Region(0, 0, width, height);
        Plane in = Plane.of(width, height);
        System.arraycopy(noise(width * height, 21), 0, in.data(), 0, width * height);
        Plane deviation = Plane.of(width, height);
        for (int i = 0; i < width * height; i++) {
            deviation.data()[i] = i % width < 40 ? 5 : 0;
        }
        Plane out = Plane.of(width, height);
        var held = new BlockShrink.Held(in, all);
        var noise = new BlockShrink.Held(deviation, all);
        shrink.pass(held, noise, null, all, out, Work.alone());
        for (int y = 0; y < height; y++) {
            // what has no noise stays as it is, what has much becomes level
            assertThat(out.at(70, y)).isCloseTo(in.at(70, y), within(1e-5f));
            assertThat(Math.abs(out.at(12, y))).isLessThan(0.7f);
        }
        var part = new Region(9, 5, 44, 30);
        Plane cut = Plane.of(part.width(), part.height());
        shrink.pass(held, noise, null, part, cut, Work.alone());
        for (int y = 0; y < part.height(); y++) {
            for (int x = 0; x < part.width(); x++) {
                assertThat(cut.at(x, y)).isEqualTo(out.at(part.x() + x, part.y() + y));
            }
        }
    }

    @Test
    void bothFormsOfTheRowsGiveTheSameBits() {
        TimeRows vector = TimeRows.of(Lanes.VECTOR);
        TimeRows scalar = TimeRows.of(Lanes.SCALAR);
        int count = 53;
        float[] a = noise(count + 9, 4);
        float[] b = noise(count + 9, 5);
        float[][] rows = new float[2][count];
        vector.squared(a, 3, b, 5, rows[0], 0, count);
        scalar.squared(a, 3, b, 5, rows[1], 0, count);
        assertThat(rows[0]).isEqualTo(rows[1]);
        float[][] five = {noise(count, 6), noise(count, 7), noise(count, 8), noise(count, 9), noise(count, 10)};
        vector.five(five, rows[0], count);
        scalar.five(five, rows[1], count);
        assertThat(rows[0]).isEqualTo(rows[1]);
        float[] columns = noise(count + 4, 11);
        for (int i = 0; i < columns.length; i++) {
            columns[i] = Math.abs(columns[i]) * 30;
        }
        float[][] weights = {noise(count, 12), noise(count, 12)};
        vector.share(columns, a, 1, weights[0], 0, count);
        scalar.share(columns, a, 1, weights[1], 0, count);
        assertThat(weights[0]).isEqualTo(weights[1]);
        float[][] sums = new float[6][count];
        vector.add(a, 2, b, 1, sums[0], sums[1], sums[2]);
        scalar.add(a, 2, b, 1, sums[3], sums[4], sums[5]);
        for (int i = 0; i < 3; i++) {
            assertThat(sums[i]).isEqualTo(sums[i + 3]);
        }
    }

    /** ITU-T T.81, A.3.3: S(v,u) = 1/4 C(u) C(v) sum of s(y,x) cos((2x+1)u pi/16) cos((2y+1)v pi/16), C(0) = 1/sqrt 2, else 1. */
    @Test
    void theTransformIsThatOfTheStandardAndGoesBack() {
        float[] x = noise(Blocks.SIZE * Blocks.LANES, 3);
        float[] there = x.clone();
        Blocks.CHOSEN.forward(there);
        for (int v = 0; v < 8; v++) {
            for (int u = 0; u < 8; u++) {
                double sum = 0;
                for (int j = 0; j < 8; j++) {
                    for (int i = 0; i < 8; i++) {
                        sum += x[(j * 8 + i) * 8 + 5]
                                * Math.cos((2 * i + 1) * u * Math.PI / 16)
                                * Math.cos((2 * j + 1) * v * Math.PI / 16);
                    }
                }
                double wanted = 0.25 * (u == 0 ? Math.sqrt(0.5) : 1) * (v == 0 ? Math.sqrt(0.5) : 1) * sum;
                assertThat((double) there[(v * 8 + u) * 8 + 5]).isCloseTo(wanted, within(2e-6));
            }
        }
        Blocks.CHOSEN.inverse(there);
        for (int i = 0; i < x.length; i++) {
            assertThat(there[i]).isCloseTo(x[i], within(2e-6f));
        }
    }

    /** A scene of slopes, edges and fine lines that a camera passes over, with noise of its own in every frame. */
    private record Scene(Format format, IntUnaryOperator shift, double sigma, int blur, int frames)
            implements FrameSource {
        Frame clean(long n) {
            return painted(n, false);
        }

        private Frame painted(long n, boolean noisy) {
            Frame frame = Frame.blank(format, format.whole(), n, Rational.of(n), POOL);
            int dx = shift.applyAsInt((int) n);
            for (int p = 0; p < frame.planes().size(); p++) {
                Plane plane = frame.plane(p);
                float[] grain = noise(plane.width() * plane.height(), 977 * n + p);
                for (int i = 0; i < blur; i++) {
                    grain = blurred(grain, plane.width());
                }
                int step = format.chroma().stepX(p);
                for (int y = 0; y < plane.height(); y++) {
                    for (int x = 0; x < plane.width(); x++) {
                        double u = x * step + dx;
                        double v = y * step;
                        double light =
                                p == 0 ? 0.5 + 0.2 * Math.sin(u * 0.05) * Math.cos(v * 0.04) : 0.1 * Math.sin(u * 0.03);
                        light += Math.sin(u * 0.021 + v * 0.013) > 0.3 ? 0.15 : 0;
                        light += p == 0 && v > 60 && v < 90 ? 0.06 * Math.sin(u * 1.3 + v * 0.7) : 0;
                        double own = noisy ? sigma * grain[y * plane.width() + x] * (p == 0 ? 1 : 0.5) : 0;
                        plane.set(x, y, (float) (light + own));
                    }
                }
            }
            return frame;
        }

        /** Means of 2x2, scaled to the same deviation. */
        private static float[] blurred(float[] x, int width) {
            float[] out = new float[x.length];
            for (int i = 0; i < x.length; i++) {
                int right = i % width + 1 < width ? i + 1 : i;
                int below = i + width < x.length ? i + width : i;
                int both = below + (right - i);
                out[i] = (x[i] + x[right] + x[below] + x[Math.min(both, x.length - 1)]) / 2;
            }
            return out;
        }

        @Override
        public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
            return new FrameStream() {
                private long next = range.from();

                @Override
                public Format format() {
                    return format;
                }

                @Override
                public Optional<Frame> next() {
                    return next >= Math.min(frames, range.end())
                            ? Optional.empty()
                            : Optional.of(painted(next++, true).cut(window));
                }

                @Override
                public void close() {
                    next = Long.MAX_VALUE;
                }
            };
        }
    }

    private static Format format(int width, int height) {
        return new Format(width, height, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    private static double error(Frame made, Frame clean, int p) {
        Plane a = made.plane(p);
        Plane b = clean.plane(p);
        double sum = 0;
        for (int y = 0; y < a.height(); y++) {
            for (int x = 0; x < a.width(); x++) {
                sum += Math.pow(a.at(x, y) - b.at(x, y), 2);
            }
        }
        return Math.sqrt(sum / (a.width() * a.height()));
    }

    private static Frame middle(Scene scene, DenoiseStage stage) {
        var chain = new Chain(scene.format(), List.of(stage));
        try (var frames = chain.open(scene, FrameRange.single(4), scene.format().whole(), POOL, Work.alone())) {
            return frames.next().orElseThrow();
        }
    }

    /** Still and passing scenes: a fifth of the noise is left, and the frames around help where they are read. */
    @ParameterizedTest
    @ValueSource(ints = {0, 3})
    void noiseGoesAndThePictureStays(int speed) {
        var scene = new Scene(format(192, 144), n -> n * speed, 12 / 255.0, 0, 9);
        var noise = NoiseModel.even(12 / 255.0, 6 / 255.0, 1);
        double alone = error(middle(scene, new DenoiseStage(scene.format(), noise, 0, 1, 1)), scene.clean(4), 0);
        Frame along = middle(scene, new DenoiseStage(scene.format(), noise, 2, 1, 1));
        assertThat(alone).isLessThan(0.45 * 12 / 255);
        assertThat(error(along, scene.clean(4), 0)).isLessThan(0.3 * 12 / 255).isLessThan(alone * 0.85);
        assertThat(error(along, scene.clean(4), 1)).isLessThan(0.3 * 6 / 255);
    }

    /** A bright square that is there in one frame alone leaves nothing in the frames beside it, and stays in its own. */
    @Test
    void whatIsThereOnceLeavesNoGhost() {
        var scene = new Scene(format(192, 144), n -> 0, 6 / 255.0, 0, 9);
        FrameSource flash = new FrameSource() {
            @Override
            public Format format() {
                return scene.format();
            }

            @Override
            public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
                FrameStream inner = scene.open(range, window, pool, cancel);
                return new FrameStream() {
                    @Override
                    public Format format() {
                        return scene.format();
                    }

                    @Override
                    public Optional<Frame> next() {
                        var frame = inner.next();
                        frame.filter(one -> one.number() == 5).ifPresent(one -> {
                            for (int y = 40; y < 60; y++) {
                                for (int x = 80; x < 110; x++) {
                                    one.plane(0).set(x, y, 0.95f);
                                }
                            }
                        });
                        return frame;
                    }

                    @Override
                    public void close() {
                        inner.close();
                    }
                };
            }
        };
        var stage = new DenoiseStage(scene.format(), NoiseModel.even(6 / 255.0, 3 / 255.0, 1), 2, 1, 1);
        var chain = new Chain(scene.format(), List.of(stage));
        try (var frames = chain.open(flash, new FrameRange(4, 6), scene.format().whole(), POOL, Work.alone())) {
            Frame before = frames.next().orElseThrow();
            Frame own = frames.next().orElseThrow();
            Frame clean = scene.clean(4);
            for (int y = 42; y < 58; y++) {
                for (int x = 82; x < 108; x++) {
                    assertThat(before.plane(0).at(x, y))
                            .isCloseTo(clean.plane(0).at(x, y), within(0.06f));
                    assertThat(own.plane(0).at(x, y)).isCloseTo(0.95f, within(0.03f));
                }
            }
        }
    }

    /** Measured on the noisy scene itself: the level within an eighth, coarse noise told from white by its finest frequencies. */
    @ParameterizedTest
    @CsvSource({"4, 0", "10, 0", "20, 0", "10, 1", "10, 2"})
    void theNoiseOfAClipIsMeasured(double level, int blur) {
        var scene = new Scene(format(320, 240), n -> 2 * n, level / 255, blur, 9);
        var fold = new NoiseFold();
        try (var frames = scene.open(FrameRange.all(), scene.format().whole(), POOL, new Cancel())) {
            for (var frame = frames.next(); frame.isPresent(); frame = frames.next()) {
                fold.see(frame.get());
            }
        }
        NoiseModel noise = fold.found();
        if (blur == 0) {
            assertThat(255 * NoiseModel.sigma(NoiseModel.floats(noise.levels()), 0.5f))
                    .isBetween((float) level * 0.88f, (float) level * 1.12f);
            assertThat(255 * noise.colour()).isBetween(level / 2 * 0.85, level / 2 * 1.15);
            assertThat(noise.shape().get(63)).isBetween(0.7, 1.4);
        } else {
            assertThat(noise.shape().get(63)).isLessThan(0.3);
            assertThat(noise.shape().get(2)).isGreaterThan(1.5);
        }
    }

    @Test
    void aCleanPictureHasNone() {
        var scene = new Scene(format(320, 240), n -> 2 * n, 0, 0, 3);
        var fold = new NoiseFold();
        fold.see(scene.clean(0));
        assertThat(255 * NoiseModel.sigma(NoiseModel.floats(fold.found().levels()), 0.5f))
                .isLessThan(1);
    }

    /** Noise by chance comes to the same whatever part is asked for, as the fuzz holds for all steps; here at places of every kind. */
    @Test
    void everyPartIsCutOutOfTheWhole() {
        var scene = new Scene(format(150, 110), n -> 5 * n, 9 / 255.0, 0, 7);
        var chain = new Chain(
                scene.format(),
                List.of(new DenoiseStage(scene.format(), NoiseModel.even(9 / 255.0, 5 / 255.0, 1.5), 1, 1, 1)));
        Frame whole;
        try (var frames = chain.open(scene, FrameRange.single(3), scene.format().whole(), POOL, Work.alone())) {
            whole = frames.next().orElseThrow();
        }
        var parts = new ArrayList<Region>();
        for (int i = 0; i < 6; i++) {
            parts.add(new Region(2 * i * 11, 2 * i * 7, 20 + 2 * i, 10 + 2 * i));
        }
        for (Region part : parts) {
            try (var frames = chain.open(scene, FrameRange.single(3), part, POOL, Work.alone())) {
                Frame some = frames.next().orElseThrow();
                for (int p = 0; p < 3; p++) {
                    assertThat(some.plane(p).packed())
                            .as("%s plane %d", part, p)
                            .isEqualTo(whole.cut(part).plane(p).packed());
                }
            }
        }
    }

    /** Of the strength told at middle light, a third of it at black, as coarse as told, and never the same twice in a row. */
    @ParameterizedTest
    @ValueSource(doubles = {1, 2, 3})
    void grainIsAsToldAndAnotherInEveryFrame(double coarseness) {
        Format format = format(160, 120);
        var stage = new GrainStage(format, GrainStage.film(5 / 255.0), 0, coarseness);
        var frames = new ArrayList<Frame>();
        for (int n = 0; n < 2; n++) {
            Frame grey = Frame.blank(format, format.whole(), n, Rational.of(n), POOL);
            grey.plane(0).fill(0.5f);
            grey.plane(1).fill(0.1f);
            grey.plane(2).fill(0);
            frames.add(stage.treat(d -> grey, format.whole(), POOL, Work.alone()));
        }
        Plane made = frames.get(0).plane(0);
        double sum = 0;
        double beside = 0;
        double same = 0;
        for (int y = 0; y < 120; y++) {
            for (int x = 0; x < 159; x++) {
                double g = made.at(x, y) - 0.5;
                sum += g * g;
                beside += g * (made.at(x + 1, y) - 0.5);
                same += g * (frames.get(1).plane(0).at(x, y) - 0.5);
            }
        }
        assertThat(255 * Math.sqrt(sum / (120 * 159))).isBetween(4.6, 5.4);
        // neighbours of a Gaussian of width w are alike by exp(-1 / 4w^2)
        double width = 0.75 * (coarseness - 1);
        assertThat(beside / sum).isCloseTo(coarseness == 1 ? 0 : Math.exp(-1 / (4 * width * width)), within(0.05));
        assertThat(same / sum).isBetween(-0.1, 0.1);
        assertThat(frames.get(0).plane(1).at(3, 3)).isEqualTo(0.1f);
    }

    /** White noise blurred by a bell has that bell's width, and grain made like it after enlarging is wider. */
    @ParameterizedTest
    @ValueSource(doubles = {1, 1.8, 3})
    void theWidthOfNoiseIsFoundInItsSpectrum(double grain) {
        NoiseModel noise = NoiseModel.even(0.05, 0.02, grain);
        assertThat(noise.width()).isCloseTo(0.55 * (grain - 1), within(0.05));
        assertThat(GrainStage.coarseness(noise, 1)).isCloseTo(1 + noise.width() / 0.75, within(0.01));
        assertThat(GrainStage.coarseness(noise, 2)).isGreaterThan(GrainStage.coarseness(noise, 1) + 0.4);
    }

    /** Grain that was measured at every light is as strong there. */
    @Test
    void grainFollowsItsLevels() {
        Format format = format(160, 120);
        List<Double> levels = List.of(0.0, 0.0, 0.01, 0.02, 0.03, 0.02, 0.01, 0.0);
        var stage = new GrainStage(format, levels, 0, 1);
        for (int level = 0; level < levels.size(); level++) {
            Frame grey = Frame.blank(format, format.whole(), 3, Rational.of(3), POOL);
            grey.plane(0).fill(level / 7f);
            Plane made =
                    stage.treat(d -> grey, format.whole(), POOL, Work.alone()).plane(0);
            double sum = 0;
            for (float v : made.data()) {
                sum += Math.pow(v - level / 7f, 2);
            }
            assertThat(Math.sqrt(sum / made.data().length)).isCloseTo(levels.get(level), within(0.001));
        }
    }

    /** A net is shown what was made so far, in the order it learned it; what it gives is added to the light alone. */
    @ParameterizedTest
    @ValueSource(strings = {"S420", "RGB"})
    void aNetIsShownAllAndCorrectsTheLight(String chroma) {
        Format format = format(150, 110).withChroma(Chroma.valueOf(chroma));
        var scene = new Scene(format, n -> 3 * n, 9 / 255.0, 0, 9);
        var noise = NoiseModel.even(9 / 255.0, 5 / 255.0, 1);
        ModelCard card = new ModelCard(
                ModelCard.Job.DENOISE,
                "t",
                ModelCard.Mode.QUALITY,
                "",
                "",
                1,
                5,
                2,
                5,
                true,
                Kernel.CATMULL_ROM,
                0,
                Map.of());
        var shown = new ArrayList<List<Plane>>();
        NetRunner net = (frames, correction) -> {
            shown.add(frames);
            correction.fill(0.125f);
        };
        Frame plain = middle(scene, new DenoiseStage(format, noise, 2, 1, 1));
        Frame made = middle(scene, new DenoiseStage(format, noise, 2, 1, 1, card, net));
        List<Plane> one = shown.getFirst();
        assertThat(one).hasSize(DenoiseStage.SHOWN);
        assertThat(one.get(7).at(20, 20)).isCloseTo(4 * 9 / 255f, within(1e-5f));
        assertThat(one.get(8).at(60, 60)).isLessThan(one.get(7).at(60, 60));
        assertThat(one.get(9).at(20, 20)).isCloseTo(1, within(1e-5f));
        for (int p = 0; p < 3; p++) {
            boolean isLight = p == 0 || chroma.equals("RGB");
            for (int i = 0; i < made.plane(p).data().length; i += 37) {
                float before = plain.plane(p).data()[i];
                // beyond black it fades, and is gone where a net has learned nothing
                float share = Math.clamp(1 + Math.min(0, before) / 0.12f, 0f, 1f);
                float wanted = before + (isLight ? 0.125f * share : 0);
                assertThat(made.plane(p).data()[i]).isCloseTo(wanted, within(1e-6f));
            }
        }
    }

    /** What a codec told comes to a net on one scale, apart from what nobody told. */
    @Test
    void coarsenessIsToldByItsLogarithm() {
        assertThat(RepairStage.told(1)).isCloseTo(0.2f, within(1e-6f));
        assertThat(RepairStage.told(16)).isCloseTo(0.6f, within(1e-6f));
        assertThat(RepairStage.told(256)).isCloseTo(1, within(1e-6f));
        assertThat(RepairStage.told(1e9)).isEqualTo(1);
        assertThat(RepairStage.UNKNOWN).isZero();
    }

    private static Frame made(Scene scene, String... steps) {
        Treatment treatment = Analyses.complete(
                new Recipe(java.util.Arrays.stream(steps).map(Step::parse).toList()).on(Material.of(scene.format())),
                scene,
                Analyses.Store.NONE,
                POOL,
                Work.alone(),
                (doing, frames) -> {});
        try (var frames = treatment
                .chain()
                .open(scene, FrameRange.single(4), treatment.output().whole(), POOL, Work.alone())) {
            return frames.next().orElseThrow();
        }
    }

    /** The source's grain is measured before noise was taken out, and comes back as strong as it was, and wider, at another size. */
    @Test
    void theSourcesGrainIsGivenBack() {
        var scene = new Scene(format(160, 120), n -> 2 * n, 8 / 255.0, 0, 9);
        Frame clean = made(scene, "denoise mode=fast", "enlarge factor=2");
        for (int share : new int[] {50, 100}) {
            Frame grainy = made(scene, "denoise mode=fast", "enlarge factor=2", "grain kind=source back=" + share);
            double sum = 0;
            double beside = 0;
            int count = 0;
            Plane a = grainy.plane(0);
            Plane b = clean.plane(0);
            for (int y = 0; y < a.height(); y++) {
                for (int x = 0; x + 1 < a.width(); x++) {
                    double d = a.at(x, y) - b.at(x, y);
                    sum += d * d;
                    beside += d * (a.at(x + 1, y) - b.at(x + 1, y));
                    count++;
                }
            }
            assertThat(255 * Math.sqrt(sum / count)).isCloseTo(8.0 * share / 100, within(8.0 * share / 100 * 0.25));
            assertThat(beside / sum).isGreaterThan(0.25);
        }
    }

    /** Cutting a picture does not make its grain finer, nor do bars make it coarser. */
    @Test
    void onlyEnlargingMakesTheSourcesGrainCoarser() {
        var scene = new Scene(format(160, 120), n -> 2 * n, 8 / 255.0, 0, 9);
        double whole = alike(scene, "enlarge factor=2");
        assertThat(alike(scene, "crop width=80 height=60", "enlarge factor=2")).isCloseTo(whole, within(0.04));
        assertThat(alike(scene, "enlarge width=320 height=480 fit=letterbox")).isCloseTo(whole, within(0.04));
        assertThat(alike(scene, "enlarge factor=3")).isGreaterThan(whole + 0.1);
    }

    /** How alike the grain of samples is that lie beside each other. */
    private static double alike(Scene scene, String... steps) {
        var with = new ArrayList<>(List.of(steps));
        with.addFirst("denoise mode=fast");
        Plane clean = made(scene, with.toArray(String[]::new)).plane(0);
        with.add("grain kind=source back=100");
        Plane grainy = made(scene, with.toArray(String[]::new)).plane(0);
        double sum = 0;
        double beside = 0;
        for (int i = 0; i + 1 < clean.data().length; i++) {
            double d = grainy.data()[i] - clean.data()[i];
            sum += d * d;
            beside += d * (grainy.data()[i + 1] - clean.data()[i + 1]);
        }
        return beside / sum;
    }

    @Test
    void grainOfTwoKindsIsRefused() {
        assertThatThrownBy(() ->
                        new Recipe(List.of(Step.parse("grain kind=source amount=3"))).on(Material.of(format(160, 120))))
                .hasMessageContaining("say how much of it is given back");
        assertThatThrownBy(() -> new Recipe(List.of(Step.parse("grain back=30"))).on(Material.of(format(160, 120))))
                .hasMessageContaining("grain by hand has an amount");
    }

    /** Nothing taken out, or nothing there to take out: no net is asked, and the picture stays as it is. */
    @Test
    void withoutNoiseTheNetIsNotAsked() {
        var scene = new Scene(format(96, 64), n -> n, 6 / 255.0, 0, 9);
        ModelCard card = new ModelCard(
                ModelCard.Job.DENOISE,
                "t",
                ModelCard.Mode.QUALITY,
                "",
                "",
                1,
                5,
                2,
                5,
                true,
                Kernel.CATMULL_ROM,
                0,
                Map.of());
        NetRunner net = (frames, correction) -> correction.fill(0.125f);
        var none = new DenoiseStage(scene.format(), NoiseModel.even(6 / 255.0, 0, 1), 2, 0, 0, card, net);
        var clean = new DenoiseStage(scene.format(), NoiseModel.even(0, 0, 1), 2, 1, 1, card, net);
        Frame source = scene.painted(4, true);
        for (DenoiseStage stage : List.of(none, clean)) {
            assertThat(stage.model()).isEmpty();
            assertThat(error(middle(scene, stage), source, 0)).isLessThan(1e-5);
        }
    }
}
