package awlsmith.server.takes;

import awlsmith.core.model.Models;
import awlsmith.core.plan.ModelSuggestion;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.server.clips.ClipFacts;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.problem.Refusal;
import awlsmith.server.takes.TakeRepository.State;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Takes: recipes on clips, copied, changed by one page at a time, judged. */
@Service
public class Takes {
    /** For footage of which nothing is known. */
    private static final String USUAL_MODEL = "photographic";
    /** Takes of one clip; beyond any sheet that can be looked at. */
    private static final int MOST_TAKES = 500;

    private static final int LONGEST_NAME = 60;

    private final TakeRepository takes;
    private final FirstRecipe firstRecipe;
    private final Clips clips;
    private final EventHub events;
    private final TransactionTemplate transaction;
    private final Clock clock;

    Takes(
            TakeRepository takes,
            FirstRecipe firstRecipe,
            Clips clips,
            EventHub events,
            TransactionTemplate transaction,
            Clock clock) {
        this.takes = takes;
        this.firstRecipe = firstRecipe;
        this.clips = clips;
        this.events = events;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** A take to be made; without a name it gets the next free letter. */
    record Fresh(@Nullable String name, Recipe recipe) {}

    @EventListener
    void first(Clips.Ready event) {
        if (takes.of(event.id()).isEmpty()) {
            ClipView clip = clips.view(event.id());
            Recipe usual = usual(clip.facts());
            // what hangs on its condition comes when it has been examined
            var state = new State(firstRecipe.way().recipe(clip, usual).orElse(usual), null, null);
            takes.insert(UUID.randomUUID(), event.id(), "A", state, clock.instant());
        }
    }

    /** What a fresh take holds where nothing else is wished: twice as large, by the model the clip's file speaks for. */
    static Recipe usual(@Nullable ClipFacts facts) {
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

    /** @param like the take whose span the new ones get; none marks no span */
    List<TakeView> add(UUID clip, List<Fresh> fresh, @Nullable UUID like) {
        List<TakeView> there = of(clip);
        if (fresh.isEmpty()) {
            throw new Refusal(Refusal.Kind.INVALID, "no recipe was given for the new take");
        }
        if (there.size() + fresh.size() > MOST_TAKES) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "this clip has " + there.size() + " takes and would have " + (there.size() + fresh.size()) + "; "
                            + MOST_TAKES + " are the most. Remove discarded ones first");
        }
        TakeView model = like == null ? null : view(like);
        Set<String> names = new HashSet<>(there.stream().map(TakeView::name).toList());
        var made = new ArrayList<UUID>();
        Instant now = clock.instant();
        transaction.executeWithoutResult(status -> {
            for (Fresh one : fresh) {
                var id = UUID.randomUUID();
                String name = one.name() == null ? nextLetter(names) : clean(one.name());
                names.add(name);
                var state = new State(
                        one.recipe(), model == null ? null : model.inFrame(), model == null ? null : model.outFrame());
                // a microsecond apart, so that they keep the order they were asked for in
                takes.insert(id, clip, name, state, now.plus(Duration.ofNanos(1000L * made.size())));
                made.add(id);
            }
        });
        List<TakeView> views = made.stream().map(this::view).toList();
        views.forEach(view -> events.publish("take", view));
        clips.publish(clip);
        return views;
    }

    /** A to Z, then AA and so on. */
    static String nextLetter(Set<String> taken) {
        for (int n = 0; ; n++) {
            String name = (n < 26 ? "" : String.valueOf((char) ('A' + n / 26 - 1))) + (char) ('A' + n % 26);
            if (!taken.contains(name)) {
                return name;
            }
        }
    }

    private static String clean(String name) {
        String clean = name.replaceAll("\\p{Cntrl}+", " ").strip();
        if (clean.isEmpty() || clean.length() > LONGEST_NAME) {
            throw new Refusal(Refusal.Kind.INVALID, "a take's name has 1 to " + LONGEST_NAME + " letters");
        }
        return clean;
    }

    /** @param version the change was made on; refused when somebody else was quicker */
    TakeView change(UUID id, Recipe recipe, @Nullable Integer in, @Nullable Integer out, int version) {
        TakeView now = view(id);
        checkSpan(now.clipId(), in, out);
        var state = new State(recipe, in, out);
        if (!Boolean.TRUE.equals(transaction.execute(status -> takes.change(id, state, version, clock.instant())))) {
            throw changedElsewhere();
        }
        return publish(id);
    }

    /** One change taken back (-1) or made again (1). */
    TakeView step(UUID id, int by, int version) {
        TakeView now = view(id);
        if ((by < 0 ? now.undos() : now.redos()) == 0) {
            return now;
        }
        if (!Boolean.TRUE.equals(transaction.execute(status -> takes.step(id, by, version, clock.instant())))) {
            throw changedElsewhere();
        }
        return publish(id);
    }

    private static Refusal changedElsewhere() {
        return new Refusal(
                Refusal.Kind.CONFLICT,
                "this take was changed in another window; that change is shown here now, yours was not saved");
    }

    TakeView label(UUID id, @Nullable String name, TakeView.@Nullable Verdict verdict) {
        TakeView now = view(id);
        takes.label(id, name == null ? now.name() : clean(name), verdict == null ? now.verdict() : verdict);
        clips.publish(now.clipId());
        return publish(id);
    }

    /** Files that were rendered from it stay; the last take of a clip cannot go. */
    void remove(UUID id) {
        TakeView take = view(id);
        if (takes.of(take.clipId()).size() == 1) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT, "this is the clip's only take; copy it first, or change it as you like");
        }
        takes.delete(id);
        events.publish("take-removed", Map.of("id", id, "clipId", take.clipId()));
        clips.publish(take.clipId());
    }

    private TakeView publish(UUID id) {
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
