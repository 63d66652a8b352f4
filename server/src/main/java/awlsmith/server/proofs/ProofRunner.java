package awlsmith.server.proofs;

import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.Recipe;
import awlsmith.media.Clip;
import awlsmith.media.ProofEncoding;
import awlsmith.render.Machine;
import awlsmith.render.Proof;
import awlsmith.render.RenderWatch;
import awlsmith.render.TwoProofs;
import awlsmith.server.clips.Clips;
import awlsmith.server.db.enums.ProofState;
import awlsmith.server.events.EventHub;
import awlsmith.server.jobs.Job;
import awlsmith.server.jobs.JobRun;
import awlsmith.server.jobs.Jobs;
import awlsmith.server.jobs.Lane;
import awlsmith.server.stills.Stills;
import awlsmith.server.treatments.Treatments;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.exception.DataAccessException;
import org.springframework.stereotype.Component;

/** Makes the proofs that wait, one after another. Stills come before them, and they before renders. */
@Component
class ProofRunner implements Job {
    static final String KIND = "proof";

    private final ProofRepository proofs;
    private final ProofFiles files;
    private final Comparisons comparisons;
    private final Clips clips;
    private final Stills stills;
    private final Treatments treatments;
    private final Machine machine;
    private final EventHub events;
    private final Jobs jobs;
    private final Map<UUID, Figures> figures = new ConcurrentHashMap<>();

    private record Figures(int done, double perSecond) {}

    ProofRunner(
            ProofRepository proofs,
            ProofFiles files,
            Comparisons comparisons,
            Clips clips,
            Treatments treatments,
            Stills stills,
            Machine machine,
            EventHub events,
            Jobs jobs) {
        this.proofs = proofs;
        this.files = files;
        this.comparisons = comparisons;
        this.clips = clips;
        this.treatments = treatments;
        this.stills = stills;
        this.machine = machine;
        this.events = events;
        this.jobs = jobs;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Lane lane() {
        return Lane.PROOF;
    }

    @Override
    public List<String> waiting() {
        return proofs.open(false);
    }

    @Override
    public List<String> unfinished() {
        return proofs.open(true);
    }

    void want(UUID id) {
        jobs.want(KIND, id.toString());
    }

    /** Stops one that is being made. */
    void stop(UUID id) {
        jobs.stop(KIND, id.toString());
    }

    /** Waits until a stopped one is out of work. */
    void await(UUID id) {
        jobs.await(KIND, id.toString());
    }

    ProofView withFigures(ProofView view) {
        ProofView with = view.with(comparisons.of(view));
        Figures now = figures.get(view.id());
        return now != null && view.isOpen() ? with.with(now.done(), now.perSecond()) : with;
    }

    void publish(UUID id) {
        try {
            proofs.find(id).map(this::withFigures).ifPresent(view -> events.publish("proof", view));
        } catch (DataAccessException | org.springframework.dao.DataAccessException e) {
            // pages read the list again when they are connected anew
        }
    }

    @Override
    public void run(String id, JobRun run) throws IOException {
        UUID proof = UUID.fromString(id);
        OptionalInt attempt = proofs.start(proof, run.owner());
        Optional<ProofView> view = proofs.find(proof);
        if (attempt.isEmpty() || view.isEmpty()) {
            return;
        }
        run.began(attempt.getAsInt());
        figures.put(proof, new Figures(0, 0));
        try {
            publish(proof);
            long done = stills.urgent(() -> make(view.get(), run));
            if (run.cancel().isAsked() && run.isClosing()) {
                // it is made again from its start
                throw new Cancel.Stopped();
            }
            ProofState state = done < view.get().frames() ? ProofState.STOPPED : ProofState.DONE;
            run.save(() -> proofs.end(proof, run.attempt(), state, (int) done, null));
        } finally {
            figures.remove(proof);
        }
    }

    @Override
    public void stopped(String id, JobRun run) {
        proofs.end(UUID.fromString(id), run.attempt(), ProofState.STOPPED, 0, null);
    }

    @Override
    public void failed(String id, JobRun run, String sentence) {
        proofs.end(UUID.fromString(id), run.attempt(), ProofState.FAILED, 0, sentence);
    }

    @Override
    public void ended(String id) {
        publish(UUID.fromString(id));
    }

    @Override
    public String tooLittleMemory() {
        return "too little memory for pictures of this size; zoom in, or choose a smaller size";
    }

    @Override
    public String fault() {
        return "the proof could not be made because of a fault inside Awlsmith; the log says what. Try it again";
    }

    private long make(ProofView view, JobRun run) throws IOException {
        return view.against() == null ? proved(view, run) : paired(view, view.against(), run);
    }

    private long paired(ProofView view, ProofView.BesideView against, JobRun run) {
        Cancel cancel = run.cancel();
        var both = new TwoProofs(
                files.open(view.clipId(), against.proof(), cancel),
                files.open(view.clipId(), against.treated(), cancel));
        return both.make(
                files.of(view), view.frames(), rate(view), view.sound(), machine, new Watch(view, run), cancel);
    }

    private Rational rate(ProofView proof) {
        return files.rate(clips.open(proof.clipId()), proof);
    }

    private long proved(ProofView view, JobRun run) throws IOException {
        Clip clip = clips.open(view.clipId());
        var proof = new Proof(
                clip,
                treatments.complete(
                        view.clipId(),
                        clip,
                        Recipe.fromTree(view.recipe()),
                        run.cancel(),
                        (doing, frames) -> stills.awaitLooking(run.cancel())),
                new Region(view.x(), view.y(), view.width(), view.height()),
                new FrameRange(view.fromFrame(), view.endFrame()));
        Path file = files.of(view);
        Files.createDirectories(file.getParent());
        Rational start = clip.time(view.fromFrame());
        Rational length = clip.time(view.endFrame()).minus(start);
        // sound counts from the file's clock, which need not begin at 0
        Rational clock = clip.index().orElseThrow().clock(view.fromFrame());
        Optional<ProofEncoding.Sound> sound = view.sound()
                ? Optional.of(new ProofEncoding.Sound(clip.info().file(), clock, length, proof.speed()))
                : Optional.empty();
        try (var _ = machine.budget().takeBehind(proof.memoryBytes(machine), run.cancel())) {
            return proof.make(file, rate(view), sound, machine, new Watch(view, run), run.cancel());
        }
    }

    private final class Watch implements RenderWatch {
        private final ProofView proof;
        private final JobRun run;
        private final long start = System.nanoTime();

        Watch(ProofView proof, JobRun run) {
            this.proof = proof;
            this.run = run;
        }

        @Override
        public void giveWay() {
            stills.awaitLooking(run.cancel());
        }

        @Override
        public void frames(long done, Shares shares) {
            double seconds = Math.max(1e-3, (System.nanoTime() - start) / 1e9);
            figures.put(proof.id(), new Figures((int) done, done / seconds));
            run.tell(() -> publish(proof.id()));
        }
    }
}
