package awlsmith.server.analyses;

import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A look through a clip that steps wait for.
 *
 * @param doing what is being done, in a few words; null before it has begun
 * @param frames of the clip; @param framesDone of them seen
 * @param problem why it could not be done, in a sentence
 */
public record AnalysisView(
        UUID id,
        UUID clipId,
        State state,
        @Nullable String doing,
        int frames,
        int framesDone,
        @Nullable String problem) {
    public enum State {
        WAITING,
        RUNNING,
        DONE,
        STOPPED,
        FAILED
    }
}
