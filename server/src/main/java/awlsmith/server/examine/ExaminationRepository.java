package awlsmith.server.examine;

import static awlsmith.server.db.Tables.CLIP;
import static awlsmith.server.db.Tables.EXAMINATION;
import static org.jooq.impl.DSL.noCondition;

import awlsmith.server.clips.ExaminationView.ConditionFacts;
import awlsmith.server.db.enums.ExaminationState;
import java.util.List;
import java.util.OptionalInt;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Examinations in the database. A change of state carries its condition and tells whether it happened. */
@Repository
class ExaminationRepository {
    private final DSLContext db;
    private final JsonMapper json;

    ExaminationRepository(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** Puts a clip in the queue, for the first time or again; findings of before stay until new ones are there. */
    void await(UUID clip) {
        db.insertInto(EXAMINATION)
                .set(EXAMINATION.CLIP_ID, clip)
                .set(EXAMINATION.STATE, ExaminationState.WAITING)
                .onDuplicateKeyUpdate()
                .set(EXAMINATION.STATE, ExaminationState.WAITING)
                .set(EXAMINATION.PROGRESS, 0.0)
                .setNull(EXAMINATION.PROBLEM)
                .execute();
    }

    /** Those that wait, or also those that were begun; in the order of their clips. */
    List<String> open(boolean begun) {
        return db.select(EXAMINATION.CLIP_ID)
                .from(EXAMINATION)
                .join(CLIP)
                .on(CLIP.ID.eq(EXAMINATION.CLIP_ID))
                .where(EXAMINATION
                        .STATE
                        .eq(ExaminationState.WAITING)
                        .or(begun ? EXAMINATION.STATE.eq(ExaminationState.RUNNING) : noCondition()))
                .orderBy(CLIP.ADDED_AT)
                .fetch(row -> row.value1().toString());
    }

    /** Also from RUNNING: what a dead process had begun is begun again. The number of this go, or none when there is nothing to do. */
    OptionalInt start(UUID clip, String owner) {
        int changed = db.update(EXAMINATION)
                .set(EXAMINATION.STATE, ExaminationState.RUNNING)
                .set(EXAMINATION.PROGRESS, 0.0)
                .set(EXAMINATION.OWNER, owner)
                .set(EXAMINATION.ATTEMPT, EXAMINATION.ATTEMPT.plus(1))
                .where(
                        EXAMINATION.CLIP_ID.eq(clip),
                        EXAMINATION.STATE.in(ExaminationState.WAITING, ExaminationState.RUNNING))
                .execute();
        Integer attempt = changed == 0
                ? null
                : db.select(EXAMINATION.ATTEMPT)
                        .from(EXAMINATION)
                        .where(EXAMINATION.CLIP_ID.eq(clip), EXAMINATION.OWNER.eq(owner))
                        .fetchOne(EXAMINATION.ATTEMPT);
        return attempt == null ? OptionalInt.empty() : OptionalInt.of(attempt);
    }

    void progress(UUID clip, double share) {
        db.update(EXAMINATION)
                .set(EXAMINATION.PROGRESS, share)
                .where(EXAMINATION.CLIP_ID.eq(clip), EXAMINATION.STATE.eq(ExaminationState.RUNNING))
                .execute();
    }

    boolean done(UUID clip, int attempt, ConditionFacts facts) {
        return db.update(EXAMINATION)
                        .set(EXAMINATION.STATE, ExaminationState.DONE)
                        .set(EXAMINATION.PROGRESS, 1.0)
                        .set(EXAMINATION.FACTS, JSON.json(json.writeValueAsString(facts)))
                        .where(running(clip, attempt))
                        .execute()
                == 1;
    }

    boolean failed(UUID clip, int attempt, String sentence) {
        return db.update(EXAMINATION)
                        .set(EXAMINATION.STATE, ExaminationState.FAILED)
                        .set(EXAMINATION.PROBLEM, sentence.length() > 1000 ? sentence.substring(0, 1000) : sentence)
                        .where(running(clip, attempt))
                        .execute()
                == 1;
    }

    private static Condition running(UUID clip, int attempt) {
        return EXAMINATION
                .CLIP_ID
                .eq(clip)
                .and(EXAMINATION.STATE.eq(ExaminationState.RUNNING))
                .and(EXAMINATION.ATTEMPT.eq(attempt));
    }

    boolean stop(UUID clip) {
        return db.update(EXAMINATION)
                        .set(EXAMINATION.STATE, ExaminationState.STOPPED)
                        .where(
                                EXAMINATION.CLIP_ID.eq(clip),
                                EXAMINATION.STATE.in(ExaminationState.WAITING, ExaminationState.RUNNING))
                        .execute()
                == 1;
    }
}
