package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import java.util.Optional;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;

/** Pulls a stream on a thread of its own, a few frames ahead of whoever wants them. */
public final class Ahead implements FrameStream {
    private final FrameStream input;
    private final PlanePool pool;
    private final BlockingQueue<Object> ready;
    private final Thread puller;
    private final AtomicLong busyNanos = new AtomicLong();
    private final AtomicLong waitedNanos = new AtomicLong();
    private volatile boolean closed;
    private boolean ended;

    /** Marks the end of the stream in the queue. */
    private static final Object END = new Object();

    /** @param frames that may wait */
    public Ahead(FrameStream input, int frames, PlanePool pool) {
        this.input = input;
        this.pool = pool;
        this.ready = new ArrayBlockingQueue<>(frames);
        this.puller = Thread.ofPlatform().name("ahead").daemon().start(this::pull);
    }

    private void pull() {
        try {
            while (!closed) {
                long start = System.nanoTime();
                var frame = input.next();
                busyNanos.addAndGet(System.nanoTime() - start);
                if (!put(frame.<Object>map(f -> f).orElse(END)) || frame.isEmpty()) {
                    return;
                }
            }
        } catch (RuntimeException | Error e) {
            put(e);
        }
    }

    private boolean put(Object item) {
        try {
            while (!closed) {
                if (ready.offer(item, 50, TimeUnit.MILLISECONDS)) {
                    return true;
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        if (item instanceof Frame frame) {
            frame.release(pool);
        }
        return false;
    }

    /** Time spent in the input so far. */
    public long busyNanos() {
        return busyNanos.get();
    }

    /** Time whoever pulls has spent waiting so far. */
    public long waitedNanos() {
        return waitedNanos.get();
    }

    @Override
    public Format format() {
        return input.format();
    }

    @Override
    public Optional<Frame> next() {
        if (ended) {
            return Optional.empty();
        }
        try {
            long start = System.nanoTime();
            Object item = ready.take();
            waitedNanos.addAndGet(System.nanoTime() - start);
            return switch (item) {
                case Frame frame -> Optional.of(frame);
                case RuntimeException e -> {
                    ended = true;
                    throw e;
                }
                case Error e -> {
                    ended = true;
                    throw e;
                }
                default -> {
                    ended = true;
                    yield Optional.empty();
                }
            };
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
    }

    @Override
    public void close() {
        closed = true;
        input.close();
        try {
            puller.join(5000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        for (Object item = ready.poll(); item != null; item = ready.poll()) {
            if (item instanceof Frame frame) {
                frame.release(pool);
            }
        }
        ended = true;
    }
}
