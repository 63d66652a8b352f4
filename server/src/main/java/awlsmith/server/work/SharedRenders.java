package awlsmith.server.work;

import awlsmith.render.SharedWork;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The render that runs, as far as other machines may take part in it. */
@Component
public class SharedRenders {
    /** A machine that keeps silent for so long is given up. */
    private static final Duration PATIENCE = Duration.ofSeconds(30);

    /** @param source file of the clip */
    record Now(SharedWork work, UUID clip, Path source) {}

    private volatile @Nullable Now now;

    /** From now on others may take part. @param source file of the clip */
    public SharedWork begin(UUID clip, Path source) {
        var work = new SharedWork(PATIENCE);
        now = new Now(work, clip, source);
        return work;
    }

    public void end(SharedWork work) {
        Now running = now;
        if (running != null && running.work() == work) {
            now = null;
        }
    }

    Optional<Now> running() {
        return Optional.ofNullable(now);
    }

    Set<String> helpers() {
        return running().map(one -> one.work().helpers()).orElse(Set.of());
    }
}
