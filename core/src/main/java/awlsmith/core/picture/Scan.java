package awlsmith.core.picture;

/** How the lines of a picture were taken. */
public enum Scan {
    /** All at one moment. */
    PROGRESSIVE,
    /** Every second line at one moment, the others half a frame later; the uppermost line belongs to the first. */
    TOP_FIRST,
    /** The same, the uppermost line belonging to the second. */
    BOTTOM_FIRST;

    /** Whether every second line was taken at another time. */
    public boolean isInterlaced() {
        return this != PROGRESSIVE;
    }
}
