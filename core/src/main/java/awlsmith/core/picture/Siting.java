package awlsmith.core.picture;

/**
 * Where a subsampled chroma sample lies against the luma grid, as an offset in luma pixels from the centre of the first
 * luma pixel of its group. Source: ITU-T H.273 (ChromaSampleLocType) and H.264 figure E-1.
 */
public enum Siting {
    /** Type 0: on the left luma column, half way down (MPEG-2, H.264, H.265 by default). */
    LEFT(0, 0.5),
    /** Type 1: in the middle of the group (MPEG-1, JPEG). */
    CENTRE(0.5, 0.5),
    /** Type 2: on the top left luma pixel (BT.2020). */
    TOP_LEFT(0, 0);

    private final double across;
    private final double down;

    Siting(double across, double down) {
        this.across = across;
        this.down = down;
    }

    /** Offset right in luma pixels for a plane with this subsampling step; 0 when not subsampled that way. */
    public double across(int stepX) {
        return stepX == 1 ? 0 : across;
    }

    /** Offset down in luma pixels for a plane with this subsampling step. */
    public double down(int stepY) {
        return stepY == 1 ? 0 : down;
    }
}
