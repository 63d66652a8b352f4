package awlsmith.core.plan;

import java.util.Arrays;
import java.util.Locale;

/** What becomes of the source's subtitles in a file to send out. */
public enum Subtitles {
    ATTACHED("go along", "whoever looks can switch them on and off"),
    BURNT("drawn in", "the first track, drawn into the pictures for good: seen everywhere"),
    NONE("left out", "the file has none");

    private final String label;
    private final String effect;

    Subtitles(String label, String effect) {
        this.label = label;
        this.effect = effect;
    }

    /** In orders and on the command line. */
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** On the screen. */
    public String label() {
        return label;
    }

    public String effect() {
        return effect;
    }

    /** @throws IllegalArgumentException with a sentence when there is none of this name */
    public static Subtitles byId(String id) {
        return Arrays.stream(values())
                .filter(one -> one.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("subtitles is '" + id + "', must be one of "
                        + String.join(
                                ", ", Arrays.stream(values()).map(Subtitles::id).toList())));
    }
}
