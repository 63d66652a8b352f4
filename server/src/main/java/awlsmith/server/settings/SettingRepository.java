package awlsmith.server.settings;

import static awlsmith.server.db.Tables.APP_SETTING;

import awlsmith.core.recipe.RecipeException;
import awlsmith.server.problem.Refusal;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.springframework.stereotype.Repository;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** Keeps what is set for everybody, by name. */
@Repository
public class SettingRepository {
    private final DSLContext db;
    private final JsonMapper json;

    SettingRepository(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** Empty also where this version does not read what is kept. */
    public <T> Optional<T> find(String name, Class<T> type) {
        return db.select(APP_SETTING.VALUE)
                .from(APP_SETTING)
                .where(APP_SETTING.NAME.eq(name))
                .fetchOptional(APP_SETTING.VALUE)
                .flatMap(value -> read(value, type));
    }

    private <T> Optional<T> read(JSON value, Class<T> type) {
        try {
            return Optional.of(json.readValue(value.data(), type));
        } catch (JacksonException | RecipeException | Refusal e) {
            return Optional.empty();
        }
    }

    /** @param value written as JSON */
    public void save(String name, Object value) {
        JSON text = JSON.json(json.writeValueAsString(value));
        db.insertInto(APP_SETTING)
                .set(APP_SETTING.NAME, name)
                .set(APP_SETTING.VALUE, text)
                .onDuplicateKeyUpdate()
                .set(APP_SETTING.VALUE, text)
                .execute();
    }
}
