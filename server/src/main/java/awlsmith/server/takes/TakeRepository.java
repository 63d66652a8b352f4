package awlsmith.server.takes;

import static awlsmith.server.db.Tables.TAKE;

import awlsmith.core.recipe.Recipe;
import awlsmith.render.RecipeJson;
import awlsmith.server.db.tables.records.TakeRecord;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.springframework.stereotype.Repository;

/** Takes in the database; one method is one statement. */
@Repository
class TakeRepository {
    private final DSLContext db;

    TakeRepository(DSLContext db) {
        this.db = db;
    }

    void insert(UUID id, UUID clip, String name, Recipe recipe, Instant now) {
        db.insertInto(TAKE)
                .set(TAKE.ID, id)
                .set(TAKE.CLIP_ID, clip)
                .set(TAKE.NAME, name)
                .set(TAKE.RECIPE, JSON.json(RecipeJson.write(recipe)))
                .set(TAKE.UPDATED_AT, LocalDateTime.ofInstant(now, ZoneOffset.UTC))
                .execute();
    }

    List<TakeView> of(UUID clip) {
        return db.selectFrom(TAKE)
                .where(TAKE.CLIP_ID.eq(clip))
                .orderBy(TAKE.NAME)
                .fetch(TakeRepository::view);
    }

    Optional<TakeView> find(UUID id) {
        return db.selectFrom(TAKE).where(TAKE.ID.eq(id)).fetchOptional(TakeRepository::view);
    }

    /** False when the take has changed since the given version, or is gone. */
    boolean update(UUID id, Recipe recipe, Integer in, Integer out, int version, Instant now) {
        return db.update(TAKE)
                        .set(TAKE.RECIPE, JSON.json(RecipeJson.write(recipe)))
                        .set(TAKE.IN_FRAME, in)
                        .set(TAKE.OUT_FRAME, out)
                        .set(TAKE.VERSION, version + 1)
                        .set(TAKE.UPDATED_AT, LocalDateTime.ofInstant(now, ZoneOffset.UTC))
                        .where(TAKE.ID.eq(id), TAKE.VERSION.eq(version))
                        .execute()
                == 1;
    }

    private static TakeView view(TakeRecord row) {
        return new TakeView(
                row.getId(),
                row.getClipId(),
                row.getName(),
                RecipeJson.read(row.getRecipe().data()).toTree(),
                row.getInFrame(),
                row.getOutFrame(),
                row.getVersion(),
                row.getUpdatedAt().toInstant(ZoneOffset.UTC));
    }
}
