package awlsmith.core.plan;

import awlsmith.core.recipe.Problem;
import awlsmith.core.recipe.RecipeException;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * What a file says of itself in words: its title and who made it.
 *
 * @param values by key, in the order of {@link #KEYS}; an empty value says that the source's is left out
 */
public record Tags(Map<String, String> values) {
    /** Of the tape or card that it came from, by which it is found again in a cut (SMPTE ST 258 calls it source). */
    public static final String REEL = "reel_name";

    /** Keys as FFmpeg calls them in every container, and what people call them. */
    public static final Map<String, String> KEYS;

    static {
        var keys = new LinkedHashMap<String, String>();
        keys.put("title", "Title");
        keys.put("artist", "By");
        keys.put("date", "Date");
        keys.put("copyright", "Rights");
        keys.put("description", "Description");
        keys.put(REEL, "Reel");
        KEYS = Collections.unmodifiableMap(keys);
    }

    public static final Tags NONE = new Tags(Map.of());

    private static final int LONGEST = 500;

    /** @throws RecipeException for an unknown key, or words that are too long or hold anything but letters */
    public Tags {
        for (var one : values.entrySet()) {
            String label = KEYS.get(one.getKey());
            if (label == null) {
                throw new RecipeException(Problem.at(
                        one.getKey(),
                        "a file cannot tell '" + one.getKey() + "' of itself; it can: "
                                + String.join(", ", KEYS.keySet())));
            }
            String words = one.getValue();
            if (words.length() > LONGEST) {
                throw new RecipeException(Problem.at(
                        one.getKey(), label + " has at most " + LONGEST + " letters, not " + words.length()));
            }
            if (words.chars().anyMatch(c -> c < ' ' || c == 0x7f)) {
                throw new RecipeException(Problem.at(one.getKey(), label + " is one line of words, without tabs"));
            }
        }
        var ordered = new LinkedHashMap<String, String>();
        for (String key : KEYS.keySet()) {
            if (values.containsKey(key)) {
                ordered.put(key, values.get(key).strip());
            }
        }
        values = Collections.unmodifiableMap(ordered);
    }

    /** Of values from anywhere, such as a file: what cannot be taken as it is, is shortened or left out. */
    public static Tags found(Map<String, String> values) {
        var taken = new LinkedHashMap<String, String>();
        KEYS.keySet().forEach(key -> {
            String words =
                    values.getOrDefault(key, "").replaceAll("\\p{Cntrl}+", " ").strip();
            if (!words.isEmpty()) {
                taken.put(key, words.substring(0, Math.min(LONGEST, words.length())));
            }
        });
        return new Tags(taken);
    }

    /** These, and of the other's what these say nothing of. */
    public Tags over(Tags others) {
        var all = new LinkedHashMap<String, String>(others.values);
        all.putAll(values);
        all.values().removeIf(String::isEmpty);
        return new Tags(all);
    }

    /** Those that a container has a place for. */
    public Tags in(Container container) {
        var told = new LinkedHashMap<>(values);
        told.keySet().removeIf(key -> !container.tells(key));
        return new Tags(told);
    }

    /** What is not told in a container though it should be, in a sentence. */
    public Optional<String> untold(Container container) {
        String missing = values.entrySet().stream()
                .filter(one -> !one.getValue().isEmpty() && !container.tells(one.getKey()))
                .map(one -> KEYS.get(one.getKey()))
                .collect(Collectors.joining(", "));
        return missing.isEmpty()
                ? Optional.empty()
                : Optional.of(container.label() + " has no place for what the file should say of itself: " + missing);
    }

    public boolean isEmpty() {
        return values.isEmpty();
    }
}
