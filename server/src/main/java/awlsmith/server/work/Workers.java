package awlsmith.server.work;

import awlsmith.core.recipe.Sha256;
import awlsmith.server.problem.Refusal;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Machines that may take parts of renders, each by a token of its own, which can be taken back. */
@Service
class Workers {
    private static final int MOST = 500;
    private static final int LONGEST_NAME = 60;
    private static final int TOKEN_BYTES = 32;

    private final WorkerRepository workers;
    private final SecureRandom random = new SecureRandom();

    Workers(WorkerRepository workers) {
        this.workers = workers;
    }

    /** @param seenAt when it asked last; @param segments that it brought so far */
    record Worker(
            UUID id, String name, Instant madeAt, @Nullable Instant seenAt, long segments) {}

    List<Worker> all() {
        return workers.all();
    }

    /** @return the token, which is kept nowhere */
    String add(String name) {
        String clean = name.replaceAll("\\p{Cntrl}+", " ").strip();
        if (clean.isEmpty() || clean.length() > LONGEST_NAME) {
            throw new Refusal(Refusal.Kind.INVALID, "a machine's name has 1 to " + LONGEST_NAME + " letters");
        }
        if (workers.all().size() >= MOST) {
            throw new Refusal(Refusal.Kind.INVALID, MOST + " machines are the most; take some away first");
        }
        byte[] bits = new byte[TOKEN_BYTES];
        random.nextBytes(bits);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bits);
        workers.insert(clean, Sha256.hex(token));
        return token;
    }

    void remove(UUID id) {
        if (!workers.delete(id)) {
            throw Refusal.unknown("this machine");
        }
    }

    /** The machine with this token; none where it was taken back or never was one. */
    Optional<Worker> signedIn(String token) {
        return workers.seen(Sha256.hex(token));
    }

    void brought(UUID id) {
        workers.brought(id);
    }
}
