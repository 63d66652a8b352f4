package awlsmith.render;

import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Work;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/**
 * What this machine lends to the work: threads for bands, arrays for planes, a bound on memory.
 *
 * @param threads bands worked on at once, and the most threads an encoder may use
 * @param memoryLimit bytes of planes and buffers one render may hold
 */
public record Machine(ExecutorService bands, int threads, PlanePool planes, long memoryLimit) implements AutoCloseable {

    public static Machine of(int threads) {
        long heap = Runtime.getRuntime().maxMemory();
        return new Machine(
                Executors.newFixedThreadPool(
                        threads, Thread.ofPlatform().name("bands-", 0).daemon().factory()),
                threads,
                new PlanePool(heap / 4),
                heap * 7 / 10);
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
