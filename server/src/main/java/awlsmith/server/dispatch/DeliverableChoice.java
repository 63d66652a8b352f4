package awlsmith.server.dispatch;

import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Sound;
import awlsmith.core.plan.Tags;
import awlsmith.render.FileNames;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What to send out, as it is asked for.
 *
 * @param settings of the codec, as its description has them; what is not given is its own choice
 * @param container by its ending; null for the codec's usual one
 * @param sound what becomes of it; see {@link Sound}
 * @param subtitles what becomes of them, attached where nothing is said; see {@link awlsmith.core.plan.Subtitles}
 * @param tags what the file says of itself, as {@link Tags} has them; names' words in braces stand for what they do there
 */
public record DeliverableChoice(
        String codec,
        Map<String, Object> settings,
        @Nullable String container,
        String sound,
        @Nullable Map<String, String> tags,
        @Nullable String subtitles) {
    public Deliverable deliverable() {
        var tree = new LinkedHashMap<String, Object>();
        tree.put("codec", codec);
        tree.put("settings", settings);
        if (container != null) {
            tree.put("container", container);
        }
        // scripts of before say true or false
        tree.put("sound", sound.equals("true") ? "kept" : sound.equals("false") ? "none" : sound);
        if (tags != null) {
            tree.put("tags", tags);
        }
        if (subtitles != null) {
            tree.put("subtitles", subtitles);
        }
        Deliverable deliverable = Deliverable.fromTree(tree);
        FileNames.check(deliverable.tags());
        return deliverable;
    }
}
