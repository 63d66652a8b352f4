package awlsmith.core.colour;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;

/**
 * A frame as eight-bit R'G'B' for a screen. Values keep their own transfer curve: the screen is taken to show the
 * video's (common practice, no source). Chroma is brought to full size bilinearly, in its right place. What is clear lies over
 * a chequered board.
 *
 * @param rgb three bytes a pixel, red first, rows without gaps
 */
public record ScreenPicture(int width, int height, byte[] rgb) {

    /**
     * @param frame the part to show, widened by one chroma sample where there is one; see {@link #needs}
     * @param part what to show, inside the frame's window
     * @param reduce shows one pixel for the mean of reduce x reduce; 1 shows every pixel
     */
    public static ScreenPicture of(Frame frame, Region part, int reduce, PlanePool pool, Work work) {
        return of(frame, part, reduce, false, pool, work);
    }

    /**
     * @param marked paints what lies beyond black or white in colours of its own: code values below 16 or above 235 of
     *     8-bit video (ITU-R BT.601-7 section 2.5.3, BT.709-6 item 4.6)
     */
    public static ScreenPicture of(Frame frame, Region part, int reduce, boolean marked, PlanePool pool, Work work) {
        if (reduce < 1) {
            throw new IllegalArgumentException("reduce is " + reduce + ", must be at least 1");
        }
        Format format = frame.format();
        var full = new Plane[3];
        var lent = new Plane[3];
        for (int p = 0; p < format.chroma().planes(); p++) {
            if (p == 0 || !format.chroma().isSubsampled()) {
                full[p] = frame.plane(p)
                        .window(new Region(
                                part.x() - frame.window().x(),
                                part.y() - frame.window().y(),
                                part.width(),
                                part.height()));
            } else {
                full[p] = lent[p] = atFullSize(frame, p, part, pool, work);
            }
        }
        int width = (part.width() + reduce - 1) / reduce;
        int height = (part.height() + reduce - 1) / reduce;
        byte[] rgb = new byte[Math.multiplyExact(3 * width, height)];
        var mix = Mix.of(format, marked);
        var clear = format.alpha().isThere() ? Clear.of(frame, part) : null;
        work.bands(height, 16, (from, to) -> {
            for (int y = from; y < to; y++) {
                for (int x = 0; x < width; x++) {
                    mix.pixel(full, x * reduce, y * reduce, reduce, rgb, 3 * (y * width + x));
                    if (clear != null) {
                        clear.lay(x * reduce, y * reduce, reduce, rgb, 3 * (y * width + x));
                    }
                }
            }
        });
        for (Plane plane : lent) {
            if (plane != null) {
                pool.giveBack(plane);
            }
        }
        return new ScreenPicture(width, height, rgb);
    }

    /** The part of a picture that must be in the frame for showing this part of it. */
    public static Region needs(Format format, Region part) {
        if (!format.chroma().isSubsampled()) {
            return part;
        }
        int left = Math.max(0, part.x() - 2);
        int top = Math.max(0, part.y() - 2);
        int right = Math.min(format.width(), part.right() + 2);
        int bottom = Math.min(format.height(), part.bottom() + 2);
        return new Region(left, top, right - left, bottom - top)
                .aligned(format.chroma(), format.width(), format.height());
    }

    private static Plane atFullSize(Frame frame, int p, Region part, PlanePool pool, Work work) {
        Format format = frame.format();
        Chroma chroma = format.chroma();
        var resampler = new PlaneResampler(
                fullSize(format.width(), chroma.stepX(), format.siting().across(chroma.stepX())),
                fullSize(format.height(), chroma.stepY(), format.siting().down(chroma.stepY())));
        Plane dst = pool.borrow(part.width(), part.height());
        resampler.resample(
                frame.plane(p),
                frame.window().x() / chroma.stepX(),
                frame.window().y() / chroma.stepY(),
                dst,
                part.x(),
                part.y(),
                work);
        return dst;
    }

