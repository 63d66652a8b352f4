package awlsmith.core.upscale;

import awlsmith.core.motion.Alignment;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;

/**
 * What a net that reads several frames is shown: the frame itself, then its neighbours laid over it, the nearest first, of each
 * distance the earlier one first. Past a clip's ends a neighbour is the nearest frame there is, at last the frame itself.
 */
public final class FramesAround {
    private FramesAround() {}

    /** The neighbours' distances for a number of frames, which is odd: 0, -1, 1, -2, 2 ... */
    public static int distance(int place) {
        return place % 2 == 0 ? place / 2 : -(place + 1) / 2;
    }

    /** Frames before, and as many after, that are read. */
    public static int radius(int frames) {
        return frames / 2;
    }

    /** The part of the pictures that a part of what is shown is made from. */
    public static Region needs(Region part, int frames, int width, int height) {
        return frames == 1 ? part : Alignment.needs(part, width, height);
    }

    /**
     * @param light of the frame at a distance, over hold; the same plane for the same frame
     * @param hold which part of the pictures those planes hold, at least {@link #needs}
     * @param width of the whole picture, @param height of it
     * @return planes of the part's size; the first is a window, the others are from the pool and the caller's to give back
     */
    public static List<Plane> shown(
            IntFunction<Plane> light,
            Region hold,
            int width,
            int height,
            Region part,
            int frames,
            PlanePool pool,
            Work work) {
        Plane here = light.apply(0);
        Plane window = here.window(part.inside(hold));
        var shown = new ArrayList<Plane>(List.of(window));
        Alignment alignment = null;
        for (int i = 1; i < frames; i++) {
            Plane there = light.apply(distance(i));
            Plane laid = pool.borrow(part.width(), part.height());
            shown.add(laid);
            if (there == here) {
                for (int y = 0; y < part.height(); y++) {
                    System.arraycopy(window.data(), window.row(y), laid.data(), laid.row(y), part.width());
                }
                continue;
            }
            if (alignment == null) {
                alignment = new Alignment(here, hold, width, height, part);
            }
            alignment.lay(there, hold, laid, work);
        }
        return shown;
    }
}
