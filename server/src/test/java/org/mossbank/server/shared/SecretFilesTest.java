package org.mossbank.server.shared;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalStateException;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.springframework.boot.SpringApplication;
import org.springframework.core.env.StandardEnvironment;
import org.springframework.core.env.SystemEnvironmentPropertySource;
import org.testng.annotations.Test;

public class SecretFilesTest {
    private static final String VARIABLE = "MOSSBANK_DB_PASSWORD_FILE";

    private static Path holding(String text) throws IOException {
        return Files.writeString(Files.createTempFile("secret", ""), text);
    }

    @Test
    public void whatAFileHoldsIsFoundUnderTheNameWithoutFile() throws IOException {
        StandardEnvironment environment = new StandardEnvironment();
        String name = StandardEnvironment.SYSTEM_ENVIRONMENT_PROPERTY_SOURCE_NAME;
        environment
                .getPropertySources()
                .replace(
                        name,
                        new SystemEnvironmentPropertySource(
                                name, Map.of(VARIABLE, holding("reed mace\n").toString(), "OTHER_FILE", "left alone")));

        new SecretFiles().postProcessEnvironment(environment, new SpringApplication());

        assertThat(environment.getProperty("MOSSBANK_DB_PASSWORD")).isEqualTo("reed mace");
        assertThat(environment.getProperty("mossbank.db.password")).isEqualTo("reed mace");
        assertThat(environment.getProperty(VARIABLE)).as("no secret of its own").isNull();
        assertThat(environment.getProperty("OTHER_FILE")).isEqualTo("left alone");
    }

    @Test
    public void aFileThatIsNotThereStopsTheStart() {
        assertThatIllegalStateException()
                .isThrownBy(() -> SecretFiles.read(Map.of(VARIABLE, "/nowhere/at/all")))
                .withMessageContaining(VARIABLE);
    }

    @Test
    public void whatIsGivenTwiceIsRefusedWithoutBeingTold() throws IOException {
        Map<String, Object> twice = Map.of(VARIABLE, holding("one").toString(), "MOSSBANK_DB_PASSWORD", "another");
        assertThatIllegalStateException()
                .isThrownBy(() -> SecretFiles.read(twice))
                .withMessageContaining("given twice")
                .satisfies(e -> assertThat(e.getMessage()).doesNotContain("another"));
    }

    @Test
    public void aFileThatIsTooLongIsNoSecret() throws IOException {
        Map<String, Object> long1 = Map.of(VARIABLE, holding("x".repeat(70_000)).toString());
        assertThatIllegalStateException()
                .isThrownBy(() -> SecretFiles.read(long1))
                .withMessageContaining("too long");
    }
}
