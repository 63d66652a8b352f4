package awlsmith.core.retime;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Undoes what a change of rate by mixing did: of the mixes around each frame that was there before, those shares that give it with the least error
 * (least squares, with a small price on steps from frame to frame, which holds noise down where mixes tell little).
 *
 * <p>Shape: any part; every plane alike. It knows no cuts and needs none: a mix across a cut is a mix. Source: our own; least squares are C. F. Gauss's.
 */
public final class UnblendStage implements Stage {
    /** Frames of what was there before, on each side, that are found together. */
    private static final int REACH = 3;
    /** What a step costs, beside an error of the same size. */
    private static final double PRICE = 1e-3;
    /** Above this ratio mixes tell too little of what they were made of: some are half and half with no better ones near. */
    public static final double MOST = 0.9;

    private static final int BAND = 16;

    private final Format format;
    private final Rational rate;
    private final Rational ratio;
    private final Rational offset;
    /** What was there before the first frame that is given. */
    private final long first;

    private final int reach;

    /** @param now frames a second that come, evenly */
    public UnblendStage(Format format, Rational now, Blending blending) {
        ratio = blending.ratio(now);
        if (!(ratio.toDouble() <= MOST)) {
            throw new IllegalArgumentException(
                    "frames were mixed to " + now + " a second from " + blending.rate() + ": that cannot be undone");
        }
        this.format = format;
        this.rate = blending.rate();
        this.offset = blending.offset();
        // what is hardly seen at the clip's beginning is left out
        first = offset.toDouble() < 0.5 ? 0 : 1;
        reach = (int) Math.ceil(REACH / ratio.toDouble());
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Rational position(long output) {
        Rational there = Rational.of(output + first).minus(offset).dividedBy(ratio);
        return there.compareTo(Rational.ZERO) < 0 ? Rational.ZERO : Rational.of(there.floor());
    }

    @Override
    public long firstFrom(long number) {
        Rational from = Rational.of(number).times(ratio).plus(offset).minus(Rational.of(first));
        return number <= 0 ? 0 : Math.max(0, -Rational.ZERO.minus(from).floor());
    }

    @Override
    public Timing times(Timing of) {
        return Ticks.times(of, rate, this);
    }

    @Override
    public int before() {
        return reach;
    }

    @Override
    public int after() {
        return reach + 1;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        Rational now = rate.dividedBy(ratio);
        return Optional.of(new UnblendStage(plane, now, new Blending(rate, offset)));
    }

    @Override
    public Region needs(Region output) {
        return output;
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        long middle = in.at(0).number();
        var mixes = new ArrayList<Frame>();
        for (int d = -reach; d <= reach + 1; d++) {
            Frame frame = in.at(d);
            if (frame.number() == middle + d) {
                mixes.add(frame);
            }
        }
        double[] shares = shares(mixes, in.number() + first);
        Frame out = Frame.blank(
                format, wanted, in.number(), Rational.of(in.number()).dividedBy(rate), pool);
        for (int p = 0; p < out.planes().size(); p++) {
            int plane = p;
            work.bands(out.plane(p).height(), BAND, (from, end) -> rows(mixes, shares, out, plane, from, end));
        }
        return out;
    }

    private double at(Frame mix) {
        return ratio.times(mix.number()).plus(offset).toDouble();
    }

    /** By how much each mix counts for a frame of what was there before; they add up to 1. */
    private double[] shares(List<Frame> mixes, long wanted) {
        long low = Math.min(wanted, (long) Math.floor(at(mixes.getFirst())));
        long high = Math.max(wanted, (long) Math.floor(at(mixes.getLast())) + 1);
        int count = (int) (high - low + 1);
        var sums = new Mixes(count);
        mixes.forEach(mix -> sums.add(at(mix) - low));
        sums.addSteps(PRICE);
        double[] right = new double[count];
        right[(int) (wanted - low)] = 1;
        double[] found = sums.solve(right);
        return mixes.stream()
                .mapToDouble(mix -> Mixes.mixed(found, at(mix) - low))
                .toArray();
    }

    private void rows(List<Frame> mixes, double[] shares, Frame out, int p, int from, int end) {
        Plane to = out.plane(p);
        Region own = format.chroma().own(p, out.window());
        for (int y = from; y < end; y++) {
            int into = to.row(y);
            Arrays.fill(to.data(), into, into + to.width(), 0);
            for (int k = 0; k < shares.length; k++) {
                Frame mix = mixes.get(k);
                Region held = format.chroma().own(p, mix.window());
                Plane plane = mix.plane(p);
                int at = plane.row(own.y() - held.y() + y) + own.x() - held.x();
                float share = (float) shares[k];
                for (int x = 0; x < to.width(); x++) {
                    to.data()[into + x] += share * plane.data()[at + x];
                }
            }
        }
    }
}
