package awlsmith.server.takes;

import static awlsmith.server.db.Tables.APP_SETTING;

import awlsmith.core.recipe.RecipeException;
import awlsmith.server.problem.Refusal;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.springframework.stereotype.Repository;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** Keeps what new clips are treated with. */
@Repository
class FirstRecipeRepository {
    private static final String NAME = "first-recipe";

    private final DSLContext db;
    private final JsonMapper json;

    FirstRecipeRepository(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** Empty also where no version of ours reads what is kept. */
    Optional<Way> find() {
        return db.select(APP_SETTING.VALUE)
                .from(APP_SETTING)
                .where(APP_SETTING.NAME.eq(NAME))
                .fetchOptional(APP_SETTING.VALUE)
                .flatMap(this::read);
    }

    private Optional<Way> read(JSON value) {
        try {
            return Optional.of(json.readValue(value.data(), Way.class));
        } catch (JacksonException | RecipeException | Refusal e) {
            return Optional.empty();
        }
    }

    void save(Way way) {
        JSON value = JSON.json(json.writeValueAsString(way));
        db.insertInto(APP_SETTING)
                .set(APP_SETTING.NAME, NAME)
                .set(APP_SETTING.VALUE, value)
                .onDuplicateKeyUpdate()
                .set(APP_SETTING.VALUE, value)
                .execute();
    }
}
