package awlsmith.server.stills;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.server.clips.Clips;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * What the first steps of a recipe made of frames lately, for whoever tries one setting after another of the step behind them: only that
 * step and what follows it is then computed again.
 */
@Component
class ReachedFrames {
    /** Pixels kept around what was asked for: the next setting may reach farther. */
    private static final int MARGIN = 48;

    private static final long MOST_BYTES = 160L << 20;

    /**
     * @param steps that made them
     * @param waits what these steps wait for, see {@link awlsmith.core.recipe.Treatment#missing}
     */
    record Made(UUID clip, Recipe steps, String waits) {}

    private record Key(Made made, long number) {}

    private final Map<Key, Frame> held = new LinkedHashMap<>(64, 0.75f, true);
    private final PlanePool own = new PlanePool(0);
    private long heldBytes;

    /** The part that is made where a part is asked for. */
    static Region around(Region part, Format format) {
        return part.grown(MARGIN, format.width(), format.height())
                .aligned(format.chroma(), format.width(), format.height());
    }

    /**
     * Pictures behind some steps as a source of frames.
     *
     * @param steps what makes them of {@code clip}
     * @param count how many there are, or {@link FrameRange#OPEN}
     */
    FrameSource source(Made made, Chain steps, long count, FrameSource clip, Work work) {
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

    private synchronized @Nullable Frame find(Key key, Region window) {
        Frame frame = held.get(key);
        return frame != null && frame.window().contains(window) ? frame : null;
    }

    private synchronized void keep(Key key, Frame frame) {
        Frame before = held.put(key, frame);
        heldBytes += bytes(frame) - (before == null ? 0 : bytes(before));
        var oldest = held.entrySet().iterator();
        while (heldBytes > MOST_BYTES && oldest.hasNext()) {
            heldBytes -= bytes(oldest.next().getValue());
            oldest.remove();
        }
    }

    private static long bytes(Frame frame) {
        return frame.format().floatBytes(frame.window());
    }

    @EventListener
    synchronized void forget(Clips.Removing event) {
        held.entrySet().removeIf(entry -> {
            boolean goes = entry.getKey().made().clip().equals(event.id());
            heldBytes -= goes ? bytes(entry.getValue()) : 0;
            return goes;
        });
    }

    /** Frames one by one: from here as long as they are here, from then on made. */
    private final class Reached implements FrameStream {
        private final Made made;
        private final Chain steps;
        private final long end;
        private final FrameSource clip;
        private final Region window;
        private final PlanePool pool;
        private final Work work;
        private long next;
        private @Nullable FrameStream making;

        Reached(
                Made made,
                Chain steps,
                long end,
                FrameSource clip,
                long from,
                Region window,
                PlanePool pool,
                Work work) {
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
            var key = new Key(made, next);
            Frame frame = making == null ? find(key, window) : null;
            if (frame == null) {
                if (making == null) {
                    making = steps.open(clip, new FrameRange(next, end), around(window, format()), pool, work);
                }
                Optional<Frame> fresh = making.next();
                if (fresh.isEmpty()) {
                    next = end;
                    return Optional.empty();
                }
                Frame lent = fresh.get();
                frame = lent.copy(lent.window(), lent.number(), lent.time(), own);
                lent.release(pool);
                keep(key, frame);
            }
            next++;
            return Optional.of(frame.copy(window, frame.number(), frame.time(), pool));
        }

        @Override
        public void close() {
            next = end;
            if (making != null) {
                making.close();
            }
        }
    }
}
