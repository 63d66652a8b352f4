package awlsmith.server;

import awlsmith.render.Machine;
import java.time.Clock;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.EnableConfigurationProperties;
import org.springframework.context.annotation.Bean;

/** Starts the web application. */
@SpringBootApplication
@EnableConfigurationProperties(AwlsmithProperties.class)
public class AwlsmithServer {
    public static void main(String[] arguments) {
        SpringApplication.run(AwlsmithServer.class, arguments);
    }

    @Bean(destroyMethod = "close")
    Machine machine() {
        return Machine.whole();
    }

    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }
}
