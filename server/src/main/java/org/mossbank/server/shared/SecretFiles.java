package org.mossbank.server.shared;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import org.springframework.boot.EnvironmentPostProcessor;
import org.springframework.boot.SpringApplication;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.PropertySource;
import org.springframework.core.env.StandardEnvironment;
import org.springframework.core.env.SystemEnvironmentPropertySource;

/**
 * What stands in a file in place of the environment: {@code MOSSBANK_…_FILE} names the file that holds {@code MOSSBANK_…}, so
 * that a secret need stand in no environment. A file that cannot be read stops the start.
 */
public final class SecretFiles implements EnvironmentPostProcessor {
    private static final String PREFIX = "MOSSBANK_";
    private static final String SUFFIX = "_FILE";
    private static final int MOST_BYTES = 64 << 10;

    @Override
    public void postProcessEnvironment(ConfigurableEnvironment environment, SpringApplication application) {
        String name = StandardEnvironment.SYSTEM_ENVIRONMENT_PROPERTY_SOURCE_NAME;
        PropertySource<?> source = environment.getPropertySources().get(name);
        if (source instanceof SystemEnvironmentPropertySource given
                && given.getSource().keySet().stream().anyMatch(SecretFiles::namesFile)) {
            environment
                    .getPropertySources()
                    .replace(name, new SystemEnvironmentPropertySource(name, read(given.getSource())));
        }
    }

    private static boolean namesFile(String variable) {
        return variable.startsWith(PREFIX) && variable.endsWith(SUFFIX);
    }

    /** @throws IllegalStateException if a file cannot be read, or what it holds is given a second time */
    static Map<String, Object> read(Map<String, Object> given) {
        Map<String, Object> all = new HashMap<>(given);
        given.forEach((variable, file) -> {
            if (namesFile(variable)) {
                String plain = variable.substring(0, variable.length() - SUFFIX.length());
                all.remove(variable);
                if (all.putIfAbsent(plain, content(variable, Path.of(String.valueOf(file)))) != null) {
                    throw new IllegalStateException(plain + " is given twice: by itself, and by " + variable);
                }
            }
        });
        return all;
    }

    /** Without the line's end that editors put there. */
    private static String content(String variable, Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            byte[] bytes = in.readNBytes(MOST_BYTES + 1);
            if (bytes.length > MOST_BYTES) {
                throw new IllegalStateException(variable + " names a file that is no secret: it is too long");
            }
            return new String(bytes, StandardCharsets.UTF_8).stripTrailing();
        } catch (IOException e) {
            throw new IllegalStateException(variable + " names a file that cannot be read: " + file, e);
        }
    }
}
