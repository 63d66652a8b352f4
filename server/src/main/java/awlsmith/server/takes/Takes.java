package awlsmith.server.takes;

import awlsmith.core.plan.ModelSuggestion;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.upscale.Models;
import awlsmith.server.clips.ClipFacts;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.problem.Refusal;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Takes: recipes on clips, changed by one page at a time. */
@Service
public class Takes {
    /** For footage of which nothing is known. */
    private static final String USUAL_MODEL = "photographic";

    private final TakeRepository takes;
    private final Clips clips;
    private final EventHub events;
    private final Clock clock;

    Takes(TakeRepository takes, Clips clips, EventHub events, Clock clock) {
        this.takes = takes;
        this.clips = clips;
        this.events = events;
        this.clock = clock;
    }

    @EventListener
    void first(Clips.Ready event) {
        if (takes.of(event.id()).isEmpty()) {
            takes.insert(
                    UUID.randomUUID(),
                    event.id(),
                    "A",
                    start(clips.view(event.id()).facts()),
                    clock.instant());
        }
    }

    /** What a fresh take holds: twice as large, by the model the clip's file speaks for. */
    private static Recipe start(@Nullable ClipFacts facts) {
        ModelSuggestion suggestion = facts == null ? null : facts.suggestion();
        String model = suggestion == null ? USUAL_MODEL : suggestion.model();
        boolean there = Models.families().stream().anyMatch(card -> card.id().equals(model));
        return new Recipe(List.of(Step.of("enlarge", Map.of("factor", 2.0, "model", there ? model : USUAL_MODEL))));
    }

    List<TakeView> of(UUID clip) {
        clips.view(clip);
        return takes.of(clip);
    }

    public TakeView view(UUID id) {
        return takes.find(id).orElseThrow(() -> Refusal.unknown("this take"));
    }

    /** @param version the change was made on; refused when somebody else was quicker */
    TakeView change(UUID id, Recipe recipe, @Nullable Integer in, @Nullable Integer out, int version) {
        TakeView now = view(id);
        checkSpan(now.clipId(), in, out);
        if (!takes.update(id, recipe, in, out, version, clock.instant())) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    "this take was changed in another window; that change is shown here now, yours was not saved");
        }
        TakeView changed = view(id);
        events.publish("take", changed);
        return changed;
    }

    private void checkSpan(UUID clip, @Nullable Integer in, @Nullable Integer out) {
        ClipView view = clips.view(clip);
        int frames = view.frames() == null ? 0 : view.frames();
        int from = in == null ? 0 : in;
        int end = out == null ? frames : out;
        if (from < 0 || end > frames || end <= from) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "the span from frame " + from + " to " + end
                            + " holds nothing of this clip: in must lie before out, inside 0.." + frames);
        }
    }
}
