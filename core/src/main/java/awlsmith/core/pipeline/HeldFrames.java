package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * What the first stages of a chain made of frames lately, for whoever tries one setting after another of the stage behind them: only that
 * one and what follows it is then computed again. Safe for several threads.
 *
 * @param <K> names what frames were made of and how: frames with the same name and number are the same
 */
public final class HeldFrames<K> {
    /** Pixels kept around what was asked for: the next setting may reach farther. */
    private static final int MARGIN = 8;

    private record Key<K>(K made, long number) {}

    private final long mostBytes;
    private final Map<Key<K>, Frame> held = new LinkedHashMap<>(64, 0.75f, true);
    private final PlanePool own = new PlanePool(0);
    private long heldBytes;

    /** @param mostBytes of planes that are held; what was asked for longest ago goes first */
    public HeldFrames(long mostBytes) {
        this.mostBytes = mostBytes;
    }

    /** The part that is made where a part is asked for. */
    public static Region around(Region part, Format format) {
        return part.grown(MARGIN, format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    /**
     * Pictures behind some stages as a source of frames.
     *
     * @param steps what makes them of {@code clip}
     * @param count how many there are, or {@link FrameRange#OPEN}
     */
    public FrameSource source(K made, Chain steps, long count, FrameSource clip, Work work) {
        return new FrameSource() {
            @Override
            public Format format() {
                return steps.output();
            }

            @Override
            public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
                return new Reached(made, steps, Math.min(count, range.end()), clip, range.from(), window, pool, work);
            }
        };
    }

    private synchronized Optional<Frame> find(Key<K> key, Region window) {
        return Optional.ofNullable(held.get(key)).filter(frame -> frame.window().contains(window));
    }

    private synchronized void keep(Key<K> key, Frame frame) {
        Frame before = held.put(key, frame);
        heldBytes += bytes(frame) - (before == null ? 0 : bytes(before));
        var oldest = held.entrySet().iterator();
        while (heldBytes > mostBytes && oldest.hasNext()) {
            heldBytes -= bytes(oldest.next().getValue());
            oldest.remove();
        }
    }

    private static long bytes(Frame frame) {
        return frame.format().floatBytes(frame.window());
    }

    /** Lets go of the frames whose names are said to go. */
    public synchronized void forget(Predicate<K> going) {
        held.entrySet().removeIf(entry -> {
            boolean goes = going.test(entry.getKey().made());
            heldBytes -= goes ? bytes(entry.getValue()) : 0;
            return goes;
        });
    }

    /** Frames one by one: from here as long as they are here, from then on made. */
    private final class Reached implements FrameStream {
        private final K made;
        private final Chain steps;
        private final long end;
        private final FrameSource clip;
        private final Region window;
        private final PlanePool pool;
        private final Work work;
        private long next;
        private Optional<FrameStream> making = Optional.empty();

        Reached(K made, Chain steps, long end, FrameSource clip, long from, Region window, PlanePool pool, Work work) {
            this.made = made;
            this.steps = steps;
            this.end = end;
            this.clip = clip;
            this.window = window;
            this.pool = pool;
            this.work = work;
            this.next = from;
        }

        @Override
        public Format format() {
            return steps.output();
        }

        @Override
        public Optional<Frame> next() {
            work.cancel().check();
            if (next >= end) {
                return Optional.empty();
            }
            var key = new Key<>(made, next);
            Optional<Frame> frame = making.isEmpty() ? find(key, window) : Optional.empty();
            if (frame.isEmpty()) {
                frame = made(key);
            }
            if (frame.isEmpty()) {
                next = end;
                return Optional.empty();
            }
            next++;
            return frame.map(one -> one.copy(window, one.number(), one.time(), pool));
        }

        /** The next frame, larger than asked for, and held from now on. */
        private Optional<Frame> made(Key<K> key) {
            if (making.isEmpty()) {
                making = Optional.of(steps.open(clip, new FrameRange(next, end), around(window, format()), pool, work));
            }
            return making.get().next().map(lent -> {
                Frame own = lent.copy(lent.window(), lent.number(), lent.time(), HeldFrames.this.own);
                lent.release(pool);
                keep(key, own);
                return own;
            });
        }

        @Override
        public void close() {
            next = end;
            making.ifPresent(FrameStream::close);
        }
    }
}
