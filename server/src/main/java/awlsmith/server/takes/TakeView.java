package awlsmith.server.takes;

import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * One recipe on one clip.
 *
 * @param recipe in its open form
 * @param inFrame first frame of the marked span, if one is marked
 * @param outFrame frame behind the last of it
 * @param unreadable why this version of Awlsmith cannot use the recipe, in a sentence; null when it can
 * @param version rises with every change; a change must name the one it was made on
 * @param undos how many changes can be taken back, in this session or an earlier one
 * @param redos how many of those taken back can be made again
 */
public record TakeView(
        UUID id,
        UUID clipId,
        String name,
        Map<String, Object> recipe,
        @Nullable String unreadable,
        @Nullable Integer inFrame,
        @Nullable Integer outFrame,
        int version,
        Verdict verdict,
        int undos,
        int redos,
        Instant updatedAt) {
    /** What the user thinks of it; a discarded one is out of the way but can be taken back. */
    public enum Verdict {
        OPEN,
        KEPT,
        DISCARDED
    }
}
