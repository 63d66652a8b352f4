package awlsmith.server.dispatch;

import awlsmith.server.events.EventHub;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.exception.DataAccessException;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The renders as the database has them, with the figures of the one that runs, and their way to the pages. */
@Component
class LiveRenders {
    /** @param doing what is done before the first frame is made, if anything */
    private record Now(int frames, RenderView.@Nullable Live figures, RenderView.@Nullable Before doing) {}

    private final RenderRepository renders;
    private final EventHub events;
    private final Map<UUID, Now> running = new ConcurrentHashMap<>();
    private final Map<UUID, byte[]> pictures = new ConcurrentHashMap<>();

    LiveRenders(RenderRepository renders, EventHub events) {
        this.renders = renders;
        this.events = events;
    }

    List<RenderView> all() {
        return renders.all().stream().map(this::withFigures).toList();
    }

    Optional<RenderView> find(UUID id) {
        return renders.find(id).map(this::withFigures);
    }

    void tell(UUID id, int frames, RenderView.Live figures) {
        running.put(id, new Now(frames, figures, null));
        publish(id);
    }

    /** Before the first frame is made, or behind the last. @param done frames of the file so far; @param frames of what is being done */
    void tell(UUID id, int done, String doing, int frames) {
        running.put(id, new Now(done, null, new RenderView.Before(doing, frames)));
        publish(id);
    }

    /** What its newest frame looks like, small. */
    void show(UUID id, byte[] jpeg) {
        pictures.put(id, jpeg);
    }

    Optional<byte[]> picture(UUID id) {
        return Optional.ofNullable(pictures.get(id));
    }

    void forget(UUID id) {
        running.remove(id);
        pictures.remove(id);
    }

    void publish(UUID id) {
        try {
            find(id).ifPresent(view -> events.publish("render", view));
        } catch (DataAccessException | org.springframework.dao.DataAccessException e) {
            // pages read the whole list again when they are connected anew
        }
    }

    private RenderView withFigures(RenderView view) {
        Now now = running.get(view.id());
        if (now == null || view.state() != RenderView.State.RUNNING) {
            return view;
        }
        return view.running(now.frames(), now.figures(), now.doing());
    }
}
