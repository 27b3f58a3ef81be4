package org.mossbank.server.shared.settings;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What stands in a file in place of the environment: {@code MOSSBANK_…_FILE} names the file that holds {@code MOSSBANK_…}, so
 * that a secret need stand in no environment. A file that cannot be read stops the start.
 */
final class SecretFiles {
    static final String SUFFIX = "_FILE";

    private static final int MOST_BYTES = 64 << 10;

    private SecretFiles() {}

    /** The name of what a file holds. */
    static String plain(String variable) {
        return namesFile(variable) ? variable.substring(0, variable.length() - SUFFIX.length()) : variable;
    }

    private static boolean namesFile(String variable) {
        return variable.startsWith(Setting.PREFIX) && variable.endsWith(SUFFIX);
    }

    /** @throws SettingsRefused if a file cannot be read, or what it holds is given a second time */
    static Map<String, Object> read(Map<String, Object> given) {
        Map<String, Object> all = new HashMap<>(given);
        given.forEach((variable, file) -> {
            if (namesFile(variable)) {
                String plain = plain(variable);
                all.remove(variable);
                if (all.putIfAbsent(plain, content(variable, Path.of(String.valueOf(file)))) != null) {
                    throw new SettingsRefused(List.of(plain + " is given twice: by itself, and by " + variable));
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
                throw new SettingsRefused(List.of(variable + " names a file that is no secret: it is too long"));
            }
            return new String(bytes, StandardCharsets.UTF_8).stripTrailing();
        } catch (IOException e) {
            throw new SettingsRefused(List.of(variable + " names a file that cannot be read: " + file));
        }
    }
}
