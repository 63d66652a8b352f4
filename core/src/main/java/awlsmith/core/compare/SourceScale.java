package awlsmith.core.compare;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;

/**
 * Brings luma of a treated picture back to the grid of the source, each source pixel the mean of what was made of it, so
 * that takes of different sizes can be measured by the same rule.
 */
public final class SourceScale {
    private final Format treated;
    private final Placement place;
    private final int width;
    private final int height;
    private final PlaneResampler resampler;

    /**
     * @param treated format of the treated picture; @param place where the source lies in it
     * @param width of the source picture, @param height of it
     */
    public SourceScale(Format treated, Placement place, int width, int height) {
        this.treated = treated;
        this.place = place;
        this.width = width;
        this.height = height;
        double across = place.width() / width;
        double down = place.height() / height;
        this.resampler = new PlaneResampler(
                TapTable.of(kernel(across), treated.width(), width, across, place.x()),
                TapTable.of(kernel(down), treated.height(), height, down, place.y()));
    }

    private static Kernel kernel(double ratio) {
        return ratio >= 1 ? Kernel.AREA : Kernel.BILINEAR;
    }

    /** Treated pixels to one of the source, the mean of both ways. */
    public double factor() {
        return (place.width() / width + place.height() / height) / 2;
    }

    /** The part of a region of the source that the treated picture still holds; empty width or height when none. */
    public Rect seen(Rect source) {
        double px = place.width() / width;
        double py = place.height() / height;
        int left = (int) Math.ceil(Math.max(source.x(), -place.x() / px) - 1e-9);
        int top = (int) Math.ceil(Math.max(source.y(), -place.y() / py) - 1e-9);
        int right = (int) Math.floor(Math.min(source.x() + source.width(), (treated.width() - place.x()) / px) + 1e-9);
        int bottom =
                (int) Math.floor(Math.min(source.y() + source.height(), (treated.height() - place.y()) / py) + 1e-9);
        left = Math.clamp(left, 0, width);
        top = Math.clamp(top, 0, height);
        return new Rect(left, top, Math.clamp(right, left, width) - left, Math.clamp(bottom, top, height) - top);
    }

    /** A rectangle that may be empty, in source pixels. */
    public record Rect(int x, int y, int width, int height) {
        public boolean isEmpty() {
            return width <= 0 || height <= 0;
        }
    }

    /** The part of the treated picture that a part of the source is compared with, on whole chroma samples. */
    public Region needs(Region source) {
        int left = resampler.across().needsFrom(source.x(), source.right());
        int right = resampler.across().needsTo(source.x(), source.right());
        int top = resampler.down().needsFrom(source.y(), source.bottom());
        int bottom = resampler.down().needsTo(source.y(), source.bottom());
        return new Region(left, top, right - left, bottom - top)
                .aligned(treated.chroma(), treated.width(), treated.height());
    }

    /** @param frame of the treated picture over at least {@link #needs} of the part */
    public Plane luma(Frame frame, Region source, PlanePool pool, Work work) {
        Plane out = pool.borrow(source.width(), source.height());
        resampler.resample(Luma.of(frame), frame.window().x(), frame.window().y(), out, source.x(), source.y(), work);
        return out;
    }
}
