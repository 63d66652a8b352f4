package awlsmith.server.jobs;

import awlsmith.core.pipeline.Cancel;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** One go at a job: who does it, for the how manieth time, and the wish to stop. */
public final class JobRun {
    private static final Logger LOG = LoggerFactory.getLogger(JobRun.class);
    private static final long TELL_EVERY_NANOS = 300_000_000L;
    private static final long PAUSE_NANOS = 1_000_000_000L;
    /** As long as a database may be away before an outcome is given up; the job is then done again. */
    private static final int MOST_PAUSES = 120;

    private final String owner;
    private final Cancel cancel = new Cancel();
    private final AtomicLong toldAt = new AtomicLong(System.nanoTime() - TELL_EVERY_NANOS);
    private final BooleanSupplier closing;
    private final Runnable makeWay;
    private final Consumer<String> along;
    private volatile int attempt;

    /**
     * @param owner name of this process
     * @param closing whether it is going down
     * @param makeWay lets the next of its lane begin beside it
     * @param along notes another that is done along with it
     */
    public JobRun(String owner, BooleanSupplier closing, Runnable makeWay, Consumer<String> along) {
        this.owner = owner;
        this.closing = closing;
        this.makeWay = makeWay;
        this.along = along;
    }

    /** Another of its kind is done along with it: nobody begins it by itself meanwhile, and who stops it stops both. */
    public void takesAlong(String id) {
        along.accept(id);
    }

    /** What is left of it keeps little of the machine busy: the next of its lane may begin. */
    public void makeWay() {
        makeWay.run();
    }

    public String owner() {
        return owner;
    }

    public Cancel cancel() {
        return cancel;
    }

    /** Which go this is, as the row counts; every change of the row's state names it. */
    public int attempt() {
        return attempt;
    }

    /** @param number that the row now carries */
    public void began(int number) {
        attempt = number;
    }

    /** Whether the stop is for this process alone: the job is then left to whoever goes on with it. */
    public boolean isClosing() {
        return closing.getAsBoolean();
    }

    /** Notes progress, a few times a second at most; what cannot be noted just now is noted with the next. */
    public void tell(Runnable note) {
        long now = System.nanoTime();
        long last = toldAt.get();
        if (now - last > TELL_EVERY_NANOS && toldAt.compareAndSet(last, now)) {
            tolerant(note);
        }
    }

    /** Something that is only worth noting when the database answers. */
    public void tolerant(Runnable note) {
        try {
            note.run();
        } catch (RuntimeException e) {
            if (!Passing.isPassing(e)) {
                throw e;
            }
            LOG.warn("the database does not answer; the work goes on");
        }
    }

    /**
     * A change of state that must not be lost: tried again while the database is away.
     *
     * @param change tells whether it happened; it does not when another process has taken over
     */
    public void save(BooleanSupplier change) {
        for (int i = 0; ; i++) {
            try {
                if (!change.getAsBoolean()) {
                    LOG.warn("a job's outcome was not noted: it was stopped, or another process does it now");
                }
                return;
            } catch (RuntimeException e) {
                if (!Passing.isPassing(e) || isClosing() || i == MOST_PAUSES) {
                    throw e;
                }
                java.util.concurrent.locks.LockSupport.parkNanos(PAUSE_NANOS);
            }
        }
    }
}
