package awlsmith.core.condition;

import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/** One recipe for many clips: the same steps in the same order, with what is measured of each clip in place of what was measured of another. */
public final class SameSteps {
    /** Steps that are of use only where their flaw is found; another clip's values would do harm. */
    private static final Set<String> WHERE_FOUND = Set.of("crop", "cadence", "true-size", "unblend");

    /** Settings that tell what a clip is like, by step; without them the step measures for itself. All others are choices, and stay. */
    private static final Map<String, Set<String>> MEASURED = Map.of(
            "enlarge", Set.of("model", "softness"),
            "denoise", Set.of("noise"),
            "deblur", Set.of("noise"),
            "refine", Set.of("softness", "rounding"),
            "repair", Set.of("rounding"),
            "steady", Set.of("rolling"));

    /** Steps of which only what {@link #MEASURED} names follows the clip: sizes and rates are what was asked for. */
    private static final Set<String> CHOSEN = Set.of("enlarge", "rate");

    private SameSteps() {}

    /**
     * @param recipe the steps that are wanted
     * @param suggested what is suggested for the clip; see {@link Suggestion}
     */
    public static Recipe measured(Recipe recipe, List<Step> suggested) {
        var left = new ArrayList<>(suggested);
        var steps = new ArrayList<Step>();
        for (Step step : recipe.steps()) {
            var found =
                    left.stream().filter(one -> one.kind().equals(step.kind())).findFirst();
            found.ifPresent(left::remove);
            if (found.isEmpty() && WHERE_FOUND.contains(step.kind())) {
                continue;
            }
            Set<String> measured = MEASURED.getOrDefault(step.kind(), Set.of());
            boolean keepsModel = step.kind().equals("enlarge") && found.isEmpty();
            var values = new TreeMap<>(step.settings().tree());
            values.keySet().removeIf(key -> measured.contains(key) && !(keepsModel && key.equals("model")));
            found.ifPresent(one -> one.settings().tree().forEach((key, value) -> {
                if (!CHOSEN.contains(step.kind()) || measured.contains(key)) {
                    values.put(key, value);
                }
            }));
            steps.add(Step.of(step.kind(), step.on(), values));
        }
        return new Recipe(steps);
    }
}