    /** Luma pixel i lies at (i - offset) / step in chroma samples. */
    private static TapTable fullSize(int luma, int step, double offset) {
        double ratio = 1.0 / step;
        double atZero = -offset / step;
        return TapTable.of(Kernel.BILINEAR, (luma + step - 1) / step, luma, ratio, atZero - (0.5 * ratio - 0.5));
    }

    /** Lays what is clear over a board of two greys, whose fields are {@value #FIELD} pixels of the picture. */
    private record Clear(Plane opacity, Region part, boolean weighed) {
        private static final int FIELD = 8;
        private static final int LIGHT = 112;
        private static final int DARK = 80;

        static Clear of(Frame frame, Region part) {
            Region held = frame.window();
            return new Clear(
                    frame.planes().getLast().window(part.inside(held)),
                    part,
                    frame.format().alpha() == Alpha.PREMULTIPLIED);
        }

        void lay(int x, int y, int reduce, byte[] rgb, int at) {
            float seen = Math.clamp(Mix.mean(opacity, x, y, reduce), 0f, 1f);
            boolean even = ((part.x() + x) / FIELD + (part.y() + y) / FIELD) % 2 == 0;
            float board = (1 - seen) * (even ? LIGHT : DARK);
            for (int c = 0; c < 3; c++) {
                float own = (rgb[at + c] & 0xff) * (weighed ? 1 : seen);
                rgb[at + c] = (byte) Math.min(255, own + board + 0.5f);
            }
        }
    }

    /** From planes to bytes, one pixel at a time. */
    private record Mix(boolean marked, boolean grey, boolean rgb, float rv, float gu, float gv, float bu) {
        /** Half a code value of 8 bits: what rounds to black or white is not beyond it. */
        private static final float BEYOND = 0.5f / 219;

        static Mix of(Format format, boolean marked) {
            if (format.chroma() == Chroma.GREY) {
                return new Mix(marked, true, false, 0, 0, 0, 0);
            }
            if (format.chroma() == Chroma.RGB) {
                return new Mix(marked, false, true, 0, 0, 0, 0);
            }
            var m = LumaChroma.of(format.colour().matrixFor(format.height()));
            return new Mix(
                    marked, false, false, (float) m.crToR(), (float) m.cbToG(), (float) m.crToG(), (float) m.cbToB());
        }

        void pixel(Plane[] planes, int x, int y, int reduce, byte[] out, int at) {
            float a = mean(planes[0], x, y, reduce);
            if (marked && !rgb && (a < -BEYOND || a > 1 + BEYOND)) {
                boolean below = a < 0;
                out[at] = (byte) (below ? 60 : 255);
                out[at + 1] = (byte) (below ? 90 : 60);
                out[at + 2] = (byte) (below ? 255 : 60);
                return;
            }
            if (grey) {
                out[at] = out[at + 1] = out[at + 2] = toByte(a);
                return;
            }
            float b = mean(planes[1], x, y, reduce);
            float c = mean(planes[2], x, y, reduce);
            out[at] = toByte(rgb ? a : a + rv * c);
            out[at + 1] = toByte(rgb ? b : a - gu * b - gv * c);
            out[at + 2] = toByte(rgb ? c : a + bu * b);
        }

        private static float mean(Plane plane, int x, int y, int reduce) {
            if (reduce == 1) {
                return plane.at(x, y);
            }
            int right = Math.min(x + reduce, plane.width());
            int bottom = Math.min(y + reduce, plane.height());
            float sum = 0;
            for (int j = y; j < bottom; j++) {
                int row = plane.row(j);
                for (int i = x; i < right; i++) {
                    sum += plane.data()[row + i];
                }
            }
            return sum / ((right - x) * (bottom - y));
        }

        private static byte toByte(float value) {
            return (byte) (Math.clamp(value, 0f, 1f) * 255 + 0.5f);
        }
    }
}
