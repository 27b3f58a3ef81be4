package org.mossbank.server.description;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.servers.Server;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.Id;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The description of the interface, as served and as committed with the client. */
@Configuration
class OpenApiConfiguration {
    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info().title("Mossbank").version("1").description("What the Mossbank client calls."))
                .servers(List.of(new Server().url("/")));
    }

    /** An id is a UUID on the wire, whatever it is the id of. */
    @Bean
    SpringDocUtils idsAsValues() {
        return Arrays.stream(Id.class.getPermittedSubclasses())
                .reduce(
                        SpringDocUtils.getConfig(),
                        (config, id) -> config.replaceWithClass(id, UUID.class),
                        (one, other) -> other);
    }

    /** Record components are required unless they are marked nullable; the generator would make all optional. */
    @Bean
    ModelConverter requiredComponents() {
        return new RequiredComponents();
    }

    private static final class RequiredComponents implements ModelConverter {
        @Override
        public @Nullable Schema<?> resolve(
                AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
            if (!chain.hasNext()) {
                return null;
            }
            Schema<?> schema = chain.next().resolve(type, context, chain);
            JavaType java = Json.mapper().constructType(type.getType());
            if (schema != null && java != null && java.getRawClass().isRecord()) {
                String name = java.getRawClass().getSimpleName();
                Schema<?> defined = context.getDefinedModels().get(name);
                require(java.getRawClass(), defined == null ? schema : defined);
            }
            return schema;
        }

        private static void require(Class<?> type, Schema<?> schema) {
            if (schema.getProperties() == null) {
                return;
            }
            schema.setRequired(Arrays.stream(type.getRecordComponents())
                    .filter(c -> !isNullable(c))
                    .map(RecordComponent::getName)
                    .filter(schema.getProperties()::containsKey)
                    .toList());
        }

        private static boolean isNullable(RecordComponent component) {
            return component.getAnnotatedType().isAnnotationPresent(Nullable.class);
        }
    }
}
