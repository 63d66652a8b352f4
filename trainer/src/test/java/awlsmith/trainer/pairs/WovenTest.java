package awlsmith.trainer.pairs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.FieldsAround;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import java.nio.FloatBuffer;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Scenes of fields that a net learns from. */
class WovenTest {
    /** Number of that plane among those shown, see {@link FieldsAround#seen}. */
    private static final int LIGHTER = 7;

    private static Plane picture(int width, int height) {
        Plane out = Plane.of(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                out.set(x, y, (float)
                        (0.5 + 0.3 * Math.sin(x * 0.21) * Math.cos(y * 0.17) + 0.1 * Math.sin(x * y * 0.01)));
            }
        }
        return out;
    }

    /** Where nothing moves the missing lines are those of the fields beside, and nothing is left to learn. */
    @ParameterizedTest
    @ValueSource(ints = {0, 1})
    void aStillSceneLeavesNothingToCorrect(int parity) {
        Plane still = picture(40, 32);
        var pair = new Weaving(still, still, still, parity, still);
        assertThat(pair.shown()).hasSize(FieldsAround.SEEN);
        assertThat(pair.width()).isEqualTo(40);
        assertThat(pair.height()).isEqualTo(16);
        Plane plain = pair.plain(new Region(4, 2, 20, 10));
        for (int y = 0; y < 10; y++) {
            for (int x = 0; x < 20; x++) {
                assertThat(plain.at(x, y)).isCloseTo(pair.sharp().at(x + 4, y + 2), within(1e-6f));
                assertThat(pair.sharp().at(x + 4, y + 2)).isEqualTo(still.at(x + 4, 2 * (y + 2) + 1 - parity));
            }
        }
        assertThat(pair.turns()).isFalse();
    }

    @Test
    void scenesAreDrawnAnewButTheSameForTheSameSeed() {
        Plane picture = picture(500, 440);
        List<Pair> some = new Woven().of(picture, 1, new SplittableRandom(3));
        List<Pair> again = new Woven().of(picture, 1, new SplittableRandom(3));
        assertThat(some).hasSize(Math.round(500 * 440 / 110_000f));
        for (int i = 0; i < some.size(); i++) {
            assertThat(some.get(i).sharp().data())
                    .isEqualTo(again.get(i).sharp().data());
            List<Plane> shown = some.get(i).shown();
            for (int k = 0; k < shown.size(); k++) {
                // light, but for how much lighter the field after is than the one before
                float least = k == LIGHTER ? -1.3f : -0.3f;
                for (float v : shown.get(k).data()) {
                    assertThat(v).isBetween(least, 1.3f);
                }
            }
        }
        assertThat(some.getFirst().sharp().data())
                .isNotEqualTo(some.getLast().sharp().data());
    }

    /** A batch holds the planes of each scene one after the other, none of them turned. */
    @Test
    void patchesOfScenesLieAsTheNetReadsThem() {
        Plane still = picture(40, 64);
        var pair = new Weaving(still, still, still, 0, still);
        var patches = new Patches(List.of(pair), 16, 1, 1, 5);
        var inputs = FloatBuffer.allocate(2 * FieldsAround.SEEN * 256);
        var plain = FloatBuffer.allocate(2 * 256);
        var answers = FloatBuffer.allocate(2 * 256);
        patches.batch(0, 2, inputs, plain, answers);
        for (int n = 0; n < 2; n++) {
            for (int i = 0; i < 256; i++) {
                float made = inputs.get(n * FieldsAround.SEEN * 256 + i);
                assertThat(plain.get(n * 256 + i)).isEqualTo(made);
                assertThat(answers.get(n * 256 + i)).isCloseTo(0, within(1e-6f));
                // the fields before and after hold the very lines that are missing
                assertThat(inputs.get((n * FieldsAround.SEEN + 1) * 256 + i)).isCloseTo(made, within(1e-6f));
            }
        }
    }
}
