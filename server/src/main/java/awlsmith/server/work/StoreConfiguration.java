package awlsmith.server.work;

import awlsmith.server.AwlsmithProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Where sources lie for other machines: in a bucket where one is told, else here alone. */
@Configuration
class StoreConfiguration {
    @Bean
    SourceStore sourceStore(AwlsmithProperties properties) {
        return properties.store() == null ? SourceStore.NONE : new BucketStore(properties.store());
    }
}
