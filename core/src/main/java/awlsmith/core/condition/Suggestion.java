package awlsmith.core.condition;

import awlsmith.core.picture.Format;
import awlsmith.core.recipe.Step;
import awlsmith.core.upscale.Models;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A first recipe for a clip, from its condition; nothing that the footage does not need.
 *
 * @param parts in order
 * @param notes what was found that no step can help yet
 */
public record Suggestion(List<Part> parts, List<String> notes) {
    /** @param reason a sentence with the figure it rests on */
    public record Part(Step step, String reason) {}

    public Suggestion {
        parts = List.copyOf(parts);
        notes = List.copyOf(notes);
    }

    public static Suggestion of(Condition condition, Format format) {
        var parts = new ArrayList<Part>();
        parts.add(enlarge(condition, format));
        return new Suggestion(parts, List.of());
    }

    private static Part enlarge(Condition condition, Format format) {
        String model = "photographic";
        String reason = "clean enough to keep every detail";
        Finding noise = condition.finding("noise");
        Finding blocks = condition.finding("blocks");
        if (condition.drawn()) {
            model = "drawn";
            reason = "flat colours with hard edges";
        } else if (noise.isNoticed() || blocks.isNoticed()) {
            model = "worn";
            reason = noise.severity() >= blocks.severity() ? noise.words() : blocks.words();
        }
        Map<String, Object> settings = new LinkedHashMap<>();
        settings.put("factor", 2.0);
        String chosen = model;
        if (Models.families().stream().anyMatch(card -> card.id().equals(chosen))) {
            settings.put("model", model);
        }
        return new Part(Step.of("enlarge", settings), reason);
    }
}
