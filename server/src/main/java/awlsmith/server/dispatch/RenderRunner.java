package awlsmith.server.dispatch;

import awlsmith.core.model.ModelStage;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.media.CodecNames;
import awlsmith.media.ReadBack;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.render.Renderer;
import awlsmith.render.SegmentSize;
import awlsmith.server.AwlsmithProperties;
import awlsmith.server.clips.Clips;
import awlsmith.server.jobs.Job;
import awlsmith.server.jobs.JobRun;
import awlsmith.server.jobs.Jobs;
import awlsmith.server.jobs.Lane;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import awlsmith.server.treatments.Treatments;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.UUID;
import org.jooq.exception.DataAccessException;
import org.springframework.stereotype.Component;

/** Makes the renders that wait, one after another; goes on with what an earlier run left behind. */
@Component
class RenderRunner implements Job {
    static final String KIND = "render";

    private final RenderRepository renders;
    private final LiveRenders live;
    private final Clips clips;
    private final Stills stills;
    private final Treatments treatments;
    private final Machine machine;
    private final MediaFolder media;
    private final Jobs jobs;
    private final Clock clock;
    private final int segmentFrames;

    RenderRunner(
            RenderRepository renders,
            LiveRenders live,
            Clips clips,
            Treatments treatments,
            Stills stills,
            Machine machine,
            MediaFolder media,
            Jobs jobs,
            Clock clock,
            AwlsmithProperties properties) {
        this.renders = renders;
        this.live = live;
        this.clips = clips;
        this.treatments = treatments;
        this.stills = stills;
        this.machine = machine;
        this.media = media;
        this.jobs = jobs;
        this.clock = clock;
        this.segmentFrames = properties.segmentFrames();
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Lane lane() {
        return Lane.RENDER;
    }

    @Override
    public List<String> waiting() {
        return renders.open(false);
    }

    @Override
    public List<String> unfinished() {
        return renders.open(true);
    }

    void want(UUID id) {
        jobs.want(KIND, id.toString());
    }

    /** Stops a render if it is the one that runs. */
    void stop(UUID id) {
        jobs.stop(KIND, id.toString());
    }

    /** Waits until a stopped one is out of work. */
    void await(UUID id) {
        jobs.await(KIND, id.toString());
    }

    @Override
    public void run(String id, JobRun run) {
        UUID render = UUID.fromString(id);
        OptionalInt attempt = renders.start(render, run.owner(), clock.instant());
        if (attempt.isEmpty()) {
            return;
        }
        run.began(attempt.getAsInt());
        live.publish(render);
        make(renders.job(render), run);
    }

    @Override
    public void failed(String id, JobRun run, String sentence) {
        renders.failed(UUID.fromString(id), run.attempt(), sentence, clock.instant());
    }

    @Override
    public void ended(String id) {
        live.forget(UUID.fromString(id));
        live.publish(UUID.fromString(id));
        tellShelf(UUID.fromString(id));
    }

    /** The shelf counts what was sent out. */
    private void tellShelf(UUID id) {
        try {
            live.find(id).ifPresent(view -> clips.publish(view.clipId()));
        } catch (DataAccessException | org.springframework.dao.DataAccessException e) {
            // pages read everything again when they are connected anew
        }
    }

    @Override
    public String fault() {
        return "the render failed because of a fault inside Awlsmith; the log says what. Retry goes on from the finished"
                + " parts";
    }

    private void make(RenderJob job, JobRun run) {
        Clip clip = clips.open(job.clip());
        Path folder = media.render(job.id());
        Path scratch = folder.resolve("segments");
        String ending = job.fileName().substring(job.fileName().lastIndexOf('.'));
        Treatment treatment = treatments.complete(job.clip(), clip, job.recipe(), run.cancel(), (doing, frames) -> {
            stills.awaitUrgent(run.cancel());
            run.tell(() -> live.tell(job.id(), doing, (int) frames));
        });
        var order = new RenderRequest(
                clip,
                treatment,
                new FrameRange(job.from(), job.end()),
                job.deliverable(),
                folder.resolve("out" + ending),
                scratch,
                Math.max(1, segmentFrames),
                false);
        media.demandSpace(0);
        stills.awaitUrgent(run.cancel());
        RenderRequest request =
                segmentFrames > 0 ? order : order.withSegments(SegmentSize.of(order, machine, run.cancel()));
        long start = System.nanoTime();
        var progress = new Progress(
                job.frames(),
                stills,
                run.cancel(),
                (done, figures) -> live.tell(job.id(), done, figures),
                safe -> note(job, run, safe));
        Renderer.Result result = new Renderer(request, machine, progress, run.cancel()).render();
        measured(job, clip, job.frames() - progress.before(), (System.nanoTime() - start) / 1e9, run);
        run.save(() -> renders.done(
                job.id(),
                run.attempt(),
                readBack(result.facts()),
                result.soundNote().orElse(null),
                clock.instant()));
        MediaFolder.remove(scratch);
    }

    /** What is safely on disk; where another process has taken over, this one stops. */
    private void note(RenderJob job, JobRun run, int safe) {
        run.tolerant(() -> {
            if (!renders.framesDone(job.id(), run.attempt(), safe)) {
                run.cancel().ask();
            }
        });
    }

    private void measured(RenderJob job, Clip clip, int made, double seconds, JobRun run) {
        // a model's time is known by itself; the rate kept here is of everything else
        boolean withModel = treatments.of(job.clip(), clip, job.recipe()).chain().stages().stream()
                .anyMatch(stage ->
                        stage.inner() instanceof ModelStage with && with.model().isPresent());
        if (made > 0 && !withModel) {
            double rate = (double) made * job.width() * job.height() / seconds;
            run.tolerant(() -> renders.measured(job.deliverable().codec().id(), rate, clock.instant()));
        }
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
}
