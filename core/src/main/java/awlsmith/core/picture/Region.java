package awlsmith.core.picture;

/** A rectangle of luma pixels inside a picture: left edge x, top edge y, both counted from the top left from 0. */
public record Region(int x, int y, int width, int height) {
    public Region {
        if (x < 0 || y < 0 || width < 1 || height < 1) {
            throw new IllegalArgumentException("region is " + width + "x" + height + " at " + x + "," + y
                    + ", must start at 0,0 or later and be at least 1x1");
        }
    }

    /** All of a picture of this size. */
    public static Region whole(int width, int height) {
        return new Region(0, 0, width, height);
    }

    /** The first column behind it. */
    public int right() {
        return x + width;
    }

    /** The first row below it. */
    public int bottom() {
        return y + height;
    }

    /** Pixels in it. */
    public long area() {
        return (long) width * height;
    }

    /** Whether all of another lies in it. */
    public boolean contains(Region other) {
        return other.x >= x && other.y >= y && other.right() <= right() && other.bottom() <= bottom();
    }

    /** The smallest region that holds this one and another. */
    public Region around(Region other) {
        int left = Math.min(x, other.x);
        int top = Math.min(y, other.y);
        return new Region(left, top, Math.max(right(), other.right()) - left, Math.max(bottom(), other.bottom()) - top);
    }

    /** So much larger on every side, as far as a picture of the given size goes. */
    public Region grown(int by, int pictureWidth, int pictureHeight) {
        int left = Math.max(0, x - by);
        int top = Math.max(0, y - by);
        return new Region(
                left, top, Math.min(pictureWidth, right() + by) - left, Math.min(pictureHeight, bottom() + by) - top);
    }

    /** This region as seen from the corner of one that holds it. */
    public Region inside(Region whole) {
        return new Region(x - whole.x, y - whole.y, width, height);
    }

    /** This region cut to a picture of the given size; the region must touch the picture. */
    public Region within(int pictureWidth, int pictureHeight) {
        int left = Math.min(x, pictureWidth - 1);
        int top = Math.min(y, pictureHeight - 1);
        int r = Math.min(right(), pictureWidth);
        int b = Math.min(bottom(), pictureHeight);
        return new Region(left, top, Math.max(1, r - left), Math.max(1, b - top));
    }

    /** Grown outward to whole chroma samples, cut to the picture. */
    public Region aligned(Chroma chroma, int pictureWidth, int pictureHeight) {
        int left = x & -chroma.stepX();
        int top = y & -chroma.stepY();
        int r = Math.min(pictureWidth, (right() + chroma.stepX() - 1) & -chroma.stepX());
        int b = Math.min(pictureHeight, (bottom() + chroma.stepY() - 1) & -chroma.stepY());
        return new Region(left, top, r - left, b - top);
    }

    @Override
    public String toString() {
        return width + "x" + height + "+" + x + "+" + y;
    }
}
