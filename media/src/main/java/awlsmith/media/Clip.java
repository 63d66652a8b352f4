package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.recipe.Material;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A file whose frames can be pulled. With an index any frame can be reached; without one only from the first on.
 *
 * @param info what the file says
 * @param index when each frame is shown, if it was made
 */
public record Clip(MediaInfo info, Optional<FrameIndex> index) implements FrameSource {
    private static final Set<String> UNTIMED = Set.of("avi", "h264", "hevc", "m4v", "mpegvideo", "gif");
    private static final Set<String> STAND_ALONE =
            Set.of("mjpeg", "dvvideo", "huffyuv", "ffvhuff", "ffv1", "rawvideo", "utvideo", "prores", "png", "v210");

    /** A frame came at a time that does not fit the one rate the file claims; make an index and open the clip again. */
    public static final class Unsteady extends RuntimeException {
        Unsteady(long frame) {
            super("frame " + frame + " does not keep the clip's rate");
        }
    }

    public static Clip streamed(MediaInfo info) {
        return new Clip(info, Optional.empty());
    }

    /** Of the pictures, with what untagged colour is taken for: whoever works on the clip takes it for the same. */
    @Override
    public Format format() {
        boolean opaque = index.filter(known -> known.alpha() != FrameIndex.AlphaSeen.CLEAR)
                .isPresent();
        return opaque ? decodedFormat().opaque() : decodedFormat();
    }

    /** Of the raw pictures: with a plane of transparency also where none of them makes any use of it. */
    Format decodedFormat() {
        return isDecodedWithAlpha()
                ? info.video().resolvedClear()
                : info.video().resolved();
    }

    /** Whether transparency is decoded, where the file can hold any: checksums are of what was decoded when the index was made. */
    boolean isDecodedWithAlpha() {
        return index.filter(known -> known.alpha() == FrameIndex.AlphaSeen.NOT_LOOKED_FOR)
                .isEmpty();
    }

    /**
     * Whether a frame has the same time however it is reached. AVI and bare streams carry no times of showing: FFmpeg
     * guesses them from the order, and guesses otherwise after a seek unless every frame stands alone.
     */
    boolean timesAreSound() {
        boolean bare = UNTIMED.stream()
                .anyMatch(kind -> List.of(info.container().split(",")).contains(kind));
        return !bare || STAND_ALONE.contains(info.video().codec());
    }

    /** The one rate of the clip, or empty when its frames come unevenly. */
    public Optional<Rational> steadyRate() {
        return times().rate();
    }

    /** Seconds from the first frame to frame n. */
    public Rational time(long n) {
        return times().at(n);
    }

    /** When its frames are shown; without an index only what the file promises. */
    public Timing times() {
        Rational nominal = info.video().rate();
        if (index.isPresent()) {
            return index.get().timing(nominal);
        }
        return info.video().steady() ? Timing.steady(nominal, FrameRange.OPEN) : UNKNOWN;
    }

    /** Of frames that come unevenly, nobody knows when. */
    private static final Timing UNKNOWN = new Timing() {
        @Override
        public long count() {
            return FrameRange.OPEN;
        }

        @Override
        public Rational at(long frame) {
            throw new IllegalStateException("frames of uneven length need an index");
        }

        @Override
        public Optional<Rational> rate() {
            return Optional.empty();
        }
    };

    /** What is known of it before the first pixel. */
    public Material material() {
        return new Material(format(), times());
    }

    @Override
    public FrameStream open(FrameRange range, Windows windows, PlanePool pool, Cancel cancel) {
        return new Decoding(this, range, windows, pool, cancel, 0);
    }

    @Override
    public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
        return new Decoding(this, range, window, pool, cancel);
    }
}
