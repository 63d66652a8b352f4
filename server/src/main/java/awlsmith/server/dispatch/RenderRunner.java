package awlsmith.server.dispatch;

import awlsmith.core.model.ModelStage;
import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Budget;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Taking;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.media.CodecNames;
import awlsmith.media.MediaException;
import awlsmith.media.ReadBack;
import awlsmith.render.Engine;
import awlsmith.render.Jpeg;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.render.Renderer;
import awlsmith.render.SegmentSize;
import awlsmith.render.SharedWork;
import awlsmith.server.AwlsmithProperties;
import awlsmith.server.clips.Clips;
import awlsmith.server.jobs.Job;
import awlsmith.server.jobs.JobRun;
import awlsmith.server.jobs.Jobs;
import awlsmith.server.jobs.Lane;
import awlsmith.server.machine.MachineShares;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import awlsmith.server.treatments.Treatments;
import awlsmith.server.work.SharedRenders;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jooq.exception.DataAccessException;
import org.jspecify.annotations.Nullable;
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
    private final SharedRenders shared;
    private final MachineShares shares;
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
            SharedRenders shared,
            MachineShares shares,
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
        this.shared = shared;
        this.shares = shares;
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
        return renders.open(false, clock.instant());
    }

    @Override
    public List<String> unfinished() {
        return renders.open(true, clock.instant());
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

    /** A render in hand. @param attempt the how manieth go this is */
    private record InHand(RenderJob job, int attempt) {}

    @Override
    public void run(String id, JobRun run) {
        UUID render = UUID.fromString(id);
        OptionalInt attempt = renders.start(render, run.owner(), clock.instant());
        if (attempt.isEmpty()) {
            return;
        }
        run.began(attempt.getAsInt());
        live.publish(render);
        var all = new ArrayList<InHand>();
        all.add(new InHand(renders.job(render), attempt.getAsInt()));
        UUID bundle = all.getFirst().job().bundle();
        if (bundle != null) {
            // the others of the same treatment are made along with it
            for (UUID beside : renders.beside(render, bundle)) {
                renders.start(beside, run.owner(), clock.instant()).ifPresent(go -> {
                    run.takesAlong(beside.toString());
                    all.add(new InHand(renders.job(beside), go));
                    live.publish(beside);
                });
            }
        }
        try {
            make(all, run);
        } catch (Cancel.Stopped e) {
            throw e;
        } catch (MediaException | Refusal | Budget.Exceeded e) {
            fail(all, run, e.getMessage());
            throw e;
        } catch (OutOfMemoryError e) {
            fail(all, run, tooLittleMemory());
            throw e;
        } finally {
            all.subList(1, all.size()).forEach(one -> {
                live.forget(one.job().id());
                run.tolerant(() -> live.publish(one.job().id()));
            });
        }
    }

    /** Those made along; the first is told by the engine. */
    private void fail(List<InHand> all, JobRun run, String sentence) {
        for (InHand one : all.subList(1, all.size())) {
            run.save(() -> {
                renders.failed(one.job().id(), one.attempt(), sentence, clock.instant());
                return true;
            });
        }
    }

    /** Somebody gave one of a bundle up, or lets it rest: the others wait to go on. */
    @Override
    public void stopped(String id, JobRun run) {
        UUID render = UUID.fromString(id);
        RenderJob job = renders.job(render);
        renders.waitAgain(render, run.owner());
        if (job.bundle() != null) {
            for (UUID beside : renders.beside(render, job.bundle())) {
                renders.waitAgain(beside, run.owner());
                want(beside);
            }
        }
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

    private void make(List<InHand> all, JobRun run) {
        RenderJob job = all.getFirst().job();
        Clip clip = clips.open(job.clip());
        Treatment treatment = treatments.complete(job.clip(), clip, job.recipe(), run.cancel(), (doing, frames) -> {
            stills.awaitUrgent(run.cancel());
            run.tell(() -> all.forEach(one -> live.tell(one.job().id(), 0, doing, (int) frames)));
        });
        List<RenderRequest> orders =
                all.stream().map(one -> request(one.job(), clip, treatment)).toList();
        media.demandSpace(0);
        stills.awaitUrgent(run.cancel());
        List<RenderRequest> requests = segmentFrames > 0 ? orders : SegmentSize.of(orders, machine, run.cancel());
        NetForm form = Renderer.formOf(requests.getFirst());
        long start = System.nanoTime();
        int frames = job.frames();
        SharedWork work = shared.begin(job.clip(), clip.info().file());
        Supplier<Progress.Fared> fared = () -> new Progress.Fared(shares.words(form), work.broughtFrames());
        var pace = new RenderPace(stills, shares::ofTheTime, run.cancel());
        var progress = new Progress(
                frames,
                pace,
                (done, figures) -> all.forEach(one -> live.tell(one.job().id(), done, figures)),
                safe -> note(all, run, safe),
                (doing, done) -> {
                    // all is treated: the next one may be while this one is put together
                    run.makeWay();
                    run.tell(() -> all.forEach(one -> live.tell(one.job().id(), frames, doing, done)));
                },
                frame -> {
                    byte[] jpeg = Jpeg.encode(frame);
                    all.forEach(one -> live.show(one.job().id(), jpeg));
                },
                fared);
        try {
            var renderer = new Renderer(requests, machine, progress, run.cancel(), work);
            renderer.renderAll((number, made) -> ended(
                    all.get(number),
                    requests.get(number),
                    made,
                    Stream.concat(renderer.begunAnew().stream(), renderer.disturbed().stream())
                            .toList(),
                    (System.nanoTime() - start) / 1e9,
                    fared.get(),
                    run));
        } finally {
            shared.end(work);
        }
        double seconds = (System.nanoTime() - start) / 1e9 - pace.restedSeconds();
        // a few pictures tell nothing of how quick films are
        all.stream()
                .map(InHand::job)
                .filter(film -> film.deliverable().taking() == Taking.ALL)
                .findFirst()
                .ifPresent(film -> measured(film, clip, frames - progress.before(), seconds, run));
    }

    /** Each is told as soon as it is there: the others of its treatment may take long to be coded. */
    private void ended(
            InHand one,
            RenderRequest request,
            Renderer.Made made,
            List<String> about,
            double seconds,
            Progress.Fared fared,
            JobRun run) {
        UUID id = one.job().id();
        switch (made) {
            case Renderer.Result result ->
                done(
                        one,
                        request,
                        sum -> readBack(result.facts(), request.out(), sum, seconds, fared),
                        notes(result.soundNote(), about),
                        run);
            case Renderer.Sounded sounded ->
                done(
                        one,
                        request,
                        sum -> RenderView.Result.ofSound(
                                sounded.facts().tracks().stream()
                                        .map(track -> CodecNames.of(track.codec()))
                                        .toList(),
                                sounded.facts().seconds().stream()
                                        .mapToDouble(Rational::toDouble)
                                        .max()
                                        .orElse(0),
                                sounded.facts().bytes(),
                                sum,
                                seconds,
                                fared.on()),
                        notes(sounded.soundNote(), about),
                        run);
            case Renderer.Failed failed ->
                run.save(() -> renders.failed(id, one.attempt(), failed.sentence(), clock.instant()));
        }
        live.forget(id);
        live.publish(id);
    }

    private void done(
            InHand one,
            RenderRequest request,
            Function<String, RenderView.Result> result,
            @Nullable String notes,
            JobRun run) {
        String sum = Checksum.of(request.out(), run.cancel());
        run.save(() -> renders.done(one.job().id(), one.attempt(), result.apply(sum), notes, clock.instant()));
        MediaFolder.remove(request.scratch());
    }

    private static @Nullable String notes(Optional<String> sound, List<String> about) {
        String all = Stream.concat(sound.stream(), about.stream()).collect(Collectors.joining("; "));
        return all.isEmpty() ? null : all;
    }

    private RenderRequest request(RenderJob job, Clip clip, Treatment treatment) {
        Path folder = media.render(job.id());
        String ending = job.fileName().substring(job.fileName().lastIndexOf('.'));
        return new RenderRequest(
                        clip,
                        treatment,
                        new FrameRange(job.from(), job.end()),
                        job.deliverable(),
                        folder.resolve("out" + ending),
                        folder.resolve("segments"),
                        Math.max(1, segmentFrames),
                        false)
                .called(job.fileName());
    }

    /** What is safely on disk; where another process has taken over, this one stops. */
    private void note(List<InHand> all, JobRun run, int safe) {
        run.tolerant(() -> {
            for (InHand one : all) {
                if (!renders.framesDone(one.job().id(), one.attempt(), safe)) {
                    run.cancel().ask();
                }
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

    private static RenderView.Result readBack(
            ReadBack.Facts facts, Path file, String sha256, double workSeconds, Progress.Fared fared) {
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
                file.toFile().length(),
                format.depth(),
                word(colour.matrix()),
                word(colour.range()),
                word(colour.transfer()),
                word(colour.primaries()),
                facts.info().sounds().stream()
                        .map(sound -> CodecNames.of(sound.codec()))
                        .toList(),
                facts.errors(),
                sha256,
                Engine.VERSION,
                workSeconds,
                fared.on(),
                fared.elsewhere());
    }

    private static String word(Enum<?> tag) {
        return tag.name().equals("UNSPECIFIED") ? "untagged" : tag.name().toLowerCase(Locale.ROOT);
    }
}
