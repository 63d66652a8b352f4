package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * One treatment, made for one input format. It turns a few neighbouring input frames into one output frame, and says
 * how far it reaches in time and space, so that any region of any frame can be computed alone.
 *
 * <p>Contract: the output is a pure function of the input frames; computing a region gives the same bits as cutting it
 * out of the whole. Input frames are read only.
 */
public interface Stage {
    /** Of the pictures that come out. */
    Format output();

    /** Where the whole input picture lies in the output picture; of a stage whose geometry moves, where it lies at rest. */
    default Placement placement() {
        return Placement.over(output());
    }

    /**
     * Where the whole input picture lies in an output frame.
     *
     * @param output number of the output frame
     */
    default Placement placement(long output) {
        return placement();
    }

    /** Whether the placement differs from frame to frame. */
    default boolean isMoving() {
        return false;
    }

    /** Whether rows of the input stay rows of the output, so that {@link #placement} tells all; turned pictures do not. */
    default boolean isAligned() {
        return true;
    }

    /**
     * The same for the plane of transparency, taken as a grey picture of its own. Empty where that passes as it is, pixel for pixel;
     * whatever moves, scales, mixes or cuts pixels has one.
     *
     * @param plane format of that picture; what comes out must be as large as this stage's output
     */
    default Optional<Stage> onAlpha(Format plane) {
        return Optional.empty();
    }

    /** What is done to colour, where transparency is carried beside it. */
    default Stage inner() {
        return this;
    }

    /** Output frames to one input frame, in the long run. */
    default Rational rate() {
        return Rational.ONE;
    }

    /**
     * Where in the input an output frame lies, in input frames; it is made around the whole number below. Rises with the
     * output.
     */
    default Rational position(long output) {
        return Rational.of(output).dividedBy(rate());
    }

    /** When the output frames are shown, by when the input's are. */
    default Timing times(Timing input) {
        return rate().equals(Rational.ONE) ? input : new Timing.Placed(input, this);
    }

    /** Seconds of the input that go by in one second of the output; its sound keeps to them. */
    default Rational speed() {
        return Rational.ONE;
    }

    /** The first output frame that is not made around an earlier input frame than this one. */
    default long firstFrom(long input) {
        return -rate().times(-input).floor();
    }

    /** Input frames wanted before the frame being made. */
    default int before() {
        return 0;
    }

    /** Input frames wanted after the frame being made. */
    default int after() {
        return 0;
    }

    /**
     * What brings the clip's own pictures here by another way, for a stage that sees both: frames that are as many, as large and at the same
     * times as those that reach it.
     */
    default Optional<Chain> beside() {
        return Optional.empty();
    }

    /** Bytes beside its frames that it needs once, however many threads work on it: planes that all of them share. */
    default long sharedBytes() {
        return 0;
    }

    /** Bytes beside its frames that each thread working on it needs, roughly; a net's inner planes are such. */
    default long workBytes() {
        return 0;
    }

    /**
     * The part of the input picture that a part of the output picture is made from, on whole chroma samples; where geometry moves,
     * enough for every frame.
     */
    Region needs(Region output);

    /**
     * The part of the input picture that a part of the output picture is made from in some frames.
     *
     * @param frames output frames
     */
    default Region needs(Region output, FrameRange frames) {
        return needs(output);
    }

    /**
     * Makes one output frame.
     *
     * @param input frames that each hold at least {@code needs(wanted)}
     * @param wanted part of the output picture, on whole chroma samples
     * @return a new frame over exactly {@code wanted}, with planes from the pool, numbered {@code input.number()}
     */
    Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work);

    /** Input frames by distance from the one an output frame is made around. */
    interface Neighbours {
        /** The frame at this distance, -before..after; past the clip's ends the nearest frame there is. */
        Frame at(int distance);

        /**
         * What was found out of a frame, or of it and its followers, once for all the output frames of a stream that look at it; it is
         * forgotten when the frame is. It must not depend on anything but these frames and the stage.
         *
         * @param distance of the frame that it is kept with
         * @param what tells it from other things kept with the frame
         * @param make finds it out
         */
        default <T> T remember(int distance, String what, Supplier<T> make) {
            return make.get();
        }

        /** The frame that came by the other way, see {@link Stage#beside}, beside the one at distance 0. */
        default Frame beside() {
            throw new UnsupportedOperationException("nothing came by another way");
        }

        /** Number of the output frame being made. */
        default long number() {
            return at(0).number();
        }
    }
}
