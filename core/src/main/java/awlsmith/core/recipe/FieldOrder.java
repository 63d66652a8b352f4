package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Scan;
import java.util.List;

/** Which field comes first, as steps ask it. */
final class FieldOrder {
    private FieldOrder() {}

    /** @param effect what a wrong answer does */
    static Param.Choice param(String effect) {
        return new Param.Choice(
                "order",
                "Field order",
                List.of(
                        new Param.Choice.Option("file", "As the file says", "what is written in the file"),
                        new Param.Choice.Option("top", "Top first", "the upper line belongs to the first field"),
                        new Param.Choice.Option(
                                "bottom", "Bottom first", "the upper line belongs to the second field")),
                "file",
                effect);
    }

    /** The order chosen; progressive where the file is asked and says that frames are whole. */
    static Scan of(Settings settings, Param.Choice param, Format input) {
        return switch (settings.choice(param).orElseThrow()) {
            case "top" -> Scan.TOP_FIRST;
            case "bottom" -> Scan.BOTTOM_FIRST;
            default -> input.scan();
        };
    }
}
