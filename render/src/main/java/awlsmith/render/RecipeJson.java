package awlsmith.render;

import awlsmith.core.recipe.Problem;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** The recipe's open form as JSON text. */
public final class RecipeJson {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private RecipeJson() {}

    public static String write(Recipe recipe) {
        return JSON.writeValueAsString(recipe.toTree());
    }

    /** @throws RecipeException when the text is not JSON or not a recipe */
    public static Recipe read(String text) {
        try {
            return Recipe.fromTree(JSON.readValue(text, Map.class));
        } catch (JacksonException e) {
            throw new RecipeException(Problem.at("", "this is not JSON: " + e.getOriginalMessage()));
        }
    }
}
