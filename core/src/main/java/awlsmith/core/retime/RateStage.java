package awlsmith.core.retime;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;

/**
 * Brings frames to an even rate: at every tick the one that is shown then. Frames are repeated or left out, none is made anew, and
 * nothing moves against the sound by more than a tick.
 */
public final class RateStage implements Stage {
    private final Format format;
    private final Timing input;
    private final Rational rate;

    /**
     * @param input when the frames that come are shown
     * @param rate frames a second that go out
     */
    public RateStage(Format format, Timing input, Rational rate) {
        if (!rate.isPositive()) {
            throw new IllegalArgumentException("rate is " + rate + " frames a second, must be more than 0");
        }
        this.format = format;
        this.input = input;
        this.rate = rate;
    }

    @Override
    public Format output() {
        return format;
    }

    /** Behind the last frame lies none. */
    @Override
    public Rational position(long output) {
        return Rational.of(Ticks.position(input, rate, output).floor());
    }

    @Override
    public long firstFrom(long number) {
        return Ticks.firstFrom(input, rate, number);
    }

    @Override
    public Timing times(Timing of) {
        return Ticks.times(of, rate, this);
    }

    @Override
    public Region needs(Region output) {
        return output;
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        return in.at(0).copy(wanted, in.number(), Rational.of(in.number()).dividedBy(rate), pool);
    }
}
