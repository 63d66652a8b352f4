package awlsmith.server.steps;

import awlsmith.core.recipe.Param;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One setting of a step or a codec, for the screens' controls.
 *
 * @param kind real, whole, choice, colour, curve, marks, whose options say what 1 and 0 mean, or file, whose unit is the ending of its name
 * @param keyed true where a number may change over time
 */
public record ParamDescription(
        String key,
        String label,
        String kind,
        String unit,
        @Nullable Double min,
        @Nullable Double max,
        @Nullable String fallback,
        String effect,
        List<OptionDescription> options,
        @Nullable Boolean keyed) {

    /** One of the values that a choice has. */
    public record OptionDescription(String id, String label, String effect) {}

    public static ParamDescription of(Param param) {
        String fallback = param.fallback() == null ? null : param.fallback().toString();
        return switch (param) {
            case Param.Real p ->
                new ParamDescription(
                        p.key(),
                        p.label(),
                        "real",
                        p.unit(),
                        p.min(),
                        p.max(),
                        fallback,
                        p.effect(),
                        List.of(),
                        p.keyed() ? true : null);
            case Param.Whole p ->
                new ParamDescription(
                        p.key(),
                        p.label(),
                        "whole",
                        p.unit(),
                        (double) p.min(),
                        (double) p.max(),
                        fallback,
                        p.effect(),
                        List.of(),
                        null);
            case Param.Tint p ->
                new ParamDescription(
                        p.key(), p.label(), "colour", "", null, null, fallback, p.effect(), List.of(), null);
            case Param.Curve p ->
                new ParamDescription(
                        p.key(), p.label(), "curve", "", null, null, fallback, p.effect(), List.of(), null);
            case Param.Marks p ->
                new ParamDescription(
                        p.key(),
                        p.label(),
                        "marks",
                        "",
                        null,
                        null,
                        fallback,
                        p.effect(),
                        List.of(new OptionDescription("1", p.yes(), ""), new OptionDescription("0", p.no(), "")),
                        null);
            case Param.FromFile p ->
                new ParamDescription(
                        p.key(), p.label(), "file", p.ending(), null, null, fallback, p.effect(), List.of(), null);
            case Param.Choice p ->
                new ParamDescription(
                        p.key(),
                        p.label(),
                        "choice",
                        "",
                        null,
                        null,
                        fallback,
                        p.effect(),
                        p.options().stream()
                                .map(o -> new OptionDescription(o.id(), o.label(), o.effect()))
                                .toList(),
                        null);
        };
    }
}
