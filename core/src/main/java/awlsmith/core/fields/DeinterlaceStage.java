package awlsmith.core.fields;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelStage;
import awlsmith.core.model.NetRunner;
import awlsmith.core.model.Tiles;
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
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * Makes whole frames of fields. The lines a field has stay as they are; those it lacks are taken from the fields just before
 * and after as far as nothing moved, and made of the lines above and below where it did (see {@link LineFiller}). A net may
 * then correct those of the light; it sees what moves.
 */
public final class DeinterlaceStage implements ModelStage {
    /** Lines of the picture above and below that a sample may depend on, in planes of halved height too. */
    private static final int REACH = 16;

    /** Within this beyond black and white excursions are kept. */
    private static final float LEAST = -0.5f;

    private static final float MOST = 1.5f;

    private final Format input;
    private final Format output;
    private final boolean topFirst;
    private final boolean everyField;
    private final ModelCard card;
    private final NetRunner net;

    /**
     * @param order which field comes first
     * @param everyField a frame for every field, else for every first field
     */
    public DeinterlaceStage(Format input, Scan order, boolean everyField) {
        this(input, order, everyField, null, null);
    }

    /** @param net reads what {@link FieldsAround#seen} gives; null for none */
    public DeinterlaceStage(Format input, Scan order, boolean everyField, ModelCard card, NetRunner net) {
        if (!order.isInterlaced()) {
            throw new IllegalArgumentException("order is " + order + ", must say which field comes first");
        }
        this.input = input;
        this.output = input.withScan(Scan.PROGRESSIVE);
        this.topFirst = order == Scan.TOP_FIRST;
        this.everyField = everyField;
        this.card = card;
        this.net = net;
    }

    @Override
    public Optional<ModelCard> model() {
        return Optional.ofNullable(card);
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
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(
                new DeinterlaceStage(plane, topFirst ? Scan.TOP_FIRST : Scan.BOTTOM_FIRST, everyField, card, net));
    }

    @Override
    public Region needs(Region wanted) {
        if (net != null) {
            // where things went is told by whole fields
            return input.whole();
        }
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
            boolean corrected = net != null && (p == 0 || input.chroma() == Chroma.RGB);
            LedLines led = corrected ? led(in, second ? 0 : -1, p, 1 - parity, work) : null;
            FieldsAround fields = FieldsAround.of(in, before, here, after, p, parity, led);
            if (corrected) {
                keep(fields, out.plane(p), wanted);
                correct(fields, out.plane(p), wanted, pool, work);
            } else {
                treat(fields, out.plane(p), p, wanted, work);
            }
        }
        return out;
    }

    /** Between the fields of one parity of a frame and the next; at the clip's ends of a frame and itself. */
    private static LedLines led(Neighbours in, int distance, int p, int parity, Work work) {
        Frame from = in.at(distance);
        Frame to = in.at(distance + 1);
        Supplier<LedLines> lines =
                () -> new LedLines(LedLines.field(from.plane(p), parity), LedLines.field(to.plane(p), parity), work);
        return to.number() == from.number() + 1 ? in.remember(distance, "led " + p + " " + parity, lines) : lines.get();
    }

    private void treat(FieldsAround fields, Plane out, int p, Region wanted, Work work) {
        Chroma chroma = input.chroma();
        int sx = chroma.stepX(p);
        int sy = chroma.stepY(p);
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

    /** The lines that the field has. */
    private static void keep(FieldsAround fields, Plane out, Region wanted) {
        FieldWindow here = fields.here();
        for (int row = 0; row < out.height(); row++) {
            int y = wanted.y() + row;
            if (Math.floorMod(y, 2) == here.parity()) {
                int from = here.row(Math.floorDiv(y - here.parity(), 2)) + wanted.x();
                System.arraycopy(here.plane().data(), from, out.data(), out.row(row), out.width());
            }
        }
    }

    /** The lines it lacks, of a plane as large as the picture, with the net's correction. */
    private void correct(FieldsAround fields, Plane out, Region wanted, PlanePool pool, Work work) {
        int parity = fields.before().parity();
        int count = Math.floorDiv(input.height() - 1 - parity, 2) + 1;
        int first = Math.ceilDiv(wanted.y() - parity, 2);
        int end = Math.ceilDiv(wanted.bottom() - parity, 2);
        if (end <= first) {
            return;
        }
        var lines = new Region(wanted.x(), first, wanted.width(), end - first);
        List<Region> tiles = Tiles.of(lines, card.reach(), work.threads());
        work.bands(tiles.size(), 1, (from, to) -> {
            for (int i = from; i < to; i++) {
                work.cancel().check();
                correct(fields, tiles.get(i), count, out, wanted, pool);
            }
        });
    }

    private void correct(FieldsAround fields, Region tile, int count, Plane out, Region wanted, PlanePool pool) {
        int reach = card.reach();
        int x = Math.max(0, tile.x() - reach);
        int y = Math.max(0, tile.y() - reach);
        int right = Math.min(input.width(), tile.right() + reach);
        int bottom = Math.min(count, tile.bottom() + reach);
        var around = new Region(x, y, right - x, bottom - y);
        List<Plane> seen = fields.seen(around, pool);
        Plane correction = pool.borrow(around.width(), around.height());
        net.run(seen, correction);
        Plane made = seen.getFirst();
        for (int line = tile.y(); line < tile.bottom(); line++) {
            int from = made.row(line - y) + tile.x() - x;
            int by = correction.row(line - y) + tile.x() - x;
            int to = out.row(2 * line + fields.before().parity() - wanted.y()) + tile.x() - wanted.x();
            for (int i = 0; i < tile.width(); i++) {
                float value = made.data()[from + i] + correction.data()[by + i];
                out.data()[to + i] = Math.min(MOST, Math.max(LEAST, value));
            }
        }
        seen.forEach(pool::giveBack);
        pool.giveBack(correction);
    }

    /** Fields with their edges around, splines through them, and pictures of half their size and less, of two pairs. */
    @Override
    public long sharedBytes() {
        return net == null ? 0 : 6L * Float.BYTES * input.width() * input.height();
    }

    @Override
    public long workBytes() {
        int side = Tiles.SIDE + (net == null ? 0 : 2 * card.reach());
        return net == null
                ? 0
                : net.bytes(Math.min(input.width(), side), Math.min(input.height() / 2, side))
                        + Float.BYTES * (FieldsAround.SEEN + 1L) * side * side;
    }
}
