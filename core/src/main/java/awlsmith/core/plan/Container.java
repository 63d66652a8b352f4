package awlsmith.core.plan;

import java.util.Optional;

/** What holds pictures, sound and all that goes along in one file. */
public enum Container {
    MP4("mp4", "MP4"),
    MOV("mov", "MOV"),
    MKV("mkv", "MKV");

    private final String ending;
    private final String label;

    Container(String ending, String label) {
        this.ending = ending;
        this.label = label;
    }

    /** Of file names, without its dot. */
    public String ending() {
        return ending;
    }

    /** Name on the screen. */
    public String label() {
        return label;
    }

    /** @param ending of a file's name, in small letters, without its dot */
    public static Optional<Container> byEnding(String ending) {
        for (Container container : values()) {
            if (container.ending.equals(ending)) {
                return Optional.of(container);
            }
        }
        return Optional.empty();
    }
}
