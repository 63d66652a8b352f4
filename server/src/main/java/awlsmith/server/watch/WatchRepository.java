package awlsmith.server.watch;

import static awlsmith.server.db.Tables.WATCHED_FILE;
import static awlsmith.server.db.Tables.WATCHED_FOLDER;

import awlsmith.core.plan.Deliverable;
import awlsmith.server.db.enums.WatchedFileState;
import awlsmith.server.db.tables.records.WatchedFolderRecord;
import awlsmith.server.takes.Way;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Watched folders and their files in the database. */
@Repository
class WatchRepository {
    private static final Logger LOG = LoggerFactory.getLogger(WatchRepository.class);
    private static final int LONGEST = 1000;

    private final DSLContext db;
    private final JsonMapper json;
    private final Clock clock;

    WatchRepository(DSLContext db, JsonMapper json, Clock clock) {
        this.db = db;
        this.json = json;
        this.clock = clock;
    }

    /** In the order they were made; what no version of ours reads any more is left out. */
    List<WatchedFolder> all() {
        var all = new ArrayList<WatchedFolder>();
        db.selectFrom(WATCHED_FOLDER)
                .orderBy(WATCHED_FOLDER.MADE_AT)
                .forEach(row -> read(row).ifPresent(all::add));
        return all;
    }

    private Optional<WatchedFolder> read(WatchedFolderRecord row) {
        try {
            var deliverables = new ArrayList<Deliverable>();
            for (Object tree : json.readValue(row.getDeliverables().data(), List.class)) {
                deliverables.add(Deliverable.fromTree((Map<?, ?>) tree));
            }
            return Optional.of(new WatchedFolder(
                    row.getId(),
                    Path.of(row.getPath()),
                    json.readValue(row.getWay().data(), Way.class),
                    deliverables,
                    row.getPattern(),
                    row.getActive(),
                    row.getProblem()));
        } catch (RuntimeException e) {
            LOG.warn("what is set of the watched folder {} cannot be read: {}", row.getPath(), e.getMessage());
            return Optional.empty();
        }
    }

    void insert(WatchedFolder folder) {
        db.insertInto(WATCHED_FOLDER)
                .set(WATCHED_FOLDER.ID, folder.id())
                .set(WATCHED_FOLDER.PATH, folder.path().toString())
                .set(WATCHED_FOLDER.WAY, JSON.json(json.writeValueAsString(folder.way())))
                .set(
                        WATCHED_FOLDER.DELIVERABLES,
                        JSON.json(json.writeValueAsString(folder.deliverables().stream()
                                .map(Deliverable::toTree)
                                .toList())))
                .set(WATCHED_FOLDER.PATTERN, folder.pattern())
                .set(WATCHED_FOLDER.ACTIVE, folder.active())
                .set(WATCHED_FOLDER.MADE_AT, at(clock.instant()))
                .execute();
    }

    boolean activate(UUID id, boolean active) {
        return db.update(WATCHED_FOLDER)
                        .set(WATCHED_FOLDER.ACTIVE, active)
                        .where(WATCHED_FOLDER.ID.eq(id))
                        .execute()
                == 1;
    }

    /** @return whether that is new */
    boolean tell(UUID id, @Nullable String problem) {
        return db.update(WATCHED_FOLDER)
                        .set(WATCHED_FOLDER.PROBLEM, cut(problem))
                        .where(WATCHED_FOLDER.ID.eq(id), WATCHED_FOLDER.PROBLEM.isDistinctFrom(cut(problem)))
                        .execute()
                == 1;
    }

    boolean delete(UUID id) {
        return db.deleteFrom(WATCHED_FOLDER).where(WATCHED_FOLDER.ID.eq(id)).execute() == 1;
    }

    List<WatchedFolder.Item> files(UUID folder) {
        return db.selectFrom(WATCHED_FILE)
                .where(WATCHED_FILE.FOLDER_ID.eq(folder))
                .orderBy(WATCHED_FILE.NAME)
                .fetch(row -> new WatchedFolder.Item(
                        row.getFolderId(),
                        row.getName(),
                        row.getBytes(),
                        row.getChangedAt().toInstant(ZoneOffset.UTC),
                        row.getSeenAt().toInstant(ZoneOffset.UTC),
                        WatchedFolder.State.valueOf(row.getState().name()),
                        row.getClipId(),
                        row.getProblem()));
    }

    /** As it is now; it is waited for until it stays so. */
    void arriving(UUID folder, String name, long bytes, Instant changedAt) {
        LocalDateTime now = at(clock.instant());
        db.insertInto(WATCHED_FILE)
                .set(WATCHED_FILE.FOLDER_ID, folder)
                .set(WATCHED_FILE.NAME, name)
                .set(WATCHED_FILE.BYTES, bytes)
                .set(WATCHED_FILE.CHANGED_AT, at(changedAt))
                .set(WATCHED_FILE.SEEN_AT, now)
                .set(WATCHED_FILE.STATE, WatchedFileState.ARRIVING)
                .onDuplicateKeyUpdate()
                .set(WATCHED_FILE.BYTES, bytes)
                .set(WATCHED_FILE.CHANGED_AT, at(changedAt))
                .set(WATCHED_FILE.SEEN_AT, now)
                .set(WATCHED_FILE.STATE, WatchedFileState.ARRIVING)
                .set(WATCHED_FILE.CLIP_ID, (UUID) null)
                .set(WATCHED_FILE.PROBLEM, (String) null)
                .execute();
    }

    void move(WatchedFolder.Item file, WatchedFolder.State to, @Nullable UUID clip, @Nullable String problem) {
        db.update(WATCHED_FILE)
                .set(WATCHED_FILE.STATE, WatchedFileState.valueOf(to.name()))
                .set(WATCHED_FILE.CLIP_ID, clip)
                .set(WATCHED_FILE.PROBLEM, cut(problem))
                .where(
                        WATCHED_FILE.FOLDER_ID.eq(file.folder()),
                        WATCHED_FILE.NAME.eq(file.name()),
                        WATCHED_FILE.STATE.eq(
                                WatchedFileState.valueOf(file.state().name())))
                .execute();
    }

    void forget(WatchedFolder.Item file) {
        db.deleteFrom(WATCHED_FILE)
                .where(WATCHED_FILE.FOLDER_ID.eq(file.folder()), WATCHED_FILE.NAME.eq(file.name()))
                .execute();
    }

    private static @Nullable String cut(@Nullable String sentence) {
        return sentence == null || sentence.length() <= LONGEST ? sentence : sentence.substring(0, LONGEST);
    }

    /** To a millisecond: what databases keep beyond that differs. */
    private static LocalDateTime at(Instant instant) {
        return LocalDateTime.ofInstant(instant.truncatedTo(ChronoUnit.MILLIS), ZoneOffset.UTC);
    }
}
