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
import java.util.Arrays;
import java.util.Optional;

/**
 * Blurs what moves as a shutter does that stays open for a while: frames that come many times too quickly are mixed over the time that it is open,
 * the moment of the frame in its middle, first and last by half (the trapezoidal rule). Light is mixed as it is coded. Frames of another scene are not
 * mixed in.
 */
public final class ShutterStage implements Stage {
    /** Frames that come for each that goes out. */
    public static final int PARTS = 8;
    /** Mean difference of luma between two such frames from which on they are of two scenes: within one they are an eighth of a frame apart. */
    private static final double CUT = 0.04;

    private static final int BAND = 16;

    private final Format format;
    private final Timing input;
    private final Rational rate;
    private final int reach;

    /**
     * @param input when the frames that come are shown: evenly, {@link #PARTS} times as quickly
     * @param rate frames a second that go out
     * @param degrees of a turn that the shutter is open, 90 to 360 by quarters
     */
    public ShutterStage(Format format, Timing input, Rational rate, int degrees) {
        if (degrees % 90 != 0 || degrees < 90 || degrees > 360) {
            throw new IllegalArgumentException("a shutter of " + degrees + " degrees; 90, 180, 270 and 360 are known");
        }
        this.format = format;
        this.input = input;
        this.rate = rate;
        this.reach = degrees * PARTS / 720;
    }

    @Override
    public Format output() {
        return format;
    }

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
    public int before() {
        return reach;
    }

    @Override
    public int after() {
        return reach;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new ShutterStage(plane, input, rate, 720 * reach / PARTS));
    }

    /** Whether frames are of one scene only whole pictures tell. */
    @Override
    public Region needs(Region output) {
        return format.whole();
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Rational time = Rational.of(in.number()).dividedBy(rate);
        int low = 0;
        while (low > -reach && isOneScene(in, low - 1)) {
            low--;
        }
        int high = 0;
        while (high < reach && isOneScene(in, high)) {
            high++;
        }
        if (low == high) {
            return in.at(0).copy(wanted, in.number(), time, pool);
        }
        Frame out = Frame.blank(format, wanted, in.number(), time, pool);
        int from = low;
        int to = high;
        for (int p = 0; p < out.planes().size(); p++) {
            int plane = p;
            work.bands(out.plane(p).height(), BAND, (first, end) -> rows(in, from, to, out, plane, first, end));
        }
        return out;
    }

    /** Of a frame and the next; behind the clip's ends there is none. */
    private static boolean isOneScene(Neighbours in, int distance) {
        return in.remember(distance, "same", () -> {
            Frame one = in.at(distance);
            Frame next = in.at(distance + 1);
            return one.number() != next.number() && difference(one.light(), next.light()) < CUT;
        });
    }

    private static double difference(Plane a, Plane b) {
        double sum = 0;
        int step = Math.max(1, Math.min(a.width(), a.height()) / 128);
        int count = 0;
        for (int y = 0; y < a.height(); y += step) {
            for (int x = 0; x < a.width(); x += step) {
                sum += Math.abs(a.at(x, y) - b.at(x, y));
                count++;
            }
        }
        return sum / count;
    }

    private void rows(Neighbours in, int low, int high, Frame out, int p, int first, int end) {
        Plane to = out.plane(p);
        int left = out.window().x() / format.chroma().stepX(p);
        int top = out.window().y() / format.chroma().stepY(p);
        float share = 1f / (high - low);
        for (int y = first; y < end; y++) {
            int into = to.row(y);
            Arrays.fill(to.data(), into, into + to.width(), 0);
            for (int d = low; d <= high; d++) {
                Plane from = in.at(d).plane(p);
                int at = from.row(top + y) + left;
                float weight = d == low || d == high ? share / 2 : share;
                for (int x = 0; x < to.width(); x++) {
                    to.data()[into + x] += weight * from.data()[at + x];
                }
            }
        }
    }
}
