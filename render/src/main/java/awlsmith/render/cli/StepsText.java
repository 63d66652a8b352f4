package awlsmith.render.cli;

import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Preset;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.StepKind;
import awlsmith.core.recipe.StepRegistry;
import java.util.List;
import java.util.TreeMap;

/** Every step and every codec with its keys, what they may be and do: printed from the descriptors the interface uses too. */
final class StepsText {
    private StepsText() {}

    static String all() {
        var text = new StringBuilder();
        for (StepKind kind : StepRegistry.all()) {
            text.append(kind.id()).append(": ").append(kind.purpose()).append('\n');
            params(kind.params(), text);
        }
        return text.toString();
    }

    static String codecs() {
        var text = new StringBuilder();
        for (Codec codec : Codecs.all()) {
            text.append(codec.id())
                    .append(": ")
                    .append(codec.label())
                    .append(", ")
                    .append(codec.purpose());
            text.append("; in ")
                    .append(String.join(
                            ", ",
                            codec.containers().stream().map(Container::label).toList()));
            text.append(codec.isLossless() ? "; lossless" : "")
                    .append(codec.holdsAlpha() ? "; keeps transparency" : "");
            text.append("; up to ").append(codec.largestSide()).append(" pixels on a side\n");
            params(codec.params(), text);
        }
        for (Preset preset : Preset.all()) {
            text.append("--preset ")
                    .append(preset.id())
                    .append(": ")
                    .append(preset.purpose())
                    .append("; ")
                    .append(preset.codec().id());
            new TreeMap<>(preset.settings())
                    .forEach((key, value) ->
                            text.append(' ').append(key).append('=').append(value));
            text.append('\n');
        }
        return text.toString();
    }

    private static void params(List<Param> params, StringBuilder text) {
        for (Param param : params) {
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
}
