package awlsmith.server.clips;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.render.Machine;
import awlsmith.render.Png;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Reads a new clip once from end to end: when each frame is shown, its facts, a strip of thumbnails. */
@Component
public class TakeIn {
    static final int THUMBS = 5;
    /** Share of the progress that making the file takes where it must be made first. */
    private static final double MAKING = 0.6;

    private static final Logger LOG = LoggerFactory.getLogger(TakeIn.class);
    private static final int THUMB_HEIGHT = 112;
    private static final long TELL_EVERY_NANOS = 250_000_000;

    private final Clips clips;
    private final ClipRepository repository;
    private final Makings makings;
    private final Machine machine;
    private final ApplicationEventPublisher publisher;
    private final TransactionTemplate transaction;
    private final Map<UUID, Cancel> running = new ConcurrentHashMap<>();

    TakeIn(
            Clips clips,
            ClipRepository repository,
            Makings makings,
            Machine machine,
            ApplicationEventPublisher publisher,
            TransactionTemplate transaction) {
        this.clips = clips;
        this.repository = repository;
        this.makings = makings;
        this.machine = machine;
        this.publisher = publisher;
        this.transaction = transaction;
    }

    /** The body of the job; safe to run again after a restart. */
    public void run(UUID id) {
        if (repository.find(id).map(ClipView::state).orElse(null) != ClipView.State.READING) {
            return;
        }
        var cancel = new Cancel();
        running.put(id, cancel);
        try {
            read(id, cancel);
        } catch (MediaException | Refusal e) {
            repository.failed(id, e.getMessage());
        } catch (Cancel.Stopped e) {
            LOG.info("reading of a clip was stopped");
        } catch (IOException | RuntimeException e) {
            LOG.error("reading a clip failed", e);
            repository.failed(id, "the clip could not be read because of a fault inside Awlsmith; the log says what");
        } finally {
            running.remove(id);
            clips.publish(id);
        }
    }

    @EventListener
    void stop(Clips.Removing event) {
        Optional.ofNullable(running.get(event.id())).ifPresent(Cancel::ask);
    }

    private void read(UUID id, Cancel cancel) throws IOException {
        var toldAt = new AtomicLong();
        var begin = new double[1];
        Optional<String> told = makings.make(
                id,
                share -> {
                    begin[0] = MAKING;
                    tell(id, toldAt, MAKING * Math.clamp(share, 0, 1));
                },
                cancel);
        long bytes = Files.size(clips.source(id));
        MediaInfo info = Prober.probe(clips.source(id));
        repository.size(id, info.bytes());
        Files.createDirectories(clips.index(id).getParent());
        long expected = Math.max(1, info.expectedFrames());
        FrameIndex index = Indexer.index(
                info,
                found -> tell(id, toldAt, begin[0] + (1 - begin[0]) * Math.min(0.97, (double) found / expected)),
                cancel);
        index.save(clips.index(id));
        thumbs(id, new Clip(info, Optional.of(index)), cancel);
        Optional<String> grown = grown(id, bytes, index.count());
        // a clip is not seen as ready before it has its first take, which a listener gives it
        transaction.executeWithoutResult(status -> {
            ClipFacts facts = ClipFacts.of(info, index);
            repository.ready(id, facts, index.count(), both(told.orElse(null), grown.orElse(damage(facts, index))));
            publisher.publishEvent(new Clips.Ready(id));
        });
    }

    /** A recording that still goes on: what is read is whole, and worth working on, but not all. */
    private Optional<String> grown(UUID id, long before, int frames) throws IOException {
        return Files.size(clips.source(id)) > before
                ? Optional.of("the file grew while it was read: only its first " + frames
                        + " frames are here. When it is whole, take this clip off the shelf and link it again")
                : Optional.empty();
    }

    private void tell(UUID id, AtomicLong toldAt, double share) {
        long now = System.nanoTime();
        if (now - toldAt.get() > TELL_EVERY_NANOS) {
            toldAt.set(now);
            repository.progress(id, share);
            clips.publish(id);
        }
    }

    private static @Nullable String both(@Nullable String one, @Nullable String other) {
        return one == null || other == null ? (one == null ? other : one) : one + "; " + other;
    }

    private static @Nullable String damage(ClipFacts facts, FrameIndex index) {
        int missing = facts.missing() == null ? 0 : facts.missing();
        int places = index.damaged().length;
        String early = missing == 0
                ? ""
                : "the file ends early: " + index.count() + " frames decode of about " + (index.count() + missing)
                        + " it promises";
        String damaged = places == 0
                ? ""
                : places + (places == 1 ? " damaged place was" : " damaged places were")
                        + " met while reading; frames there may be wrong";
        String both = early.isEmpty() || damaged.isEmpty() ? early + damaged : early + "; " + damaged;
        return both.isEmpty() ? null : both;
    }

    private void thumbs(UUID id, Clip clip, Cancel cancel) throws IOException {
        Format source = clip.format();
        int height = Math.min(THUMB_HEIGHT, source.height());
        double aspect = source.displayAspect().toDouble();
        int width = (int) Math.clamp(Math.round(height * aspect / 2) * 2, 2, 1024);
        var small = source.withSize(width, Math.max(2, height & ~1), awlsmith.core.picture.Rational.ONE);
        var chain = new Chain(source, List.of(new EnlargeStage(source, small, Kernel.AREA)));
        for (int i = 0; i < THUMBS; i++) {
            long at = (long) (clip.index().orElseThrow().count() * (i + 0.5) / THUMBS);
            var work = machine.work(cancel);
            try (var stream = chain.open(clip, FrameRange.single(at), small.whole(), machine.planes(), work)) {
                Optional<Frame> frame = stream.next();
                if (frame.isPresent()) {
                    var picture = ScreenPicture.of(frame.get(), small.whole(), 1, machine.planes(), work);
                    Files.write(clips.thumb(id, i), Png.encode(picture));
                    frame.get().release(machine.planes());
                }
            }
        }
    }
}
