package awlsmith.trainer.pairs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.clean.DenoiseStage;
import awlsmith.core.clean.RepairStage;
import awlsmith.core.measure.Gradient;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.resample.Kernel;
import awlsmith.footage.Pictures;
import java.nio.FloatBuffer;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class PairsTest {
    private static Plane picture(int width, int height) {
        Plane p = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                p.set(x, y, (float) (0.5 + 0.2 * Math.sin(x * 0.9) * Math.cos(y * 0.7) + 0.2 * Math.sin(x * y * 0.01)));
            }
        }
        return p;
    }

    /** Slopes and a few edges. */
    private static Plane soft(int width, int height) {
        Plane p = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                p.set(x, y, (float) (0.4 + 0.2 * Math.sin(x * 0.05) * Math.cos(y * 0.04) + (x / 60 % 2) * 0.15));
            }
        }
        return p;
    }

    /** Input and answer belong together in all eight turns: plain enlargement of the input plus answer is the truth. */
    @Test
    void patchesHoldWhatIsMissingFromThePlainEnlargement() {
        Plane sharp = picture(120, 120);
        List<Pair> pairs = new Reduced(List.of(Kernel.AREA)).of(sharp, 2, new SplittableRandom(1));
        int side = 16;
        FloatBuffer inputs = FloatBuffer.allocate(8 * side * side);
        FloatBuffer plain = FloatBuffer.allocate(8 * 4 * side * side);
        FloatBuffer answers = FloatBuffer.allocate(8 * 4 * side * side);
        var patches = new Patches(pairs, side, 2, 1, 5);
        patches.batch(3, 8, inputs, plain, answers);
        for (int i = 0; i < 8; i++) {
            float[] small = new float[side * side];
            inputs.get(i * side * side, small);
            Plane in = new Plane(small, 0, side, side, side);
            Plane enlarged = new Enlarging(in, Plane.of(side * 2, side * 2), 2).plain(new Region(0, 0, side, side));
            // the inside only: at the edges the patch's plain enlargement knew the picture around it
            double worst = 0;
            for (int y = 8; y < 24; y += 1) {
                for (int x = 8; x < 24; x += 1) {
                    int phase = y % 2 * 2 + x % 2;
                    float answer = answers.get(((i * 4 + phase) * side + y / 2) * side + x / 2);
                    worst = Math.max(worst, distanceToTruth(sharp, enlarged.at(x, y) + answer));
                }
            }
            assertThat(worst).isLessThan(1e-5);
        }
    }

    /** How far a value is from the nearest one in the picture; sums of the right parts hit one exactly. */
    private static double distanceToTruth(Plane sharp, float value) {
        double least = 1;
        for (float s : sharp.data()) {
            least = Math.min(least, Math.abs(s - value));
        }
        return least;
    }

    /** A net with a step reads every second sample as a plane of its own; the squares themselves are the same. */
    @Test
    void aStepLaysTheSameSquaresOutOtherwise() {
        List<Pair> pairs = new Reduced(List.of(Kernel.AREA)).of(picture(120, 120), 2, new SplittableRandom(1));
        FloatBuffer[] one = {FloatBuffer.allocate(256), FloatBuffer.allocate(1024), FloatBuffer.allocate(1024)};
        FloatBuffer[] two = {FloatBuffer.allocate(256), FloatBuffer.allocate(1024), FloatBuffer.allocate(1024)};
        new Patches(pairs, 16, 2, 1, 5).batch(3, 1, one[0], one[1], one[2]);
        new Patches(pairs, 16, 2, 2, 5).batch(3, 1, two[0], two[1], two[2]);
        for (int y = 0; y < 32; y++) {
            for (int x = 0; x < 32; x++) {
                int phase = y % 2 * 2 + x % 2;
                int stepped = y % 4 * 4 + x % 4;
                float answer = one[2].get((phase * 16 + y / 2) * 16 + x / 2);
                assertThat(two[2].get((stepped * 8 + y / 4) * 8 + x / 4)).isEqualTo(answer);
                float plain = one[1].get((phase * 16 + y / 2) * 16 + x / 2);
                assertThat(two[1].get((stepped * 8 + y / 4) * 8 + x / 4)).isEqualTo(plain);
                if (x < 16 && y < 16) {
                    assertThat(two[0].get((phase * 8 + y / 2) * 8 + x / 2)).isEqualTo(one[0].get(y * 16 + x));
                }
            }
        }
    }

    /** Of several planes those of one phase lie together, as the file's first layer has them. */
    @Test
    void planesOfOnePhaseLieTogether() {
        List<Plane> shown =
                List.of(Plane.of(16, 16).fill(0.25f), Plane.of(16, 16).fill(0.5f), picture(16, 16));
        Pair pair = new Corrected(shown, picture(16, 16));
        FloatBuffer in = FloatBuffer.allocate(3 * 256);
        new Patches(List.of(pair), 16, 1, 2, 5).batch(0, 1, in, FloatBuffer.allocate(256), FloatBuffer.allocate(256));
        for (int phase = 0; phase < 4; phase++) {
            for (int i = 0; i < 64; i++) {
                assertThat(in.get((3 * phase) * 64 + i)).isEqualTo(0.25f);
                assertThat(in.get((3 * phase + 1) * 64 + i)).isEqualTo(0.5f);
            }
        }
    }

    /** Everything a net against noise is shown, and a result without it that is nearer the truth than the noisy frame. */
    @Test
    void noisyPairsAreCleanedAsFarAsItGoesWithoutANet() {
        List<Pair> pairs = new Noisy().of(soft(240, 200), 1, new SplittableRandom(3));
        assertThat(pairs).hasSize(3);
        double before = 0;
        double after = 0;
        for (Pair pair : pairs) {
            assertThat(pair.shown()).hasSize(DenoiseStage.SHOWN);
            before += Psnr.of(pair.shown().get(1), pair.sharp(), 8);
            after += Psnr.of(pair.rival(), pair.sharp(), 8);
            assertThat(pair.shown().get(7).at(50, 50)).isPositive();
        }
        assertThat(after).isGreaterThan(before + 3);
    }

    /** Smoother than what was reduced, and of a still scene too another in every frame. */
    @Test
    void generatedPairsAreSmootherAndSwim() {
        int swimming = 0;
        int smoother = 0;
        int pairs = 0;
        for (int seed = 0; seed < 6; seed++) {
            for (Pair pair : new Generated(5).of(picture(200, 160), 2, new SplittableRandom(seed))) {
                assertThat(pair.shown()).hasSize(5);
                assertThat(pair.sharp().width()).isEqualTo(2 * pair.width());
                Plane reduced = Pictures.resized(pair.sharp(), pair.width(), pair.height(), Kernel.AREA);
                smoother += Gradient.mean(pair.shown().getFirst(), 4) < Gradient.mean(reduced, 4) ? 1 : 0;
                swimming += Psnr.of(pair.shown().get(1), pair.shown().getFirst(), 8) < 45 ? 1 : 0;
                pairs++;
            }
        }
        assertThat(smoother).isGreaterThan(pairs / 2);
        assertThat(swimming).isGreaterThan(pairs / 3);
    }

    /** Of unit deviation in every frame, little like the frame a quarter circle on, the opposite of the one half a circle on. */
    @Test
    void whatDriftsBecomesSomethingElse() {
        var drifting = new Drifting(160, 120, 1, Math.PI / 8, new SplittableRandom(7));
        float[] first = drifting.at(0).data();
        assertThat(alike(first, first)).isCloseTo(1, within(0.05));
        assertThat(alike(drifting.at(3).data(), drifting.at(3).data())).isCloseTo(1, within(0.1));
        assertThat(alike(first, drifting.at(4).data())).isCloseTo(0, within(0.1));
        assertThat(alike(first, drifting.at(8).data())).isCloseTo(-1, within(0.05));
    }

    private static double alike(float[] a, float[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += (double) a[i] * b[i];
        }
        return sum / a.length;
    }

    @Test
    void codedPairsTellHowCoarselyTheyWereRounded() {
        var told = new java.util.TreeSet<Float>();
        for (int seed = 0; seed < 10; seed++) {
            for (Pair pair : new Coded().of(picture(160, 144), 1, new SplittableRandom(seed))) {
                assertThat(pair.shown()).hasSize(RepairStage.SHOWN);
                assertThat(Psnr.of(pair.rival(), pair.sharp(), 8)).isBetween(20.0, 55.0);
                told.add(pair.shown().getLast().at(0, 0));
            }
        }
        assertThat(told).hasSizeGreaterThan(1).allMatch(value -> value == 0 || value >= 0.2f && value <= 1);
    }

    @Test
    void dulledPairsTellHowSoftTheyAre() {
        var told = new java.util.TreeSet<Float>();
        for (int seed = 0; seed < 8; seed++) {
            for (Pair pair : new Dulled().of(picture(160, 144), 1, new SplittableRandom(seed))) {
                assertThat(pair.shown()).hasSize(RepairStage.SHOWN_SOFT);
                told.add(pair.shown().getLast().at(0, 0));
            }
        }
        assertThat(told).hasSizeGreaterThan(1).allMatch(value -> value == 0 || value >= 0.2f && value <= 1);
    }

    /** As strong as white noise, and alike from sample to sample as their kind is. */
    @Test
    void fieldsOfNoiseAreOfTheirKind() {
        for (Noise kind : Noise.values()) {
            Plane field = kind.field(128, 96, new SplittableRandom(1));
            double squares = 0;
            double beside = 0;
            for (int y = 0; y < 96; y++) {
                for (int x = 0; x + 1 < 128; x++) {
                    squares += field.at(x, y) * field.at(x, y);
                    beside += field.at(x, y) * field.at(x + 1, y);
                }
            }
            assertThat(squares / (127 * 96)).as("%s", kind).isCloseTo(1, within(0.05));
            if (kind == Noise.WHITE) {
                assertThat(beside / squares).isCloseTo(0, within(0.04));
            } else {
                assertThat(beside / squares).as("%s", kind).isGreaterThan(0.15);
            }
        }
    }

    @Test
    void theSameIterationDrawsTheSamePatches() {
        List<Pair> pairs = new Reduced(List.of(Kernel.AREA)).of(picture(120, 120), 2, new SplittableRandom(1));
        var patches = new Patches(pairs, 16, 2, 1, 5);
        FloatBuffer a = FloatBuffer.allocate(256);
        FloatBuffer b = FloatBuffer.allocate(256);
        FloatBuffer c = FloatBuffer.allocate(256);
        FloatBuffer rest = FloatBuffer.allocate(1024);
        patches.batch(7, 1, a, rest, rest);
        patches.batch(7, 1, b, rest, rest);
        patches.batch(8, 1, c, rest, rest);
        assertThat(a).isEqualTo(b).isNotEqualTo(c);
    }

    @Test
    void wornFootageIsWorseThanReducedButShowsTheSame() {
        Plane sharp = picture(600, 480);
        List<Pair> worn = new Worn(5).of(sharp, 2, new SplittableRandom(2));
        assertThat(worn).isNotEmpty().allSatisfy(pair -> {
            Plane clean = awlsmith.footage.Pictures.resized(
                    pair.sharp(),
                    pair.shown().getFirst().width(),
                    pair.shown().getFirst().height(),
                    Kernel.CATMULL_ROM);
            double error = 0;
            for (int i = 0; i < clean.data().length; i++) {
                error += Math.abs(clean.data()[i] - pair.shown().getFirst().data()[i]) / clean.data().length;
            }
            assertThat(error).isBetween(0.002, 0.12);
            assertThat(pair.shown()).hasSize(5);
        });
    }

    /** What is told must order the pictures by how soft they are, and what is not told must not be mistaken for a value. */
    @Test
    void theSofterAPictureIsToldToBeTheSofterItIs() {
        Plane sharp = picture(200, 160);
        double before = Double.MAX_VALUE;
        for (double softness : new double[] {0, 0.25, 0.5, 0.75, 1}) {
            double gradient = awlsmith.core.measure.Gradient.mean(Softened.reduced(sharp, 2, softness), 4);
            assertThat(gradient).isLessThan(before);
            before = gradient;
        }
        List<Pair> pairs = new Softened().of(sharp, 2, new SplittableRandom(3));
        assertThat(pairs).hasSize(7).allSatisfy(pair -> {
            assertThat(pair.shown()).hasSize(2);
            float told = pair.shown().get(1).at(0, 0);
            assertThat(pair.shown().get(1).packed()).containsOnly(told);
            assertThat(told == 0 || told >= 0.4f).isTrue();
        });
        assertThat(pairs).filteredOn(pair -> pair.shown().get(1).at(0, 0) == 0).hasSize(3);
    }

    @Test
    void aBlurKeepsTheMeanAndHasTheWidthAskedFor() {
        Plane dot = Plane.of(41, 41);
        dot.set(20, 20, 1);
        Plane soft = Blur.gaussian(dot, 2, 1);
        double sum = 0;
        double across = 0;
        double down = 0;
        for (int y = 0; y < 41; y++) {
            for (int x = 0; x < 41; x++) {
                sum += soft.at(x, y);
                across += soft.at(x, y) * (x - 20) * (x - 20);
                down += soft.at(x, y) * (y - 20) * (y - 20);
            }
        }
        assertThat(sum).isCloseTo(1, within(1e-5));
        assertThat(Math.sqrt(across)).isCloseTo(2, within(0.05));
        assertThat(Math.sqrt(down)).isCloseTo(1, within(0.05));
    }
}
