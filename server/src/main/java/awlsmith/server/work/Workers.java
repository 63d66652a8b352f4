package awlsmith.server.work;

import static awlsmith.server.db.Tables.WORKER;

import awlsmith.core.recipe.Sha256;
import awlsmith.server.problem.Refusal;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;

/** Machines that may take parts of renders, each by a token of its own, which can be taken back. */
@Repository
class Workers {
    private static final int MOST = 500;
    private static final int LONGEST_NAME = 60;
    private static final int TOKEN_BYTES = 32;

    private final DSLContext db;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();

    Workers(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** @param seenAt when it asked last; @param segments that it brought so far */
    record Worker(
            UUID id, String name, Instant madeAt, @Nullable Instant seenAt, long segments) {}

    List<Worker> all() {
        return db.selectFrom(WORKER)
                .orderBy(WORKER.NAME)
                .fetch(row -> new Worker(
                        row.getId(),
                        row.getName(),
                        row.getMadeAt().toInstant(ZoneOffset.UTC),
                        row.getSeenAt() == null ? null : row.getSeenAt().toInstant(ZoneOffset.UTC),
                        row.getSegments()));
    }

    /** @return the token, which is kept nowhere */
    String add(String name) {
        String clean = name.replaceAll("\\p{Cntrl}+", " ").strip();
        if (clean.isEmpty() || clean.length() > LONGEST_NAME) {
            throw new Refusal(Refusal.Kind.INVALID, "a machine's name has 1 to " + LONGEST_NAME + " letters");
        }
        if (all().size() >= MOST) {
            throw new Refusal(Refusal.Kind.INVALID, MOST + " machines are the most; take some away first");
        }
        byte[] bits = new byte[TOKEN_BYTES];
        random.nextBytes(bits);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bits);
        db.insertInto(WORKER)
                .set(WORKER.ID, UUID.randomUUID())
                .set(WORKER.NAME, clean)
                .set(WORKER.TOKEN_HASH, Sha256.hex(token))
                .set(WORKER.MADE_AT, now())
                .execute();
        return token;
    }

    void remove(UUID id) {
        if (db.deleteFrom(WORKER).where(WORKER.ID.eq(id)).execute() == 0) {
            throw Refusal.unknown("this machine");
        }
    }

    /** The machine with this token, which is seen now; none where it was taken back or never was one. */
    Optional<Worker> signedIn(String token) {
        String hash = Sha256.hex(token);
        int seen = db.update(WORKER)
                .set(WORKER.SEEN_AT, now())
                .where(WORKER.TOKEN_HASH.eq(hash))
                .execute();
        return seen == 0
                ? Optional.empty()
                : db.selectFrom(WORKER)
                        .where(WORKER.TOKEN_HASH.eq(hash))
                        .fetchOptional(row -> new Worker(
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
