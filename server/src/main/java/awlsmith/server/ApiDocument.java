package awlsmith.server;

import awlsmith.server.stills.PageId;
import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.servers.Server;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The OpenAPI document, from which the screens' types are made: the same on every machine. */
@Configuration(proxyBeanMethods = false)
class ApiDocument {
    static {
        // a header that pages send with everything
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(PageId.class);
    }

    @Bean
    OpenApiCustomizer fixedHead() {
        return document -> {
            document.setInfo(new Info().title("Awlsmith").version("1"));
            document.setServers(List.of(new Server().url("/")));
        };
    }

    /** A record's component is always there unless it is marked {@link Nullable}. */
    @Bean
    ModelConverter recordsRequire() {
        return new ModelConverter() {
            @Override
            public @Nullable Schema<?> resolve(
                    AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
                if (!chain.hasNext()) {
                    return null;
                }
                Schema<?> schema = chain.next().resolve(type, context, chain);
                JavaType java = Json.mapper().constructType(type.getType());
                if (schema == null || java == null || !java.getRawClass().isRecord()) {
                    return schema;
                }
                Schema<?> model = schema.get$ref() == null
                        ? schema
                        : context.getDefinedModels()
                                .get(schema.get$ref().substring(schema.get$ref().lastIndexOf('/') + 1));
                if (model != null) {
                    model.setRequired(Arrays.stream(java.getRawClass().getRecordComponents())
                            .filter(part -> !part.getAnnotatedType().isAnnotationPresent(Nullable.class))
                            .map(RecordComponent::getName)
                            .sorted()
                            .toList());
                }
                return schema;
            }
        };
    }
}
