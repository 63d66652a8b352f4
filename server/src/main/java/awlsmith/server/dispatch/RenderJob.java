package awlsmith.server.dispatch;

import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * What the runner needs to know of one render.
 *
 * @param bundle that it belongs to: files of one treatment, made at once; null where it is alone
 */
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
        int height,
        @Nullable UUID bundle) {
    /**
     * What was asked for with it.
     *
     * @param batch null where it was asked for alone
     * @param notBefore null where it may begin at once
     */
    record Asked(
            String takeName,
            boolean whole,
            @Nullable UUID batch,
            @Nullable String batchName,
            @Nullable Instant notBefore) {}

    /** To be made. */
    int frames() {
        return outFrames > 0 ? outFrames : end - from;
    }
}
