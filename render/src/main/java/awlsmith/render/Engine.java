package awlsmith.render;

/** What makes the pixels, as a whole. */
public final class Engine {
    /** Raised whenever the same request gives other pixels than before, so that parts of two kinds never end in one file. */
    static final int PIXELS = 3;

    public static final String VERSION = "0.1.0";

    private Engine() {}
}
