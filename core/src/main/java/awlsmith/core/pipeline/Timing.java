package awlsmith.core.pipeline;

import awlsmith.core.picture.Rational;
import java.util.Optional;

/** When the frames of a stream are shown, in exact seconds from its first frame. */
public interface Timing {
    /** Frames there are, or {@link FrameRange#OPEN} where only the end of the stream will tell. */
    long count();

    /** When a frame begins to be shown; for the frame behind the last, when that one ends. Rises with the frame. */
    Rational at(long frame);

    /** The one rate that all frames keep, in frames a second; empty when they come unevenly. */
    Optional<Rational> rate();

    /** The frame that is shown at a time: the last that has begun; the first before the beginning. */
    default long frameAt(Rational seconds) {
        long low = 0;
        long high = count() == FrameRange.OPEN ? 1 : count() - 1;
        while (count() == FrameRange.OPEN && at(high).compareTo(seconds) <= 0) {
            high = Math.multiplyExact(high, 2);
        }
        while (low < high) {
            long middle = low + (high - low + 1) / 2;
            if (at(middle).compareTo(seconds) <= 0) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    /** Seconds that all frames last; only where their number is known. */
    default Rational length() {
        if (count() == FrameRange.OPEN) {
            throw new IllegalStateException("the stream is open, its length is known only at its end");
        }
        return at(count());
    }

    /** Frames a second, in the mean where they come unevenly. */
    default double mean() {
        return rate().map(Rational::toDouble).orElseGet(() -> count() / Math.max(1e-3, length().toDouble()));
    }

    /** When something between two frames is, a share of the way from the one to the next; past the end it is the end. */
    default Rational at(Rational position) {
        long before = position.floor();
        if (count() != FrameRange.OPEN && before >= count()) {
            return at(count());
        }
        Rational from = at(before);
        Rational share = position.minus(Rational.of(before));
        return share.isPositive() ? from.plus(share.times(at(before + 1).minus(from))) : from;
    }

    /** @param count frames, or {@link FrameRange#OPEN} */
    static Timing steady(Rational rate, long count) {
        return new Steady(rate, count);
    }

    /** Every frame as long as the others. */
    record Steady(Rational steps, long count) implements Timing {
        public Steady {
            if (!steps.isPositive()) {
                throw new IllegalArgumentException("rate is " + steps + " frames a second, must be more than 0");
            }
        }

        @Override
        public Rational at(long frame) {
            return Rational.of(frame).dividedBy(steps);
        }

        @Override
        public Optional<Rational> rate() {
            return Optional.of(steps);
        }

        @Override
        public long frameAt(Rational seconds) {
            long frame = Math.max(0, seconds.times(steps).floor());
            return count == FrameRange.OPEN ? frame : Math.min(frame, count - 1);
        }
    }

    /** Of what a stage makes: each frame is shown where its position lies between the stage's input frames. */
    record Placed(Timing input, Stage stage) implements Timing {
        @Override
        public long count() {
            return input.count() == FrameRange.OPEN ? FrameRange.OPEN : stage.firstFrom(input.count());
        }

        @Override
        public Rational at(long frame) {
            return rate().map(rate -> Rational.of(frame).dividedBy(rate))
                    .orElseGet(() -> input.at(stage.position(frame)));
        }

        @Override
        public Optional<Rational> rate() {
            return input.rate().map(rate -> rate.times(stage.rate()));
        }
    }

    /** Faster or slower than another. */
    record Paced(Timing input, Rational speed) implements Timing {
        @Override
        public long count() {
            return input.count();
        }

        @Override
        public Rational at(long frame) {
            return input.at(frame).dividedBy(speed);
        }

        @Override
        public Optional<Rational> rate() {
            return input.rate().map(rate -> rate.times(speed));
        }

        @Override
        public long frameAt(Rational seconds) {
            return input.frameAt(seconds.times(speed));
        }
    }
}
