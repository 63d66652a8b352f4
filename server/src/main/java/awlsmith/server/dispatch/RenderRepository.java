package awlsmith.server.dispatch;

import static awlsmith.server.db.Tables.CLIP;
import static awlsmith.server.db.Tables.MEASURED_RATE;
import static awlsmith.server.db.Tables.RENDER;
import static org.jooq.impl.DSL.falseCondition;

import awlsmith.core.plan.Deliverable;
import awlsmith.render.RecipeJson;
import awlsmith.server.clips.ClipFacts;
import awlsmith.server.db.enums.RenderState;
import awlsmith.server.problem.Refusal;
import awlsmith.server.recipes.StoredRecipe;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
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

    void insert(RenderJob job, RenderJob.Asked asked, Instant now) {
        db.insertInto(RENDER)
                .set(RENDER.ID, job.id())
                .set(RENDER.CLIP_ID, job.clip())
                .set(RENDER.TAKE_NAME, asked.takeName())
                .set(RENDER.RECIPE, JSON.json(RecipeJson.write(job.recipe())))
                .set(
                        RENDER.DELIVERABLE,
                        JSON.json(json.writeValueAsString(job.deliverable().toTree())))
                .set(RENDER.FILE_NAME, job.fileName())
                .set(RENDER.FROM_FRAME, job.from())
                .set(RENDER.END_FRAME, job.end())
                .set(RENDER.OUT_FRAMES, job.outFrames())
                .set(RENDER.WHOLE_CLIP, asked.whole())
                .set(RENDER.WIDTH, job.width())
                .set(RENDER.HEIGHT, job.height())
                .set(RENDER.STATE, RenderState.WAITING)
                .set(RENDER.BUNDLE, job.bundle())
                .set(RENDER.BATCH, asked.batch())
                .set(RENDER.BATCH_NAME, asked.batchName())
                .set(RENDER.NOT_BEFORE, asked.notBefore() == null ? null : utc(asked.notBefore()))
                .set(RENDER.CREATED_AT, utc(now))
                .set(RENDER.PLACE, ChronoUnit.MICROS.between(Instant.EPOCH, now))
                .execute();
    }

    List<RenderView> all() {
        return db.select(RENDER.fields())
                .select(CLIP.TITLE, CLIP.FACTS, CLIP.FRAMES)
                .from(RENDER)
                .join(CLIP)
                .on(CLIP.ID.eq(RENDER.CLIP_ID))
                .orderBy(RENDER.PLACE, RENDER.CREATED_AT)
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

    /** Those that wait and may begin by now, or also those that were begun, in their order. */
    List<String> open(boolean begun, Instant now) {
        return db.select(RENDER.ID)
                .from(RENDER)
                .where(due(now).or(begun ? RENDER.STATE.eq(RenderState.RUNNING) : falseCondition()))
                .orderBy(RENDER.PLACE, RENDER.CREATED_AT)
                .fetch(row -> row.value1().toString());
    }

    private static Condition due(Instant now) {
        return RENDER.STATE
                .eq(RenderState.WAITING)
                .and(RENDER.NOT_BEFORE.isNull().or(RENDER.NOT_BEFORE.le(utc(now))));
    }

    /** Others of the same treatment that are not finished, resting or given up. */
    List<UUID> beside(UUID id, UUID bundle) {
        return db.select(RENDER.ID)
                .from(RENDER)
                .where(
                        RENDER.BUNDLE.eq(bundle),
                        RENDER.ID.ne(id),
                        RENDER.STATE.in(RenderState.WAITING, RenderState.RUNNING))
                .orderBy(RENDER.PLACE)
                .fetch(RENDER.ID);
    }

    /** What a process was stopped at, though nobody gave it up. */
    void waitAgain(UUID id, String owner) {
        db.update(RENDER)
                .set(RENDER.STATE, RenderState.WAITING)
                .where(RENDER.ID.eq(id), RENDER.STATE.eq(RenderState.RUNNING), RENDER.OWNER.eq(owner))
                .execute();
    }

    boolean pause(UUID id) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.PAUSED)
                        .where(RENDER.ID.eq(id), RENDER.STATE.in(RenderState.WAITING, RenderState.RUNNING))
                        .execute()
                == 1;
    }

    /** Goes on at once, also where it was to begin later. */
    boolean resume(UUID id) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.WAITING)
                        .setNull(RENDER.NOT_BEFORE)
                        .where(RENDER.ID.eq(id), RENDER.STATE.in(RenderState.PAUSED, RenderState.WAITING))
                        .execute()
                == 1;
    }

    /** @throws Refusal with a sentence when its recipe cannot be read any more */
    RenderJob job(UUID id) {
        return db.selectFrom(RENDER)
                .where(RENDER.ID.eq(id))
                .fetchOptional(row -> new RenderJob(
                        row.getId(),
                        row.getClipId(),
                        StoredRecipe.of(row.getRecipe().data()).demanded(),
                        Deliverable.fromTree(json.readValue(row.getDeliverable().data(), Map.class)),
                        row.getFileName(),
                        row.getFromFrame(),
                        row.getEndFrame(),
                        row.getOutFrames(),
                        row.getWidth(),
                        row.getHeight(),
                        row.getBundle()))
                .orElseThrow(() -> Refusal.unknown("this render"));
    }

    /** Also from RUNNING: what a dead process had begun is gone on with. The number of this go, or none when there is nothing to do. */
    OptionalInt start(UUID id, String owner, Instant now) {
        int changed = db.update(RENDER)
                .set(RENDER.STATE, RenderState.RUNNING)
                .set(RENDER.STARTED_AT, utc(now))
                .set(RENDER.OWNER, owner)
                .set(RENDER.ATTEMPT, RENDER.ATTEMPT.plus(1))
                .setNull(RENDER.PROBLEM)
                .where(RENDER.ID.eq(id), due(now).or(RENDER.STATE.eq(RenderState.RUNNING)))
                .execute();
        Integer attempt = changed == 0
                ? null
                : db.select(RENDER.ATTEMPT)
                        .from(RENDER)
                        .where(RENDER.ID.eq(id), RENDER.OWNER.eq(owner))
                        .fetchOne(RENDER.ATTEMPT);
        return attempt == null ? OptionalInt.empty() : OptionalInt.of(attempt);
    }

    private static Condition running(UUID id, int attempt) {
        return RENDER.ID.eq(id).and(RENDER.STATE.eq(RenderState.RUNNING)).and(RENDER.ATTEMPT.eq(attempt));
    }

    /** False when the render was stopped, or another process does it by now. */
    boolean framesDone(UUID id, int attempt, int frames) {
        return db.update(RENDER)
                        .set(RENDER.FRAMES_DONE, frames)
                        .where(running(id, attempt))
                        .execute()
                == 1;
    }

    boolean done(UUID id, int attempt, RenderView.Result result, @Nullable String note, Instant now) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.DONE)
                        .set(RENDER.FACTS, JSON.json(json.writeValueAsString(result)))
                        .set(RENDER.FRAMES_DONE, (int) result.frames())
                        .set(RENDER.NOTE, note)
                        .set(RENDER.FINISHED_AT, utc(now))
                        .where(running(id, attempt))
                        .execute()
                == 1;
    }

    boolean failed(UUID id, int attempt, String sentence, Instant now) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.FAILED)
                        .set(RENDER.PROBLEM, sentence.length() > 1000 ? sentence.substring(0, 1000) : sentence)
                        .set(RENDER.FINISHED_AT, utc(now))
                        .where(running(id, attempt))
                        .execute()
                == 1;
    }

    boolean cancel(UUID id, Instant now) {
        return db.update(RENDER)
                        .set(RENDER.STATE, RenderState.CANCELLED)
                        .set(RENDER.FINISHED_AT, utc(now))
                        .where(
                                RENDER.ID.eq(id),
                                RENDER.STATE.in(RenderState.WAITING, RenderState.RUNNING, RenderState.PAUSED))
                        .execute()
                == 1;
    }

    /** Notes that a finished file is no longer there. */
    boolean clear(UUID id, Instant now) {
        return db.update(RENDER)
                        .set(RENDER.CLEARED_AT, utc(now))
                        .where(RENDER.ID.eq(id), RENDER.STATE.eq(RenderState.DONE), RENDER.CLEARED_AT.isNull())
                        .execute()
                == 1;
    }

    /** Those whose finished files are there and were so before a moment. */
    List<UUID> finishedBefore(Instant moment) {
        return db.select(RENDER.ID)
                .from(RENDER)
                .where(
                        RENDER.STATE.eq(RenderState.DONE),
                        RENDER.CLEARED_AT.isNull(),
                        RENDER.FINISHED_AT.lt(utc(moment)))
                .fetch(RENDER.ID);
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

    /** @param group of the files of one treatment, which are made together */
    private record Waiting(UUID id, long place, UUID group) {}

    /**
     * Lets one that waits, with what of its treatment waits too, change places with those of the treatment that waits before it.
     *
     * @return all that have moved; none where it does not wait, or is the first
     */
    List<UUID> earlier(UUID id) {
        return db.transactionResult(inside -> {
            var now = inside.dsl();
            List<Waiting> waiting = now.select(RENDER.ID, RENDER.PLACE, RENDER.BUNDLE)
                    .from(RENDER)
                    .where(RENDER.STATE.eq(RenderState.WAITING))
                    .orderBy(RENDER.PLACE)
                    .forUpdate()
                    .fetch(row -> new Waiting(
                            row.value1(), row.value2(), row.value3() == null ? row.value1() : row.value3()));
            Optional<UUID> group = waiting.stream()
                    .filter(one -> one.id().equals(id))
                    .map(Waiting::group)
                    .findFirst();
            List<Waiting> ours = waiting.stream()
                    .filter(one -> group.filter(one.group()::equals).isPresent())
                    .toList();
            Optional<UUID> before = waiting.stream()
                    .takeWhile(one ->
                            !ours.isEmpty() && one.place() < ours.getFirst().place())
                    .map(Waiting::group)
                    .reduce((one, next) -> next);
            if (before.isEmpty()) {
                return List.<UUID>of();
            }
            Stream<Waiting> passed = waiting.stream().filter(one -> one.group().equals(before.get()));
            List<Waiting> order = Stream.concat(ours.stream(), passed).toList();
            List<Long> places = order.stream().map(Waiting::place).sorted().toList();
            for (int n = 0; n < order.size(); n++) {
                now.update(RENDER)
                        .set(RENDER.PLACE, places.get(n))
                        .where(RENDER.ID.eq(order.get(n).id()))
                        .execute();
            }
            return order.stream().map(Waiting::id).toList();
        });
    }

    /**
     * Lets one that waits go before all others that wait, with what of its treatment waits too.
     *
     * @return those that have moved; none where it does not wait
     */
    List<UUID> first(UUID id) {
        return db.transactionResult(inside -> {
            var now = inside.dsl();
            var one = now.select(RENDER.ID, RENDER.BUNDLE)
                    .from(RENDER)
                    .where(RENDER.ID.eq(id), RENDER.STATE.eq(RenderState.WAITING))
                    .forUpdate()
                    .fetchOne();
            if (one == null) {
                return List.<UUID>of();
            }
            UUID bundle = one.value2();
            List<UUID> moved = bundle == null
                    ? List.of(id)
                    : now.select(RENDER.ID)
                            .from(RENDER)
                            .where(RENDER.BUNDLE.eq(bundle), RENDER.STATE.eq(RenderState.WAITING))
                            .orderBy(RENDER.PLACE)
                            .forUpdate()
                            .fetch(RENDER.ID);
            long least = now.select(DSL.min(RENDER.PLACE))
                    .from(RENDER)
                    .where(RENDER.STATE.eq(RenderState.WAITING))
                    .fetchSingle()
                    .value1();
            for (int n = 0; n < moved.size(); n++) {
                now.update(RENDER)
                        .set(RENDER.PLACE, least - moved.size() + n)
                        .where(RENDER.ID.eq(moved.get(n)))
                        .execute();
            }
            return moved;
        });
    }

    /** Names of all files, in small letters. */
    Set<String> names() {
        return db.select(RENDER.FILE_NAME).from(RENDER).fetch(RENDER.FILE_NAME).stream()
                .map(name -> name.toLowerCase(Locale.ROOT))
                .collect(Collectors.toCollection(HashSet::new));
    }

    boolean rename(UUID id, String fileName) {
        return db.update(RENDER)
                        .set(RENDER.FILE_NAME, fileName)
                        .where(RENDER.ID.eq(id))
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
        var deliverable =
                Deliverable.fromTree(json.readValue(row.get(RENDER.DELIVERABLE).data(), Map.class));
        return new RenderView(
                row.get(RENDER.ID),
                row.get(RENDER.CLIP_ID),
                row.get(CLIP.TITLE),
                row.get(RENDER.TAKE_NAME),
                row.get(RENDER.FILE_NAME),
                deliverable.codec().label(),
                deliverable.toTree(),
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
                null,
                result == null ? null : json.readValue(result.data(), RenderView.Result.class),
                row.get(RENDER.CREATED_AT).toInstant(ZoneOffset.UTC),
                row.get(RENDER.PLACE),
                row.get(RENDER.BUNDLE),
                row.get(RENDER.BATCH),
                row.get(RENDER.BATCH_NAME),
                instant(row.get(RENDER.NOT_BEFORE)),
                instant(row.get(RENDER.FINISHED_AT)),
                instant(row.get(RENDER.CLEARED_AT)));
    }

    private static @Nullable Instant instant(@Nullable LocalDateTime at) {
        return at == null ? null : at.toInstant(ZoneOffset.UTC);
    }

    private static LocalDateTime utc(Instant at) {
        return LocalDateTime.ofInstant(at, ZoneOffset.UTC);
    }
}
