package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.mossbank.testkit.ApiClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Compares refusals that tests met with those that the description names. */
final class RefusalsDescribed {
    private static final Set<ApiClient.Refused> CHECKED = new HashSet<>();

    private RefusalsDescribed() {}

    /** Those that were not checked before. */
    static void check(Path root) throws IOException {
        Set<ApiClient.Refused> fresh = new HashSet<>(ApiClient.refused());
        fresh.removeAll(CHECKED);
        CHECKED.addAll(fresh);
        if (fresh.isEmpty()) {
            return;
        }
        JsonNode paths = JsonMapper.shared()
                .readTree(root.resolve("web/openapi.json").toFile())
                .path("paths");
        Set<String> missing = new TreeSet<>();
        for (ApiClient.Refused met : fresh) {
            for (Map.Entry<String, JsonNode> path : paths.properties()) {
                JsonNode operation = path.getValue().path(met.method().toLowerCase(java.util.Locale.ROOT));
                if (!operation.isMissingNode()
                        && pattern(path.getKey()).matcher(met.path()).matches()) {
                    if (operation
                            .path("x-problems")
                            .valueStream()
                            .noneMatch(p -> p.asString().equals(met.problem()))) {
                        missing.add(met.method() + " " + path.getKey() + " " + met.problem());
                    }
                    break;
                }
            }
        }
        assertThat(missing).as("refusals that operations are not said to make").isEmpty();
    }

    /** Words come before what they may be mistaken for: paths are in their order, braces after letters. */
    private static Pattern pattern(String path) {
        return Pattern.compile(path.replaceAll("\\{[^}]*}", "[^/]+"));
    }
}
