package awlsmith.core.recipe;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** The values given to a step, already of the right type; what is not given falls back to the parameter's own. */
public record Settings(Map<String, Object> given) {
    public Settings {
        given = java.util.Collections.unmodifiableMap(new TreeMap<>(given));
    }

    /**
     * Reads values as they were written.
     *
     * @param of whose they are, for sentences
     * @throws RecipeException naming every wrong key and value with what is allowed
     */
    public static Settings read(String of, List<Param> params, Map<String, ?> values) {
        var typed = new TreeMap<String, Object>();
        var problems = new ArrayList<Problem>();
        values.forEach((key, value) -> {
            var param = params.stream().filter(p -> p.key().equals(key)).findFirst();
            if (param.isEmpty()) {
                List<String> keys = params.stream().map(Param::key).toList();
                problems.add(Problem.at(key, of + " has no setting '" + key + "'; it has: " + String.join(", ", keys)));
            } else if (value != null) {
                try {
                    typed.put(key, param.get().read(value));
                } catch (IllegalArgumentException e) {
                    problems.add(Problem.at(key, e.getMessage()));
                }
            }
        });
        if (!problems.isEmpty()) {
            throw new RecipeException(problems);
        }
        return new Settings(typed);
    }

    /** Whether a value was given, not left to the step. */
    public boolean has(String key) {
        return given.containsKey(key);
    }

    /** The values in their open form: numbers and texts. */
    public Map<String, Object> tree() {
        var tree = new TreeMap<String, Object>();
        given.forEach((key, value) ->
                tree.put(key, value instanceof Number || value instanceof String ? value : value.toString()));
        return tree;
    }

    /** A number that may change over time, as points of seconds and values. */
    public Optional<Points> keyed(Param.Real param) {
        Object value = given.getOrDefault(param.key(), param.fallback());
        return Optional.ofNullable(
                value instanceof Double number ? new Points(List.of(new Points.Point(0, number))) : (Points) value);
    }

    /** A colour, given or the step's own. */
    public Optional<Colour> tint(Param.Tint param) {
        return Optional.ofNullable((Colour) given.getOrDefault(param.key(), param.fallback()));
    }

    /** A file, where one was given. */
    public Optional<FileRef> file(Param.FromFile param) {
        return Optional.ofNullable((FileRef) given.get(param.key()));
    }

    /** Marks, where some were given. */
    public Optional<Points> marks(Param.Marks param) {
        return Optional.ofNullable((Points) given.get(param.key()));
    }

    /** A curve, where one was given. */
    public Optional<Points> curve(Param.Curve param) {
        return Optional.ofNullable((Points) given.get(param.key()));
    }

    /** A number that stays the same throughout, given or the step's own. */
    public Optional<Double> real(Param.Real param) {
        return Optional.ofNullable((Double) given.getOrDefault(param.key(), param.fallback()));
    }

    /** A whole number, given or the step's own. */
    public Optional<Long> whole(Param.Whole param) {
        return Optional.ofNullable((Long) given.getOrDefault(param.key(), param.fallback()));
    }

    /** The id of an option, given or the step's own. */
    public Optional<String> choice(Param.Choice param) {
        return Optional.ofNullable((String) given.getOrDefault(param.key(), param.fallback()));
    }
}
