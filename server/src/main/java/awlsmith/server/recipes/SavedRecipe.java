package awlsmith.server.recipes;

import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** @param recipe in its open form; @param unreadable why this version cannot use it; null when it can */
public record SavedRecipe(
        UUID id,
        String name,
        Map<String, Object> recipe,
        @Nullable String unreadable,
        Instant madeAt) {}
