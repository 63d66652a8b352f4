package awlsmith.core.pipeline;

/** Frame numbers from (inclusive) to end (exclusive); {@link #OPEN} means up to the last frame there is. */
public record FrameRange(long from, long end) {
    public static final long OPEN = Long.MAX_VALUE;

    public FrameRange {
        if (from < 0 || end <= from) {
            throw new IllegalArgumentException(
                    "frames " + from + ".." + end + " hold nothing: the first must be 0 or later and below the end");
        }
    }

    /** From the first frame to whatever is the last. */
    public static FrameRange all() {
        return new FrameRange(0, OPEN);
    }

    /** One frame alone. */
    public static FrameRange single(long number) {
        return new FrameRange(number, number + 1);
    }

    /** Whether it goes to the end, wherever that is. */
    public boolean isOpen() {
        return end == OPEN;
    }

    /** Frames in the range; only for a range with an end. */
    public long count() {
        if (isOpen()) {
            throw new IllegalStateException("the range is open, its length is known only to the clip");
        }
        return end - from;
    }

    /** Grown by frames before and after, not below frame 0. */
    public FrameRange widened(int before, int after) {
        return new FrameRange(Math.max(0, from - before), isOpen() ? OPEN : end + after);
    }
}
