package awlsmith.server.dispatch;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.upscale.ModelStage;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import awlsmith.media.ReadBack;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.render.Renderer;
import awlsmith.server.AwlsmithProperties;
import awlsmith.server.clips.Clips;
import awlsmith.server.clips.CodecNames;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.jooq.exception.DataAccessException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Makes the renders that wait, one after another; goes on with what an earlier run left behind. */
@Component
class RenderRunner {
    private static final Logger LOG = LoggerFactory.getLogger(RenderRunner.class);
    private static final int TRIES_TO_SAVE = 60;

    private final RenderRepository renders;
    private final LiveRenders live;
    private final Clips clips;
    private final Stills stills;
    private final Machine machine;
    private final MediaFolder media;
    private final Clock clock;
    private final int segmentFrames;
    private volatile boolean closing;
    private volatile Running running;

    private record Running(UUID id, Cancel cancel) {}

    RenderRunner(
            RenderRepository renders,
            LiveRenders live,
            Clips clips,
            Stills stills,
            Machine machine,
            MediaFolder media,
            Clock clock,
            AwlsmithProperties properties) {
        this.renders = renders;
        this.live = live;
        this.clips = clips;
        this.stills = stills;
        this.machine = machine;
        this.media = media;
        this.clock = clock;
        this.segmentFrames = properties.segmentFrames();
    }

    /** Works until nothing waits any more. */
    void runWaiting() {
        while (!closing) {
            Optional<RenderJob> job = renders.nextWaiting();
            if (job.isEmpty()) {
                return;
            }
            run(job.get());
        }
    }

    /** Stops a render if it is the one that runs. */
    void stop(UUID id) {
        Running now = running;
        if (now != null && now.id().equals(id)) {
            now.cancel().ask();
        }
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        closing = true;
        Running now = running;
        if (now != null) {
            now.cancel().ask();
        }
    }

    private void run(RenderJob job) {
        var cancel = new Cancel();
        running = new Running(job.id(), cancel);
        try {
            if (closing || !renders.start(job.id(), clock.instant())) {
                return;
            }
            live.publish(job.id());
            make(job, cancel);
        } catch (Cancel.Stopped e) {
            if (closing) {
                save(() -> renders.requeue(job.id()));
            }
        } catch (MediaException | Refusal e) {
            save(() -> renders.failed(job.id(), e.getMessage(), clock.instant()));
        } catch (OutOfMemoryError e) {
            save(() -> renders.failed(
                    job.id(), "too little memory for pictures of this size; choose a smaller size", clock.instant()));
        } catch (RuntimeException e) {
            LOG.error("a render failed", e);
            save(() -> renders.failed(
                    job.id(),
                    "the render failed because of a fault inside Awlsmith; the log says what. Retry goes on from the finished parts",
                    clock.instant()));
        } finally {
            running = null;
            live.forget(job.id());
            live.publish(job.id());
        }
    }

    private void make(RenderJob job, Cancel cancel) {
        Clip clip = clips.open(job.clip());
        Path folder = media.render(job.id());
        Path scratch = folder.resolve("segments");
        String ending = job.fileName().substring(job.fileName().lastIndexOf('.'));
        var request = new RenderRequest(
                clip,
                job.recipe(),
                new FrameRange(job.from(), job.end()),
                job.deliverable(),
                folder.resolve("out" + ending),
                scratch,
                segmentFrames);
        media.demandSpace(0);
        int before = finishedBefore(scratch);
        long start = System.nanoTime();
        var progress = new Progress(
                job.frames(),
                before,
                stills,
                (done, figures) -> live.tell(job.id(), done, figures),
                safe -> tolerant(() -> renders.framesDone(job.id(), safe)));
        Renderer.Result result = new Renderer(request, machine, progress, cancel).render();
        double seconds = (System.nanoTime() - start) / 1e9;
        int made = job.frames() - before;
        // a model's time is known by itself; the rate kept here is of everything else
        boolean withModel = job.recipe().chain(clip.format()).stages().stream()
                .anyMatch(stage ->
                        stage instanceof ModelStage with && with.model().isPresent());
        if (made > 0 && !withModel) {
            double rate = (double) made * job.width() * job.height() / seconds;
            tolerant(() -> renders.measured(job.deliverable().codec().id(), rate, clock.instant()));
        }
        MediaFolder.remove(scratch);
        save(() -> renders.done(
                job.id(), readBack(result.facts()), result.soundNote().orElse(null), clock.instant()));
    }

    private int finishedBefore(Path scratch) {
        int n = 0;
        while (Files.exists(scratch.resolve("segment-%06d.mp4".formatted(n)))
                || Files.exists(scratch.resolve("segment-%06d.nut".formatted(n)))) {
            n++;
        }
        return n * segmentFrames;
    }

    private static RenderView.Result readBack(ReadBack.Facts facts) {
        var video = facts.info().video();
        var format = video.format();
        var colour = format.colour();
        return new RenderView.Result(
                CodecNames.of(video.codec()) + (video.profile().isEmpty() ? "" : " " + video.profile()),
                format.width(),
                format.height(),
                video.rate().toString(),
                video.rate().toDouble(),
                facts.frames(),
                facts.info().duration().map(d -> d.toDouble()).orElse(0.0),
                facts.info().bytes(),
                format.depth(),
                word(colour.matrix()),
                word(colour.range()),
                word(colour.transfer()),
                word(colour.primaries()),
                facts.info().sounds().stream()
                        .map(sound -> CodecNames.of(sound.codec()))
                        .toList(),
                facts.errors());
    }

    private static String word(Enum<?> tag) {
        return tag.name().equals("UNSPECIFIED") ? "untagged" : tag.name().toLowerCase(Locale.ROOT);
    }

    /** Progress that cannot be noted just now is noted with the next. */
    private static void tolerant(Runnable note) {
        try {
            note.run();
        } catch (DataAccessException | org.springframework.dao.DataAccessException e) {
            LOG.warn("the database does not answer; the render goes on");
        }
    }

    /** The outcome must not be lost: tried again while the database is away. */
    private void save(Runnable outcome) {
        for (int i = 0; ; i++) {
            try {
                outcome.run();
                return;
            } catch (DataAccessException | org.springframework.dao.DataAccessException e) {
                if (closing || i == TRIES_TO_SAVE) {
                    LOG.error("a render's outcome could not be noted; it is made again after a restart", e);
                    return;
                }
                java.util.concurrent.locks.LockSupport.parkNanos(1_000_000_000L);
            }
        }
    }
}
