package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.upscale.Models;
import awlsmith.core.upscale.NetForm;
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
        tree.put("settings", step.settings().given());
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

    /** The stages for clips of this format, with nets in the form that is quickest here. */
    public Chain chain(Format source) {
        return chain(source, Models.quickest());
    }

    /**
     * The stages for clips of this format.
     *
     * @param form that nets run in
     * @throws RecipeException when a step cannot work on what reaches it
     */
    public Chain chain(Format source, NetForm form) {
        var stages = new ArrayList<Stage>();
        Format format = source;
        for (int i = 0; i < steps.size(); i++) {
            Step step = steps.get(i);
            if (!step.on()) {
                continue;
            }
            int index = i;
            var problems = step.known().check(step.settings(), format);
            if (!problems.isEmpty()) {
                throw new RecipeException(
                        problems.stream().map(problem -> problem.inStep(index)).toList());
            }
            try {
                stages.addAll(step.known().stages(step.settings(), format, form));
            } catch (RecipeException e) {
                throw new RecipeException(e.problems().stream()
                        .map(problem -> problem.inStep(index))
                        .toList());
            }
            format = stages.isEmpty() ? source : stages.getLast().output();
        }
        return new Chain(source, stages);
    }

    /** How many of the first steps it takes until nothing turns the picture any more, so that rows stay rows behind them. */
    public int turned(Format source) {
        int turned = 0;
        Format format = source;
        for (int i = 0; i < steps.size(); i++) {
            if (steps.get(i).on()) {
                Chain chain = new Recipe(List.of(steps.get(i))).chain(format);
                turned = chain.stages().stream().allMatch(Stage::isAligned) ? turned : i + 1;
                format = chain.output();
            }
        }
        return turned;
    }

    /** The format after each step, switched-off ones included as they pass it on; same order as the steps. */
    public List<Format> formats(Format source) {
        var formats = new ArrayList<Format>();
        Format format = source;
        for (int i = 0; i < steps.size(); i++) {
            Step step = steps.get(i);
            if (step.on()) {
                format = new Recipe(List.of(step)).chain(format).output();
            }
            formats.add(format);
        }
        return formats;
    }
}
