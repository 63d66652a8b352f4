package awlsmith.server.recipes;

import awlsmith.core.recipe.Recipe;
import awlsmith.render.RecipeJson;
import awlsmith.server.problem.Refusal;
import java.time.Clock;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;

/** Saved recipes: kept, listed, thrown away. */
@Service
class SavedRecipes {
    private static final int MOST = 500;
    private static final int LONGEST_NAME = 60;

    private final SavedRecipeRepository recipes;
    private final Clock clock;

    SavedRecipes(SavedRecipeRepository recipes, Clock clock) {
        this.recipes = recipes;
        this.clock = clock;
    }

    List<SavedRecipe> all() {
        return recipes.all();
    }

    /** @param name one that is taken already gets the new recipe */
    SavedRecipe save(String name, Recipe recipe) {
        String clean = name.replaceAll("\\p{Cntrl}+", " ").strip();
        if (clean.isEmpty() || clean.length() > LONGEST_NAME) {
            throw new Refusal(Refusal.Kind.INVALID, "a recipe's name has 1 to " + LONGEST_NAME + " letters");
        }
        if (recipes.all().size() >= MOST) {
            throw new Refusal(Refusal.Kind.INVALID, MOST + " recipes are the most; throw some away first");
        }
        recipes.save(
                new SavedRecipe(UUID.randomUUID(), clean, recipe.toTree(), null, clock.instant()),
                RecipeJson.write(recipe));
        return recipes.all().stream()
                .filter(saved -> saved.name().equalsIgnoreCase(clean))
                .findFirst()
                .orElseThrow(() -> Refusal.unknown("this recipe"));
    }

    void remove(UUID id) {
        if (!recipes.delete(id)) {
            throw Refusal.unknown("this recipe");
        }
    }
}
