package awlsmith.server.dispatch;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.MediaException;
import awlsmith.render.Machine;
import awlsmith.render.Png;
import awlsmith.render.RenderRequest;
import awlsmith.render.SizeCurve;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Size against quality, point by point. What was treated for one is kept for the next point of the same; one is kept at a time, whoever asks,
 * and what a page asks for anew stops what it asked for before.
 */
@Component
class SizeCurves {
    /** Seconds that somebody waits for the first point, roughly. */
    private static final double BUDGET = 12;

    private static final int LONGEST_FOR_MEMORY_SECONDS = 20;

    private final Machine machine;
    private final MediaFolder media;
    private final Stills stills;
    private final ReentrantLock lock = new ReentrantLock();
    private final Map<String, Cancel> asked = new ConcurrentHashMap<>();
    private @Nullable Kept kept;

    SizeCurves(Machine machine, MediaFolder media, Stills stills) {
        this.machine = machine;
        this.media = media;
        this.stills = stills;
    }

    private record Kept(String key, UUID id, SizeCurve curve) {}

    /** @param curve that its pictures are asked of */
    record Found(UUID curve, SizeCurve.Point point) {}

    /**
     * @param key of all that it depends on but the quality
     * @param page whose earlier wish it takes the place of
     * @param request without a folder of its own
     */
    Found at(String key, String page, RenderRequest request, int quality) {
        var cancel = new Cancel();
        Cancel earlier = asked.put(page, cancel);
        if (earlier != null) {
            earlier.ask();
        }
        lock.lock();
        try {
            cancel.check();
            long memory = request.plan(machine).memoryBytes();
            try (var _ = machine.budget().take(memory, LONGEST_FOR_MEMORY_SECONDS, cancel)) {
                return stills.urgent(() -> {
                    Kept mine = kept(key, request, cancel);
                    return new Found(mine.id(), mine.curve().at(quality, cancel));
                });
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (Cancel.Stopped e) {
            throw new Refusal(Refusal.Kind.CONFLICT, "something else was asked for meanwhile");
        } finally {
            lock.unlock();
            asked.remove(page, cancel);
        }
    }

    private Kept kept(String key, RenderRequest request, Cancel cancel) throws IOException {
        if (kept == null || !kept.key().equals(key)) {
            forget();
            UUID id = UUID.randomUUID();
            kept = new Kept(key, id, SizeCurve.of(request.in(media.trial(id)), machine, BUDGET, cancel));
        }
        return kept;
    }

    /** A page that is gone needs none of it any more. */
    void stop(String page) {
        Cancel earlier = asked.get(page);
        if (earlier != null) {
            earlier.ask();
        }
    }

    /** @param quality that it is coded at; null for what was treated */
    byte[] picture(UUID id, @Nullable Integer quality) {
        lock.lock();
        try {
            if (kept == null || !kept.id().equals(id)) {
                throw new Refusal(Refusal.Kind.CONFLICT, "this curve is not kept any more; ask for it anew");
            }
            return Png.encode(kept.curve().picture(Optional.ofNullable(quality), new Cancel()));
        } catch (MediaException e) {
            throw new Refusal(Refusal.Kind.CONFLICT, e.getMessage());
        } finally {
            lock.unlock();
        }
    }

    @PreDestroy
    void forget() {
        if (kept != null) {
            kept.curve().close();
            kept = null;
        }
    }
}
