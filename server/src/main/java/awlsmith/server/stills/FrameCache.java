package awlsmith.server.stills;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.media.Clip;
import awlsmith.render.Machine;
import awlsmith.server.clips.Clips;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Decoded source frames that were looked at lately, as code values. Asking for one reads the next few along, so stepping
 * on is answered from here; the process behind it goes on in the background.
 */
@Component
class FrameCache {
    private static final int READ_ALONG = 8;
    private static final long MOST_BYTES = Machine.forCache(384L << 20, 0.1);

    private record Key(UUID clip, long number) {}

    private final Map<Key, CompletableFuture<byte[]>> held = new LinkedHashMap<>(64, 0.75f, true);
    private long heldBytes;

    /** The clip as a source of frames that come from here when they can. */
    FrameSource source(UUID id, Clip clip) {
        return new FrameSource() {
            @Override
            public Format format() {
                return clip.format();
            }

            @Override
            public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
                return new Cached(id, clip, range, window, pool, cancel);
            }
        };
    }

    @EventListener
    void forget(Clips.Removing event) {
        synchronized (held) {
            held.entrySet().removeIf(entry -> {
                boolean goes = entry.getKey().clip().equals(event.id());
                if (goes) {
                    heldBytes -= bytesOf(entry.getValue());
                }
                return goes;
            });
        }
    }

    private byte[] raw(UUID id, Clip clip, long number) {
        CompletableFuture<byte[]> found;
        Deque<CompletableFuture<byte[]>> wanted = new ArrayDeque<>();
        synchronized (held) {
            found = held.get(new Key(id, number));
            if (found == null) {
                long along = Math.clamp(MOST_BYTES / 4 / new RawLayout(clip.format()).frameBytes(), 1, READ_ALONG);
                long end = Math.min(number + along, clip.index().orElseThrow().count());
                for (long n = number; n < end && !held.containsKey(new Key(id, n)); n++) {
                    var future = new CompletableFuture<byte[]>();
                    held.put(new Key(id, n), future);
                    wanted.add(future);
                }
                found = wanted.getFirst();
            }
        }
        if (!wanted.isEmpty()) {
            Thread.ofVirtual().name("read-along").start(() -> read(id, clip, number, wanted));
        }
        try {
            return found.join();
        } catch (CompletionException e) {
            throw e.getCause() instanceof RuntimeException cause ? cause : e;
        }
    }

    private void read(UUID id, Clip clip, long from, Deque<CompletableFuture<byte[]>> wanted) {
        var layout = new RawLayout(clip.format());
        var pool = new PlanePool(0);
        long n = from;
        try (FrameStream stream = clip.open(
                new FrameRange(from, from + wanted.size()), clip.format().whole(), pool, new Cancel())) {
            while (!wanted.isEmpty()) {
                Optional<Frame> frame = stream.next();
                if (frame.isEmpty()) {
                    break;
                }
                byte[] raw = new byte[layout.frameBytes()];
                // dithering leaves whole code values alone, so these are the very ones that were decoded
                layout.pack(frame.get(), raw);
                keep(new Key(id, n), wanted.removeFirst(), raw);
                n++;
            }
        } catch (RuntimeException | Error e) {
            fail(id, n, wanted, e);
        }
        fail(
                id,
                n,
                wanted,
                new awlsmith.media.MediaException("frame " + n + " cannot be decoded; the file is damaged there"));
    }

    private void fail(UUID id, long from, Deque<CompletableFuture<byte[]>> wanted, Throwable why) {
        long n = from;
        while (!wanted.isEmpty()) {
            synchronized (held) {
                held.remove(new Key(id, n));
            }
            wanted.removeFirst().completeExceptionally(why);
            n++;
        }
    }

    private static long bytesOf(CompletableFuture<byte[]> frame) {
        return frame.state() == CompletableFuture.State.SUCCESS ? frame.resultNow().length : 0;
    }

    /** Hands over a frame that has arrived, counts it unless its clip was forgotten meanwhile, and lets the oldest go. */
    private void keep(Key key, CompletableFuture<byte[]> frame, byte[] raw) {
        synchronized (held) {
            frame.complete(raw);
            if (held.containsKey(key)) {
                heldBytes += raw.length;
            }
            var oldest = held.entrySet().iterator();
            while (heldBytes > MOST_BYTES && oldest.hasNext()) {
                var entry = oldest.next();
                if (entry.getValue().isDone()) {
                    heldBytes -= bytesOf(entry.getValue());
                    oldest.remove();
                }
            }
        }
    }

    /** Frames unpacked from the cache, one by one. */
    private final class Cached implements FrameStream {
        private final UUID id;
        private final Clip clip;
        private final FrameRange range;
        private final Region window;
        private final PlanePool pool;
        private final Cancel cancel;
        private final RawLayout layout;
        private long next;

        Cached(UUID id, Clip clip, FrameRange range, Region window, PlanePool pool, Cancel cancel) {
            this.id = id;
            this.clip = clip;
            this.range = range;
            this.window = window;
            this.pool = pool;
            this.cancel = cancel;
            this.layout = new RawLayout(clip.format());
            this.next = range.from();
        }

        @Override
        public Format format() {
            return clip.format();
        }

        @Override
        public Optional<Frame> next() {
            cancel.check();
            if (next >= Math.min(range.end(), clip.index().orElseThrow().count())) {
                return Optional.empty();
            }
            byte[] raw = raw(id, clip, next);
            Frame frame = Frame.blank(clip.format(), window, next, clip.time(next), pool);
            layout.unpack(raw, frame);
            next++;
            return Optional.of(frame);
        }

        @Override
        public void close() {
            next = range.end();
        }
    }
}
