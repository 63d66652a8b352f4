package awlsmith.core.recipe;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** What analyses found in one clip, each by its key; immutable. */
public final class Findings {
    public static final Findings NONE = new Findings(Map.of());

    private final Map<String, Object> byKey;

    private Findings(Map<String, Object> byKey) {
        this.byKey = Map.copyOf(byKey);
    }

    /** @param key as {@link Treatment.Missing} tells it */
    public <T> Findings with(String key, T found) {
        var more = new LinkedHashMap<>(byKey);
        more.put(key, found);
        return new Findings(more);
    }

    Optional<Object> find(String key) {
        return Optional.ofNullable(byKey.get(key));
    }
}
