package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import java.util.Optional;

/**
 * A file whose frames can be pulled. With an index any frame can be reached; without one only from the first on.
 *
 * @param info what the file says
 * @param index when each frame is shown, if it was made
 */
public record Clip(MediaInfo info, Optional<FrameIndex> index) implements FrameSource {

    /** A frame came at a time that does not fit the one rate the file claims; make an index and open the clip again. */
    public static final class Unsteady extends RuntimeException {
        Unsteady(long frame) {
            super("frame " + frame + " does not keep the clip's rate");
        }
    }

    public static Clip streamed(MediaInfo info) {
        return new Clip(info, Optional.empty());
    }

    @Override
    public Format format() {
        return info.video().format();
    }

    /** The one rate of the clip, or empty when its frames come unevenly. */
    public Optional<Rational> steadyRate() {
        if (index.isPresent()) {
            return index.get().steadyRate(info.video().rate());
        }
        return info.video().steady() ? Optional.of(info.video().rate()) : Optional.empty();
    }

    /** Seconds from the first frame to frame n. */
    public Rational time(long n) {
        return steadyRate()
                .map(rate -> Rational.of(n).dividedBy(rate))
                .orElseGet(() -> index.orElseThrow().time(n));
    }

    @Override
    public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
        return new Decoding(this, range, window, pool, cancel);
    }
}
