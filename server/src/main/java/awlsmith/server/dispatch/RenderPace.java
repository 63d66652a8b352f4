package awlsmith.server.dispatch;

import awlsmith.core.pipeline.Cancel;
import awlsmith.server.stills.Stills;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.DoubleSupplier;

/** Lets a render wait between frames: while something is made that somebody waits for, and as long as its share of the time wants. */
final class RenderPace implements Runnable {
    private static final long LONGEST_REST_NANOS = TimeUnit.SECONDS.toNanos(60);
    private static final long NAP_NANOS = TimeUnit.MILLISECONDS.toNanos(20);

    private final Stills stills;
    private final DoubleSupplier share;
    private final Cancel cancel;
    private long since = System.nanoTime();
    private long rested;

    /** @param share of the time that it may work just now, 0..1 */
    RenderPace(Stills stills, DoubleSupplier share, Cancel cancel) {
        this.stills = stills;
        this.share = share;
        this.cancel = cancel;
    }

    /** Time it rested for its share's sake, in seconds. */
    synchronized double restedSeconds() {
        return rested / 1e9;
    }

    @Override
    public synchronized void run() {
        long worked = System.nanoTime() - since;
        stills.awaitUrgent(cancel);
        long begun = System.nanoTime();
        // the share is asked for again and again: somebody may go meanwhile
        for (long now = begun; now - begun < rest(worked); now = System.nanoTime()) {
            cancel.check();
            LockSupport.parkNanos(NAP_NANOS);
        }
        since = System.nanoTime();
        rested += since - begun;
    }

    private long rest(long worked) {
        double part = share.getAsDouble();
        if (part >= 1) {
            return 0;
        }
        return part <= 0 ? Long.MAX_VALUE : Math.min(LONGEST_REST_NANOS, (long) (worked * (1 - part) / part));
    }
}
