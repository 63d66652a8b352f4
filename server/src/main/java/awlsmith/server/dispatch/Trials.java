package awlsmith.server.dispatch;

import awlsmith.core.pipeline.Cancel;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.render.Trial;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * Makes a little of what is to be sent out, to tell how long all of it will take and how large it will be. One at a time; what a page asks for
 * anew stops what it asked for before, and what was found once is remembered.
 */
@Component
class Trials {
    /** Seconds that somebody waits for it, roughly. */
    private static final double BUDGET = 8;

    private static final int REMEMBERED = 200;
    private static final long LONGEST_WAIT_SECONDS = 60;
    private static final int LONGEST_FOR_MEMORY_SECONDS = 20;

    private final Machine machine;
    private final MediaFolder media;
    private final Stills stills;
    private final Semaphore one = new Semaphore(1);
    private final Map<String, Cancel> asked = new ConcurrentHashMap<>();
    private final Map<String, Trial.Found> known = Collections.synchronizedMap(new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Trial.Found> eldest) {
            return size() > REMEMBERED;
        }
    });

    Trials(Machine machine, MediaFolder media, Stills stills) {
        this.machine = machine;
        this.media = media;
        this.stills = stills;
    }

    /**
     * @param key of all that it depends on
     * @param page whose earlier wish it takes the place of
     * @param request without a folder of its own
     */
    Trial.Found of(String key, String page, RenderRequest request) {
        Trial.Found before = known.get(key);
        if (before != null) {
            return before;
        }
        var cancel = new Cancel();
        Cancel earlier = asked.put(page, cancel);
        if (earlier != null) {
            earlier.ask();
        }
        try {
            if (!one.tryAcquire(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS)) {
                throw new Refusal(Refusal.Kind.CONFLICT, "others are being tried; ask again in a minute");
            }
            try {
                cancel.check();
                Trial.Found found = tried(request, cancel);
                known.put(key, found);
                return found;
            } finally {
                one.release();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Refusal(Refusal.Kind.CONFLICT, "the server is stopping; ask again");
        } catch (Cancel.Stopped e) {
            throw new Refusal(Refusal.Kind.CONFLICT, "something else was asked for meanwhile");
        } finally {
            asked.remove(page, cancel);
        }
    }

    /** Renders give way to it, so that it measures itself alone; its memory is asked of everybody's. */
    private Trial.Found tried(RenderRequest request, Cancel cancel) {
        long memory = request.plan(machine).memoryBytes();
        try (var _ = machine.budget().take(memory, LONGEST_FOR_MEMORY_SECONDS, cancel)) {
            return stills.urgent(() -> Trial.of(request.in(media.trial(UUID.randomUUID())), machine, BUDGET, cancel));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
