package awlsmith.core.plan;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;

/**
 * Sizes after enlarging. Subsampled pictures get even sides, so that every chroma sample has its full share; the shape
 * as seen never changes: what a size alters about it goes into the sample aspect ratio.
 */
public final class TargetSize {
    private TargetSize() {}

    /** @param factor times wider and higher */
    public static Format byFactor(Format in, double factor) {
        return sized(in, in.width() * factor, in.height() * factor);
    }

    /** Width, height or both; a missing one (0) follows from the picture's shape. */
    public static Format byPixels(Format in, int width, int height) {
        if (width < 1 && height < 1) {
            throw new IllegalArgumentException("neither width nor height is given");
        }
        return sized(
                in,
                width > 0 ? width : (double) in.width() * height / in.height(),
                height > 0 ? height : (double) in.height() * width / in.width());
    }

    /**
     * As large as it goes in a frame without leaving it, as stored and as seen; the shape and its samples stay.
     *
     * @param width of the frame, @param height of the frame
     */
    public static Format inside(Format in, int width, int height) {
        double widest = in.width() * Math.max(1, in.sar().toDouble());
        double scale = Math.min(width / widest, (double) height / in.height());
        // rounding to whole chroma samples must not leave the frame
        int w = within(in.width() * scale, in.chroma().stepX(), width);
        int h = within(in.height() * scale, in.chroma().stepY(), height);
        return in.withSize(w, h, aspect(in, w, h));
    }

    private static int within(double wanted, int step, int most) {
        return Math.max(step, Math.min(side(wanted, step), most / step * step));
    }

    /** Whether a picture is seen higher than wide; a frame for it stands upright too. */
    public static boolean isUpright(Format in) {
        return in.displayAspect().compareTo(Rational.ONE) < 0;
    }

    /**
     * Square samples and the shape as seen: as large as it goes inside a box, or just so large that it covers it.
     *
     * @param width of the box, @param height of the box
     */
    public static Format squareInside(Format in, int width, int height) {
        return square(in, width, height, false);
    }

    /** See {@link #squareInside}. */
    public static Format squareCovering(Format in, int width, int height) {
        return square(in, width, height, true);
    }

    private static Format square(Format in, int width, int height, boolean covering) {
        double seen = in.width() * in.sar().toDouble();
        double across = width / seen;
        double down = (double) height / in.height();
        double scale = covering ? Math.max(across, down) : Math.min(across, down);
        int w = side(seen * scale, in.chroma().stepX());
        int h = side(in.height() * scale, in.chroma().stepY());
        // rounding to whole chroma samples must neither leave the box nor leave a line of it open
        w = covering ? Math.max(w, width) : Math.min(w, width);
        h = covering ? Math.max(h, height) : Math.min(h, height);
        return in.withSize(w, h, Rational.ONE);
    }

    /** The same picture with square samples: as wide as it is seen, or, where samples are narrower than high, as high. */
    public static Format squared(Format in) {
        double sar = in.sar().toDouble();
        int w = sar >= 1 ? side(in.width() * sar, in.chroma().stepX()) : in.width();
        int h = sar >= 1 ? in.height() : side(in.height() / sar, in.chroma().stepY());
        return in.withSize(w, h, Rational.ONE);
    }

    private static Format sized(Format in, double width, double height) {
        int w = side(width, in.chroma().stepX());
        int h = side(height, in.chroma().stepY());
        return in.withSize(w, h, aspect(in, w, h));
    }

    private static int side(double wanted, int step) {
        long rounded = Math.round(wanted / step) * step;
        return (int) Math.clamp(rounded, step, Integer.MAX_VALUE / 2);
    }

    /** Keeps the shape as seen; a difference of under one pixel is rounding and leaves the ratio alone. */
    private static Rational aspect(Format in, int w, int h) {
        double drawn = (double) in.width() * h / in.height();
        double tolerance = in.chroma() == Chroma.S420 || in.chroma() == Chroma.S422 ? 2 : 1;
        if (Math.abs(drawn - w) <= tolerance) {
            return in.sar();
        }
        return in.sar().times(new Rational((long) in.width() * h, (long) in.height() * w));
    }
}
