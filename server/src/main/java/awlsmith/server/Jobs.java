package awlsmith.server;

import static awlsmith.server.db.Tables.SCHEDULED_TASKS;

import awlsmith.server.clips.Clips;
import awlsmith.server.clips.TakeIn;
import awlsmith.server.examine.Examinations;
import awlsmith.server.peeks.PeekPictures;
import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerName;
import com.github.kagkarlsson.scheduler.boot.config.DbSchedulerCustomizer;
import com.github.kagkarlsson.scheduler.task.FailureHandler;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.EventListener;
import org.springframework.transaction.event.TransactionalEventListener;

/** Jobs that survive a restart. */
@Configuration(proxyBeanMethods = false)
class Jobs {
    static final TaskDescriptor<Void> READ_CLIP = TaskDescriptor.of("read-clip");
    static final TaskDescriptor<Void> EXAMINE_CLIP = TaskDescriptor.of("examine-clip");
    static final TaskDescriptor<Void> PEEK_CLIP = TaskDescriptor.of("peek-clip");

    @Bean
    OneTimeTask<Void> readClip(TakeIn takeIn) {
        return Tasks.oneTime(READ_CLIP).execute((task, context) -> takeIn.run(UUID.fromString(task.getId())));
    }

    @Bean
    OneTimeTask<Void> examineClip(Examinations examinations) {
        // it only fails when the server ends in the middle of it: then the next start begins it again at once
        return Tasks.oneTime(EXAMINE_CLIP)
                .onFailure(new FailureHandler.OnFailureRetryLater<>(Duration.ofSeconds(1)))
                .execute((task, context) -> examinations.run(UUID.fromString(task.getId())));
    }

    @Bean
    OneTimeTask<Void> peekClip(PeekPictures peeks) {
        return Tasks.oneTime(PEEK_CLIP)
                .onFailure(new FailureHandler.OnFailureRetryLater<>(Duration.ofSeconds(1)))
                .execute((task, context) -> peeks.run(UUID.fromString(task.getId())));
    }

    /** One name for this data folder, so that what a killed server had picked up is free again at once. */
    @Bean
    DbSchedulerCustomizer schedulerName(AwlsmithProperties properties, DSLContext db) {
        String name =
                "awlsmith-" + Integer.toHexString(properties.home().toString().hashCode());
        db.update(SCHEDULED_TASKS)
                .set(SCHEDULED_TASKS.PICKED, false)
                .setNull(SCHEDULED_TASKS.PICKED_BY)
                .setNull(SCHEDULED_TASKS.LAST_HEARTBEAT)
                .where(SCHEDULED_TASKS.PICKED_BY.eq(name))
                .execute();
        return new DbSchedulerCustomizer() {
            @Override
            public Optional<SchedulerName> schedulerName() {
                return Optional.of(new SchedulerName.Fixed(name));
            }
        };
    }

    /** The job is stored with the clip, in one transaction, and started as soon as that is through. */
    @Configuration(proxyBeanMethods = false)
    static class Starter {
        private final ObjectProvider<Scheduler> scheduler;
        private final Clock clock;

        Starter(ObjectProvider<Scheduler> scheduler, Clock clock) {
            this.scheduler = scheduler;
            this.clock = clock;
        }

        @EventListener
        void enqueue(Clips.Added event) {
            scheduler
                    .getObject()
                    .scheduleIfNotExists(
                            READ_CLIP.instance(event.id().toString()).scheduledTo(clock.instant()));
        }

        @EventListener
        void enqueue(Examinations.Wanted event) {
            scheduler
                    .getObject()
                    .scheduleIfNotExists(
                            EXAMINE_CLIP.instance(event.clip().toString()).scheduledTo(clock.instant()));
        }

        @EventListener
        void enqueue(PeekPictures.Wanted event) {
            scheduler
                    .getObject()
                    .scheduleIfNotExists(
                            PEEK_CLIP.instance(event.clip().toString()).scheduledTo(clock.instant()));
        }

        @TransactionalEventListener
        void wake(PeekPictures.Wanted event) {
            scheduler.getObject().triggerCheckForDueExecutions();
        }

        @TransactionalEventListener
        void wake(Examinations.Wanted event) {
            scheduler.getObject().triggerCheckForDueExecutions();
        }

        @TransactionalEventListener
        void wake(Clips.Added event) {
            scheduler.getObject().triggerCheckForDueExecutions();
        }
    }
}
