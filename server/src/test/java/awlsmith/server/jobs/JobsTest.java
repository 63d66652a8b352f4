package awlsmith.server.jobs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.MediaException;
import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.ExecutionOperations;
import com.github.kagkarlsson.scheduler.task.TaskInstance;
import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Semaphore;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.ObjectProvider;

/** The rules of background work, without a database. */
class JobsTest {
    private static final Instant NOW = Instant.parse("2026-11-26T12:00:00Z");

    private final Made job = new Made();
    private final Scheduler scheduler = mock(Scheduler.class);
    private Jobs jobs;

    /** Does what a test says, and notes what becomes of it. */
    private static final class Made implements Job {
        interface Body {
            void run(JobRun run) throws IOException;
        }

        private Body body = run -> {};
        private final List<String> waiting = new ArrayList<>();
        private final List<String> failures = new ArrayList<>();
        private int stopped;

        @Override
        public String kind() {
            return "made";
        }

        @Override
        public Lane lane() {
            return Lane.RENDER;
        }

        @Override
        public List<String> waiting() {
            return waiting;
        }

        @Override
        public List<String> unfinished() {
            return waiting;
        }

        @Override
        public void run(String id, JobRun run) throws IOException {
            body.run(run);
        }

        @Override
        public void failed(String id, JobRun run, String sentence) {
            failures.add(sentence);
        }

        @Override
        public void stopped(String id, JobRun run) {
            stopped++;
        }

        @Override
        public String fault() {
            return "a fault";
        }
    }

    @BeforeEach
    @SuppressWarnings("unchecked")
    void begin() {
        Owner owner = mock(Owner.class);
        when(owner.name()).thenReturn("me");
        ObjectProvider<Job> beans = mock(ObjectProvider.class);
        when(beans.stream()).thenAnswer(any -> Stream.of(job));
        ObjectProvider<Scheduler> provider = mock(ObjectProvider.class);
        when(provider.getObject()).thenReturn(scheduler);
        jobs = new Jobs(beans, provider, owner, Clock.fixed(NOW, ZoneOffset.UTC));
    }

    /** What becomes of the task: when it is done again, or null when it is removed. */
    @SuppressWarnings("unchecked")
    private Instant execute(String id) {
        CompletionHandler<Void> then = jobs.execute(new TaskInstance<>("work", "made:" + id), null);
        ExecutionOperations<Void> operations = mock(ExecutionOperations.class);
        var at = org.mockito.ArgumentCaptor.forClass(Instant.class);
        then.complete(null, operations);
        if (org.mockito.Mockito.mockingDetails(operations).getInvocations().stream()
                .anyMatch(call -> call.getMethod().getName().equals("remove"))) {
            verify(operations, never()).reschedule(any(), any());
            return null;
        }
        verify(operations).reschedule(any(), at.capture());
        return at.getValue();
    }

    @Test
    void whatIsDoneIsDoneOnce() {
        assertThat(execute("a")).isNull();
        assertThat(job.failures).isEmpty();
    }

    @Test
    void aSentenceAnErrorAndAFaultEndItWithWords() {
        job.body = run -> {
            throw new MediaException("the file is damaged");
        };
        assertThat(execute("a")).isNull();
        job.body = run -> {
            throw new OutOfMemoryError("Java heap space");
        };
        assertThat(execute("a")).isNull();
        job.body = run -> {
            throw new StackOverflowError();
        };
        assertThat(execute("a")).isNull();
        job.body = run -> {
            throw new IOException("No space left on device");
        };
        assertThat(execute("a")).isNull();
        assertThat(job.failures).hasSize(4);
        assertThat(job.failures.get(0)).isEqualTo("the file is damaged");
        assertThat(job.failures.get(1)).startsWith("too little memory");
        assertThat(job.failures.get(2)).isEqualTo("a fault");
        assertThat(job.failures.get(3)).startsWith("the disk is full");
    }

