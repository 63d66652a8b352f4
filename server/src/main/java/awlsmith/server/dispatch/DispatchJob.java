package awlsmith.server.dispatch;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * Looks for renders that wait and makes them in order. One at a time: a render keeps every core busy by itself, so two at
 * once would only make both late.
 */
@Configuration(proxyBeanMethods = false)
class DispatchJob {
    private static final Logger LOG = LoggerFactory.getLogger(DispatchJob.class);
    private static final Duration LOOK_EVERY = Duration.ofSeconds(1);

    @Bean
    RecurringTask<Void> makeRenders(RenderRunner runner, RenderRepository renders) {
        int left = renders.requeueRunning();
        if (left > 0) {
            LOG.info("a render that was broken off goes on from its last finished part");
        }
        return Tasks.recurring("make-renders", FixedDelay.of(LOOK_EVERY))
                .execute((task, context) -> runner.runWaiting());
    }
}
