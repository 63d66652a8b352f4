package awlsmith.core.fields;

import awlsmith.core.motion.PictureBetween;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;

/** One plane of the field to be filled up, of the two before and of the two after it. */
public final class FieldsAround {
    /** Planes that {@link #seen} gives. */
    public static final int SEEN = 6 + PictureBetween.LED;

    private final FieldWindow twoBefore;
    private final FieldWindow before;
    private final FieldWindow here;
    private final FieldWindow after;
    private final FieldWindow twoAfter;
    /** Null where no net looks. */
    private final LedLines led;

    private FieldsAround(
            FieldWindow twoBefore,
            FieldWindow before,
            FieldWindow here,
            FieldWindow after,
            FieldWindow twoAfter,
            LedLines led) {
        this.led = led;
        this.twoBefore = twoBefore;
        this.before = before;
        this.here = here;
        this.after = after;
        this.twoAfter = twoAfter;
    }

    /**
     * @param before frame that the field before lies in, @param after frame that the field after lies in
     * @param p number of the plane
     * @param parity of the field to be filled up, 0 for the upper one
     * @param led its missing lines as the motion leads them; null where no net looks
     */
    static FieldsAround of(
            Stage.Neighbours in, Frame before, Frame here, Frame after, int p, int parity, LedLines led) {
        return new FieldsAround(
                FieldWindow.of(in.at(-1), p, parity),
                FieldWindow.of(before, p, 1 - parity),
                FieldWindow.of(here, p, parity),
                FieldWindow.of(after, p, 1 - parity),
                FieldWindow.of(in.at(1), p, parity),
                led);
    }

    /** The first field of the middle one of three whole planes of woven frames; parity is that of the first fields. */
    public static FieldsAround ofFirst(Plane previous, Plane middle, Plane next, int parity) {
        return new FieldsAround(
                new FieldWindow(previous, parity, 0, 0),
                new FieldWindow(previous, 1 - parity, 0, 0),
                new FieldWindow(middle, parity, 0, 0),
                new FieldWindow(middle, 1 - parity, 0, 0),
                new FieldWindow(next, parity, 0, 0),
                new LedLines(LedLines.field(previous, 1 - parity), LedLines.field(middle, 1 - parity), Work.alone()));
    }

    FieldWindow twoBefore() {
        return twoBefore;
    }

    FieldWindow before() {
        return before;
    }

    FieldWindow here() {
        return here;
    }

    FieldWindow after() {
        return after;
    }

    FieldWindow twoAfter() {
        return twoAfter;
    }

    /**
     * What a net reads to correct missing lines: one sample of every plane for each of theirs. First the lines as
     * {@link LineFiller} makes them, then those of the fields before and after, which lie where they lie, then the lines
     * just above them in the field itself, in the one two before and in the one two after, and at last what the motion makes of the fields before and
     * after, see {@link PictureBetween#led}. So it looks the same for upper
     * and lower fields.
     *
     * @param lines columns of the picture, and numbers of missing lines from top to bottom
     * @return {@link #SEEN} planes from the pool, of the region's size
     */
    public List<Plane> seen(Region lines, PlanePool pool) {
        Plane made = pool.borrow(lines.width(), lines.height());
        var filler = new LineFiller(this);
        for (int row = 0; row < lines.height(); row++) {
            filler.fill(lines.y() + row, lines.x(), lines.width(), made.data(), made.row(row));
        }
        var seen = new ArrayList<>(List.of(
                made,
                cut(before, 0, lines, pool),
                cut(after, 0, lines, pool),
                cut(here, before.parity() - 1, lines, pool),
                cut(twoBefore, before.parity() - 1, lines, pool),
                cut(twoAfter, before.parity() - 1, lines, pool)));
        seen.addAll(led.over(lines, pool));
        return seen;
    }

    private static Plane cut(FieldWindow field, int shift, Region lines, PlanePool pool) {
        Plane out = pool.borrow(lines.width(), lines.height());
        for (int row = 0; row < lines.height(); row++) {
            System.arraycopy(
                    field.plane().data(),
                    field.row(lines.y() + row + shift) + lines.x(),
                    out.data(),
                    out.row(row),
                    lines.width());
        }
        return out;
    }
}
