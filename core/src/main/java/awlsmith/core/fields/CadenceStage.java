package awlsmith.core.fields;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.Optional;

/**
 * Takes out what was repeated in a rhythm to reach a higher rate: one frame of every period; or, of film that was brought
 * to video by two and three fields (3:2), the frame that the two woven ones of every five share between them.
 */
public final class CadenceStage implements Stage {
    private final Format output;
    private final int period;
    private final int phase;
    private final boolean fields;
    private final int upperFrom;

    private CadenceStage(Format output, int period, int phase, boolean fields, int upperFrom) {
        if (period < 2 || phase < 0 || phase >= period) {
            throw new IllegalArgumentException("phase is " + phase + " of " + period + ", must be in 0..period-1");
        }
        this.output = output;
        this.period = period;
        this.phase = phase;
        this.fields = fields;
        this.upperFrom = upperFrom;
    }

    /** Leaves out every frame whose number is phase, modulo period. */
    public static CadenceStage frames(Format input, int period, int phase) {
        return new CadenceStage(input, period, phase, false, 0);
    }

    /**
     * Undoes 3:2: of the two woven frames, whose first has number phase modulo 5, one is made.
     *
     * @param order which field comes first
     */
    public static CadenceStage film(Format input, Scan order, int phase) {
        // with the upper field first, the first woven frame brings the lower field of the picture that both share
        return new CadenceStage(input.withScan(Scan.PROGRESSIVE), 5, phase, true, order == Scan.TOP_FIRST ? 1 : 0);
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public Rational rate() {
        return new Rational(period - 1, period);
    }

    /** The input frame that an output frame is taken from; of two woven ones the first. */
    @Override
    public Rational position(long output) {
        // the frame left out is the one of the phase, of woven pairs the second
        int gone = fields ? (phase + 1) % period : phase;
        long round = Math.floorDiv(output, period - 1);
        long place = Math.floorMod(output, period - 1);
        return Rational.of(round * period + place + (place >= gone ? 1 : 0));
    }

    @Override
    public long firstFrom(long input) {
        long guess = Math.floorDiv(input, period) * (period - 1);
        while (position(guess).floor() < input) {
            guess++;
        }
        return guess;
    }

    @Override
    public int after() {
        return fields ? 1 : 0;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new CadenceStage(output.alphaAlone(), period, phase, fields, upperFrom));
    }

    @Override
    public Region needs(Region wanted) {
        return wanted;
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0).cut(wanted);
        Frame next = fields ? in.at(1).cut(wanted) : here;
        boolean woven = fields && Math.floorMod(in.at(0).number() - phase, (long) period) == 0;
        Frame out = Frame.blank(output, wanted, in.number(), here.time(), pool);
        for (int p = 0; p < out.planes().size(); p++) {
            int top = wanted.y() / output.chroma().stepY(p);
            for (int row = 0; row < out.plane(p).height(); row++) {
                boolean upper = (top + row) % 2 == 0;
                boolean fromNext = woven && upper == (upperFrom == 1);
                Plane from = fromNext ? next.plane(p) : here.plane(p);
                Plane to = out.plane(p);
                to.takeRow(row, from, row);
            }
        }
        return out;
    }
}
