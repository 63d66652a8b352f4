package awlsmith.core.retime;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;

/** Shows the same frames for a longer or shorter time; sound keeps to them. */
public final class SpeedStage implements Stage {
    private final Format format;
    private final Rational speed;

    /** @param speed times as fast, more than 0 */
    public SpeedStage(Format format, Rational speed) {
        if (!speed.isPositive()) {
            throw new IllegalArgumentException("speed is " + speed + ", must be more than 0");
        }
        this.format = format;
        this.speed = speed;
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Timing times(Timing input) {
        return new Timing.Paced(input, speed);
    }

    @Override
    public Rational speed() {
        return speed;
    }

    @Override
    public Region needs(Region output) {
        return output;
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        return here.copy(wanted, in.number(), here.time().dividedBy(speed), pool);
    }
}
