package org.mossbank.server.shared.settings;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.apache.commons.logging.Log;
import org.springframework.boot.EnvironmentPostProcessor;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.logging.DeferredLogFactory;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.PropertySource;
import org.springframework.core.env.StandardEnvironment;
import org.springframework.core.env.SystemEnvironmentPropertySource;

/**
 * Reads settings from the environment, from the file that {@code MOSSBANK_SETTINGS} names, and secrets from files of their own, in
 * this order of weight; refuses to start with a name in the file that no setting has, or a value that none can have.
 */
public final class Settings implements EnvironmentPostProcessor {
    private static final String FILE = Setting.PREFIX + Setting.SETTINGS.name();
    /** What tests and tools of this project tell each other by the environment. */
    private static final List<String> OF_TOOLS =
            List.of("MOSSBANK_TEST_", "MOSSBANK_ROOT", "MOSSBANK_MAVEN_SETTINGS", "MOSSBANK_RELEASE_KEY");

    private final Log log;

    public Settings(DeferredLogFactory logs) {
        this.log = logs.getLog(Settings.class);
    }

    @Override
    public void postProcessEnvironment(ConfigurableEnvironment environment, SpringApplication application) {
        String name = StandardEnvironment.SYSTEM_ENVIRONMENT_PROPERTY_SOURCE_NAME;
        PropertySource<?> source = environment.getPropertySources().get(name);
        if (source instanceof SystemEnvironmentPropertySource given) {
            Map<String, Object> settings = read(given.getSource());
            unknown(given.getSource()).forEach(u -> log.warn(u + " is set, and no setting has this name"));
            environment.getPropertySources().replace(name, new SystemEnvironmentPropertySource(name, settings));
        }
    }

    /** @throws SettingsRefused if the server must not start with them */
    static Map<String, Object> read(Map<String, Object> environment) {
        Map<String, Object> all = new HashMap<>(environment);
        Object file = environment.get(FILE);
        if (file != null && !String.valueOf(file).isBlank()) {
            Map<String, String> written = SettingsFile.read(Path.of(String.valueOf(file)));
            List<String> faults = unknown(written).stream()
                    .map(u -> file + ": no setting is called " + inFile(u))
                    .toList();
            if (!faults.isEmpty()) {
                throw new SettingsRefused(faults);
            }
            written.forEach((variable, value) -> {
                // Whoever starts the server has the last word, by the value or by a file that holds it.
                String plain = SecretFiles.plain(variable);
                if (!all.containsKey(plain) && !all.containsKey(plain + SecretFiles.SUFFIX)) {
                    all.put(variable, value);
                }
            });
        }
        Map<String, Object> settings = SecretFiles.read(all);
        refuse(settings);
        return settings;
    }

    private static void refuse(Map<String, Object> settings) {
        List<String> faults = new ArrayList<>();
        settings.forEach((variable, value) -> of(variable)
                .filter(s -> !s.type().accepts(String.valueOf(value).strip()))
                .ifPresent(s -> faults.add(variable + " must be " + s.type().words()
                        + (s.type() == SettingType.SECRET ? "" : ", and is \"" + value + "\""))));
        if (!faults.isEmpty()) {
            throw new SettingsRefused(faults.stream().sorted().toList());
        }
    }

    private static Optional<Setting> of(String variable) {
        return Arrays.stream(Setting.values()).filter(s -> s.isNamed(variable)).findFirst();
    }

    private static List<String> unknown(Map<String, ?> given) {
        return given.keySet().stream()
                .map(Objects::toString)
                .filter(v -> v.startsWith(Setting.PREFIX)
                        && OF_TOOLS.stream().noneMatch(v::startsWith)
                        && of(SecretFiles.plain(v)).isEmpty())
                .sorted()
                .toList();
    }

    private static String inFile(String variable) {
        return variable.substring(Setting.PREFIX.length())
                .toLowerCase(java.util.Locale.ROOT)
                .replace('_', '-');
    }
}
