package awlsmith.server.recipes;

import static awlsmith.server.db.Tables.SAVED_RECIPE;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.springframework.stereotype.Repository;

/** Saved recipes in the database; one method is one statement. */
@Repository
class SavedRecipeRepository {
    private final DSLContext db;

    SavedRecipeRepository(DSLContext db) {
        this.db = db;
    }

    List<SavedRecipe> all() {
        return db.selectFrom(SAVED_RECIPE).orderBy(SAVED_RECIPE.NAME).fetch(row -> {
            var recipe = StoredRecipe.of(row.getRecipe().data());
            return new SavedRecipe(
                    row.getId(),
                    row.getName(),
                    recipe.tree(),
                    recipe.unreadable(),
                    row.getMadeAt().toInstant(ZoneOffset.UTC));
        });
    }

    /** Replaces one of the same name. */
    void save(SavedRecipe saved, String json) {
        db.insertInto(SAVED_RECIPE)
                .set(SAVED_RECIPE.ID, saved.id())
                .set(SAVED_RECIPE.NAME, saved.name())
                .set(SAVED_RECIPE.RECIPE, JSON.json(json))
                .set(SAVED_RECIPE.MADE_AT, LocalDateTime.ofInstant(saved.madeAt(), ZoneOffset.UTC))
                .onDuplicateKeyUpdate()
                .set(SAVED_RECIPE.RECIPE, JSON.json(json))
                .set(SAVED_RECIPE.MADE_AT, LocalDateTime.ofInstant(saved.madeAt(), ZoneOffset.UTC))
                .execute();
    }

    boolean delete(UUID id) {
        return db.deleteFrom(SAVED_RECIPE).where(SAVED_RECIPE.ID.eq(id)).execute() == 1;
    }
}
