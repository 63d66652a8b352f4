package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * Black bars beside the picture. A row or column belongs to a bar while its mean stays below a limit, as FFmpeg's
 * cropdetect has it.
 *
 * @param left columns, @param top rows, @param right columns, @param bottom rows of black
 */
public record Borders(int left, int top, int right, int bottom) {
    public static final Borders NONE = new Borders(0, 0, 0, 0);

    /** 8 of 219 steps above black. */
    private static final double LIMIT = 8.0 / 219;
    /** A bar is even but for what compression leaves: 2.5 of 219 in the mean. Dark footage is not. */
    private static final double UNEVEN = 2.5 / 219;

    /** Whether the picture reaches every edge. */
    public boolean isNone() {
        return left + top + right + bottom == 0;
    }

    /** What is black in both. */
    public Borders common(Borders other) {
        return new Borders(
                Math.min(left, other.left),
                Math.min(top, other.top),
                Math.min(right, other.right),
                Math.min(bottom, other.bottom));
    }

    /** Empty (all of a side) for an all black picture: then nothing can be said. */
    public static java.util.Optional<Borders> of(Plane luma) {
        int top = 0;
        while (top < luma.height() && row(luma, top) < LIMIT) {
            top++;
        }
        if (top == luma.height()) {
            return java.util.Optional.empty();
        }
        int bottom = 0;
        while (row(luma, luma.height() - 1 - bottom) < LIMIT) {
            bottom++;
        }
        int left = 0;
        while (left < luma.width() && column(luma, left) < LIMIT) {
            left++;
        }
        int right = 0;
        while (left + right < luma.width() && column(luma, luma.width() - 1 - right) < LIMIT) {
            right++;
        }
        return java.util.Optional.of(new Borders(left, top, right, bottom));
    }

    private static double row(Plane luma, int y) {
        return line(luma, luma.row(y), 1, luma.width());
    }

    private static double column(Plane luma, int x) {
        return line(luma, luma.row(0) + x, luma.stride(), luma.height());
    }

    /** The mean of a row or column, or more than any bar has where it is too uneven for one. */
    private static double line(Plane luma, int from, int step, int length) {
        float[] d = luma.data();
        double sum = 0;
        for (int i = 0; i < length; i++) {
            sum += d[from + i * step];
        }
        double mean = sum / length;
        double uneven = 0;
        for (int i = 0; i < length; i++) {
            uneven += Math.abs(d[from + i * step] - mean);
        }
        return uneven / length > UNEVEN ? 1 : mean;
    }
}
