package awlsmith.core.retime;

import awlsmith.core.motion.BetweenFinder;
import awlsmith.core.motion.MotionBetween;
import awlsmith.core.motion.PictureBetween;
import awlsmith.core.motion.PictureBetween.Doubt;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import java.util.List;
import java.util.Optional;

/**
 * Brings frames to an even rate, those that lie between two of the clip's made anew along the motion. Between two scenes nothing is made: the nearer
 * frame is shown. Motion is that of whole pictures, so that every part is made alike.
 */
public final class MadeStage implements Stage {
    /** So near to a frame of the clip, in frames, that one is shown as it is. */
    private static final double SNAP = 1.0 / 64;

    private static final int BAND = 16;

    private final Format format;
    private final Timing input;
    private final Rational rate;
    private final Way way;

    /**
     * How frames are made.
     *
     * @param doubt what is done where the motion cannot be trusted; empty where no motion is followed: both frames are mixed as they are
     * @param torn from here on, as {@link MotionBetween#torn} counts, two frames are of two scenes; 0..1
     * @param detail whether fine detail is the nearer frame's alone, and so as strong as in the frames around; else the mean of both, which is
     *     weaker and less in error
     * @param scenes where they begin and do not, whatever is found
     */
    public record Way(Optional<Doubt> doubt, double torn, boolean detail, ScenesByHand scenes) {
        public Way(Doubt doubt, double torn) {
            this(Optional.of(doubt), torn, false, ScenesByHand.NONE);
        }
    }

    /**
     * @param input when the frames that come are shown
     * @param rate frames a second that go out
     */
    public MadeStage(Format format, Timing input, Rational rate, Way way) {
        if (!rate.isPositive()) {
            throw new IllegalArgumentException("rate is " + rate + " frames a second, must be more than 0");
        }
        this.format = format;
        this.input = input;
        this.rate = rate;
        this.way = way;
    }

    @Override
    public Format output() {
        return format;
    }

    /** Behind the last frame lies none. */
    @Override
    public Rational position(long output) {
        return Ticks.position(input, rate, output);
    }

    @Override
    public long firstFrom(long number) {
        return Ticks.firstFrom(input, rate, number);
    }

    @Override
    public Timing times(Timing of) {
        return Ticks.times(of, rate, this);
    }

    /** A camera's path is bent by where it was before and will be after. */
    @Override
    public int before() {
        return 1;
    }

