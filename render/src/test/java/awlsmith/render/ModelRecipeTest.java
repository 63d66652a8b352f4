package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.recipe.Material;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Step;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.upscale.UpscaleStage;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The enlarge step with the models that ship; core alone has none. */
class ModelRecipeTest {
    private static final Format SMALL =
            new Format(320, 240, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    private static List<Stage> stages(String step) {
        return new Recipe(List.of(Step.parse(step))).chain(SMALL).stages();
    }

    @ParameterizedTest
    @CsvSource({
        "factor=1, 1, true, 320",
        "factor=1.5, 1, true, 480",
        "factor=2, 1, false, 640",
        "factor=3, 2, true, 960",
        "factor=4, 2, false, 1280",
        "factor=6, 2, true, 1920",
        "target=720p, 2, true, 960",
        "factor=0.5, 0, true, 160",
    })
    void anyFactorIsPassesOfTheModelAndAKernelForTheRest(String size, int passes, boolean rest, int width) {
        List<Stage> stages = stages("enlarge model=photographic " + size);
        assertThat(stages.stream().filter(UpscaleStage.class::isInstance)).hasSize(passes);
        assertThat(stages.getLast() instanceof EnlargeStage).isEqualTo(rest);
        assertThat(stages.getLast().output().width()).isEqualTo(width);
    }

    @Test
    void theModeIsQualityUnlessFastIsAskedFor() {
        assertThat(((UpscaleStage) stages("enlarge model=photographic").getFirst())
                        .model()
                        .orElseThrow()
                        .mode()
                        .id())
                .isEqualTo("quality");
        assertThat(((UpscaleStage)
                                stages("enlarge model=photographic mode=fast").getFirst())
                        .model()
                        .orElseThrow()
                        .mode()
                        .id())
                .isEqualTo("fast");
    }

    @Test
    void theStepsLineNamesTheModel() {
        Step step = Step.parse("enlarge factor=2 model=photographic mode=fast");
        assertThat(new Recipe(List.of(step)).on(Material.of(SMALL)).summary(0)).isEqualTo("2x photographic fast");
    }

    @Test
    void whatIsNotThereIsRefusedWithWhatThereIs() {
        assertThatThrownBy(() -> stages("enlarge model=magic"))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("one of none, photographic");
        assertThatThrownBy(() -> stages("enlarge model=photographic strength=200"))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("0..150 %");
    }

    @Test
    void onlyAModelThatCanBeToldIsToldHowSoftFootageIs() {
        assertThat(stages("enlarge factor=2 model=photographic softness=80")).hasSize(1);
        for (String other : new String[] {"", " model=worn", " model=photographic mode=fast"}) {
            assertThatThrownBy(() -> stages("enlarge factor=2 softness=80" + other))
                    .isInstanceOf(RecipeException.class)
                    .hasMessageContaining("only some models can be told");
        }
    }

    /** None of it is what the model of least error makes, half of it lies half way; other modes make none up. */
    @Test
    void madeTextureIsMixedIn() {
        float[] quality = corrected("mode=quality");
        float[] all = corrected("mode=made texture=100");
        float[] half = corrected("mode=made texture=50");
        assertThat(corrected("mode=made texture=0")).isEqualTo(quality);
        double apart = 0;
        for (int i = 0; i < all.length; i++) {
            assertThat(half[i]).isCloseTo((quality[i] + all[i]) / 2, org.assertj.core.api.Assertions.within(1e-5f));
            apart = Math.max(apart, Math.abs(all[i] - quality[i]));
        }
        assertThat(apart).isGreaterThan(0.002);
        assertThatThrownBy(() -> stages("enlarge model=photographic mode=crisp texture=50"))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("only mode made makes texture up");
        assertThat(new Recipe(List.of(Step.parse("enlarge factor=2 model=photographic mode=made")))
                        .on(Material.of(SMALL))
                        .summary(0))
                .isEqualTo("2x photographic, 70 % texture made up");
    }

    private static float[] corrected(String mode) {
        var random = new java.util.SplittableRandom(3);
        var frame = awlsmith.core.picture.Frame.blank(
                SMALL, SMALL.whole(), 0, Rational.ZERO, new awlsmith.core.picture.PlanePool(0));
        for (int i = 0; i < frame.plane(0).data().length; i++) {
            frame.plane(0).data()[i] = (float) random.nextDouble();
        }
        return stages("enlarge factor=2 model=photographic " + mode)
                .getFirst()
                .treat(
                        distance -> frame,
                        new awlsmith.core.picture.Region(0, 0, 64, 64),
                        new awlsmith.core.picture.PlanePool(0),
                        awlsmith.core.pipeline.Work.alone())
                .plane(0)
                .packed();
    }

    @Test
    void smoothCalmsWhatItsModelMakes() {
        List<Stage> stages = stages("enlarge factor=2 model=photographic mode=smooth");
        assertThat(stages).hasSize(2);
        assertThat(stages.getLast()).isInstanceOf(awlsmith.core.detail.SmoothStage.class);
    }
}
