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
 * @param version rises with every change; a change must name the one it was made on
 */
public record TakeView(
        UUID id,
        UUID clipId,
        String name,
        Map<String, Object> recipe,
        @Nullable Integer inFrame,
        @Nullable Integer outFrame,
        int version,
        Instant updatedAt) {}
