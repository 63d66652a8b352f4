package awlsmith.core.recipe;

import java.util.List;

/**
 * Something a step does over the clip, as it was and as it becomes.
 *
 * @param name of it, in a word or two; @param unit of its values
 * @param before a value for each of some frames, evenly spread over the clip; @param after as many
 */
public record StepCurve(String name, String unit, List<Double> before, List<Double> after) {}
