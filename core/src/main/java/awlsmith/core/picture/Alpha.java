package awlsmith.core.picture;

/** How a picture tells transparency: by a last plane of its own, 0 where it is clear and 1 where it is opaque. */
public enum Alpha {
    /** Opaque; there is no such plane. */
    NONE,
    /** Colour is what it would be if opaque; where the picture is clear it means nothing. */
    STRAIGHT,
    /**
     * Colour is already weighed by opacity, black where the picture is clear. Source: T. Porter and T. Duff, "Compositing digital
     * images", SIGGRAPH 1984.
     */
    PREMULTIPLIED;

    /** Whether there is a plane that tells transparency. */
    public boolean isThere() {
        return this != NONE;
    }
}
