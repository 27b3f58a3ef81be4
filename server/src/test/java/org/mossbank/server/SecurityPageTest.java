package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** What the page on security says is shown by a test is shown by one that there is. */
public class SecurityPageTest {
    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final Pattern NAMED =
            Pattern.compile("`(?:([A-Z]\\w+Test)(?:\\.(\\w+))?|(\\w+\\.test\\.tsx?)|(SeveralServers|UnderAttack))`");

    private static Map<String, String> sources() throws IOException {
        Map<String, String> sources = new HashMap<>();
        for (String folder :
                List.of("server/src/test", "core/src/test", "e2e/src/test", "web/src/test", "bench/src/main")) {
            try (Stream<Path> files = Files.walk(ROOT.resolve(folder))) {
                for (Path file : files.filter(f -> f.toString().matches(".*\\.(java|tsx?)"))
                        .toList()) {
                    sources.put(file.getFileName().toString(), Files.readString(file));
                }
            }
        }
        return sources;
    }

    @Test
    public void namesTestsThatThereAre() throws IOException {
        Map<String, String> sources = sources();
        Matcher named = NAMED.matcher(Files.readString(ROOT.resolve("docs/security.md")));
        int found = 0;
        while (named.find()) {
            found++;
            String file = named.group(3) != null
                    ? named.group(3)
                    : (named.group(1) != null ? named.group(1) : named.group(4)) + ".java";
            assertThat(sources).containsKey(file);
            if (named.group(2) != null) {
                assertThat(sources.get(file)).contains("void " + named.group(2) + "(");
            }
        }
        assertThat(found).isGreaterThan(80);
    }
}