    @Override
    public int after() {
        return 2;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new MadeStage(plane, input, rate, way));
    }

    @Override
    public Region needs(Region output) {
        return format.whole();
    }

    @Override
    public long sharedBytes() {
        // the planes of two frames with their edges, splines through them, and pictures of both at half the size and
        // less
        long fine = way.detail ? format.floatBytes() + (long) Float.BYTES * format.width() * format.height() : 0;
        return 5 * format.floatBytes() + fine;
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Rational time = Rational.of(in.number()).dividedBy(rate);
        Rational position = position(in.number());
        float share = (float) position.minus(Rational.of(position.floor())).toDouble();
        boolean last = in.at(1).number() == in.at(0).number();
        if (share < SNAP || last) {
            return in.at(0).copy(wanted, in.number(), time, pool);
        }
        if (share > 1 - SNAP) {
            return in.at(1).copy(wanted, in.number(), time, pool);
        }
        Pair here = pair(in, 0, work).orElseThrow();
        if (isCut(in, 0, here)) {
            return in.at(share < 0.5f ? 0 : 1).copy(wanted, in.number(), time, pool);
        }
        if (way.doubt.isEmpty()) {
            Frame out = Frame.blank(format, wanted, in.number(), time, pool);
            mix(in.at(0), in.at(1), share, out, work);
            return out;
        }
        var between = new PictureBetween(here.at(share), share, bend(in, here, share, work), way.doubt.orElseThrow());
        Region held = way.detail
                ? wanted.grown(Fine.REACH, format.width(), format.height())
                        .aligned(format.chroma(), format.width(), format.height())
                : wanted;
        Frame made = Frame.blank(format, held, in.number(), time, pool);
        between.make(around(in, 0), around(in, 1), made, work);
        return way.detail ? detailed(between, around(in, 0), around(in, 1), made, wanted, pool, work) : made;
    }

    /** Light is mixed as it is coded. */
    private static void mix(Frame first, Frame second, float share, Frame out, Work work) {
        Chroma chroma = out.format().chroma();
        for (int p = 0; p < out.planes().size(); p++) {
            Region own = chroma.own(p, out.window());
            Plane to = out.plane(p);
            Plane a = first.plane(p).window(own);
            Plane b = second.plane(p).window(own);
            work.bands(to.height(), BAND, (from, end) -> {
                for (int y = from; y < end; y++) {
                    for (int x = 0; x < to.width(); x++) {
                        float before = a.at(x, y);
                        to.set(x, y, before + share * (b.at(x, y) - before));
                    }
                }
            });
        }
    }

    /** A part of what was made, the light's fine part as the nearer frame has it along the motion. */
    private static Frame detailed(
            PictureBetween between,
            PictureBetween.Around first,
            PictureBetween.Around second,
            Frame made,
            Region wanted,
            PlanePool pool,
            Work work) {
        Frame out = made.copy(wanted, made.number(), made.time(), pool);
        int lights = made.format().chroma() == Chroma.RGB ? 3 : 1;
        for (int p = 0; p < lights; p++) {
            List<Plane> near = between.nearer(first, second, p, made.window(), pool, work);
            Fine.take(near.get(0), made.plane(p), near.get(1), wanted.inside(made.window()), out.plane(p), work);
            near.forEach(pool::giveBack);
        }
        made.release(pool);
        return out;
    }

    private static PictureBetween.Around around(Neighbours in, int distance) {
        return in.remember(distance, "around", () -> PictureBetween.Around.of(in.at(distance)));
    }

    /** Of a frame and the next; empty behind the clip's ends. */
    private static Optional<Pair> pair(Neighbours in, int distance, Work work) {
        Frame a = in.at(distance);
        Frame b = in.at(distance + 1);
        return b.number() == a.number() + 1
                ? Optional.of(in.remember(distance, "motion", () -> new Pair(a, b, work)))
                : Optional.empty();
    }

    /** How far the camera's path lies beside a straight line, as the frames before and after tell; of a held or steadily led one nothing. */
    private float[] bend(Neighbours in, Pair here, float share, Work work) {
        float[] now = here.half().camera();
        float[] before = camera(in, -1, now, work);
        float[] after = camera(in, 1, now, work);
        return new float[] {
            Path.besideStraight(before[0], now[0], after[0], share),
            Path.besideStraight(before[1], now[1], after[1], share)
        };
    }

    private float[] camera(Neighbours in, int distance, float[] otherwise, Work work) {
        return pair(in, distance, work)
                .filter(pair -> !isCut(in, distance, pair))
                .map(pair -> pair.half().camera())
                .orElse(otherwise);
    }

    /** Whether a frame and the next are of two scenes: as somebody said, or as their motion tells. */
    private boolean isCut(Neighbours in, int distance, Pair pair) {
        return way.scenes
                .between(in.at(distance).time(), in.at(distance + 1).time())
                .orElseGet(() -> pair.half().torn() >= way.torn());
    }

    /** Motion between two frames, found when it is first asked for; the middle leads the search at other moments. */
    private static final class Pair {
        private static final float HALF = 0.5f;

        private final BetweenFinder finder;
        private final MotionBetween half;

        Pair(Frame a, Frame b, Work work) {
            finder = new BetweenFinder(a.light(), b.light(), work);
            half = finder.at(HALF);
        }

        MotionBetween half() {
            return half;
        }

        MotionBetween at(float share) {
            return share == HALF ? half : finder.at(share, half, HALF);
        }
    }
}
