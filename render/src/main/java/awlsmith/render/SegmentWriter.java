package awlsmith.render;

import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Encoding;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Hands packed pictures to encoders on a thread of its own, one encoder a segment. While one segment's encoder empties
 * itself the next one already starts.
 */
final class SegmentWriter implements AutoCloseable {
    private static final int BUFFERS = 3;

    private record Picture(byte[] raw, Rational time) {}

    private static final Picture END = new Picture(new byte[0], Rational.ZERO);

    private final RenderRequest request;
    private final SegmentFolder segments;
    private final RawLayout layout;
    private final Machine machine;
    private final RenderWatch watch;
    private final Cancel cancel;
    private final BlockingQueue<Picture> queue = new ArrayBlockingQueue<>(BUFFERS);
    private final BlockingQueue<byte[]> free = new ArrayBlockingQueue<>(BUFFERS);
    private final AtomicLong busy = new AtomicLong();
    private final CompletableFuture<Void> worker;
    private volatile boolean closed;

    // touched by the worker only
    private int number;
    private int inSegment;
    private Rational segmentStart = Rational.ZERO;
    private Encoding encoding;
    private CompletableFuture<Void> finishing = CompletableFuture.completedFuture(null);

    SegmentWriter(
            RenderRequest request,
            SegmentFolder segments,
            RawLayout layout,
            Machine machine,
            RenderWatch watch,
            Cancel cancel,
            int first) {
        this.request = request;
        this.segments = segments;
        this.layout = layout;
        this.machine = machine;
        this.watch = watch;
        this.cancel = cancel;
        this.number = first;
        for (int i = 0; i < BUFFERS; i++) {
            free.add(new byte[layout.frameBytes()]);
        }
        worker = CompletableFuture.runAsync(
                this::run,
                task -> Thread.ofPlatform().name("encoder-feed").daemon().start(task));
    }

    /** An array for the next picture; waits until one is free. */
    byte[] buffer() {
        return awaiting(() -> free.poll(50, TimeUnit.MILLISECONDS));
    }

    void put(byte[] raw, Rational time) {
        var picture = new Picture(raw, time);
        awaiting(() -> queue.offer(picture, 50, TimeUnit.MILLISECONDS) ? picture : null);
    }

    long busyNanos() {
        return busy.get();
    }

    /** Ends the last segment and waits until all are on disk. */
    void finish() {
        awaiting(() -> queue.offer(END, 50, TimeUnit.MILLISECONDS) ? END : null);
        try {
            worker.join();
        } catch (CompletionException e) {
            throw unwrapped(e);
        }
    }

    private interface Attempt<T> {
        T run() throws InterruptedException;
    }

    private <T> T awaiting(Attempt<T> attempt) {
        try {
            while (true) {
                cancel.check();
                if (worker.isDone()) {
                    worker.join();
                }
                T result = attempt.run();
                if (result != null) {
                    return result;
                }
            }
        } catch (CompletionException e) {
            throw unwrapped(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
    }

    private static RuntimeException unwrapped(CompletionException e) {
        return e.getCause() instanceof RuntimeException cause ? cause : e;
    }

    private void run() {
        try {
            while (!closed) {
                Picture picture = queue.poll(50, TimeUnit.MILLISECONDS);
                if (picture == null) {
                    continue;
                }
                if (picture == END) {
                    endSegment();
                    finishing.join();
                    return;
                }
                long start = System.nanoTime();
                write(picture);
                busy.addAndGet(System.nanoTime() - start);
                free.add(picture.raw());
            }
        } catch (CompletionException e) {
            throw unwrapped(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void write(Picture picture) {
        if (encoding == null) {
            encoding = new Encoding(
                    segments.partFile(number),
                    layout.format(),
                    request.outputRate(),
                    request.parts(),
                    Engine.CODING_THREADS);
            segmentStart = picture.time();
            inSegment = 0;
        }
        encoding.write(picture.raw(), picture.time().minus(segmentStart));
        inSegment++;
        if (inSegment == request.segmentFrames()) {
            endSegment();
        }
    }

    private void endSegment() {
        finishing.join();
        if (encoding == null) {
            return;
        }
        Encoding ending = encoding;
        int ended = number;
        int frames = inSegment;
        encoding = null;
        number++;
        finishing = CompletableFuture.runAsync(
                () -> {
                    try (ending) {
                        ending.finish(cancel);
                        segments.keep(ended);
                        watch.segment(ended, frames);
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                },
                task -> Thread.ofPlatform().name("encoder-end").daemon().start(task));
    }

    @Override
    public void close() {
        closed = true;
        try {
            worker.handle((done, failed) -> null).get(2, TimeUnit.SECONDS);
        } catch (java.util.concurrent.TimeoutException | java.util.concurrent.ExecutionException e) {
            // it hangs in a write; closing the encoder's process below breaks the pipe
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        Encoding open = encoding;
        if (open != null) {
            open.close();
        }
        worker.handle((done, failed) -> null).join();
        finishing.handle((done, failed) -> null).join();
        try {
            for (int n = Math.max(0, number - 1); n <= number; n++) {
                Files.deleteIfExists(segments.partFile(n));
            }
        } catch (IOException e) {
            // a part left behind is overwritten by the next run
        }
    }
}
