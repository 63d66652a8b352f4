package awlsmith.core.retime;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Timing;

/** An even rate laid over frames that are shown at times of their own. */
final class Ticks {
    private Ticks() {}

    /** Where a tick lies, in input frames; before the first, where that is shown later, is it already, and behind the last frame lies none. */
    static Rational position(Timing input, Rational rate, long tick) {
        boolean over = input.count() != FrameRange.OPEN && tick >= firstFrom(input, rate, input.count());
        if (over) {
            return Rational.of(input.count());
        }
        Rational time = Rational.of(tick).dividedBy(rate);
        if (time.compareTo(input.at(0)) <= 0) {
            return Rational.ZERO;
        }
        long frame = input.frameAt(time);
        Rational begun = input.at(frame);
        Rational lasts = input.at(frame + 1).minus(begun);
        Rational share = time.minus(begun).dividedBy(lasts);
        return Rational.of(frame).plus(share);
    }

    /** The first tick at or behind an input frame's beginning. */
    static long firstFrom(Timing input, Rational rate, long number) {
        if (number <= 0) {
            return 0;
        }
        Rational ticks = input.at(number).times(rate);
        return -Rational.ZERO.minus(ticks).floor();
    }

    static Timing times(Timing of, Rational rate, Stage stage) {
        return Timing.steady(
                rate, of.count() == FrameRange.OPEN ? FrameRange.OPEN : Math.max(1, stage.firstFrom(of.count())));
    }
}
