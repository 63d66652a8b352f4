package awlsmith.core.fields;

import awlsmith.core.motion.BetweenFinder;
import awlsmith.core.motion.PictureBetween;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.List;

/** The lines a field lacks as the fields before and after have them, which have the same lines: led along the motion to the time between. */
final class LedLines {
    private static final float HALF = 0.5f;

    private final PictureBetween between;
    private final PictureBetween.Around before;
    private final PictureBetween.Around after;

    /** @param before and after: planes of the other parity's lines alone, of one size */
    LedLines(Plane before, Plane after, Work work) {
        between = new PictureBetween(
                new BetweenFinder(before, after, work).at(HALF), HALF, new float[2], PictureBetween.Doubt.MOTION);
        this.before = PictureBetween.Around.of(List.of(before));
        this.after = PictureBetween.Around.of(List.of(after));
    }

    /** The lines of one parity of a whole plane. */
    static Plane field(Plane whole, int parity) {
        int lines = Math.ceilDiv(whole.height() - parity, 2);
        return new Plane(whole.data(), whole.row(parity), whole.width(), lines, 2 * whole.stride());
    }

    /** @return {@link PictureBetween#led} of these columns and lines */
    List<Plane> over(Region lines, PlanePool pool) {
        return between.led(before, after, 0, lines, pool, Work.alone());
    }
}
