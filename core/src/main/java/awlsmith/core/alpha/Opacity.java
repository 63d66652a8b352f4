package awlsmith.core.alpha;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;

/** Opacity beside each plane of a frame: as it is, or where colour is halved the mean of the pixels of a sample. */
final class Opacity {
    private final Plane full;
    private final Plane small;
    private final PlanePool pool;
    private final Frame frame;

    /** @param frame one with a plane of transparency, whose window begins on whole chroma samples */
    Opacity(Frame frame, PlanePool pool) {
        this.frame = frame;
        this.pool = pool;
        this.full = frame.planes().getLast();
        this.small = frame.format().chroma().isSubsampled() ? reduced() : full;
    }

    Plane at(int p) {
        return p == 0 ? full : small;
    }

    private Plane reduced() {
        var chroma = frame.format().chroma();
        int sx = chroma.stepX();
        int sy = chroma.stepY();
        Plane made = pool.borrow(frame.plane(1).width(), frame.plane(1).height());
        for (int y = 0; y < made.height(); y++) {
            for (int x = 0; x < made.width(); x++) {
                float sum = 0;
                int count = 0;
                for (int j = y * sy; j < Math.min(full.height(), (y + 1) * sy); j++) {
                    for (int i = x * sx; i < Math.min(full.width(), (x + 1) * sx); i++) {
                        sum += full.at(i, j);
                        count++;
                    }
                }
                made.set(x, y, sum / count);
            }
        }
        return made;
    }

    void giveBack() {
        if (small != full) {
            pool.giveBack(small);
        }
    }
}
