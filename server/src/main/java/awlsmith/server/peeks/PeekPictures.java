package awlsmith.server.peeks;

import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import awlsmith.render.Machine;
import awlsmith.render.Peeks;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Makes a clip's small pictures in the background, after it was taken in or when they are missed. */
@Component
public class PeekPictures {
    /** A clip wants its pictures. */
    public record Wanted(UUID clip) {}

    private static final Logger LOG = LoggerFactory.getLogger(PeekPictures.class);
    /** Of one picture, well meant. */
    private static final long BYTES = 30_000;

    private final Clips clips;
    private final Stills stills;
    private final MediaFolder media;
    private final Machine machine;
    private final ApplicationEventPublisher publisher;
    private final TransactionTemplate transaction;
    private final Map<UUID, Running> running = new ConcurrentHashMap<>();
    /** Those that could not be made are not tried again before the next start. */
    private final Map<UUID, Boolean> hopeless = new ConcurrentHashMap<>();

    private volatile boolean closing;

    private static final class Running {
        private final Cancel cancel = new Cancel();
        private volatile double share;
    }

    PeekPictures(
            Clips clips,
            Stills stills,
            MediaFolder media,
            Machine machine,
            ApplicationEventPublisher publisher,
            TransactionTemplate transaction) {
        this.clips = clips;
        this.stills = stills;
        this.media = media;
        this.machine = machine;
        this.publisher = publisher;
        this.transaction = transaction;
    }

    /** In the transaction that makes the clip ready. */
    @EventListener
    void first(Clips.Ready event) {
        publisher.publishEvent(new Wanted(event.id()));
    }

    /** What there is; what is missing is asked for. */
    PeeksView view(UUID id) {
        ClipView clip = clips.view(id);
        Optional<Peeks> made = Peeks.in(media.clip(id));
        if (made.isPresent()) {
            return PeeksView.of(made.get());
        }
        if (clip.state() == ClipView.State.READY && !hopeless.containsKey(id)) {
            transaction.executeWithoutResult(status -> publisher.publishEvent(new Wanted(id)));
        }
        return PeeksView.none(
                Optional.ofNullable(running.get(id)).map(r -> r.share).orElse(0.0), !hopeless.containsKey(id));
    }

    byte[] picture(UUID id, int number) throws IOException {
        clips.view(id);
        Peeks peeks = Peeks.in(media.clip(id)).orElseThrow(() -> Refusal.unknown("this picture"));
        if (number < 0 || number >= peeks.count()) {
            throw Refusal.unknown("this picture");
        }
        return peeks.picture(number);
    }

    @EventListener
    void gone(Clips.Removing event) {
        Optional.ofNullable(running.get(event.id())).ifPresent(r -> r.cancel.ask());
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        closing = true;
        running.values().forEach(r -> r.cancel.ask());
    }

    /** The body of the job; safe to run again after a restart. */
    public void run(UUID id) {
        Path folder = media.clip(id);
        var now = new Running();
        running.put(id, now);
        try {
            if (closing) {
                throw new Cancel.Stopped();
            }
            if (Peeks.in(folder).isEmpty()) {
                make(clips.open(id), folder, now);
            }
        } catch (Cancel.Stopped e) {
            if (closing) {
                // the job is picked up again at the next start
                throw e;
            }
        } catch (MediaException | Refusal | NoSuchFileException e) {
            LOG.info("a clip gets no small pictures: {}", e.getMessage());
            hopeless.put(id, true);
        } catch (IOException | RuntimeException | OutOfMemoryError e) {
            LOG.error("making a clip's small pictures failed", e);
            hopeless.put(id, true);
        } finally {
            running.remove(id);
        }
    }

    private void make(Clip clip, Path folder, Running now) throws IOException {
        int frames = clip.index().orElseThrow().count();
        media.demandSpace(BYTES * Math.min(frames, Peeks.MOST));
        var pool = new PlanePool(1L << 26);
        Peeks.make(
                clip,
                folder,
                done -> {
                    stills.awaitUrgent(now.cancel);
                    now.share = (double) done / frames;
                },
                pool,
                machine.work(now.cancel),
                now.cancel);
    }
}
