package awlsmith.server.takes;

import static awlsmith.server.db.Tables.TAKE;
import static awlsmith.server.db.Tables.TAKE_STATE;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.min;

import awlsmith.core.recipe.Recipe;
import awlsmith.render.RecipeJson;
import awlsmith.server.db.enums.TakeVerdict;
import awlsmith.server.db.tables.records.TakeRecord;
import awlsmith.server.recipes.StoredRecipe;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;

/** Takes in the database, with the states each was in. Methods that touch both belong into a transaction. */
@Repository
class TakeRepository {
    /** States kept of a take, which is how far undo reaches. */
    private static final int MOST_STATES = 200;

    private final DSLContext db;

    TakeRepository(DSLContext db) {
        this.db = db;
    }

    void insert(UUID id, UUID clip, String name, State state, Instant now) {
        db.insertInto(TAKE)
                .set(TAKE.ID, id)
                .set(TAKE.CLIP_ID, clip)
                .set(TAKE.NAME, name)
                .set(TAKE.RECIPE, JSON.json(RecipeJson.write(state.recipe())))
                .set(TAKE.IN_FRAME, state.in())
                .set(TAKE.OUT_FRAME, state.out())
                .set(TAKE.MADE_AT, at(now))
                .set(TAKE.UPDATED_AT, at(now))
                .execute();
        insertState(id, 0, state);
    }

    /** What undo goes back to. */
    record State(
            Recipe recipe, @Nullable Integer in, @Nullable Integer out) {}

    private void insertState(UUID take, int number, State state) {
        db.insertInto(TAKE_STATE)
                .set(TAKE_STATE.TAKE_ID, take)
                .set(TAKE_STATE.NUMBER, number)
                .set(TAKE_STATE.RECIPE, JSON.json(RecipeJson.write(state.recipe())))
                .set(TAKE_STATE.IN_FRAME, state.in())
                .set(TAKE_STATE.OUT_FRAME, state.out())
                .execute();
    }

    List<TakeView> of(UUID clip) {
        return fetch(TAKE.CLIP_ID.eq(clip));
    }

    Optional<TakeView> find(UUID id) {
        return fetch(TAKE.ID.eq(id)).stream().findFirst();
    }

    private List<TakeView> fetch(Condition which) {
        Map<UUID, int[]> ends = new HashMap<>();
        db.select(TAKE_STATE.TAKE_ID, min(TAKE_STATE.NUMBER), max(TAKE_STATE.NUMBER))
                .from(TAKE_STATE)
                .join(TAKE)
                .on(TAKE.ID.eq(TAKE_STATE.TAKE_ID))
                .where(which)
                .groupBy(TAKE_STATE.TAKE_ID)
                .forEach(row -> ends.put(row.value1(), new int[] {row.value2(), row.value3()}));
        return db.selectFrom(TAKE)
                .where(which)
                .orderBy(TAKE.MADE_AT, TAKE.NAME)
                .fetch(row ->
                        view(row, ends.getOrDefault(row.getId(), new int[] {row.getAtState(), row.getAtState()})));
    }

    /** False when the take has changed since the given version, or is gone. */
    boolean change(UUID id, State state, int version, Instant now) {
        Integer at = db.select(TAKE.AT_STATE)
                .from(TAKE)
                .where(TAKE.ID.eq(id))
                .forUpdate()
                .fetchOne(TAKE.AT_STATE);
        if (at == null || !put(id, state, at + 1, version, now)) {
            return false;
        }
        db.deleteFrom(TAKE_STATE)
                .where(
                        TAKE_STATE.TAKE_ID.eq(id),
                        TAKE_STATE.NUMBER.gt(at).or(TAKE_STATE.NUMBER.le(at + 1 - MOST_STATES)))
                .execute();
        insertState(id, at + 1, state);
        return true;
    }

    /** Goes to a neighbouring state; false when there is none, or the take has changed since the given version. */
    boolean step(UUID id, int by, int version, Instant now) {
        // a state that cannot be read any more is not gone back to
        return db.select(TAKE_STATE.NUMBER, TAKE_STATE.RECIPE, TAKE_STATE.IN_FRAME, TAKE_STATE.OUT_FRAME)
                .from(TAKE_STATE)
                .join(TAKE)
                .on(TAKE.ID.eq(TAKE_STATE.TAKE_ID), TAKE_STATE.NUMBER.eq(TAKE.AT_STATE.plus(by)))
                .where(TAKE.ID.eq(id))
                .fetchOptional()
                .filter(row -> put(
                        id,
                        new State(StoredRecipe.of(row.value2().data()).demanded(), row.value3(), row.value4()),
                        row.value1(),
                        version,
                        now))
                .isPresent();
    }

    private boolean put(UUID id, State state, int number, int version, Instant now) {
        return db.update(TAKE)
                        .set(TAKE.RECIPE, JSON.json(RecipeJson.write(state.recipe())))
                        .set(TAKE.IN_FRAME, state.in())
                        .set(TAKE.OUT_FRAME, state.out())
                        .set(TAKE.AT_STATE, number)
                        .set(TAKE.VERSION, version + 1)
                        .set(TAKE.UPDATED_AT, at(now))
                        .where(TAKE.ID.eq(id), TAKE.VERSION.eq(version))
                        .execute()
                == 1;
    }

    void label(UUID id, String name, TakeView.Verdict verdict) {
        db.update(TAKE)
                .set(TAKE.NAME, name)
                .set(TAKE.VERDICT, TakeVerdict.valueOf(verdict.name()))
                .where(TAKE.ID.eq(id))
                .execute();
    }

    void delete(UUID id) {
        db.deleteFrom(TAKE).where(TAKE.ID.eq(id)).execute();
    }

    private static LocalDateTime at(Instant now) {
        return LocalDateTime.ofInstant(now, ZoneOffset.UTC);
    }

    private static TakeView view(TakeRecord row, int[] ends) {
        var recipe = StoredRecipe.of(row.getRecipe().data());
        return new TakeView(
                row.getId(),
                row.getClipId(),
                row.getName(),
                recipe.tree(),
                recipe.unreadable(),
                row.getInFrame(),
                row.getOutFrame(),
                row.getVersion(),
                TakeView.Verdict.valueOf(row.getVerdict().name()),
                row.getAtState() - ends[0],
                ends[1] - row.getAtState(),
                row.getUpdatedAt().toInstant(ZoneOffset.UTC));
    }
}
