package awlsmith.server.analyses;

import static awlsmith.server.db.Tables.ANALYSIS;

import awlsmith.core.recipe.Recipe;
import awlsmith.server.db.enums.AnalysisState;
import java.time.Clock;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.jooq.Record;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Looks through clips in the database. A change of state carries its condition and tells whether it happened. */
@Repository
class AnalysisRepository {
    private final DSLContext db;
    private final JsonMapper json;
    private final Clock clock;

    AnalysisRepository(DSLContext db, JsonMapper json, Clock clock) {
        this.db = db;
        this.json = json;
        this.clock = clock;
    }

    /** Puts one in the queue, or the same one again; one that waits or runs already stays as it is. */
    UUID ask(UUID clip, String wanted, Recipe recipe, int frames) {
        var id = UUID.randomUUID();
        var open = ANALYSIS.STATE.in(AnalysisState.WAITING, AnalysisState.RUNNING);
        db.insertInto(ANALYSIS)
                .set(ANALYSIS.ID, id)
                .set(ANALYSIS.CLIP_ID, clip)
                .set(ANALYSIS.RECIPE, JSON.json(json.writeValueAsString(recipe.toTree())))
                .set(ANALYSIS.WANTED, wanted)
                .set(ANALYSIS.STATE, AnalysisState.WAITING)
                .set(ANALYSIS.FRAMES, frames)
                .set(ANALYSIS.ASKED_AT, LocalDateTime.now(clock))
                .onDuplicateKeyUpdate()
                // in this order: each value is read by those behind it
                .set(
                        ANALYSIS.FRAMES_DONE,
                        org.jooq.impl.DSL.when(open, ANALYSIS.FRAMES_DONE).otherwise(0))
                .set(ANALYSIS.PROBLEM, org.jooq.impl.DSL.when(open, ANALYSIS.PROBLEM))
                .set(
                        ANALYSIS.STATE,
                        org.jooq.impl.DSL.when(open, ANALYSIS.STATE).otherwise(AnalysisState.WAITING))
                .execute();
        return db.select(ANALYSIS.ID)
                .from(ANALYSIS)
                .where(ANALYSIS.CLIP_ID.eq(clip), ANALYSIS.WANTED.eq(wanted))
                .fetchSingle(ANALYSIS.ID);
    }

    /** Those that wait, or also those that were begun; oldest first. */
    List<String> open(boolean begun) {
        return db.select(ANALYSIS.ID)
                .from(ANALYSIS)
                .where(
                        begun
                                ? ANALYSIS.STATE.in(AnalysisState.WAITING, AnalysisState.RUNNING)
                                : ANALYSIS.STATE.eq(AnalysisState.WAITING))
                .orderBy(ANALYSIS.ASKED_AT)
                .fetch(row -> row.value1().toString());
    }

    /** Also from RUNNING: what a dead process had begun is begun again. The number of this go, or none when there is nothing to do. */
    OptionalInt start(UUID id, String owner) {
        int changed = db.update(ANALYSIS)
                .set(ANALYSIS.STATE, AnalysisState.RUNNING)
                .set(ANALYSIS.FRAMES_DONE, 0)
                .set(ANALYSIS.OWNER, owner)
                .set(ANALYSIS.ATTEMPT, ANALYSIS.ATTEMPT.plus(1))
                .where(ANALYSIS.ID.eq(id), ANALYSIS.STATE.in(AnalysisState.WAITING, AnalysisState.RUNNING))
                .execute();
        Integer attempt = changed == 0
                ? null
                : db.select(ANALYSIS.ATTEMPT)
                        .from(ANALYSIS)
                        .where(ANALYSIS.ID.eq(id), ANALYSIS.OWNER.eq(owner))
                        .fetchOne(ANALYSIS.ATTEMPT);
        return attempt == null ? OptionalInt.empty() : OptionalInt.of(attempt);
    }

    void progress(UUID id, int attempt, int frames) {
        db.update(ANALYSIS)
                .set(ANALYSIS.FRAMES_DONE, frames)
                .where(running(id, attempt))
                .execute();
    }

    boolean done(UUID id, int attempt) {
        return db.update(ANALYSIS)
                        .set(ANALYSIS.STATE, AnalysisState.DONE)
                        .set(ANALYSIS.FRAMES_DONE, ANALYSIS.FRAMES)
                        .where(running(id, attempt))
                        .execute()
                == 1;
    }

    boolean failed(UUID id, int attempt, String sentence) {
        return db.update(ANALYSIS)
                        .set(ANALYSIS.STATE, AnalysisState.FAILED)
                        .set(ANALYSIS.PROBLEM, sentence.length() > 1000 ? sentence.substring(0, 1000) : sentence)
                        .where(running(id, attempt))
                        .execute()
                == 1;
    }

    private static Condition running(UUID id, int attempt) {
        return ANALYSIS.ID.eq(id).and(ANALYSIS.STATE.eq(AnalysisState.RUNNING)).and(ANALYSIS.ATTEMPT.eq(attempt));
    }

    boolean stop(UUID id) {
        return db.update(ANALYSIS)
                        .set(ANALYSIS.STATE, AnalysisState.STOPPED)
                        .where(ANALYSIS.ID.eq(id), ANALYSIS.STATE.in(AnalysisState.WAITING, AnalysisState.RUNNING))
                        .execute()
                == 1;
    }

    /** @return the clip and the recipe whose steps wait */
    Optional<Asked> asked(UUID id) {
        return db.select(ANALYSIS.CLIP_ID, ANALYSIS.RECIPE)
                .from(ANALYSIS)
                .where(ANALYSIS.ID.eq(id))
                .fetchOptional(row -> new Asked(
                        row.value1(),
                        Recipe.fromTree(json.readValue(row.value2().data(), Map.class))));
    }

    record Asked(UUID clip, Recipe recipe) {}

    Optional<AnalysisView> find(UUID id) {
        return db.selectFrom(ANALYSIS).where(ANALYSIS.ID.eq(id)).fetchOptional(AnalysisRepository::view);
    }

    Optional<AnalysisView> find(UUID clip, String wanted) {
        return db.selectFrom(ANALYSIS)
                .where(ANALYSIS.CLIP_ID.eq(clip), ANALYSIS.WANTED.eq(wanted))
                .fetchOptional(AnalysisRepository::view);
    }

    List<UUID> of(UUID clip) {
        return db.select(ANALYSIS.ID)
                .from(ANALYSIS)
                .where(ANALYSIS.CLIP_ID.eq(clip))
                .fetch(ANALYSIS.ID);
    }

    private static AnalysisView view(Record row) {
        return new AnalysisView(
                row.get(ANALYSIS.ID),
                row.get(ANALYSIS.CLIP_ID),
                AnalysisView.State.valueOf(row.get(ANALYSIS.STATE).name()),
                null,
                row.get(ANALYSIS.FRAMES),
                row.get(ANALYSIS.FRAMES_DONE),
                row.get(ANALYSIS.PROBLEM));
    }
}
