package awlsmith.server.recipes;

import java.time.Instant;
import java.util.Map;
import java.util.UUID;

/** @param recipe in its open form */
public record SavedRecipe(UUID id, String name, Map<String, Object> recipe, Instant madeAt) {}
