package awlsmith.server.work;

import static awlsmith.server.db.Tables.WORKER;

import java.time.Clock;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Machines that may take parts of renders, each by a token of its own, which can be taken back. */
@Repository
class WorkerRepository {
    private final DSLContext db;
    private final Clock clock;

    WorkerRepository(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    List<Workers.Worker> all() {
        return db.selectFrom(WORKER)
                .orderBy(WORKER.NAME)
                .fetch(row -> new Workers.Worker(
                        row.getId(),
                        row.getName(),
                        row.getMadeAt().toInstant(ZoneOffset.UTC),
                        row.getSeenAt() == null ? null : row.getSeenAt().toInstant(ZoneOffset.UTC),
                        row.getSegments()));
    }

    void insert(String name, String tokenHash) {
        db.insertInto(WORKER)
                .set(WORKER.ID, UUID.randomUUID())
                .set(WORKER.NAME, name)
                .set(WORKER.TOKEN_HASH, tokenHash)
                .set(WORKER.MADE_AT, now())
                .execute();
    }

    boolean delete(UUID id) {
        return db.deleteFrom(WORKER).where(WORKER.ID.eq(id)).execute() == 1;
    }

    /** The machine with this token, which is seen now; none where it was taken back or never was one. */
    Optional<Workers.Worker> seen(String hash) {
        int seen = db.update(WORKER)
                .set(WORKER.SEEN_AT, now())
                .where(WORKER.TOKEN_HASH.eq(hash))
                .execute();
        return seen == 0
                ? Optional.empty()
                : db.selectFrom(WORKER)
                        .where(WORKER.TOKEN_HASH.eq(hash))
                        .fetchOptional(row -> new Workers.Worker(
                                row.getId(),
                                row.getName(),
                                row.getMadeAt().toInstant(ZoneOffset.UTC),
                                null,
                                row.getSegments()));
    }

    void brought(UUID id) {
        db.update(WORKER)
                .set(WORKER.SEGMENTS, WORKER.SEGMENTS.plus(1))
                .where(WORKER.ID.eq(id))
                .execute();
    }

    private LocalDateTime now() {
        return LocalDateTime.ofInstant(clock.instant(), ZoneOffset.UTC);
    }
}
