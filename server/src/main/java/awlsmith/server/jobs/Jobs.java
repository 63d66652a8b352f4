package awlsmith.server.jobs;

import awlsmith.core.pipeline.Budget;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.MediaException;
import awlsmith.server.problem.Refusal;
import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.ExecutionContext;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.TaskInstance;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Runs all jobs on db-scheduler: one task in the database for each thing to be done, picked up by one process at a time and held by
 * its heartbeats. What a process that died had picked up is free again when its heartbeats have stopped.
 */
@Service
public class Jobs {
    static final TaskDescriptor<Void> WORK = TaskDescriptor.of("work");

    private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);
    private static final Duration SOON = Duration.ofSeconds(1);
    /** Until a place in its lane is free a job looks now and then; the one that leaves wakes the next. */
    private static final Duration LATER = Duration.ofSeconds(15);

    private static final int MOST_TRIES = 12;
    private static final Duration LONGEST_PAUSE = Duration.ofSeconds(30);

    private final ObjectProvider<Job> beans;
    private final ObjectProvider<Scheduler> scheduler;
    private final Owner owner;
    private final Clock clock;
    private final Map<String, JobRun> running = new ConcurrentHashMap<>();
    private final Map<Lane, Semaphore> lanes =
            Stream.of(Lane.values()).collect(Collectors.toMap(lane -> lane, lane -> new Semaphore(lane.width())));
    /** Of each lane one may be ending while the next has begun. */
    private final Map<Lane, Semaphore> endings =
            Stream.of(Lane.values()).collect(Collectors.toMap(lane -> lane, lane -> new Semaphore(1)));

    private final Map<String, Integer> tries = new ConcurrentHashMap<>();
    private volatile boolean closing;

    Jobs(ObjectProvider<Job> beans, ObjectProvider<Scheduler> scheduler, Owner owner, Clock clock) {
        this.beans = beans;
        this.scheduler = scheduler;
        this.owner = owner;
        this.clock = clock;
    }

    private Map<String, Job> kinds() {
        return beans.stream().collect(Collectors.toMap(Job::kind, Function.identity()));
    }

    /** Sees to it that something is done; in the caller's transaction, if there is one. */
    public void want(String kind, String id) {
        schedule(kind, id);
        if (TransactionSynchronizationManager.isSynchronizationActive()) {
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public void afterCommit() {
                    // its task of before may have ended while nobody saw yet that it is wanted again
                    schedule(kind, id);
                    wake();
                }
            });
        } else {
            wake();
        }
    }

    private void schedule(String kind, String id) {
        scheduler
                .getObject()
                .scheduleIfNotExists(WORK.instance(instance(kind, id)).scheduledTo(clock.instant()));
    }

    private void wake() {
        scheduler.getObject().triggerCheckForDueExecutions();
    }

    /** Stops it if it runs here; true when it does. */
    public boolean stop(String kind, String id) {
        JobRun run = running.get(instance(kind, id));
        if (run != null) {
            run.cancel().ask();
        }
        return run != null;
    }

    public boolean isRunning(String kind, String id) {
        return running.containsKey(instance(kind, id));
    }

    /** Waits until one that was stopped is out of work. */
    public void await(String kind, String id) {
        while (isRunning(kind, id)) {
            java.util.concurrent.locks.LockSupport.parkNanos(5_000_000);
        }
    }

    private static String instance(String kind, String id) {
        return kind + ":" + id;
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        closing = true;
        running.values().forEach(run -> run.cancel().ask());
    }

    /** What waits must have a task, whatever became of it: a database put back from a copy, an older version's rows. */
    @EventListener(ApplicationReadyEvent.class)
    @Scheduled(fixedDelay = 30_000, initialDelay = 30_000)
    void sweep() {
        try {
            for (Job job : kinds().values()) {
                for (String id : job.unfinished()) {
                    schedule(job.kind(), id);
                }
            }
        } catch (RuntimeException e) {
            if (!Passing.isPassing(e)) {
                throw e;
            }
        }
    }

    CompletionHandler<Void> execute(TaskInstance<Void> task, ExecutionContext context) {
        String instance = task.getId();
        int cut = instance.indexOf(':');
        Job job = kinds().get(instance.substring(0, Math.max(0, cut)));
        if (job == null) {
            LOG.warn("there is no job of the kind {}; its task is left out", instance);
            return (done, operations) -> operations.remove();
        }
        String id = instance.substring(cut + 1);
        if (closing) {
            return again(Duration.ZERO);
        }
        if (!isNext(job, id)) {
            return again(SOON);
        }
        if (running.containsKey(instance)) {
            // it is done along with another, or its task was taken for a dead one's while the database was away
            return again(LATER);
        }
        if (!lanes.get(job.lane()).tryAcquire()) {
            return again(LATER);
        }
        var place = new Place(job.lane());
        try {
            return run(job, id, instance, place);
        } finally {
            place.leave();
        }
    }

    /** What a job that runs holds in its lane. */
    private final class Place {
        private final Lane lane;
        private boolean hasMadeWay;

        Place(Lane lane) {
            this.lane = lane;
        }

        /** Lets the next one begin beside it, unless one that did so is still not done. */
        synchronized void makeWay() {
            if (!hasMadeWay && endings.get(lane).tryAcquire()) {
                hasMadeWay = true;
                lanes.get(lane).release();
                next(lane);
            }
        }

        synchronized void leave() {
            (hasMadeWay ? endings : lanes).get(lane).release();
            next(lane);
        }
    }

    /** In a lane of one the oldest goes first. */
    private static boolean isNext(Job job, String id) {
        if (job.lane().width() > 1) {
            return true;
        }
        List<String> waiting = job.waiting();
        return !waiting.contains(id) || waiting.getFirst().equals(id);
    }

    /** Calls whoever waits longest for a place. */
    private void next(Lane lane) {
        if (closing) {
            return;
        }
        for (Job job : kinds().values()) {
            if (job.lane() == lane) {
                try {
                    job.waiting().stream()
                            .findFirst()
                            .ifPresent(id -> scheduler
                                    .getObject()
                                    .reschedule(WORK.instanceId(instance(job.kind(), id)), clock.instant()));
                } catch (RuntimeException e) {
                    // it is picked up just now, or the database is away: it looks by itself before long
                }
            }
        }
        wake();
    }

    private CompletionHandler<Void> run(Job job, String id, String instance, Place place) {
        var run = new JobRun(
                owner.name(),
                () -> closing,
                place::makeWay,
                other -> running.put(instance(job.kind(), other), running.get(instance)));
        running.put(instance, run);
        try {
            job.run(id, run);
            tries.remove(instance);
        } catch (Cancel.Stopped e) {
            if (closing) {
                // the next start goes on with it
                return again(Duration.ZERO);
            }
            run.save(() -> {
                job.stopped(id, run);
                return true;
            });
        } catch (MediaException | Refusal | Budget.Exceeded e) {
            fail(job, id, run, e.getMessage());
        } catch (OutOfMemoryError e) {
            LOG.warn("too little memory for {}", instance);
            fail(job, id, run, job.tooLittleMemory());
        } catch (IOException | RuntimeException | Error e) {
            if (Passing.isPassing(e) && tries.merge(instance, 1, Integer::sum) < MOST_TRIES) {
                LOG.warn("{} is tried again: {}", instance, e.getMessage());
                return again(pause(tries.get(instance)));
            }
            LOG.error("{} failed", instance, e);
            fail(job, id, run, sentence(job, e));
        } finally {
            running.values().removeIf(one -> one == run);
            run.tolerant(() -> job.ended(id));
        }
        // it may have been asked for again meanwhile
        return job.waiting().contains(id) ? again(Duration.ZERO) : ended(job, id);
    }

    /** Without its task; with a new one where it was asked for again in this very moment. */
    private CompletionHandler<Void> ended(Job job, String id) {
        return (done, operations) -> {
            operations.remove();
            if (job.waiting().contains(id)) {
                schedule(job.kind(), id);
                wake();
            }
        };
    }

    private static String sentence(Job job, Throwable e) {
        return String.valueOf(e.getMessage()).contains("No space left")
                ? "the disk is full: free some space, then try again"
                : job.fault();
    }

    private static void fail(Job job, String id, JobRun run, String sentence) {
        run.save(() -> {
            job.failed(id, run, sentence);
            return true;
        });
    }

    private static Duration pause(int tries) {
        Duration pause = Duration.ofSeconds(1L << Math.min(tries, 6));
        return pause.compareTo(LONGEST_PAUSE) > 0 ? LONGEST_PAUSE : pause;
    }

    private CompletionHandler<Void> again(Duration pause) {
        return (done, operations) ->
                operations.reschedule(done, Instant.now(clock).plus(pause));
    }
}
