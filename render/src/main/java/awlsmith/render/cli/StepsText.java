package awlsmith.render.cli;

import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.StepKind;
import awlsmith.core.recipe.StepRegistry;

/** Every step with its keys, what they may be and do: printed from the descriptors the interface uses too. */
final class StepsText {
    private StepsText() {}

    static String all() {
        var text = new StringBuilder();
        for (StepKind kind : StepRegistry.all()) {
            text.append(kind.id()).append(": ").append(kind.purpose()).append('\n');
            for (Param param : kind.params()) {
                text.append("  %-8s %s".formatted(param.key(), param.allowed()));
                if (param.fallback() != null) {
                    text.append("; default ").append(param.fallback());
                }
                text.append("\n           ").append(param.effect()).append('\n');
                if (param instanceof Param.Choice choice) {
                    for (Param.Choice.Option option : choice.options()) {
                        text.append("             %-12s %s%n".formatted(option.id(), option.effect()));
                    }
                }
            }
        }
        return text.toString();
    }
}
