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
 * @param container that it stands in
 * @param sound what becomes of it
 */
public record Preset(
        String id,
        String label,
        String purpose,
        Codec codec,
        Map<String, Object> settings,
        Container container,
        Sound sound) {
    private static final List<Preset> ALL = List.of(
            new Preset(
                    "watch",
                    "To watch",
                    "plays nearly everywhere, nothing lost that is seen",
                    Codecs.H264,
                    Map.of(),
                    Container.MP4,
                    Sound.KEPT),
            new Preset(
                    "small",
                    "To send",
                    "small enough to pass on, a little of the finest texture goes",
                    Codecs.H265,
                    Map.of("quality", 26),
                    Container.MP4,
                    Sound.AAC),
            new Preset(
                    "web",
                    "For the web",
                    "every browser plays it, begins before it is all there; 8 bit",
                    Codecs.H264,
                    Map.of("quality", 21, "depth", "8"),
                    Container.MP4,
                    Sound.AAC),
            new Preset(
                    "edit",
                    "To cut",
                    "every picture stands for itself, 10 bit; large",
                    Codecs.PRORES,
                    Map.of(),
                    Container.MOV,
                    Sound.PCM),
            new Preset(
                    "keep",
                    "To keep",
                    "every sample as it was made; the largest",
                    Codecs.FFV1,
                    Map.of(),
                    Container.MKV,
                    Sound.KEPT),
            new Preset(
                    "stills",
                    "Stills",
                    "every frame as a picture without loss, in one archive",
                    Codecs.byId("png"),
                    Map.of(),
                    Container.ZIP,
                    Sound.NONE));

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

    /** What it sends out. */
    public Deliverable deliverable() {
        return Deliverable.of(codec.id(), settings, java.util.Optional.of(container), sound);
    }
}
