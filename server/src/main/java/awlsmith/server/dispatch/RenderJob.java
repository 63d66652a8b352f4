package awlsmith.server.dispatch;

import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import java.util.UUID;

/** What the runner needs to know of one render. */
record RenderJob(
        UUID id,
        UUID clip,
        Recipe recipe,
        Deliverable deliverable,
        String fileName,
        int from,
        int end,
        int outFrames,
        int width,
        int height) {
    /** To be made. */
    int frames() {
        return outFrames > 0 ? outFrames : end - from;
    }
}
