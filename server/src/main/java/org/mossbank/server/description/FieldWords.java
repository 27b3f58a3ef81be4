package org.mossbank.server.description;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.media.Schema;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Properties;
import org.springdoc.core.customizers.GlobalOpenApiCustomizer;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.support.PropertiesLoaderUtils;
import org.springframework.stereotype.Component;

/**
 * Says what fields mean that say nothing of themselves in their Javadoc: one word means one thing here, so most are
 * told by their name, in one place, and by their type's name where a type means something of its own.
 */
@Component
class FieldWords implements GlobalOpenApiCustomizer {
    private final Map<String, String> words = new HashMap<>();

    FieldWords() {
        try {
            Properties read =
                    PropertiesLoaderUtils.loadProperties(new ClassPathResource("description/fields.properties"));
            read.stringPropertyNames().forEach(n -> words.put(n, read.getProperty(n)));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void customise(OpenAPI api) {
        api.getComponents().getSchemas().forEach((type, schema) -> {
            if (schema.getProperties() != null) {
                ((Map<?, ?>) schema.getProperties()).forEach((name, field) -> {
                    if (field instanceof Schema<?> told && told.getDescription() == null) {
                        told.setDescription(words.getOrDefault(type + "." + name, words.get(String.valueOf(name))));
                    }
                });
            }
        });
    }
}
