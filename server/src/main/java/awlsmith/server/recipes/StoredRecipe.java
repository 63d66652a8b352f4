package awlsmith.server.recipes;

import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.server.problem.Refusal;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * A recipe as the database has it. What a version of Awlsmith kept, another may no longer know: it is then shown as it is, with the
 * reason, and blocks nothing else.
 *
 * @param tree its open form
 * @param unreadable why it cannot be used, in a sentence; null when it can
 */
public record StoredRecipe(
        Map<String, Object> tree, @Nullable String unreadable) {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    public static StoredRecipe of(String json) {
        try {
            @SuppressWarnings("unchecked")
            Map<String, Object> tree = JSON.readValue(json, Map.class);
            return of(tree);
        } catch (JacksonException e) {
            return new StoredRecipe(Map.of(), "what is stored is no recipe: it may have been damaged");
        }
    }

    /** Brought to this version's form, if it is from an earlier one. */
    public static StoredRecipe of(Map<String, Object> tree) {
        try {
            return new StoredRecipe(Recipe.fromTree(tree).toTree(), null);
        } catch (RecipeException e) {
            return new StoredRecipe(tree, "this recipe cannot be used by this version of Awlsmith: " + e.getMessage());
        }
    }

    /** @throws Refusal with the reason when it cannot be used */
    public Recipe demanded() {
        if (unreadable != null) {
            throw new Refusal(Refusal.Kind.INVALID, unreadable);
        }
        return Recipe.fromTree(tree);
    }

    public Optional<String> problem() {
        return Optional.ofNullable(unreadable);
    }
}
