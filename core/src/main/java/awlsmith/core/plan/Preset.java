package awlsmith.core.plan;

import java.util.List;
import java.util.Map;

/**
 * What to send out, by what it is for. Common practice, no source.
 *
 * @param id in orders on the command line
 * @param label on the screen
 * @param purpose in a few words
 * @param settings of the codec, as they are written
 */
public record Preset(String id, String label, String purpose, Codec codec, Map<String, Object> settings) {
    private static final List<Preset> ALL = List.of(
            new Preset(
                    "watch", "To watch", "plays nearly everywhere, nothing lost that is seen", Codecs.H264, Map.of()),
            new Preset(
                    "small",
                    "To send",
                    "small enough to pass on, a little of the finest texture goes",
                    Codecs.H265,
                    Map.of("quality", 26)),
            new Preset("edit", "To cut", "every picture stands for itself, 10 bit; large", Codecs.PRORES, Map.of()),
            new Preset("keep", "To keep", "every sample as it was made; the largest", Codecs.FFV1, Map.of()));

    public Preset {
        settings = Map.copyOf(settings);
    }

    /** All of them, the one wanted most often first. */
    public static List<Preset> all() {
        return ALL;
    }

    /** @throws IllegalArgumentException with a sentence when there is none of this name */
    public static Preset byId(String id) {
        return ALL.stream()
                .filter(preset -> preset.id.equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("preset is '" + id + "', must be one of "
                        + String.join(", ", ALL.stream().map(Preset::id).toList())));
    }

    /** What it sends out. @param sound whether the source's sound goes along */
    public Deliverable deliverable(boolean sound) {
        return Deliverable.of(codec.id(), settings, sound);
    }
}
