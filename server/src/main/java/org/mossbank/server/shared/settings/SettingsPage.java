package org.mossbank.server.shared.settings;

import java.util.Arrays;
import java.util.stream.Collectors;

/** The page that says which settings there are, in Markdown. */
final class SettingsPage {
    private SettingsPage() {}

    static String markdown() {
        String rows = Arrays.stream(Setting.values()).map(SettingsPage::row).collect(Collectors.joining("\n"));
        return """
                # Settings

                A setting is a variable of the environment (`MOSSBANK_PORT=8751`) or a line of the file that `MOSSBANK_SETTINGS` names \
                (`port: 8751`; `./mossbank` takes `mossbank.yaml` beside it where there is one). The environment has the last word. What \
                has a point in its name stands one level deeper in the file, and lists are lists:

                ```yaml
                port: 8750
                proxies: [10.2.0.4]
                db-url: jdbc:postgresql://db.example:5432/mossbank
                db-password-file: /etc/mossbank/db-password
                providers:
                  office:
                    name: The office
                    issuer: https://id.example
                ```

                Every setting can be read from a file of its own: `MOSSBANK_DB_PASSWORD_FILE` (`db-password-file`) names the file that holds \
                the password, so that no secret need stand in an environment. A name in the file that no setting has, and a value that a \
                setting cannot have, stop the start and are named, without the value where it is a secret; a name in the environment that no \
                setting has is named in the log.

                | in the environment | in the file | must be | usually | what it does |
                |---|---|---|---|---|
                %s
                """.formatted(rows);
    }

    private static String row(Setting setting) {
        return "| `%s` | `%s` | %s | %s | %s |"
                .formatted(
                        setting.variable(),
                        setting.key(),
                        setting.type().words(),
                        setting.usual().isEmpty() ? "" : "`" + setting.usual() + "`",
                        setting.meaning());
    }
}
