package org.mossbank.server.shared.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.logging.DeferredLogs;
import org.springframework.core.env.StandardEnvironment;
import org.springframework.core.env.SystemEnvironmentPropertySource;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SettingsTest {
    private static final String SECRET = "MOSSBANK_DB_PASSWORD_FILE";
    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    /** Commands of this project alone read these. */
    private static final Set<String> OF_COMMANDS = Set.of("DATABASE", "HEAP", "JIT", "HOME", "SETTINGS");

    private static Path holding(String text) throws IOException {
        return Files.writeString(Files.createTempFile("settings", ""), text);
    }

    private static Map<String, Object> read(String yaml, Map<String, Object> environment) throws IOException {
        Map<String, Object> all = new HashMap<>(environment);
        all.put("MOSSBANK_SETTINGS", holding(yaml).toString());
        return Settings.read(all);
    }

    private static StandardEnvironment environment(Map<String, Object> variables) {
        StandardEnvironment environment = new StandardEnvironment();
        String name = StandardEnvironment.SYSTEM_ENVIRONMENT_PROPERTY_SOURCE_NAME;
        environment.getPropertySources().replace(name, new SystemEnvironmentPropertySource(name, variables));
        new Settings(new DeferredLogs()).postProcessEnvironment(environment, new SpringApplication());
        return environment;
    }

    @Test
    public void whatStandsInTheFileIsFoundAsIfTheEnvironmentSaidIt() throws IOException {
        Path file = holding("""
                port: 8751
                proxies: [10.2.0.4, 10.2.0.5]
                passwords: false
                mail:
                  host: mail.example
                  address: https://mossbank.example
                providers:
                  office: { name: The office, issuer: "https://id.example" }
                """);
        StandardEnvironment environment =
                environment(Map.of("MOSSBANK_SETTINGS", file.toString(), "MOSSBANK_MAIL_HOST", "other.example"));

        assertThat(environment.getProperty("MOSSBANK_PORT")).isEqualTo("8751");
        assertThat(environment.getProperty("mossbank.proxies")).isEqualTo("10.2.0.4,10.2.0.5");
        assertThat(environment.getProperty("MOSSBANK_PASSWORDS")).isEqualTo("false");
        assertThat(environment.getProperty("mossbank.providers.office.issuer")).isEqualTo("https://id.example");
        assertThat(environment.getProperty("mossbank.mail.address")).isEqualTo("https://mossbank.example");
        assertThat(environment.getProperty("mossbank.mail.host"))
                .as("the environment has the last word")
                .isEqualTo("other.example");
    }

    @Test
    public void secretsAreReadFromFilesOfTheirOwn() throws IOException {
        StandardEnvironment environment =
                environment(Map.of(SECRET, holding("reed mace\n").toString(), "OTHER_FILE", "left alone"));
        assertThat(environment.getProperty("MOSSBANK_DB_PASSWORD")).isEqualTo("reed mace");
        assertThat(environment.getProperty("mossbank.db.password")).isEqualTo("reed mace");
        assertThat(environment.getProperty(SECRET)).as("no secret of its own").isNull();
        assertThat(environment.getProperty("OTHER_FILE")).isEqualTo("left alone");

        String yaml = "db-password-file: " + holding("sedge");
        assertThat(read(yaml, Map.of())).containsEntry("MOSSBANK_DB_PASSWORD", "sedge");
        assertThat(read(yaml, Map.of("MOSSBANK_DB_PASSWORD", "rush"))).containsEntry("MOSSBANK_DB_PASSWORD", "rush");
    }

    @DataProvider
    public static Object[][] whatStopsTheStart() throws IOException {
        return new Object[][] {
            {"an unknown name", "prot: 8750", "no setting is called prot"},
            {"an unknown name below one that is known", "mail: { hots: x }", "no setting is called mail-hots"},
            {"no port", "port: many", "MOSSBANK_PORT must be a port, 1 to 65535, and is \"many\""},
            {"a port that is too high", "port: 70000", "MOSSBANK_PORT must be"},
            {"no time", "session-idle: a while", "MOSSBANK_SESSION_IDLE must be a time"},
            {"a time before", "session-idle: -3d", "MOSSBANK_SESSION_IDLE must be a time"},
            {"neither true nor false", "passwords: maybe", "MOSSBANK_PASSWORDS must be true or false"},
            {"a proxy by name", "proxies: [10.2.0.4, proxy.example]", "MOSSBANK_PROXIES must be numeric addresses"},
            {"a path with an end", "path: /mossbank/", "MOSSBANK_PATH must be a path"},
            {"a path that breaks out of the page", "path: '/\"><script>'", "MOSSBANK_PATH must be a path"},
            {"another database", "db-url: jdbc:other://x", "MOSSBANK_DB_URL must be an address"},
            {"no memory", "heap: lots", "MOSSBANK_HEAP must be an amount of memory"},
            {"no map", "- a\n- b", "settings are names with values"},
            {"no YAML", "port: [", "is not YAML, line"},
            {"a name twice", "port: 1\nport: 2", "is not YAML, line 2"},
            {"a file that is not there", "db-password-file: /nowhere/at/all", "names a file that cannot be read"},
            {"a file that is too long", "db-password-file: " + holding("x".repeat(70_000)), "it is too long"},
        };
    }

    @Test(dataProvider = "whatStopsTheStart")
    public void isNamed(String what, String yaml, String said) {
        assertThatThrownBy(() -> read(yaml, Map.of()))
                .isInstanceOf(SettingsRefused.class)
                .hasMessageContaining(said);
    }

    @Test
    public void aFileThatIsNamedAndNotThereStopsTheStart() {
        assertThatThrownBy(() -> Settings.read(Map.of("MOSSBANK_SETTINGS", "/nowhere/mossbank.yaml")))
                .isInstanceOf(SettingsRefused.class)
                .hasMessageContaining("cannot be read");
    }

    @Test
    public void whatIsGivenTwiceIsRefusedWithoutBeingTold() throws IOException {
        Map<String, Object> twice = Map.of(SECRET, holding("one").toString(), "MOSSBANK_DB_PASSWORD", "another");
        assertThatThrownBy(() -> Settings.read(twice))
                .hasMessageContaining("given twice")
                .satisfies(e -> assertThat(e.getMessage()).doesNotContain("another"));
    }

    /** A line of the log shows no secret that somebody wrote where another value belongs. */
    @Test
    public void noSecretIsToldWithWhatIsWrong() {
        assertThatThrownBy(() -> read("metrics-token: 'reed mace'\nport: x", Map.of()))
                .satisfies(e -> assertThat(e.getMessage()).doesNotContain("reed mace"));
        assertThatThrownBy(() -> read("metrics-token: 'reed mace\n", Map.of()))
                .satisfies(e -> assertThat(e.getMessage()).doesNotContain("reed mace"));
    }

    @Test
    public void theServerReadsNoSettingThatThePageDoesNotNameAndTakesTheSameUsualValues() throws IOException {
        String yaml = Files.readString(Path.of("src/main/resources/application.yaml"));
        Matcher read = Pattern.compile("\\$\\{MOSSBANK_([A-Z_]+):((?:[^{}]|\\{[^}]*\\})*)\\}")
                .matcher(yaml);
        Set<String> found = new TreeSet<>();
        while (read.find()) {
            found.add(read.group(1));
            if (!read.group(2).contains("{")) {
                assertThat(Setting.valueOf(read.group(1)).usual())
                        .as(read.group(1))
                        .isEqualTo(read.group(2));
            }
        }
        Set<String> known = new TreeSet<>(Arrays.stream(Setting.values())
                .map(Enum::name)
                .filter(n -> !n.contains("ANY") && !n.startsWith("MAIL_") && !n.startsWith("CONNECTIONS_"))
                .toList());
        known.removeAll(OF_COMMANDS);
        assertThat(found).isEqualTo(known);
    }

    @Test
    public void thePageSaysWhichThereAre() throws IOException {
        Path page = ROOT.resolve("docs/settings.md");
        if (Boolean.getBoolean("mossbank.settings.write")) {
            Files.writeString(page, SettingsPage.markdown());
        }
        assertThat(page).hasContent(SettingsPage.markdown());
    }
}
