package awlsmith.core.pipeline;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Cuts the rows of a picture into bands and works on them at once. The bands never change the result, only the time.
 *
 * @param pool runs bands beside the calling thread
 * @param threads most bands worked on at one time, the calling thread's included
 * @param cancel checked before every band
 */
public record Work(Executor pool, int threads, Cancel cancel) {

    /** Body of a loop over rows from..to (exclusive). */
    @FunctionalInterface
    public interface Band {
        void rows(int from, int to);
    }

    public Work {
        if (threads < 1) {
            throw new IllegalArgumentException("threads is " + threads + ", must be at least 1");
        }
    }

    /** Everything on the calling thread. */
    public static Work alone() {
        return new Work(Runnable::run, 1, new Cancel());
    }

    /** The same, heeding another wish to stop. */
    public Work with(Cancel other) {
        return new Work(pool, threads, other);
    }

    /**
     * Runs the body over all rows and returns when every one is done.
     *
     * @param total rows
     * @param least rows worth a band of their own
     */
    public void bands(int total, int least, Band body) {
        int most = threads == 1 ? 1 : threads * 2;
        int count = Math.clamp(total / Math.max(1, least), 1, most);
        if (count == 1 || threads == 1) {
            cancel.check();
            body.rows(0, total);
            return;
        }
        var next = new AtomicInteger();
        Runnable worker = () -> {
            for (int i = next.getAndIncrement(); i < count; i = next.getAndIncrement()) {
                cancel.check();
                body.rows(bound(total, i, count), bound(total, i + 1, count));
            }
        };
        var helpers = new CompletableFuture<?>[Math.min(threads, count) - 1];
        for (int i = 0; i < helpers.length; i++) {
            helpers[i] = CompletableFuture.runAsync(worker, pool);
        }
        RuntimeException failed = null;
        try {
            worker.run();
        } catch (RuntimeException e) {
            failed = e;
            next.set(count);
        }
        try {
            CompletableFuture.allOf(helpers).join();
        } catch (CompletionException e) {
            if (failed == null && e.getCause() instanceof RuntimeException cause) {
                failed = cause;
            } else if (failed == null) {
                throw e;
            }
        }
        if (failed != null) {
            throw failed;
        }
    }

    private static int bound(int total, int i, int count) {
        return (int) ((long) total * i / count);
    }
}
