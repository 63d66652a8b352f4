package awlsmith.server.examine;

import awlsmith.core.condition.Condition;
import awlsmith.core.condition.Curves;
import awlsmith.core.condition.Examiner;
import awlsmith.core.condition.Judge;
import awlsmith.core.condition.Suggestion;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import awlsmith.media.SoundReading;
import awlsmith.server.clips.ClipFacts;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.clips.ExaminationView.ConditionFacts;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Examines clips, one after another in the background; nobody has to wait for it before working. */
@Service
public class Examinations {
    /** A clip waits to be examined. */
    public record Wanted(UUID clip) {}

    private static final Logger LOG = LoggerFactory.getLogger(Examinations.class);
    private static final long TELL_EVERY_NANOS = 400_000_000;

    private final ExaminationRepository repository;
    private final Clips clips;
    private final Stills stills;
    private final MediaFolder media;
    private final ApplicationEventPublisher publisher;
    private final TransactionTemplate transaction;
    private final Map<UUID, Cancel> running = new ConcurrentHashMap<>();
    private volatile boolean closing;

    Examinations(
            ExaminationRepository repository,
            Clips clips,
            Stills stills,
            MediaFolder media,
            ApplicationEventPublisher publisher,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.clips = clips;
        this.stills = stills;
        this.media = media;
        this.publisher = publisher;
        this.transaction = transaction;
    }

    /** In the transaction that makes the clip ready. */
    @EventListener
    void first(Clips.Ready event) {
        repository.await(event.id());
        publisher.publishEvent(new Wanted(event.id()));
    }

    ClipView again(UUID clip) {
        if (clips.view(clip).state() != ClipView.State.READY) {
            throw new Refusal(Refusal.Kind.CONFLICT, "the clip is not ready yet; wait until its facts are shown");
        }
        transaction.executeWithoutResult(status -> {
            repository.await(clip);
            publisher.publishEvent(new Wanted(clip));
        });
        clips.publish(clip);
        return clips.view(clip);
    }

    ClipView stop(UUID clip) {
        clips.view(clip);
        if (repository.stop(clip)) {
            Optional.ofNullable(running.get(clip)).ifPresent(Cancel::ask);
            clips.publish(clip);
        }
        return clips.view(clip);
    }

    @EventListener
    void gone(Clips.Removing event) {
        Optional.ofNullable(running.get(event.id())).ifPresent(Cancel::ask);
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        closing = true;
        running.values().forEach(Cancel::ask);
    }

    /**
     * The body of the job; safe to run again after a restart. There is one job a clip, so a wish that comes while it runs is
     * met by the same job.
     */
    public void run(UUID id) {
        while (!closing && repository.start(id)) {
            once(id);
        }
    }

    private void once(UUID id) {
        var cancel = new Cancel();
        running.put(id, cancel);
        try {
            clips.publish(id);
            examine(id, cancel);
        } catch (Cancel.Stopped e) {
            LOG.info("examining a clip was stopped");
            if (closing) {
                // the job is picked up again at the next start
                throw e;
            }
        } catch (MediaException | Refusal e) {
            repository.failed(id, e.getMessage());
        } catch (OutOfMemoryError e) {
            repository.failed(
                    id, "too little memory to examine pictures of this size; it can be worked on all the same");
        } catch (NoSuchFileException e) {
            LOG.info("a clip was removed while it was examined");
            repository.failed(id, "the clip's folder is gone; take it in again");
        } catch (IOException | RuntimeException e) {
            LOG.error("examining a clip failed", e);
            repository.failed(
                    id, "the clip could not be examined because of a fault inside Awlsmith; the log says what");
        } finally {
            running.remove(id);
            clips.publish(id);
        }
    }

    private void examine(UUID id, Cancel cancel) throws IOException {
        Clip clip = clips.open(id);
        int count = clip.index().orElseThrow().count();
        double rate = count / Math.max(1e-3, clip.time(count).toDouble());
        var told = new AtomicLong(System.nanoTime());
        var notes = new Examiner(clip, rate, new PlanePool(1L << 26))
                .examine(
                        done -> {
                            stills.awaitUrgent(cancel);
                            long now = System.nanoTime();
                            if (now - told.get() > TELL_EVERY_NANOS) {
                                told.set(now);
                                repository.progress(id, Math.min(0.99, (double) done / count));
                                clips.publish(id);
                            }
                        },
                        cancel);
        var judge = new Judge(notes, SoundReading.check(clip.info(), cancel));
        Condition condition = judge.condition();
        CurvesFile.save(judge.curves(), curvesFile(id));
        ClipFacts facts = clips.view(id).facts();
        var suggestion =
                Suggestion.of(condition, clip.format(), Optional.ofNullable(facts == null ? null : facts.suggestion()));
        repository.done(id, ConditionFacts.of(condition, suggestion));
    }

    private Path curvesFile(UUID id) {
        return media.clip(id).resolve("curves");
    }

    Curves curves(UUID id) {
        clips.view(id);
        Path file = curvesFile(id);
        if (!Files.exists(file)) {
            throw new Refusal(Refusal.Kind.CONFLICT, "the clip has not been examined yet");
        }
        try {
            return CurvesFile.load(file);
        } catch (IOException e) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT, "what was measured of this clip cannot be read any more; examine it again");
        }
    }
}
