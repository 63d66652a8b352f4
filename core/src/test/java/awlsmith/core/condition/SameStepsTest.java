package awlsmith.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What stays of a recipe on another clip, and what follows the clip. */
class SameStepsTest {
    private static List<Step> steps(String... texts) {
        return Arrays.stream(texts).map(Step::parse).toList();
    }

    private static List<Step> measured(List<Step> recipe, List<Step> suggested) {
        return SameSteps.measured(new Recipe(recipe), suggested).steps();
    }

    @Test
    void sizesAndChoicesStayAndWhatTheClipIsLikeFollowsIt() {
        var recipe =
                steps("denoise mode=fast noise=9", "enlarge target=2160p softness=40 texture=30", "grain amount=3");
        var suggested = steps("denoise", "enlarge factor=2 softness=75");
        assertThat(measured(recipe, suggested))
                .isEqualTo(steps("denoise mode=fast", "enlarge target=2160p softness=75 texture=30", "grain amount=3"));
    }

    @Test
    void whatWasFoundInAnotherClipAloneIsLeftOut() {
        var recipe =
                steps("crop left=8 top=0 width=600 height=400", "true-size factor=1.5", "denoise noise=9", "sharpen");
        assertThat(measured(recipe, List.of())).isEqualTo(steps("denoise", "sharpen"));
        var borders = steps("crop left=2 top=2 width=700 height=500");
        assertThat(measured(recipe, borders))
                .isEqualTo(steps("crop left=2 top=2 width=700 height=500", "denoise", "sharpen"));
    }

    @Test
    void whatIsSuggestedBesideIsNotAddedAndASecondStepOfAKindKeepsItsOwn() {
        var recipe = steps("levels black=10 white=90", "levels black=20 white=80", "rate rate=2x frames=made");
        var suggested = steps("denoise", "levels black=3 white=97", "rate rate=3x frames=made");
        assertThat(measured(recipe, suggested))
                .isEqualTo(steps("levels black=3 white=97", "levels black=20 white=80", "rate rate=2x frames=made"));
    }

    @Test
    void aStepThatIsOffStaysOff() {
        var recipe = List.of(
                Step.of("denoise", false, java.util.Map.of("noise", 5)), Step.parse("enlarge factor=3 softness=40"));
        assertThat(measured(recipe, List.of()))
                .isEqualTo(List.of(Step.of("denoise", false, java.util.Map.of()), Step.parse("enlarge factor=3")));
    }
}
