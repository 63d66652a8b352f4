package awlsmith.core.model;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.List;

/**
 * Adds what a net gives to the light of a picture: to luma, or to red, green and blue alike, which changes luma by the same amount. Works in
 * tiles that overlap by the model's reach, so that no seam can be and memory does not grow with the picture.
 */
public final class Correction {
    /** Within this beyond black and white excursions are kept; ringing beyond is cut. */
    private static final float LEAST = -0.5f;

    private static final float MOST = 1.5f;
    /** Beyond black and white, within this a picture's own size is corrected less and less. */
    private static final float ROOM = 0.12f;

    private final ModelCard card;
    private final NetRunner net;
    private final float strength;
    private final int width;
    private final int height;

    /**
     * @param strength share of the correction that is added: 0 leaves the plain result, 1 is what was learned
     * @param width of the picture that the net is shown; @param height of it
     */
    public Correction(ModelCard card, NetRunner net, double strength, int width, int height) {
        this.card = card;
        this.net = net;
        this.strength = (float) strength;
        this.width = width;
        this.height = height;
    }

    /** A part with the model's reach around it, on the grid of the model's step, so that every part has the same grid. */
    public Region around(Region part) {
        int by = card.reach();
        int step = card.step();
        int x = Math.max(0, part.x() - by) / step * step;
        int y = Math.max(0, part.y() - by) / step * step;
        int right = Math.min(width, Math.ceilDiv(part.right() + by, step) * step);
        int bottom = Math.min(height, Math.ceilDiv(part.bottom() + by, step) * step);
        return new Region(x, y, right - x, bottom - y);
    }

    /** Bytes that one thread needs for a tile. */
    public long bytes() {
        int reach = 2 * card.reach();
        return net.bytes(Math.min(width, Tiles.SIDE + reach), Math.min(height, Tiles.SIDE + reach));
    }

    /**
     * @param shown what the net reads, over held
     * @param held at least what is {@link #around} part
     * @param part that is corrected, of the picture shown
     * @param out gets it, factor times as large
     */
    public void add(List<Plane> shown, Region held, Region part, Frame out, PlanePool pool, Work work) {
        List<Region> tiles = Tiles.of(part, card.reach(), work.threads());
        work.bands(tiles.size(), 1, (from, to) -> {
            for (int i = from; i < to; i++) {
                work.cancel().check();
                add(tiles.get(i), shown, held, out, pool);
            }
        });
    }

    private void add(Region tile, List<Plane> shown, Region held, Frame out, PlanePool pool) {
        int factor = card.factor();
        Region seen = around(tile);
        Region window = seen.inside(held);
        Plane correction = pool.borrow(seen.width() * factor, seen.height() * factor);
        try {
            net.run(shown.stream().map(plane -> plane.window(window)).toList(), correction);
            Region wanted = out.window();
            int left = Math.max(tile.x() * factor, wanted.x());
            int right = Math.min(tile.right() * factor, wanted.right());
            int top = Math.max(tile.y() * factor, wanted.y());
            int bottom = Math.min(tile.bottom() * factor, wanted.bottom());
            int planes = out.format().chroma() == Chroma.RGB ? 3 : 1;
            for (int p = 0; p < planes; p++) {
                Plane to = out.plane(p);
                for (int y = top; y < bottom; y++) {
                    add(
                            correction.data(),
                            correction.row(y - seen.y() * factor) + left - seen.x() * factor,
                            to.data(),
                            to.row(y - wanted.y()) + left - wanted.x(),
                            right - left);
                }
            }
        } finally {
            pool.giveBack(correction);
        }
    }

    private void add(float[] correction, int from, float[] to, int at, int count) {
        if (card.factor() == 1) {
            addWithin(correction, from, to, at, count);
            return;
        }
        for (int i = 0; i < count; i++) {
            to[at + i] = Math.min(MOST, Math.max(LEAST, to[at + i] + strength * correction[from + i]));
        }
    }

    /** Of light far beyond black and white a net learned nothing: there the plain result stays. */
    private void addWithin(float[] correction, int from, float[] to, int at, int count) {
        for (int i = 0; i < count; i++) {
            float light = to[at + i];
            float beyond = Math.max(-light, light - 1);
            float share = strength * Math.min(1, Math.max(0, 1 - beyond * (1 / ROOM)));
            to[at + i] = light + share * correction[from + i];
        }
    }
}