    @Test
    void aDatabaseThatIsAwayIsWaitedForAndNotForEver() {
        job.body = run -> {
            throw new org.jooq.exception.DataAccessException("away", new java.sql.SQLTransientConnectionException());
        };
        Instant before = NOW;
        int tries = 0;
        for (Instant again = execute("a"); again != null; again = execute("a")) {
            assertThat(again)
                    .isAfter(NOW)
                    .isBeforeOrEqualTo(NOW.plusSeconds(30))
                    .isAfterOrEqualTo(before);
            before = again;
            tries++;
            assertThat(job.failures).isEmpty();
        }
        assertThat(tries).isBetween(5, 30);
        assertThat(job.failures).hasSize(1);
    }

    @Test
    void oneThatIsStoppedIsNotDoneAgainButOneThatAClosingServerStopsIs() {
        job.body = run -> {
            assertThat(jobs.stop("made", "a")).isTrue();
            run.cancel().check();
        };
        assertThat(execute("a")).isNull();
        assertThat(job.stopped).isOne();
        job.body = run -> {
            jobs.close();
            assertThat(run.cancel().isAsked()).isTrue();
            throw new Cancel.Stopped();
        };
        assertThat(execute("a")).isEqualTo(NOW);
        assertThat(job.stopped).isOne();
        job.body = run -> {
            throw new AssertionError("a closing server begins nothing");
        };
        assertThat(execute("b")).isEqualTo(NOW);
    }

    @Test
    void oneThatWasAskedForAgainMeanwhileIsDoneAgain() {
        job.body = run -> job.waiting.add("a");
        assertThat(execute("a")).isEqualTo(NOW);
    }

    /** Two renders at once would only make both late; the older goes first. */
    @Test
    void aLaneOfOneTakesTurnsInOrder() throws Exception {
        job.waiting.addAll(List.of("a", "b"));
        assertThat(execute("b")).isEqualTo(NOW.plusSeconds(1));
        var runs = new CountDownLatch(1);
        var end = new CountDownLatch(1);
        job.body = run -> {
            job.waiting.remove("a");
            runs.countDown();
            try {
                end.await();
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        };
        var first = Thread.ofVirtual().start(() -> execute("a"));
        runs.await();
        assertThat(execute("b")).isAfter(NOW.plusSeconds(1));
        end.countDown();
        first.join();
        job.body = run -> job.waiting.remove("b");
        assertThat(execute("b")).isNull();
    }

    /** One that only has to be put together lets the next begin; a third waits until the first of them is done. */
    @Test
    void oneThatMakesWayLetsTheNextBegin() throws Exception {
        job.waiting.addAll(List.of("a", "b", "c"));
        var end = new Semaphore(0);
        var runs = new Semaphore(0);
        job.body = run -> {
            job.waiting.removeFirst();
            run.makeWay();
            runs.release();
            end.acquireUninterruptibly();
        };
        var first = Thread.ofVirtual().start(() -> execute("a"));
        runs.acquire();
        var second = Thread.ofVirtual().start(() -> execute("b"));
        runs.acquire();
        assertThat(execute("c")).isAfter(NOW.plusSeconds(1));
        end.release(2);
        first.join();
        second.join();
        job.body = run -> job.waiting.remove("c");
        assertThat(execute("c")).isNull();
    }

    /** What is done along with another has a task too: it waits, even where there is room, and is stopped with it. */
    @Test
    void whatIsDoneAlongIsNotBegunByItself() {
        job.body = run -> {
            run.takesAlong("b");
            run.makeWay();
            job.body = other -> {
                throw new AssertionError("b was begun beside itself");
            };
            assertThat(execute("a")).isAfter(NOW.plusSeconds(1));
            assertThat(execute("b")).isAfter(NOW.plusSeconds(1));
            assertThat(jobs.stop("made", "b")).isTrue();
            assertThat(run.cancel().isAsked()).isTrue();
        };
        assertThat(execute("a")).isNull();
        assertThat(jobs.isRunning("made", "b")).isFalse();
    }

    @Test
    void aKindThatIsNoLongerKnownBlocksNothing() {
        var then = jobs.execute(new TaskInstance<>("work", "gone:1"), null);
        @SuppressWarnings("unchecked")
        ExecutionOperations<Void> operations = mock(ExecutionOperations.class);
        then.complete(null, operations);
        verify(operations).remove();
    }
}
