package awlsmith.server.dispatch;

import static awlsmith.server.db.Tables.CLIP;
import static awlsmith.server.db.Tables.MEASURED_RATE;
import static awlsmith.server.db.Tables.RENDER;

import awlsmith.core.plan.Deliverable;
import awlsmith.render.RecipeJson;
import awlsmith.server.clips.ClipFacts;
import awlsmith.server.db.enums.RenderState;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.jooq.Record;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Renders in the database. A change of state carries its condition and tells whether it happened. */
@Repository
class RenderRepository {
    private final DSLContext db;
    private final JsonMapper json;

    RenderRepository(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    void insert(RenderJob job, String takeName, boolean whole, Instant now) {
        db.insertInto(RENDER)
                .set(RENDER.ID, job.id())
                .set(RENDER.CLIP_ID, job.clip())
                .set(RENDER.TAKE_NAME, takeName)
                .set(RENDER.RECIPE, JSON.json(RecipeJson.write(job.recipe())))
                .set(RENDER.DELIVERABLE, JSON.json(json.writeValueAsString(job.deliverable())))
                .set(RENDER.FILE_NAME, job.fileName())
                .set(RENDER.FROM_FRAME, job.from())
                .set(RENDER.END_FRAME, job.end())
                .set(RENDER.OUT_FRAMES, job.outFrames())
                .set(RENDER.WHOLE_CLIP, whole)
                .set(RENDER.WIDTH, job.width())
                .set(RENDER.HEIGHT, job.height())
                .set(RENDER.STATE, RenderState.WAITING)
                .set(RENDER.CREATED_AT, utc(now))
                .execute();
    }

    List<RenderView> all() {
        return db.select(RENDER.fields())
                .select(CLIP.TITLE, CLIP.FACTS, CLIP.FRAMES)
                .from(RENDER)
                .join(CLIP)
                .on(CLIP.ID.eq(RENDER.CLIP_ID))
                .orderBy(RENDER.CREATED_AT)
                .fetch(this::view);
    }

    Optional<RenderView> find(UUID id) {
        return db.select(RENDER.fields())
                .select(CLIP.TITLE, CLIP.FACTS, CLIP.FRAMES)
                .from(RENDER)
                .join(CLIP)
                .on(CLIP.ID.eq(RENDER.CLIP_ID))
                .where(RENDER.ID.eq(id))
                .fetchOptional(this::view);
    }

    List<UUID> of(UUID clip) {
        return db.select(RENDER.ID).from(RENDER).where(RENDER.CLIP_ID.eq(clip)).fetch(RENDER.ID);
    }

    /** The oldest render that waits. */
    Optional<RenderJob> nextWaiting() {
        return db.selectFrom(RENDER)
                .where(RENDER.STATE.eq(RenderState.WAITING))
                .orderBy(RENDER.CREATED_AT)
                .limit(1)
                .fetchOptional(row -> new RenderJob(
                        row.getId(),
                        row.getClipId(),
                        RecipeJson.read(row.getRecipe().data()),
                        json.readValue(row.getDeliverable().data(), Deliverable.class),
                        row.getFileName(),
                        row.getFromFrame(),
                        row.getEndFrame(),
                        row.getOutFrames(),
                        row.getWidth(),
                        row.getHeight()));
    }

    boolean start(UUID id, Instant now) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.RUNNING)
                        .set(RENDER.STARTED_AT, utc(now))
                        .setNull(RENDER.PROBLEM)
                        .where(RENDER.ID.eq(id), RENDER.STATE.eq(RenderState.WAITING))
                        .execute()
                == 1;
    }

    void framesDone(UUID id, int frames) {
        db.update(RENDER)
                .set(RENDER.FRAMES_DONE, frames)
                .where(RENDER.ID.eq(id), RENDER.STATE.eq(RenderState.RUNNING))
                .execute();
    }

    void done(UUID id, RenderView.Result result, String note, Instant now) {
        db.update(RENDER)
                .set(RENDER.STATE, RenderState.DONE)
                .set(RENDER.FACTS, JSON.json(json.writeValueAsString(result)))
                .set(RENDER.FRAMES_DONE, (int) result.frames())
                .set(RENDER.NOTE, note)
                .set(RENDER.FINISHED_AT, utc(now))
                .where(RENDER.ID.eq(id), RENDER.STATE.eq(RenderState.RUNNING))
                .execute();
    }

    void failed(UUID id, String sentence, Instant now) {
        db.update(RENDER)
                .set(RENDER.STATE, RenderState.FAILED)
                .set(RENDER.PROBLEM, sentence.length() > 1000 ? sentence.substring(0, 1000) : sentence)
                .set(RENDER.FINISHED_AT, utc(now))
                .where(RENDER.ID.eq(id), RENDER.STATE.eq(RenderState.RUNNING))
                .execute();
    }

    boolean cancel(UUID id, Instant now) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.CANCELLED)
                        .set(RENDER.FINISHED_AT, utc(now))
                        .where(RENDER.ID.eq(id), RENDER.STATE.in(RenderState.WAITING, RenderState.RUNNING))
                        .execute()
                == 1;
    }

    boolean retry(UUID id) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.WAITING)
                        .setNull(RENDER.PROBLEM)
                        .setNull(RENDER.FINISHED_AT)
                        .where(RENDER.ID.eq(id), RENDER.STATE.in(RenderState.FAILED, RenderState.CANCELLED))
                        .execute()
                == 1;
    }

    /** Puts a render that was broken off back in the queue, where it goes on from its finished segments. */
    int requeueRunning() {
        return db.update(RENDER)
                .set(RENDER.STATE, RenderState.WAITING)
                .where(RENDER.STATE.eq(RenderState.RUNNING))
                .execute();
    }

    boolean requeue(UUID id) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.WAITING)
                        .where(RENDER.ID.eq(id), RENDER.STATE.eq(RenderState.RUNNING))
                        .execute()
                == 1;
    }

    boolean delete(UUID id) {
        return db.deleteFrom(RENDER).where(RENDER.ID.eq(id)).execute() == 1;
    }

    void measured(String codec, double pixelsASecond, Instant now) {
        db.insertInto(MEASURED_RATE)
                .set(MEASURED_RATE.CODEC, codec)
                .set(MEASURED_RATE.PIXELS_A_SECOND, pixelsASecond)
                .set(MEASURED_RATE.MEASURED_AT, utc(now))
                .execute();
    }

    /** Pixels a second that the newest render with this codec reached here. */
    OptionalDouble newestRate(String codec) {
        return db
                .select(MEASURED_RATE.PIXELS_A_SECOND)
                .from(MEASURED_RATE)
                .where(MEASURED_RATE.CODEC.eq(codec))
                .orderBy(MEASURED_RATE.ID.desc())
                .limit(1)
                .fetch(MEASURED_RATE.PIXELS_A_SECOND)
                .stream()
                .mapToDouble(Double::doubleValue)
                .findFirst();
    }

    private RenderView view(Record row) {
        int span = row.get(RENDER.END_FRAME) - row.get(RENDER.FROM_FRAME);
        int frames = row.get(RENDER.OUT_FRAMES) > 0 ? row.get(RENDER.OUT_FRAMES) : span;
        ClipFacts facts = json.readValue(row.get(CLIP.FACTS).data(), ClipFacts.class);
        JSON result = row.get(RENDER.FACTS);
        return new RenderView(
                row.get(RENDER.ID),
                row.get(RENDER.CLIP_ID),
                row.get(CLIP.TITLE),
                row.get(RENDER.TAKE_NAME),
                row.get(RENDER.FILE_NAME),
                json.readValue(row.get(RENDER.DELIVERABLE).data(), Deliverable.class)
                        .codec()
                        .label(),
                row.get(RENDER.WHOLE_CLIP),
                facts.seconds() * span / Math.max(1, row.get(CLIP.FRAMES)),
                facts.seconds(),
                row.get(RENDER.WIDTH),
                row.get(RENDER.HEIGHT),
                RenderView.State.valueOf(row.get(RENDER.STATE).name()),
                frames,
                row.get(RENDER.FRAMES_DONE),
                row.get(RENDER.PROBLEM),
                row.get(RENDER.NOTE),
                null,
                result == null ? null : json.readValue(result.data(), RenderView.Result.class),
                row.get(RENDER.CREATED_AT).toInstant(ZoneOffset.UTC),
                Optional.ofNullable(row.get(RENDER.FINISHED_AT))
                        .map(at -> at.toInstant(ZoneOffset.UTC))
                        .orElse(null));
    }

    private static LocalDateTime utc(Instant at) {
        return LocalDateTime.ofInstant(at, ZoneOffset.UTC);
    }
}
