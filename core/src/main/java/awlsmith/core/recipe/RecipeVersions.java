package awlsmith.core.recipe;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;

/** Brings recipes of earlier versions to the form of this one, version by version, so that what was kept years ago can be used. */
final class RecipeVersions {
    private static final String FIELD = "awlsmith";

    /**
     * The n-th makes version n + 2 of version n + 1. A change of the open form adds one here and raises {@link Recipe#VERSION}; none is
     * ever taken out.
     */
    private static final List<UnaryOperator<Map<String, Object>>> STEPS = List.of();

    private RecipeVersions() {}

    static Map<?, ?> brought(Map<?, ?> tree) {
        return brought(tree, STEPS, Recipe.VERSION);
    }

    /** @throws RecipeException when it is no recipe, or one of a later version */
    static Map<?, ?> brought(Map<?, ?> tree, List<UnaryOperator<Map<String, Object>>> steps, int wanted) {
        if (!(tree.get(FIELD) instanceof Number number) || number.intValue() < 1) {
            throw new RecipeException(Problem.at(
                    "",
                    "this is not a recipe of version " + wanted + ": its field \"" + FIELD + "\" holds "
                            + tree.get(FIELD)));
        }
        int version = number.intValue();
        if (version > wanted) {
            throw new RecipeException(Problem.at(
                    "",
                    "this recipe is of version " + version + ", this Awlsmith reads up to " + wanted
                            + "; use it with the version it was made with, or a later one"));
        }
        Map<?, ?> now = tree;
        for (; version < wanted; version++) {
            var open = new LinkedHashMap<String, Object>();
            now.forEach((key, value) -> open.put(String.valueOf(key), value));
            var next = new LinkedHashMap<>(steps.get(version - 1).apply(open));
            next.put(FIELD, version + 1);
            now = next;
        }
        return now;
    }
}
