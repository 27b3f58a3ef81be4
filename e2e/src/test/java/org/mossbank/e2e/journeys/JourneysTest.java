package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** The suites name their classes one by one, so one could be forgotten. */
public class JourneysTest {
    private static final Path TESTS = Journey.ROOT.resolve("e2e/src/test");

    @Test
    public void noneIsForgotten() throws IOException {
        String suite = Files.readString(TESTS.resolve("resources/journeys.xml"))
                + Files.readString(TESTS.resolve("resources/outages.xml"));
        try (Stream<Path> files = Files.list(TESTS.resolve("java/org/mossbank/e2e/journeys"))) {
            assertThat(files.map(f -> f.getFileName().toString())
                            .filter(name -> name.endsWith("Test.java"))
                            .map(name -> Journey.class.getPackageName() + "." + name.replace(".java", "")))
                    .isNotEmpty()
                    .allSatisfy(name -> assertThat(suite).contains("\"" + name + "\""));
        }
    }
}
