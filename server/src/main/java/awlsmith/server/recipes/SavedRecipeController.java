package awlsmith.server.recipes;

import awlsmith.core.recipe.Recipe;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Saved recipes over HTTP. */
@RestController
@RequestMapping("/api/recipes")
class SavedRecipeController {
    private final SavedRecipes recipes;

    SavedRecipeController(SavedRecipes recipes) {
        this.recipes = recipes;
    }

    record Save(String name, Map<String, Object> recipe) {}

    @GetMapping
    List<SavedRecipe> all() {
        return recipes.all();
    }

    @PostMapping
    SavedRecipe save(@RequestBody Save save) {
        return recipes.save(save.name(), Recipe.fromTree(save.recipe()));
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        recipes.remove(id);
    }
}
