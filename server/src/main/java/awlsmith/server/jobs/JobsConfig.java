package awlsmith.server.jobs;

import com.github.kagkarlsson.scheduler.SchedulerName;
import com.github.kagkarlsson.scheduler.boot.config.DbSchedulerCustomizer;
import com.github.kagkarlsson.scheduler.task.Task;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import java.time.Duration;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The one task that all jobs are, and the name they are done under. */
@Configuration(proxyBeanMethods = false)
class JobsConfig {
    @Bean
    Task<Void> work(Jobs jobs) {
        return Tasks.custom(Jobs.WORK)
                .onDeadExecutionRevive()
                .onFailure(new com.github.kagkarlsson.scheduler.task.FailureHandler.OnFailureRetryLater<>(
                        Duration.ofSeconds(2)))
                .execute(jobs::execute);
    }

    @Bean
    DbSchedulerCustomizer schedulerName(Owner owner) {
        return new DbSchedulerCustomizer() {
            @Override
            public Optional<SchedulerName> schedulerName() {
                return Optional.of(new SchedulerName.Fixed(owner.name()));
            }
        };
    }
}
