package org.mossbank.server.shared.settings;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.YAMLException;

/** The file of settings, YAML 1.1, as the environment would say the same. */
final class SettingsFile {
    private static final int MOST_BYTES = 64 << 10;

    private SettingsFile() {}

    /**
     * @return value by name in the environment
     * @throws SettingsRefused if it cannot be read, or is not what it should be
     */
    static Map<String, String> read(Path file) {
        Map<String, String> settings = new LinkedHashMap<>();
        List<String> faults = new ArrayList<>();
        flatten(parsed(file), "", settings, faults);
        if (!faults.isEmpty()) {
            throw new SettingsRefused(faults.stream().map(f -> file + ": " + f).toList());
        }
        return settings;
    }

    private static @Nullable Object parsed(Path file) {
        LoaderOptions options = new LoaderOptions();
        options.setAllowDuplicateKeys(false);
        options.setCodePointLimit(MOST_BYTES);
        try (InputStream in = Files.newInputStream(file)) {
            return new Yaml(new SafeConstructor(options))
                    .load(new String(in.readNBytes(MOST_BYTES), StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new SettingsRefused(List.of(file + " cannot be read"));
        } catch (YAMLException e) {
            // What the parser says shows the line, and with it perhaps a secret.
            throw new SettingsRefused(List.of(file + " is not YAML" + line(e)));
        }
    }

    private static String line(YAMLException e) {
        return e instanceof org.yaml.snakeyaml.error.MarkedYAMLException marked && marked.getProblemMark() != null
                ? ", line " + (marked.getProblemMark().getLine() + 1)
                : "";
    }

    private static void flatten(@Nullable Object value, String key, Map<String, String> settings, List<String> faults) {
        if (value == null) {
            return;
        }
        if (value instanceof Map<?, ?> map) {
            map.forEach((k, v) -> flatten(v, key.isEmpty() ? String.valueOf(k) : key + "-" + k, settings, faults));
        } else if (key.isEmpty()) {
            faults.add("settings are names with values, as port: 8750");
        } else {
            String text = value instanceof List<?> list
                    ? list.stream().map(String::valueOf).collect(Collectors.joining(","))
                    : String.valueOf(value);
            settings.put(variable(key), text);
        }
    }

    private static String variable(String key) {
        return Setting.PREFIX + key.toUpperCase(Locale.ROOT).replace('-', '_');
    }
}
