package awlsmith.core.detail;

import awlsmith.core.motion.Flow;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;

/**
 * What an open shutter makes of a picture that moves: each sample becomes the mean along the way it goes while the shutter is open, the moment of the
 * picture in its middle. Each sample has a way of its own.
 */
final class Smear {
    private static final int BAND = 16;
    /** Half ways shorter than this, samples, smear nothing. */
    private static final float NOTHING = 0.2f;

    /** Half the way, samples right and down, as large as the picture. */
    private final Plane right;

    private final Plane down;

    /** @param right and down: half the way each sample goes while the shutter is open */
    Smear(Plane right, Plane down) {
        this.right = right;
        this.down = down;
    }

    /** @param out as large as in */
    void of(Plane in, Plane out, Work work) {
        work.bands(in.height(), BAND, (first, end) -> {
            work.cancel().check();
            for (int y = first; y < end; y++) {
                for (int x = 0; x < in.width(); x++) {
                    out.set(x, y, at(in, x, y));
                }
            }
        });
    }

    /** By the trapezoidal rule, a place for each sample of the way and two at least. */
    private float at(Plane in, int x, int y) {
        float dx = right.at(x, y);
        float dy = down.at(x, y);
        float half = (float) Math.sqrt(dx * dx + dy * dy);
        if (half < NOTHING) {
            return in.at(x, y);
        }
        int steps = Math.max(1, (int) Math.ceil(half));
        float sum = in.at(x, y);
        for (int k = 1; k <= steps; k++) {
            float t = (float) k / steps;
            float u = t * dx;
            float v = t * dy;
            float both = Flow.sample(in, x + u, y + v) + Flow.sample(in, x - u, y - v);
            sum += k == steps ? both / 2 : both;
        }
        return sum / (2 * steps);
    }
}
