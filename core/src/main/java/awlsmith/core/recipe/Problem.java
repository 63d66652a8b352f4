package awlsmith.core.recipe;

/**
 * Something wrong with a recipe.
 *
 * @param step which step, from 0; -1 for the recipe itself
 * @param key which setting, or empty
 * @param sentence what is wrong and what is allowed
 */
public record Problem(int step, String key, String sentence) {
    /** One of the recipe itself, or of a step whose place is not known yet. */
    public static Problem at(String key, String sentence) {
        return new Problem(-1, key, sentence);
    }

    Problem inStep(int index) {
        return new Problem(index, key, sentence);
    }
}
