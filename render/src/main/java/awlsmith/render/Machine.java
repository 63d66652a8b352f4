package awlsmith.render;

import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Budget;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Work;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/**
 * What this machine lends to the work: threads for bands, arrays for planes, a bound on memory.
 *
 * @param threads bands worked on at once, and the most threads an encoder may use
 * @param budget of memory that all work shares
 */
public record Machine(ExecutorService bands, int threads, PlanePool planes, Budget budget) implements AutoCloseable {
    /** Shares of the heap: for work, and for planes that wait to be used again; the rest is caches and everything else. */
    private static final double FOR_WORK = 0.6;

    private static final double FOR_REUSE = 0.125;

    public static Machine of(int threads) {
        long heap = Runtime.getRuntime().maxMemory();
        return new Machine(
                Executors.newFixedThreadPool(
                        threads, Thread.ofPlatform().name("bands-", 0).daemon().factory()),
                threads,
                new PlanePool((long) (heap * FOR_REUSE)),
                new Budget((long) (heap * FOR_WORK)));
    }

    /** Bytes of planes and buffers one render may hold. */
    public long memoryLimit() {
        return budget.background();
    }

    /**
     * Bytes that a cache may hold.
     *
     * @param most where the heap is large enough
     * @param share of the heap otherwise; those of all caches together stay well below what {@link #FOR_WORK} and {@link #FOR_REUSE} leave
     */
    public static long forCache(long most, double share) {
        return Math.min(most, (long) (Runtime.getRuntime().maxMemory() * share));
    }

    public static Machine whole() {
        return of(Runtime.getRuntime().availableProcessors());
    }

    public Work work(Cancel cancel) {
        return new Work(bands, threads, cancel);
    }

    @Override
    public void close() {
        bands.shutdownNow();
    }
}
