package awlsmith.core.picture;

/**
 * The line between code values of a file and the floats we compute with: {@code value = (code - zero) / span}.
 *
 * <p>Source: ITU-R BT.601-7, BT.709-6 and BT.2020-2 (limited: luma {@code 219 * 2^(n-8)} steps from {@code 16 *
 * 2^(n-8)}, colour differences {@code 224 * 2^(n-8)} steps around {@code 2^(n-1)}); full range as ITU-T H.273
 * (VideoFullRangeFlag 1: {@code 2^n - 1} steps).
 *
 * @param zero code value of 0.0
 * @param span code values from 0.0 to 1.0
 * @param top largest code value, {@code 2^n - 1}
 */
public record CodeScale(float zero, float span, int top) {

    /** @param difference whether of colour differences; @param depth bits, 8..16 */
    public static CodeScale of(ColourTags.Range range, boolean difference, int depth) {
        int top = (1 << depth) - 1;
        float step = 1 << (depth - 8);
        if (range == ColourTags.Range.FULL) {
            return new CodeScale(difference ? 1 << (depth - 1) : 0, top, top);
        }
        return difference
                ? new CodeScale(1 << (depth - 1), 224 * step, top)
                : new CodeScale(16 * step, 219 * step, top);
    }

    /** The scale of plane p of pictures in this format. */
    public static CodeScale of(Format format, int p) {
        Chroma chroma = format.chroma();
        if (p >= chroma.planes()) {
            // transparency uses all codes whatever colour does (FFmpeg's pixel formats; ITU-T H.264, 7.4.2.1.2)
            return of(ColourTags.Range.FULL, false, format.depth());
        }
        return of(format.colour().rangeFor(chroma), chroma.isDifference(p), format.depth());
    }

    /** The float that a code stands for. */
    public float value(int code) {
        return (code - zero) * (1 / span);
    }

    /** Nearest code value, held inside 0..top. */
    public int code(double value) {
        return (int) Math.clamp(Math.floor(value * span + zero + 0.5), 0, top);
    }
}
