package awlsmith.core.picture;

/** How a picture's planes are laid out: which components there are and how the two chroma planes are subsampled. */
public enum Chroma {
    /** One luma plane. */
    GREY(1, 1, 1),
    /** Chroma halved both ways. */
    S420(3, 2, 2),
    /** Chroma halved across. */
    S422(3, 2, 1),
    /** Chroma at full size. */
    S444(3, 1, 1),
    /** Three planes red, green, blue, all full size. */
    RGB(3, 1, 1);

    private final int planes;
    private final int stepX;
    private final int stepY;

    Chroma(int planes, int stepX, int stepY) {
        this.planes = planes;
        this.stepX = stepX;
        this.stepY = stepY;
    }

    /** Planes of colour, 1 or 3; transparency is not among them. */
    public int planes() {
        return planes;
    }

    /** Luma pixels to one chroma sample across, 1 or 2. */
    public int stepX() {
        return stepX;
    }

    /** Luma pixels to one chroma sample down, 1 or 2. */
    public int stepY() {
        return stepY;
    }

    /** Luma pixels to one sample of plane p across: 1 for light and for transparency. */
    public int stepX(int p) {
        return isFull(p) ? 1 : stepX;
    }

    /** Luma pixels to one sample of plane p down: 1 for light and for transparency. */
    public int stepY(int p) {
        return isFull(p) ? 1 : stepY;
    }

    /** The first plane, and behind the last of these that of transparency, have a sample for every pixel. */
    private boolean isFull(int p) {
        return p == 0 || p >= planes;
    }

    /** Whether a chroma sample stands for more than one pixel. */
    public boolean isSubsampled() {
        return stepX * stepY > 1;
    }

    /** True when plane p holds colour differences (nominally -0.5..0.5) and not light (0..1). */
    public boolean isDifference(int p) {
        return p > 0 && p < planes && this != RGB;
    }

    /** Samples across of plane p for a picture this many luma pixels wide; a half pixel counts as a whole. */
    public int planeWidth(int p, int width) {
        return isFull(p) ? width : (width + stepX - 1) / stepX;
    }

    /** Samples down of plane p for a picture this many luma pixels high. */
    public int planeHeight(int p, int height) {
        return isFull(p) ? height : (height + stepY - 1) / stepY;
    }

    /** A region of luma pixels, on whole chroma samples, in plane p's own samples. */
    public Region own(int p, Region region) {
        return new Region(
                region.x() / stepX(p),
                region.y() / stepY(p),
                planeWidth(p, region.width()),
                planeHeight(p, region.height()));
    }

    /** The luma pixels that a region of plane p stands for, as far as a picture of the given size goes. */
    public Region luma(int p, Region own, int width, int height) {
        int left = own.x() * stepX(p);
        int top = own.y() * stepY(p);
        return new Region(
                left,
                top,
                Math.min(width, own.right() * stepX(p)) - left,
                Math.min(height, own.bottom() * stepY(p)) - top);
    }
}
