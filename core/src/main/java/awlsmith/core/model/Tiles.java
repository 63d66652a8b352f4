package awlsmith.core.model;

import awlsmith.core.picture.Region;
import java.util.ArrayList;
import java.util.List;

/** Cuts pictures into parts that a net is run on one after the other. */
public final class Tiles {
    /** Side of the largest tile if it is square, without its overlap, in input samples: a balance of waste and memory. */
    public static final int SIDE = 400;

    private Tiles() {}

    /**
     * Cuts a part of the picture into tiles of about equal size: of all ways with tiles small enough, the one that is done
     * first when so many threads take one tile after the other. That keeps all of them busy and computes little twice.
     *
     * @param reach samples around a tile that are computed with it
     */
    public static List<Region> of(Region part, int reach, int threads) {
        long least = Long.MAX_VALUE;
        int across = 1;
        int down = 1;
        int most = Math.ceilDiv(Math.max(part.width(), part.height()), SIDE / 4);
        for (int i = 1; i <= Math.min(most, part.width()); i++) {
            for (int j = 1; j <= Math.min(most, part.height()); j++) {
                long width = Math.ceilDiv(part.width(), i);
                long height = Math.ceilDiv(part.height(), j);
                boolean fits = width * height <= (long) SIDE * SIDE;
                long turns = Math.ceilDiv(i * j, threads);
                long time = (width + 2L * reach) * (height + 2L * reach) * turns;
                if (fits && time < least) {
                    least = time;
                    across = i;
                    down = j;
                }
            }
        }
        var tiles = new ArrayList<Region>();
        for (int j = 0; j < down; j++) {
            int y0 = part.y() + part.height() * j / down;
            int y1 = part.y() + part.height() * (j + 1) / down;
            for (int i = 0; i < across; i++) {
                int x0 = part.x() + part.width() * i / across;
                int x1 = part.x() + part.width() * (i + 1) / across;
                tiles.add(new Region(x0, y0, x1 - x0, y1 - y0));
            }
        }
        return tiles;
    }
}
