package awlsmith.server.peeks;

import awlsmith.render.Peeks;

/**
 * The small pictures of a clip as the screens see them.
 *
 * @param count 0 while there are none
 * @param every frames from one to the next
 * @param progress of making them, 0..1
 * @param coming whether there will be some
 */
record PeeksView(int count, int every, int width, int height, double progress, boolean coming) {
    static PeeksView of(Peeks peeks) {
        return new PeeksView(peeks.count(), peeks.every(), peeks.width(), peeks.height(), 1, false);
    }

    static PeeksView none(double progress, boolean coming) {
        return new PeeksView(0, 1, 0, 0, progress, coming);
    }
}
