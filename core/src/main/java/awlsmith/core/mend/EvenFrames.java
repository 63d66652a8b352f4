package awlsmith.core.mend;

import awlsmith.core.motion.BetweenFinder;
import awlsmith.core.motion.MotionBetween;
import awlsmith.core.motion.PictureBetween;
import awlsmith.core.motion.PictureBetween.Doubt;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
import java.util.Arrays;
import java.util.Optional;
import java.util.function.LongFunction;
import java.util.stream.IntStream;

/**
 * A clip at one rate throughout: every frame goes to the place on the even grid that is nearest to its time, and places that
 * none came to are filled along the motion of the frames around them.
 */
public final class EvenFrames implements FrameSource {
    private static final int NONE = -1;
    /** Motion torn so much leads from one scene to another, see {@link MotionBetween#torn}. */
    private static final double TWO_SCENES = 0.3;

    private static final float[] STRAIGHT = new float[2];

    private final FrameSource source;
    private final Rational rate;
    /** For each place the frame that belongs there. */
    private final int[] frames;

    /**
     * @param time seconds of each frame from the first, rising; at count the end of the last
     * @param count of the source's frames
     * @param rate frames a second wanted
     * @throws IllegalArgumentException when the times are so far apart that most of the clip would be made up
     */
    public EvenFrames(FrameSource source, LongFunction<Rational> time, int count, Rational rate) {
        this.source = source;
        this.rate = rate;
        long places = Math.max(1, Math.round(time.apply(count).toDouble() * rate.toDouble()));
        if (places > 2L * count + 100) {
            throw new IllegalArgumentException("its times jump: " + count + " frames lie in the time of " + places
                    + "; most would have to be made up");
        }
        frames = new int[(int) places];
        Arrays.fill(frames, NONE);
        for (int n = 0; n < count; n++) {
            double at = time.apply(n).toDouble() * rate.toDouble();
            int place = (int) Math.clamp(Math.round(at), 0, places - 1);
            if (frames[place] == NONE) {
                frames[place] = n;
            } else if (place + 1 < places && at > place) {
                // two came to one place: the later one may have been meant for the next
                frames[place + 1] = n;
            }
        }
    }

    /** Frames a second that come out. */
    public Rational rate() {
        return rate;
    }

    /** Frames on the grid. */
    public long count() {
        return frames.length;
    }

    /** Those that had to be made up. */
    public long made() {
        return madePlaces().length;
    }

    /** Where those lie on the grid. */
    public int[] madePlaces() {
        return IntStream.range(0, frames.length)
                .filter(place -> frames[place] == NONE)
                .toArray();
    }

    /** From the first frame to the end of the last. */
    public Rational seconds() {
        return Rational.of(frames.length).dividedBy(rate);
    }

    @Override
    public Format format() {
        return source.format();
    }

    @Override
    public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
        long end = range.isOpen() ? frames.length : Math.min(range.end(), frames.length);
        return new Filled((int) range.from(), (int) end, window, pool, cancel);
    }

    private final class Filled implements FrameStream {
        private final FrameStream stream;
        private final PlanePool pool;
        private final int end;
        private int place;
        /** Number of the frame that the stream gives next. */
        private int next;
        /** The last frame that belongs at or before the place, and the first that belongs behind it. */
        private Frame before;

        private int beforeAt = NONE;
        private Frame after;
        private int afterAt = NONE;
        /** Motion of the frames around, while places between them are filled. */
        private BetweenFinder finder;

        private final Region window;
        private final Work work;

        Filled(int from, int end, Region window, PlanePool pool, Cancel cancel) {
            this.place = from;
            this.end = end;
            this.window = window;
            work = Work.alone().with(cancel);
            this.pool = pool;
            int first = from;
            while (first > 0 && frames[first] == NONE) {
                first--;
            }
            next = Math.max(0, frames[first]);
            stream = source.open(new FrameRange(next, FrameRange.OPEN), format().whole(), pool, cancel);
            afterAt = first - 1;
            advance();
        }

        @Override
        public Format format() {
            return source.format();
        }

        /** Goes on to the next place that has a frame, and fetches that frame. */
        private void advance() {
            release(before);
            finder = null;
            before = after;
            beforeAt = afterAt;
            after = null;
            int at = afterAt + 1;
            while (at < frames.length && frames[at] == NONE) {
                at++;
            }
            afterAt = at;
            if (at < frames.length) {
                while (next < frames[at]) {
                    stream.next().ifPresent(this::release);
                    next++;
                }
                after = stream.next().orElse(null);
                next++;
            }
        }

        private void release(Frame frame) {
            if (frame != null) {
                frame.release(pool);
            }
        }

        @Override
        public Optional<Frame> next() {
            if (place >= end) {
                return Optional.empty();
            }
            while (afterAt <= place && after != null) {
                advance();
            }
            if (before == null && after == null) {
                return Optional.empty();
            }
            Frame first = before == null ? after : before;
            Frame second = after == null ? before : after;
            float share = before == null || after == null || beforeAt == place
                    ? 0
                    : (float) (place - beforeAt) / (afterAt - beforeAt);
            Rational time = Rational.of(place).dividedBy(rate);
            Frame out = share == 0 ? copy(first, time) : made(first, second, share, time);
            place++;
            return Optional.of(out);
        }

        /** Motion is looked for in whole pictures, so that every part is made alike; between two scenes the nearer frame stays. */
        private Frame made(Frame first, Frame second, float share, Rational time) {
            if (finder == null) {
                finder = new BetweenFinder(first.light(), second.light(), work);
            }
            MotionBetween motion = finder.at(share);
            if (motion.torn() > TWO_SCENES) {
                return copy(share < 0.5f ? first : second, time);
            }
            Frame out = Frame.blank(format(), window, place, time, pool);
            new PictureBetween(motion, share, STRAIGHT, Doubt.MOTION)
                    .make(PictureBetween.Around.of(first), PictureBetween.Around.of(second), out, work);
            return out;
        }

        private Frame copy(Frame frame, Rational time) {
            Frame from = frame.cut(window);
            Frame out = Frame.blank(frame.format(), window, place, time, pool);
            for (int p = 0; p < out.planes().size(); p++) {
                Plane a = from.plane(p);
                Plane to = out.plane(p);
                for (int y = 0; y < to.height(); y++) {
                    to.takeRow(y, a, y);
                }
            }
            return out;
        }

        @Override
        public void close() {
            release(before);
            release(after);
            before = null;
            after = null;
            stream.close();
        }
    }
}
