package awlsmith.server.stills;

import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.HeldFrames;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.render.Machine;
import awlsmith.server.clips.Clips;
import java.util.UUID;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** What the first steps of recipes made of frames that were looked at lately. */
@Component
class ReachedFrames {
    private static final long MOST_BYTES = Machine.forCache(160L << 20, 0.04);

    /**
     * @param steps that made them
     * @param waits what these steps wait for, see {@link awlsmith.core.recipe.Treatment#missing}
     */
    record Made(UUID clip, Recipe steps, String waits) {}

    private final HeldFrames<Made> held = new HeldFrames<>(MOST_BYTES);

    /** See {@link HeldFrames#source}. */
    FrameSource source(Made made, Chain steps, long count, FrameSource clip, Work work) {
        return held.source(made, steps, count, clip, work);
    }

    @EventListener
    void forget(Clips.Removing event) {
        held.forget(made -> made.clip().equals(event.id()));
    }
}
