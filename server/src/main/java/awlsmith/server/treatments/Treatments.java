package awlsmith.server.treatments;

import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.Findings;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Sides;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.render.Machine;
import awlsmith.server.clips.Clips;
import awlsmith.server.tables.Tables;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Recipes on clips, with all that is known of the clip: whoever shows, measures, proves or renders asks the same. */
@Service
public class Treatments {
    private final Clips clips;
    private final FoundFiles files;
    private final Machine machine;
    private final Tables tables;
    private final Map<UUID, Known> known = new ConcurrentHashMap<>();

    /** @param fingerprint of the clip as it was when this was found */
    private record Known(long fingerprint, Findings findings) {}

    Treatments(Clips clips, FoundFiles files, Machine machine, Tables tables) {
        this.tables = tables;
        this.clips = clips;
        this.files = files;
        this.machine = machine;
    }

    /** @throws RecipeException when a step cannot work on what reaches it */
    public Treatment of(UUID clip, Recipe recipe) {
        return of(clip, clips.open(clip), recipe);
    }

    /** @param open the clip itself, or another file in its place, such as its reference, which has an id of its own */
    public Treatment of(UUID clip, Clip open, Recipe recipe) {
        long now = fingerprint(open);
        Known before = known.get(clip);
        Findings findings = before != null && before.fingerprint() == now ? before.findings() : Findings.NONE;
        Treatment treatment = recipe.on(open.material().with(findings).with(tables));
        if (treatment.missing().isEmpty()) {
            return treatment;
        }
        Treatment more = Analyses.known(treatment, files.of(clip, open));
        if (more != treatment) {
            known.put(clip, new Known(now, more.material().findings()));
        }
        return more;
    }

    private static long fingerprint(Clip clip) {
        return clip.index().map(index -> index.fingerprint()).orElse(0L);
    }

    /** Names what a treatment waits for first; two that wait for the same have the same name. */
    public String wanted(Clip open, Treatment treatment) {
        return FoundFiles.hash(open, treatment.missing().getFirst().key());
    }

    public Sides sides(UUID clip, Recipe recipe) {
        return Sides.of(of(clip, recipe));
    }

    /**
     * With all that its steps wait for, which is made where it is missing.
     *
     * @param watch hears what is done and how many frames were seen
     * @throws Cancel.Stopped when asked to stop
     */
    public Treatment complete(UUID clip, Clip open, Recipe recipe, Cancel cancel, Analyses.Watch watch) {
        Treatment now = of(clip, open, recipe);
        while (!now.missing().isEmpty()) {
            Chain before = now.prefix(now.missing().getFirst().step()).chain();
            long bytes = before.bytesAlive(before.output().whole())
                    + before.workBytes() * machine.threads()
                    + 2L * new RawLayout(open.format()).frameBytes();
            try (var _ = machine.budget().takeBehind(bytes, cancel)) {
                now = Analyses.first(now, open, files.of(clip, open), machine.planes(), machine.work(cancel), watch);
            }
        }
        return of(clip, open, recipe);
    }

    @EventListener
    void gone(Clips.Removed event) {
        known.remove(event.id());
    }
}
