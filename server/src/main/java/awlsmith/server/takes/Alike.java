package awlsmith.server.takes;

import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.problem.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Treats many clips alike: those that were chosen, and every new one. */
@Service
public class Alike {
    private static final Logger LOG = LoggerFactory.getLogger(Alike.class);

    private final Takes takes;
    private final Clips clips;
    private final FirstRecipe first;

    Alike(Takes takes, Clips clips, FirstRecipe first) {
        this.takes = takes;
        this.clips = clips;
        this.first = first;
    }

    /**
     * Gives the first take of each clip its recipe.
     *
     * @return a sentence for every clip that did not get one
     */
    List<String> give(List<UUID> ids, Way way) {
        way.checked();
        var wrong = new ArrayList<String>();
        for (UUID id : ids) {
            ClipView clip = clips.view(id);
            try {
                give(clip, way);
            } catch (Refusal | RecipeException e) {
                wrong.add(clip.title() + ": " + e.getMessage());
            }
        }
        return wrong;
    }

    /** @throws Refusal when it must be examined first */
    public TakeView give(ClipView clip, Way way) {
        Recipe recipe = way.recipe(clip, Takes.usual(clip.facts()))
                .orElseThrow(() -> new Refusal(Refusal.Kind.CONFLICT, "it has not been examined yet"));
        TakeView take = takes.of(clip.id()).getFirst();
        return takes.change(take.id(), recipe, take.inFrame(), take.outFrame(), take.version());
    }

    /** New clips get what their condition says, where that is wished and nobody has touched them meanwhile. */
    @EventListener
    void examined(Clips.Examined event) {
        Way way = first.way();
        List<TakeView> there = takes.of(event.id());
        boolean untouched = there.size() == 1
                && there.getFirst().undos() + there.getFirst().redos() == 0
                && there.getFirst().verdict() == TakeView.Verdict.OPEN;
        if (way.isMeasured() && untouched) {
            try {
                give(clips.view(event.id()), way);
            } catch (Refusal | RecipeException e) {
                LOG.info("a new clip keeps its first recipe: {}", e.getMessage());
            }
        }
    }
}
