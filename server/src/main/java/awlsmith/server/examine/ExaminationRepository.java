package awlsmith.server.examine;

import static awlsmith.server.db.Tables.EXAMINATION;

import awlsmith.server.clips.ExaminationView.ConditionFacts;
import awlsmith.server.db.enums.ExaminationState;
import java.util.UUID;
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

    /** Also from RUNNING: what a killed server had begun is begun again. */
    boolean start(UUID clip) {
        return db.update(EXAMINATION)
                        .set(EXAMINATION.STATE, ExaminationState.RUNNING)
                        .set(EXAMINATION.PROGRESS, 0.0)
                        .where(
                                EXAMINATION.CLIP_ID.eq(clip),
                                EXAMINATION.STATE.in(ExaminationState.WAITING, ExaminationState.RUNNING))
                        .execute()
                >= 1;
    }

    void progress(UUID clip, double share) {
        db.update(EXAMINATION)
                .set(EXAMINATION.PROGRESS, share)
                .where(EXAMINATION.CLIP_ID.eq(clip), EXAMINATION.STATE.eq(ExaminationState.RUNNING))
                .execute();
    }

    void done(UUID clip, ConditionFacts facts) {
        db.update(EXAMINATION)
                .set(EXAMINATION.STATE, ExaminationState.DONE)
                .set(EXAMINATION.PROGRESS, 1.0)
                .set(EXAMINATION.FACTS, JSON.json(json.writeValueAsString(facts)))
                .where(EXAMINATION.CLIP_ID.eq(clip), EXAMINATION.STATE.eq(ExaminationState.RUNNING))
                .execute();
    }

    void failed(UUID clip, String sentence) {
        db.update(EXAMINATION)
                .set(EXAMINATION.STATE, ExaminationState.FAILED)
                .set(EXAMINATION.PROBLEM, sentence.length() > 1000 ? sentence.substring(0, 1000) : sentence)
                .where(EXAMINATION.CLIP_ID.eq(clip))
                .execute();
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
