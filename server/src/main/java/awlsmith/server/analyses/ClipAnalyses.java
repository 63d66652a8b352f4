package awlsmith.server.analyses;

import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.jobs.Job;
import awlsmith.server.jobs.JobRun;
import awlsmith.server.jobs.Jobs;
import awlsmith.server.jobs.Lane;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.treatments.Treatments;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Looks through clips for what steps wait for, when somebody asks for it; a proof or render looks by itself. */
@Service
public class ClipAnalyses implements Job {
    private static final String KIND = "analysis";

    private final AnalysisRepository repository;
    private final Treatments treatments;
    private final Clips clips;
    private final Stills stills;
    private final EventHub events;
    private final Jobs jobs;
    private final TransactionTemplate transaction;
    /** What those that run are doing. */
    private final Map<UUID, String> doing = new ConcurrentHashMap<>();

    ClipAnalyses(
            AnalysisRepository repository,
            Treatments treatments,
            Clips clips,
            Stills stills,
            EventHub events,
            Jobs jobs,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.treatments = treatments;
        this.clips = clips;
        this.stills = stills;
        this.events = events;
        this.jobs = jobs;
        this.transaction = transaction;
    }

    /**
     * What a treatment waits for.
     *
     * @param step its place in the recipe
     * @param doing what has to be done, in a few words
     * @param look the look through the clip that was asked for, if one was
     */
    public record Waiting(int step, String doing, @Nullable AnalysisView look) {}

    /** What a treatment's steps wait for; none when all is known. */
    public List<Waiting> waiting(UUID clip, Clip open, Treatment treatment) {
        if (treatment.missing().isEmpty()) {
            return List.of();
        }
        AnalysisView look = repository
                .find(clip, treatments.wanted(open, treatment))
                .map(this::withDoing)
                .orElse(null);
        return treatment.missing().stream()
                .map(missing -> new Waiting(missing.step(), missing.analysis().doing(), look))
                .toList();
    }

    /** @return empty when nothing is missing */
    Optional<AnalysisView> ask(UUID clip, Recipe recipe) {
        Clip open = clips.open(clip);
        Treatment treatment = treatments.of(clip, open, recipe);
        if (treatment.missing().isEmpty()) {
            return Optional.empty();
        }
        int frames = open.index().orElseThrow().count();
        UUID id = transaction.execute(status -> {
            UUID asked = repository.ask(clip, treatments.wanted(open, treatment), recipe, frames);
            jobs.want(KIND, asked.toString());
            return asked;
        });
        publish(id);
        return Optional.of(view(clip, id));
    }

    AnalysisView stop(UUID clip, UUID id) {
        view(clip, id);
        if (repository.stop(id)) {
            jobs.stop(KIND, id.toString());
            publish(id);
        }
        return view(clip, id);
    }

    private AnalysisView view(UUID clip, UUID id) {
        return repository
                .find(id)
                .filter(one -> one.clipId().equals(clip))
                .map(this::withDoing)
                .orElseThrow(() -> Refusal.unknown("this look through the clip"));
    }

    private AnalysisView withDoing(AnalysisView view) {
        return new AnalysisView(
                view.id(),
                view.clipId(),
                view.state(),
                doing.get(view.id()),
                view.frames(),
                view.framesDone(),
                view.problem());
    }

    private void publish(UUID id) {
        repository.find(id).map(this::withDoing).ifPresent(view -> events.publish("analysis", view));
    }

    @EventListener
    void gone(Clips.Removing event) {
        for (UUID id : repository.of(event.id())) {
            repository.stop(id);
            jobs.stop(KIND, id.toString());
            jobs.await(KIND, id.toString());
        }
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
        return repository.open(false);
    }

    @Override
    public List<String> unfinished() {
        return repository.open(true);
    }

    @Override
    public void run(String id, JobRun run) {
        UUID one = UUID.fromString(id);
        OptionalInt attempt = repository.start(one, run.owner());
        Optional<AnalysisRepository.Asked> asked = repository.asked(one);
        if (attempt.isEmpty() || asked.isEmpty()) {
            return;
        }
        run.began(attempt.getAsInt());
        UUID clip = asked.get().clip();
        treatments.complete(clip, clips.open(clip), asked.get().recipe(), run.cancel(), (what, frames) -> {
            stills.awaitLooking(run.cancel());
            doing.put(one, what);
            run.tell(() -> {
                repository.progress(one, run.attempt(), (int) frames);
                publish(one);
            });
        });
        run.save(() -> repository.done(one, run.attempt()));
    }

    @Override
    public void failed(String id, JobRun run, String sentence) {
        repository.failed(UUID.fromString(id), run.attempt(), sentence);
    }

    @Override
    public void ended(String id) {
        doing.remove(UUID.fromString(id));
        publish(UUID.fromString(id));
    }

    @Override
    public String fault() {
        return "the clip could not be looked through because of a fault inside Awlsmith; the log says what";
    }
}
