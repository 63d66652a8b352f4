package awlsmith.core.recipe;

import java.util.Map;
import java.util.TreeMap;

/**
 * One line of a recipe.
 *
 * @param kind id of a {@link StepKind}
 * @param on false leaves the step out without forgetting its settings
 * @param settings values by key, as given
 */
public record Step(String kind, boolean on, Settings settings) {

    /**
     * Checks names and values and puts the values in their types.
     *
     * @throws RecipeException naming every wrong key and value with what is allowed
     */
    public static Step of(String kind, boolean on, Map<String, ?> values) {
        StepKind known = StepRegistry.find(kind)
                .orElseThrow(() -> new RecipeException(Problem.at(
                        "", "there is no step called '" + kind + "'; there are: " + StepRegistry.idsInWords())));
        return new Step(kind, on, Settings.read(kind, known.params(), values));
    }

    /** One that is on; see {@link #of(String, boolean, Map)}. */
    public static Step of(String kind, Map<String, ?> values) {
        return of(kind, true, values);
    }

    /** Reads {@code enlarge factor=2 kernel=lanczos3}, as written on the command line. */
    public static Step parse(String text) {
        String[] words = text.trim().split("\\s+");
        if (words[0].isEmpty()) {
            throw new RecipeException(
                    Problem.at("", "a step is empty; write for example: enlarge factor=2 kernel=lanczos3"));
        }
        var values = new TreeMap<String, String>();
        for (int i = 1; i < words.length; i++) {
            int equals = words[i].indexOf('=');
            if (equals < 1) {
                throw new RecipeException(
                        Problem.at("", "'" + words[i] + "' is not a setting; write key=value, for example factor=2"));
            }
            if (values.put(words[i].substring(0, equals), words[i].substring(equals + 1)) != null) {
                throw new RecipeException(Problem.at("", words[i].substring(0, equals) + " is given twice"));
            }
        }
        return of(words[0], values);
    }

    /** What kind of step it is. */
    public StepKind known() {
        return StepRegistry.find(kind).orElseThrow();
    }
}
