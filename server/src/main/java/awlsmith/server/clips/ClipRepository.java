package awlsmith.server.clips;

import static awlsmith.server.db.Tables.CLIP;
import static awlsmith.server.db.Tables.EXAMINATION;
import static awlsmith.server.db.Tables.RENDER;
import static awlsmith.server.db.Tables.TAKE;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.select;

import awlsmith.server.db.enums.ClipOrigin;
import awlsmith.server.db.enums.ClipState;
import awlsmith.server.db.enums.RenderState;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.JSON;
import org.jooq.Record;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Clips in the database; one method is one statement. */
@Repository
class ClipRepository {
    private static final Field<Integer> TAKES = field(select(count())
            .from(TAKE)
            .where(TAKE.CLIP_ID.eq(CLIP.ID), TAKE.VERDICT.ne(awlsmith.server.db.enums.TakeVerdict.DISCARDED)));
    private static final Field<Integer> SENT_OUT =
            field(select(count()).from(RENDER).where(RENDER.CLIP_ID.eq(CLIP.ID), RENDER.STATE.eq(RenderState.DONE)));

    private final DSLContext db;
    private final JsonMapper json;

    ClipRepository(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    void insert(UUID id, String title, String fileName, String stored, ClipOrigin origin, long bytes, Instant now) {
        db.insertInto(CLIP)
                .set(CLIP.ID, id)
                .set(CLIP.TITLE, title)
                .set(CLIP.FILE_NAME, fileName)
                .set(CLIP.STORED, stored)
                .set(CLIP.ORIGIN, origin)
                .set(CLIP.STATE, ClipState.READING)
                .set(CLIP.BYTES, bytes)
                .set(CLIP.ADDED_AT, LocalDateTime.ofInstant(now, ZoneOffset.UTC))
                .execute();
    }

    /** Those on the shelf. */
    List<ClipView> all() {
        return all(CLIP.REMOVED_AT.isNull());
    }

    /** Those that were put aside. */
    List<ClipView> aside() {
        return all(CLIP.REMOVED_AT.isNotNull());
    }

    List<UUID> asideSince(Instant before) {
        return db.select(CLIP.ID)
                .from(CLIP)
                .where(CLIP.REMOVED_AT.lt(LocalDateTime.ofInstant(before, ZoneOffset.UTC)))
                .fetch(CLIP.ID);
    }

    boolean isAside(UUID id) {
        return db.fetchExists(CLIP, CLIP.ID.eq(id), CLIP.REMOVED_AT.isNotNull());
    }

    /** @param when null to take it back */
    void putAside(UUID id, @Nullable Instant when) {
        db.update(CLIP)
                .set(CLIP.REMOVED_AT, when == null ? null : LocalDateTime.ofInstant(when, ZoneOffset.UTC))
                .where(CLIP.ID.eq(id))
                .execute();
    }

    private List<ClipView> all(Condition which) {
        return db.select(CLIP.fields())
                .select(EXAMINATION.fields())
                .select(TAKES, SENT_OUT)
                .from(CLIP)
                .leftJoin(EXAMINATION)
                .on(EXAMINATION.CLIP_ID.eq(CLIP.ID))
                .where(which)
                .orderBy(CLIP.ADDED_AT, CLIP.TITLE)
                .fetch(this::view);
    }

    Optional<ClipView> find(UUID id) {
        return db.select(CLIP.fields())
                .select(EXAMINATION.fields())
                .select(TAKES, SENT_OUT)
                .from(CLIP)
                .leftJoin(EXAMINATION)
                .on(EXAMINATION.CLIP_ID.eq(CLIP.ID))
                .where(CLIP.ID.eq(id))
                .fetchOptional(this::view);
    }

    /** Names of the folders that clips and renders have. */
    Set<String> folders() {
        return db.select(CLIP.ID).from(CLIP).unionAll(select(RENDER.ID).from(RENDER)).fetch().stream()
                .map(row -> row.value1().toString())
                .collect(java.util.stream.Collectors.toSet());
    }

    Optional<String> stored(UUID id) {
        return db.select(CLIP.STORED).from(CLIP).where(CLIP.ID.eq(id)).fetchOptional(CLIP.STORED);
    }

    Optional<String> reference(UUID id) {
        return db.select(CLIP.REFERENCE).from(CLIP).where(CLIP.ID.eq(id)).fetchOptional(CLIP.REFERENCE);
    }

    /** The last reference it had. */
    Optional<String> knownReference(UUID id) {
        return db.select(CLIP.KNOWN_REFERENCE).from(CLIP).where(CLIP.ID.eq(id)).fetchOptional(CLIP.KNOWN_REFERENCE);
    }

    /** @param stored null for no reference; which it was is remembered */
    void refer(UUID id, @Nullable String stored) {
        var with = db.update(CLIP).set(CLIP.REFERENCE, stored);
        if (stored != null) {
            with = with.set(CLIP.KNOWN_REFERENCE, stored);
        }
        with.where(CLIP.ID.eq(id)).execute();
    }

    Optional<UUID> byStored(String name) {
        return db.select(CLIP.ID).from(CLIP).where(CLIP.STORED.eq(name)).fetchOptional(CLIP.ID);
    }

    boolean isStored(String name) {
        return db.fetchExists(CLIP, CLIP.STORED.eq(name));
    }

    /** Those that are still to be read, oldest first. */
    List<String> reading() {
        return db.select(CLIP.ID)
                .from(CLIP)
                .where(CLIP.STATE.eq(ClipState.READING))
                .orderBy(CLIP.ADDED_AT)
                .fetch(row -> row.value1().toString());
    }

    /** Takes hold of a clip that is to be read; the number of this go, or none when it need not be. */
    OptionalInt begin(UUID id, String owner) {
        int changed = db.update(CLIP)
                .set(CLIP.OWNER, owner)
                .set(CLIP.ATTEMPT, CLIP.ATTEMPT.plus(1))
                .where(CLIP.ID.eq(id), CLIP.STATE.eq(ClipState.READING))
                .execute();
        Integer attempt = changed == 0
                ? null
                : db.select(CLIP.ATTEMPT)
                        .from(CLIP)
                        .where(CLIP.ID.eq(id), CLIP.OWNER.eq(owner))
                        .fetchOne(CLIP.ATTEMPT);
        return attempt == null ? OptionalInt.empty() : OptionalInt.of(attempt);
    }

    void progress(UUID id, double share) {
        db.update(CLIP)
                .set(CLIP.PROGRESS, share)
                .where(CLIP.ID.eq(id), CLIP.STATE.eq(ClipState.READING))
                .execute();
    }

    void size(UUID id, long bytes) {
        db.update(CLIP).set(CLIP.BYTES, bytes).where(CLIP.ID.eq(id)).execute();
    }

    boolean ready(UUID id, int attempt, ClipFacts facts, int frames, @Nullable String problem) {
        return db.update(CLIP)
                        .set(CLIP.STATE, ClipState.READY)
                        .set(CLIP.PROGRESS, 1.0)
                        .set(CLIP.FACTS, JSON.json(json.writeValueAsString(facts)))
                        .set(CLIP.FRAMES, frames)
                        .set(CLIP.PROBLEM, problem)
                        .where(CLIP.ID.eq(id), CLIP.STATE.eq(ClipState.READING), CLIP.ATTEMPT.eq(attempt))
                        .execute()
                == 1;
    }

    void failed(UUID id, int attempt, String sentence) {
        db.update(CLIP)
                .set(CLIP.STATE, ClipState.FAILED)
                .set(CLIP.PROBLEM, sentence.length() > 1000 ? sentence.substring(0, 1000) : sentence)
                .where(CLIP.ID.eq(id), CLIP.STATE.eq(ClipState.READING), CLIP.ATTEMPT.eq(attempt))
                .execute();
    }

    boolean rename(UUID id, String title) {
        return db.update(CLIP).set(CLIP.TITLE, title).where(CLIP.ID.eq(id)).execute() == 1;
    }

    boolean delete(UUID id) {
        return db.deleteFrom(CLIP).where(CLIP.ID.eq(id)).execute() == 1;
    }

    private ClipView view(Record row) {
        JSON facts = row.get(CLIP.FACTS);
        return new ClipView(
                row.get(CLIP.ID),
                row.get(CLIP.TITLE),
                row.get(CLIP.FILE_NAME),
                ClipView.State.valueOf(row.get(CLIP.STATE).name()),
                row.get(CLIP.PROGRESS),
                row.get(CLIP.PROBLEM),
                row.get(CLIP.BYTES),
                row.get(CLIP.ORIGIN) == ClipOrigin.LINK,
                facts == null ? null : json.readValue(facts.data(), ClipFacts.class),
                row.get(CLIP.FRAMES),
                row.get(CLIP.ADDED_AT).toInstant(ZoneOffset.UTC),
                row.get(TAKES),
                row.get(SENT_OUT),
                row.get(CLIP.REFERENCE) != null,
                row.get(CLIP.KNOWN_REFERENCE) != null,
                examination(row));
    }

    private @Nullable ExaminationView examination(Record row) {
        if (row.get(EXAMINATION.STATE) == null) {
            return null;
        }
        JSON facts = row.get(EXAMINATION.FACTS);
        return new ExaminationView(
                ExaminationView.State.valueOf(row.get(EXAMINATION.STATE).name()),
                row.get(EXAMINATION.PROGRESS),
                row.get(EXAMINATION.PROBLEM),
                facts == null ? null : json.readValue(facts.data(), ExaminationView.ConditionFacts.class));
    }
}
