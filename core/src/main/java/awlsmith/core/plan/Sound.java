package awlsmith.core.plan;

import java.util.Locale;

/** What becomes of the source's sound in a file to send out. */
public enum Sound {
    KEPT("as it is", "the very samples, where the container can hold them; else as the container usually has it"),
    AAC("AAC", "plays everywhere; 256 kilobits a second"),
    OPUS("Opus", "smaller at the same sound; 160 kilobits a second"),
    FLAC("FLAC", "every sample, packed"),
    PCM("PCM", "every sample, 24 bit, as cutting programs like it"),
    NONE("none", "the file is silent");

    private final String label;
    private final String effect;

    Sound(String label, String effect) {
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
    public static Sound byId(String id) {
        for (Sound sound : values()) {
            if (sound.id().equals(id)) {
                return sound;
            }
        }
        throw new IllegalArgumentException("sound is '" + id + "', must be one of "
                + String.join(
                        ", ", java.util.Arrays.stream(values()).map(Sound::id).toList()));
    }
}
