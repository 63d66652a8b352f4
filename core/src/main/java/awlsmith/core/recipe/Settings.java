package awlsmith.core.recipe;

import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** The values given to a step, already of the right type; what is not given falls back to the parameter's own. */
public record Settings(Map<String, Object> given) {
    public Settings {
        given = java.util.Collections.unmodifiableMap(new TreeMap<>(given));
    }

    public boolean has(String key) {
        return given.containsKey(key);
    }

    public Optional<Double> real(Param.Real param) {
        return Optional.ofNullable((Double) given.getOrDefault(param.key(), param.fallback()));
    }

    public Optional<Long> whole(Param.Whole param) {
        return Optional.ofNullable((Long) given.getOrDefault(param.key(), param.fallback()));
    }

    public Optional<String> choice(Param.Choice param) {
        return Optional.ofNullable((String) given.getOrDefault(param.key(), param.fallback()));
    }
}
