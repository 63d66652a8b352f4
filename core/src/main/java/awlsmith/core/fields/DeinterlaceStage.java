package awlsmith.core.fields;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;

/**
 * Makes whole frames of fields. The lines a field has stay as they are; those it lacks are taken from the fields just before
 * and after as far as nothing moved, and made of the lines above and below where it did (see {@link LineFiller}).
 */
public final class DeinterlaceStage implements Stage {
    /** Lines of the picture above and below that a sample may depend on, in planes of halved height too. */
    private static final int REACH = 16;

    private final Format input;
    private final Format output;
    private final boolean topFirst;
    private final boolean everyField;

    /**
     * @param order which field comes first
     * @param everyField a frame for every field, else for every first field
     */
    public DeinterlaceStage(Format input, Scan order, boolean everyField) {
        if (!order.isInterlaced()) {
            throw new IllegalArgumentException("order is " + order + ", must say which field comes first");
        }
        this.input = input;
        this.output = input.withScan(Scan.PROGRESSIVE);
        this.topFirst = order == Scan.TOP_FIRST;
        this.everyField = everyField;
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public Rational rate() {
        return Rational.of(everyField ? 2 : 1);
    }

    @Override
    public int before() {
        return 1;
    }

    @Override
    public int after() {
        return 1;
    }

    @Override
    public Region needs(Region wanted) {
        // windows begin on a whole pair of chroma lines, so that every plane's window begins with an upper line
        int top = Math.max(0, wanted.y() - REACH) & -4;
        int bottom = Math.min(input.height(), wanted.bottom() + REACH);
        return new Region(wanted.x(), top, wanted.width(), bottom - top)
                .aligned(input.chroma(), input.width(), input.height());
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        boolean second = everyField && Math.floorMod(in.number(), 2L) == 1;
        int parity = topFirst == second ? 1 : 0;
        Frame here = in.at(0);
        Rational time = here.time();
        if (second) {
            Rational next = in.at(1).time();
            Rational step = next.equals(time) ? time.minus(in.at(-1).time()) : next.minus(time);
            time = time.plus(step.dividedBy(Rational.of(2)));
        }
        Frame out = Frame.blank(output, wanted, in.number(), time, pool);
        // the fields around: of the other parity in this frame or its neighbour, of the same parity in the neighbours
        Frame before = second ? here : in.at(-1);
        Frame after = second ? in.at(1) : here;
        for (int p = 0; p < out.planes().size(); p++) {
            treat(new Fields5(in, before, here, after, p, parity), out.plane(p), p, wanted, work);
        }
        return out;
    }

    /** One plane of the field to be filled up and of the two before and after. */
    record Fields5(
            FieldWindow twoBefore, FieldWindow before, FieldWindow here, FieldWindow after, FieldWindow twoAfter) {
        Fields5(Neighbours in, Frame before, Frame here, Frame after, int p, int parity) {
            this(
                    FieldWindow.of(in.at(-1), p, parity),
                    FieldWindow.of(before, p, 1 - parity),
                    FieldWindow.of(here, p, parity),
                    FieldWindow.of(after, p, 1 - parity),
                    FieldWindow.of(in.at(1), p, parity));
        }
    }

    private void treat(Fields5 fields, Plane out, int p, Region wanted, Work work) {
        Chroma chroma = input.chroma();
        int sx = p == 0 ? 1 : chroma.stepX();
        int sy = p == 0 ? 1 : chroma.stepY();
        int left = wanted.x() / sx;
        int top = wanted.y() / sy;
        int parity = fields.here().parity();
        work.bands(out.height(), 16, (from, to) -> {
            var filler = new LineFiller(fields);
            for (int row = from; row < to; row++) {
                int y = top + row;
                if (Math.floorMod(y, 2) == parity) {
                    int source = fields.here().row(Math.floorDiv(y - parity, 2));
                    System.arraycopy(
                            fields.here().plane().data(), source + left, out.data(), out.row(row), out.width());
                } else {
                    filler.fill(Math.floorDiv(y - (1 - parity), 2), left, out.width(), out.data(), out.row(row));
                }
            }
        });
    }
}
