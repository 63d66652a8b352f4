package awlsmith.server.examine;

import awlsmith.core.condition.Condition;
import awlsmith.core.condition.Curves;
import awlsmith.core.condition.Examiner;
import awlsmith.core.condition.Judge;
import awlsmith.core.condition.Notes;
import awlsmith.core.condition.Suggestion;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.Rounding;
import awlsmith.media.SoundReading;
import awlsmith.render.Machine;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.clips.ExaminationView.ConditionFacts;
import awlsmith.server.jobs.Job;
import awlsmith.server.jobs.JobRun;
import awlsmith.server.jobs.Jobs;
import awlsmith.server.jobs.Lane;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.OptionalInt;
import java.util.UUID;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Examines clips, one after another in the background; nobody has to wait for it before working. */
@Service
public class Examinations implements Job {
    private static final String KIND = "examine";

    private final ExaminationRepository repository;
    private final Clips clips;
    private final Stills stills;
    private final MediaFolder media;
    private final TransactionTemplate transaction;
    private final Jobs jobs;
    private final Machine machine;
    private final ApplicationEventPublisher publisher;

    Examinations(
            ExaminationRepository repository,
            Clips clips,
            Stills stills,
            MediaFolder media,
            TransactionTemplate transaction,
            Jobs jobs,
            Machine machine,
            ApplicationEventPublisher publisher) {
        this.repository = repository;
        this.clips = clips;
        this.stills = stills;
        this.media = media;
        this.transaction = transaction;
        this.jobs = jobs;
        this.machine = machine;
        this.publisher = publisher;
    }

    /** In the transaction that makes the clip ready. */
    @EventListener
    void first(Clips.Ready event) {
        repository.await(event.id());
        jobs.want(KIND, event.id().toString());
    }

    ClipView again(UUID clip) {
        if (clips.view(clip).state() != ClipView.State.READY) {
            throw new Refusal(Refusal.Kind.CONFLICT, "the clip is not ready yet; wait until its facts are shown");
        }
        transaction.executeWithoutResult(status -> {
            repository.await(clip);
            jobs.want(KIND, clip.toString());
        });
        clips.publish(clip);
        return clips.view(clip);
    }

    ClipView stop(UUID clip) {
        clips.view(clip);
        if (repository.stop(clip)) {
            jobs.stop(KIND, clip.toString());
            clips.publish(clip);
        }
        return clips.view(clip);
    }

    @EventListener
    void gone(Clips.Removed event) {
        jobs.stop(KIND, event.id().toString());
        jobs.await(KIND, event.id().toString());
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Lane lane() {
        return Lane.LOOK;
    }

    @Override
    public List<String> waiting() {
        return repository.open(false);
    }

    @Override
    public List<String> unfinished() {
        return repository.open(true);
    }

    @Override
    public void run(String id, JobRun run) throws IOException {
        UUID clip = UUID.fromString(id);
        OptionalInt attempt = repository.start(clip, run.owner());
        if (attempt.isPresent()) {
            run.began(attempt.getAsInt());
            clips.publish(clip);
            examine(clip, run);
        }
    }

    @Override
    public void failed(String id, JobRun run, String sentence) {
        repository.failed(UUID.fromString(id), run.attempt(), sentence);
    }

    @Override
    public void ended(String id) {
        clips.publish(UUID.fromString(id));
    }

    @Override
    public String tooLittleMemory() {
        return "too little memory to examine pictures of this size; it can be worked on all the same";
    }

    @Override
    public String fault() {
        return "the clip could not be examined because of a fault inside Awlsmith; the log says what";
    }

    private void examine(UUID id, JobRun run) throws IOException {
        Cancel cancel = run.cancel();
        Clip clip = clips.open(id);
        int count = clip.index().orElseThrow().count();
        double rate = count / Math.max(1e-3, clip.time(count).toDouble());
        long raw = new RawLayout(clip.format()).frameBytes();
        Notes notes;
        try (var _ = machine.budget().takeBehind(Examiner.bytes(clip.format(), rate) + 2 * raw, cancel)) {
            notes = examined(id, clip, count, rate, run);
        }
        var judge = new Judge(notes, SoundReading.check(clip.info(), cancel), Rounding.step(clip.info(), cancel));
        Condition condition = judge.condition();
        CurvesFile.save(judge.curves(), curvesFile(id));
        var suggestion = Suggestion.of(condition, clip.format(), clip.info().model(rate));
        var facts = ConditionFacts.of(condition, suggestion);
        run.save(() -> Boolean.TRUE.equals(transaction.execute(status -> {
            boolean noted = repository.done(id, run.attempt(), facts);
            if (noted) {
                publisher.publishEvent(new Clips.Examined(id));
            }
            return noted;
        })));
    }

    private Notes examined(UUID id, Clip clip, int count, double rate, JobRun run) {
        return new Examiner(clip, rate, new PlanePool(1L << 26)).examine(machine.work(run.cancel()), done -> {
            stills.awaitUrgent(run.cancel());
            run.tell(() -> {
                repository.progress(id, Math.min(0.99, (double) done / count));
                clips.publish(id);
            });
        });
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
