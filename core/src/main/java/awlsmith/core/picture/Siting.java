package awlsmith.core.picture;

/**
 * Where a subsampled chroma sample lies against the luma grid, as an offset in luma pixels from the centre of the first
 * luma pixel of its group. Files name six places (ITU-T H.273, ChromaSampleLocType, and H.264 figure E-1); a picture that was
 * turned or mirrored may have its samples in others, which no file can tell.
 *
 * @param across luma pixels to the right
 * @param down luma pixels down
 */
public record Siting(double across, double down) {
    /** Type 0: on the left luma column, half way down (MPEG-2, H.264, H.265 by default). */
    public static final Siting LEFT = new Siting(0, 0.5);
    /** Type 1: in the middle of the group (MPEG-1, JPEG). */
    public static final Siting CENTRE = new Siting(0.5, 0.5);
    /** Type 2: on the top left luma pixel (BT.2020). */
    public static final Siting TOP_LEFT = new Siting(0, 0);
    /** Type 3. */
    public static final Siting TOP = new Siting(0.5, 0);
    /** Type 4. */
    public static final Siting BOTTOM_LEFT = new Siting(0, 1);
    /** Type 5. */
    public static final Siting BOTTOM = new Siting(0.5, 1);

    public Siting {
        // -0 and 0 are one place, but not equal as record components
        across += 0.0;
        down += 0.0;
    }

    /** Offset right in luma pixels for a plane with this subsampling step; 0 when not subsampled that way. */
    public double across(int stepX) {
        return stepX == 1 ? 0 : across;
    }

    /** Offset down in luma pixels for a plane with this subsampling step. */
    public double down(int stepY) {
        return stepY == 1 ? 0 : down;
    }

    /** Whether chroma laid out so lies in the same place in both. */
    public boolean isSame(Siting other, Chroma chroma) {
        return across(chroma.stepX()) == other.across(chroma.stepX())
                && down(chroma.stepY()) == other.down(chroma.stepY());
    }

    /** Left becomes right in a picture so wide. */
    public Siting mirroredAcross(Chroma chroma, int width) {
        return chroma.stepX() == 1 ? this : new Siting(mirrored(across, chroma.stepX(), width), down);
    }

    /** Top becomes bottom in a picture so high. */
    public Siting mirroredDown(Chroma chroma, int height) {
        return chroma.stepY() == 1 ? this : new Siting(across, mirrored(down, chroma.stepY(), height));
    }

    /** Rows become columns; only where chroma is halved both ways or not at all. */
    public Siting transposed() {
        return new Siting(down, across);
    }

    /** A picture turned clockwise; its width and height before. */
    public Siting turned(int quarters, Chroma chroma, int width, int height) {
        return switch (quarters & 3) {
            case 0 -> this;
            // a quarter clockwise: rows become columns, then left and right change places
            case 1 -> chroma.isSubsampled() ? mirroredDown(chroma, height).transposed() : this;
            case 2 -> mirroredAcross(chroma, width).mirroredDown(chroma, height);
            default -> chroma.isSubsampled() ? mirroredAcross(chroma, width).transposed() : this;
        };
    }

    /** The last sample becomes the first: an odd side gives it half a group of its own. */
    private static double mirrored(double offset, int step, int side) {
        int samples = Math.ceilDiv(side, step);
        return side - 1 - step * (samples - 1) - offset;
    }
}
