package awlsmith.server.takes;

import awlsmith.core.condition.SameSteps;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.ExaminationView;
import awlsmith.server.problem.Refusal;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What clips are treated with where nobody chooses for each.
 *
 * @param recipe in its open form, where the way wants one
 */
public record Way(How how, @Nullable Map<String, Object> recipe) {
    /** Where the recipe comes from. */
    public enum How {
        /** What every clip begins with. */
        USUAL,
        /** What each one's condition suggests. */
        SUGGESTED,
        /** The same for all. */
        SAME,
        /** The same steps, with what is measured of each; see {@link SameSteps}. */
        MEASURED;

        boolean wantsRecipe() {
            return this == SAME || this == MEASURED;
        }
    }

    static final Way USUAL = new Way(How.USUAL, null);

    /** @throws Refusal or RecipeException when it wants a recipe and has none that can be used */
    public Way checked() {
        if (!how.wantsRecipe()) {
            return new Way(how, null);
        }
        if (recipe == null) {
            throw new Refusal(Refusal.Kind.INVALID, "no recipe was given; choose one");
        }
        return new Way(how, Recipe.fromTree(recipe).toTree());
    }

    /** Whether a clip must have been examined before this says anything of it. */
    public boolean isMeasured() {
        return how == How.SUGGESTED || how == How.MEASURED;
    }

    /**
     * What a clip gets.
     *
     * @param usual what it would begin with
     * @return empty when it must be examined first
     */
    public Optional<Recipe> recipe(ClipView clip, Recipe usual) {
        return switch (how) {
            case USUAL -> Optional.of(usual);
            case SAME -> Optional.of(demanded());
            case SUGGESTED -> suggested(clip).map(Recipe::new);
            case MEASURED -> suggested(clip).map(steps -> SameSteps.measured(demanded(), steps));
        };
    }

    private Recipe demanded() {
        return Recipe.fromTree(Objects.requireNonNull(checked().recipe()));
    }

    private static Optional<List<Step>> suggested(ClipView clip) {
        ExaminationView examination = clip.examination();
        return Optional.ofNullable(examination == null ? null : examination.condition())
                .map(condition -> condition.suggestion().steps().stream()
                        .map(one -> Step.of(one.step(), one.settings()))
                        .toList());
    }
}
