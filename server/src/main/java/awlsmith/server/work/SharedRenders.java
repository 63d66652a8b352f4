package awlsmith.server.work;

import awlsmith.render.SharedWork;
import awlsmith.server.clips.Clips;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** The render that runs, as far as other machines may take part in it. */
@Component
public class SharedRenders {
    /** A machine that keeps silent for so long is given up. */
    private static final Duration PATIENCE = Duration.ofSeconds(30);

    /** @param source file of the clip */
    record Now(SharedWork work, UUID clip, Path source) {}

    private volatile @Nullable Now now;
    private final SourceStore store;

    SharedRenders(SourceStore store) {
        this.store = store;
    }

    /** From now on others may take part. @param source file of the clip */
    public SharedWork begin(UUID clip, Path source) {
        var work = new SharedWork(PATIENCE);
        now = new Now(work, clip, source);
        store.want(clip, source);
        return work;
    }

    /** Where the running render's source can be fetched, beside here. */
    Optional<URI> address(Now running) {
        return store.address(running.clip(), running.source());
    }

    @EventListener
    void clipRemoved(Clips.Removed event) {
        store.forget(event.id());
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
