package awlsmith.core.picture;

import java.util.Arrays;

/**
 * One component of a picture: float samples in rows. Luma and RGB are nominally 0 (black) to 1 (white), colour
 * differences -0.5 to 0.5; excursions beyond are kept.
 *
 * <p>Sample (x, y) lies at {@code data()[row(y) + x]}. Rows may be longer than the plane is wide ({@code stride}).
 */
public final class Plane {
    private final float[] data;
    private final int offset;
    private final int width;
    private final int height;
    private final int stride;

    /** A plane over samples that are there already; they are shared. @param offset index of the first; @param stride from row to row */
    public Plane(float[] data, int offset, int width, int height, int stride) {
        if (width < 1 || height < 1 || stride < width || offset < 0) {
            throw new IllegalArgumentException("plane is " + width + "x" + height + " with stride " + stride
                    + " and offset " + offset + ", must be at least 1x1 with stride >= width");
        }
        long end = offset + (long) stride * (height - 1) + width;
        if (end > data.length) {
            throw new IllegalArgumentException(
                    "plane " + width + "x" + height + " ends at " + end + ", its array has " + data.length);
        }
        this.data = data;
        this.offset = offset;
        this.width = width;
        this.height = height;
        this.stride = stride;
    }

    /** A new plane, all 0. */
    public static Plane of(int width, int height) {
        return new Plane(new float[Math.multiplyExact(width, height)], 0, width, height, width);
    }

    /** The samples themselves, with gaps where rows are longer than the plane is wide. */
    public float[] data() {
        return data;
    }

    /** Samples across. */
    public int width() {
        return width;
    }

    /** Samples down. */
    public int height() {
        return height;
    }

    /** Floats from one row to the next. */
    public int stride() {
        return stride;
    }

    /** Index of the first sample of row y. */
    public int row(int y) {
        return offset + y * stride;
    }

    /** One sample; for loops over many take {@link #data} and {@link #row}. */
    public float at(int x, int y) {
        return data[row(y) + x];
    }

    /** Writes one sample. */
    public void set(int x, int y, float value) {
        data[row(y) + x] = value;
    }

    /** A view of part of this plane; it shares the samples. */
    public Plane window(Region part) {
        if (part.right() > width || part.bottom() > height) {
            throw new IllegalArgumentException(
                    "window " + part + " does not lie in a plane of " + width + "x" + height);
        }
        return new Plane(data, row(part.y()) + part.x(), part.width(), part.height(), stride);
    }

    /** The samples without gaps, in a new array. */
    public float[] packed() {
        float[] out = new float[width * height];
        for (int y = 0; y < height; y++) {
            System.arraycopy(data, row(y), out, y * width, width);
        }
        return out;
    }

    /** Writes one value everywhere; returns this plane. */
    public Plane fill(float value) {
        for (int y = 0; y < height; y++) {
            Arrays.fill(data, row(y), row(y) + width, value);
        }
        return this;
    }

    /** Row y becomes that of another plane, as far as this one is wide. */
    public void takeRow(int y, Plane from, int row) {
        System.arraycopy(from.data, from.row(row), data, row(y), width);
    }

    /**
     * Fills an array with row y from column x on; beyond the plane's edges its edge samples go on.
     *
     * @param x may lie left of the plane, as the array may end right of it
     */
    public void rowAround(int y, int x, float[] to) {
        int at = row(y);
        int first = Math.clamp(-(long) x, 0, to.length);
        int end = Math.clamp((long) width - x, first, to.length);
        Arrays.fill(to, 0, first, data[at]);
        if (end > first) {
            System.arraycopy(data, at + x + first, to, first, end - first);
        }
        Arrays.fill(to, end, to.length, data[at + width - 1]);
    }
}
