package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.upscale.FramesAround;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/** Pairs of a scene whose net is shown a frame with its neighbours laid upon it, as it will be when footage is enlarged. */
final class Around {
    private static final int[] USED = {2, 4, 6};

    private Around() {}

    /**
     * @param small frames of the scene as they came
     * @param truth of each
     * @param frames that the net is shown, odd
     */
    static List<Pair> enlarging(List<Plane> small, List<Plane> truth, int frames, int factor, SplittableRandom random) {
        // a still, or a clip that begins or ends here
        double ends = random.nextDouble();
        int first = ends < 0.1 || ends > 0.95 ? 0 : -frames;
        int last = ends < 0.15 ? 0 : frames;
        var pairs = new ArrayList<Pair>();
        for (int n : USED) {
            pairs.add(new Enlarging(shown(small, n, first, last, frames), truth.get(n), factor));
        }
        return pairs;
    }

    private static List<Plane> shown(List<Plane> small, int now, int first, int last, int frames) {
        Plane here = small.get(now);
        Region all = Region.whole(here.width(), here.height());
        return FramesAround.shown(
                distance -> small.get(now + Math.clamp(distance, first, last)),
                all,
                all.width(),
                all.height(),
                all,
                frames,
                new PlanePool(0),
                Work.alone());
    }
}
