package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import java.util.List;

/** What a net is shown, the truth, and the plain result that it adds its correction to. */
public interface Pair {
    /** What the net reads: planes of one size, nominally 0..1. */
    List<Plane> shown();

    /** Width of what is shown. */
    default int width() {
        return shown().getFirst().width();
    }

    default int height() {
        return shown().getFirst().height();
    }

    /** The truth, factor times as wide and high as what is shown. */
    Plane sharp();

    /** The plain result over a part of what is shown, made from all of it. */
    Plane plain(Region part);

    /** What a model's gain is told over, as large as the truth. */
    Plane rival();

    /** Whether it is as good an example after turning it by quarters and mirroring it. */
    boolean turns();
}
