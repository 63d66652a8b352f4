package awlsmith.core.pipeline;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;

/**
 * The memory that all work in a process shares. Whoever wants planes and buffers asks first, waits while others hold too much, and is
 * refused with a sentence what never fits. Work in the background leaves a part to those who look.
 */
public final class Budget {
    /** Share that work in the background may hold together. */
    private static final double BACKGROUND = 0.8;

    private final long whole;
    private final ReentrantLock lock = new ReentrantLock(true);
    private final Condition less = lock.newCondition();
    private volatile long limit;
    private long held;
    private long heldBehind;

    /** @param limit bytes of it all */
    public Budget(long limit) {
        this.whole = limit;
        this.limit = limit;
    }

    /** What was asked for does not fit, or not in time; the message is a sentence for the user. */
    public static final class Exceeded extends RuntimeException {
        Exceeded(String sentence) {
            super(sentence);
        }
    }

    /** Memory that was granted; given back by closing it, once. */
    public interface Grant extends AutoCloseable {
        @Override
        void close();
    }

    /** Bytes that all work together may take. */
    public long limit() {
        return limit;
    }

    /** Bytes that all work together could take at most. */
    public long whole() {
        return whole;
    }

    /**
     * From now on only a share may be taken; what is held already is given back in its own time.
     *
     * @param share above 0, up to 1
     */
    public void lend(double share) {
        if (!(share > 0 && share <= 1)) {
            throw new IllegalArgumentException("share is " + share + ", must be above 0 and at most 1");
        }
        lock.lock();
        try {
            limit = (long) (whole * share);
            less.signalAll();
        } finally {
            lock.unlock();
        }
    }

    /** Most that one piece of work in the background can get. */
    public long background() {
        return (long) (limit * BACKGROUND);
    }

    /** Held by all just now. */
    public long held() {
        lock.lock();
        try {
            return held;
        } finally {
            lock.unlock();
        }
    }

    /**
     * For somebody who waits for an answer.
     *
     * @param bytes wanted
     * @param most seconds to wait for others
     * @throws Exceeded when it does not fit at all, or not in time
     * @throws Cancel.Stopped when no longer wanted
     */
    public Grant take(long bytes, int most, Cancel cancel) {
        return granted(bytes, false, TimeUnit.SECONDS.toNanos(most), cancel);
    }

    /** For work that can wait as long as it takes. */
    public Grant takeBehind(long bytes, Cancel cancel) {
        return granted(bytes, true, Long.MAX_VALUE, cancel);
    }

    private long most(boolean behind) {
        return behind ? background() : limit;
    }

    private static void demand(long bytes, long most) {
        if (bytes > most) {
            throw new Exceeded("this needs about " + megabytes(bytes) + " MB of memory, " + megabytes(most)
                    + " MB are allowed on this machine; choose a smaller size or part");
        }
    }

    private Grant granted(long bytes, boolean behind, long patience, Cancel cancel) {
        demand(bytes, most(behind));
        long start = System.nanoTime();
        lock.lock();
        try {
            while (held + bytes > limit || behind && heldBehind + bytes > most(behind)) {
                cancel.check();
                demand(bytes, most(behind));
                if (System.nanoTime() - start > patience) {
                    throw new Exceeded(
                            "other large pictures fill the memory just now; try again in a moment, or look at a part");
                }
                less.await(50, TimeUnit.MILLISECONDS);
            }
            held += bytes;
            heldBehind += behind ? bytes : 0;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        } finally {
            lock.unlock();
        }
        var open = new java.util.concurrent.atomic.AtomicBoolean(true);
        return () -> {
            if (open.compareAndSet(true, false)) {
                giveBack(bytes, behind);
            }
        };
    }

    private void giveBack(long bytes, boolean behind) {
        lock.lock();
        try {
            held -= bytes;
            heldBehind -= behind ? bytes : 0;
            less.signalAll();
        } finally {
            lock.unlock();
        }
    }

    private static long megabytes(long bytes) {
        return Math.ceilDiv(bytes, 1_000_000);
    }
}
