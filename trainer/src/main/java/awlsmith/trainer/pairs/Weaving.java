package awlsmith.trainer.pairs;

import awlsmith.core.fields.FieldsAround;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import java.util.List;

/** Fields around one that lacks every other line, and the lines it lacks. The rival is the rule that fills them without a net. */
public final class Weaving implements Pair {
    private final List<Plane> shown;
    private final Plane lacking;

    /**
     * @param previous three woven frames of one size, luma 0..1; of the middle one the first field is to be filled up
     * @param parity 0 when first fields have the upper lines
     * @param truth the whole picture at the time of that field
     */
    public Weaving(Plane previous, Plane middle, Plane next, int parity, Plane truth) {
        int lines = truth.height() / 2;
        var all = new Region(0, 0, truth.width(), lines);
        shown = FieldsAround.ofFirst(previous, middle, next, parity).seen(all, new PlanePool(0));
        lacking = Plane.of(truth.width(), lines);
        for (int line = 0; line < lines; line++) {
            System.arraycopy(
                    truth.data(), truth.row(2 * line + 1 - parity), lacking.data(), lacking.row(line), truth.width());
        }
    }

    @Override
    public List<Plane> shown() {
        return shown;
    }

    @Override
    public Plane sharp() {
        return lacking;
    }

    @Override
    public Plane plain(Region part) {
        Plane window = shown.getFirst().window(part);
        return new Plane(window.packed(), 0, part.width(), part.height(), part.width());
    }

    @Override
    public Plane rival() {
        return plain(new Region(0, 0, width(), height()));
    }

    @Override
    public boolean turns() {
        return false;
    }
}
