package awlsmith.core.recipe;

import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Chain;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Ordered steps with their settings. Its open form is plain maps and lists, which any JSON library writes as
 * {@code {"awlsmith": 1, "steps": [{"step": "enlarge", "on": true, "settings": {"factor": 2}}]}}.
 */
public record Recipe(List<Step> steps) {
    /** Version of the open form written here. */
    public static final int VERSION = 1;

    /** More steps than anyone needs; keeps a hostile recipe small. */
    public static final int MOST_STEPS = 64;

    public static final Recipe EMPTY = new Recipe(List.of());

    public Recipe {
        steps = List.copyOf(steps);
        if (steps.size() > MOST_STEPS) {
            throw new RecipeException(Problem.at(
                    "", "the recipe has " + steps.size() + " steps, at most " + MOST_STEPS + " are allowed"));
        }
    }

    /** Its open form, which {@link #fromTree} reads back to the same. */
    public Map<String, Object> toTree() {
        var tree = new LinkedHashMap<String, Object>();
        tree.put("awlsmith", VERSION);
        tree.put("steps", steps.stream().map(Recipe::stepTree).toList());
        return tree;
    }

    private static Map<String, Object> stepTree(Step step) {
        var tree = new LinkedHashMap<String, Object>();
        tree.put("step", step.kind());
        tree.put("on", step.on());
        tree.put("settings", step.settings().tree());
        return tree;
    }

    /**
     * Reads a recipe of this version or an earlier one.
     *
     * @throws RecipeException when the tree is not a recipe that can be read, naming what is wrong
     */
    public static Recipe fromTree(Map<?, ?> given) {
        Map<?, ?> tree = RecipeVersions.brought(given);
        if (!(tree.get("steps") instanceof List<?> list)) {
            throw new RecipeException(Problem.at("", "the recipe has no list \"steps\""));
        }
        var steps = new ArrayList<Step>();
        var problems = new ArrayList<Problem>();
        for (int i = 0; i < list.size(); i++) {
            try {
                steps.add(stepOf(list.get(i)));
            } catch (RecipeException e) {
                for (Problem problem : e.problems()) {
                    problems.add(problem.inStep(i));
                }
            }
        }
        if (!problems.isEmpty()) {
            throw new RecipeException(problems);
        }
        return new Recipe(steps);
    }

    private static Step stepOf(Object item) {
        if (!(item instanceof Map<?, ?> map) || !(map.get("step") instanceof String kind)) {
            throw new RecipeException(Problem.at("", "a step must be an object with its name in \"step\""));
        }
        var values = new LinkedHashMap<String, Object>();
        if (map.get("settings") instanceof Map<?, ?> given) {
            given.forEach((key, value) -> values.put(String.valueOf(key), value));
        }
        return Step.of(kind, !Boolean.FALSE.equals(map.get("on")), values);
    }

    /** This on a clip, with nets in the form that is usual here. */
    public Treatment on(Material material) {
        return on(material, Models.usual());
    }

    /**
     * This on a clip.
     *
     * @param form that nets run in
     * @throws RecipeException when a step cannot work on what reaches it
     */
    public Treatment on(Material material, NetForm form) {
        return new Treatment(this, material, form);
    }

    /** The stages on pictures of which only the format is told. */
    public Chain chain(Format source) {
        return new Chain(source, on(Material.of(source)).chain().stages());
    }
}
