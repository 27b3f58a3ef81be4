package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** The client's types are made from a committed description; it must be the one that is served. */
public class OpenApiTest extends ServerTest {
    private static final Path COMMITTED = ROOT.resolve("web/openapi.json");

    /** To renew the file: {@code -Dmossbank.openapi.write=true}. */
    @Test
    public void theCommittedDescriptionIsTheServedOne() throws IOException {
        JsonNode served = as(LEAD).get("/api/openapi").json();
        if (Boolean.getBoolean("mossbank.openapi.write")) {
            JsonMapper mapper = JsonMapper.builder()
                    .enable(SerializationFeature.INDENT_OUTPUT)
                    .build();
            Files.writeString(COMMITTED, mapper.writeValueAsString(served) + "\n");
        }
        assertThat(served).isEqualTo(JsonMapper.shared().readTree(COMMITTED.toFile()));
    }

    @Test
    public void eachOperationHasANameOfItsOwnAndSaysWhatItDoes() {
        Set<String> names = new HashSet<>();
        for (Map.Entry<String, JsonNode> path :
                as(LEAD).get("/api/openapi").json().path("paths").properties()) {
            path.getValue().forEach(operation -> {
                String name = operation.path("operationId").asString();
                assertThat(name).as(path.getKey()).matches("[a-z]+[A-Za-z]+");
                assertThat(names.add(name)).as(name).isTrue();
                assertThat(operation.path("summary").asString()).as(name).endsWith(".");
            });
        }
    }

    /** And no line about fields stands there for nothing. */
    @Test
    public void eachFieldSaysWhatItMeans() throws IOException {
        JsonNode types = as(LEAD).get("/api/openapi").json().path("components").path("schemas");
        Set<String> said = new HashSet<>();
        types.properties()
                .forEach(type -> type.getValue().path("properties").properties().forEach(field -> {
                    String means = field.getValue().path("description").asString();
                    assertThat(means).as(type.getKey() + "." + field.getKey()).isNotBlank();
                    said.add(field.getKey() + "=" + means);
                    said.add(type.getKey() + "." + field.getKey() + "=" + means);
                }));
        assertThat(said)
                .containsAll(
                        Files.readAllLines(ROOT.resolve("server/src/main/resources/description/fields.properties"))
                                .stream()
                                .filter(line -> !line.startsWith("#"))
                                .toList());
    }

    /** What is said to need a session is refused to nobody, and what is not is open. */
    @Test
    public void whoMayCallIsAsItIsSaid() {
        JsonNode paths = as(LEAD).get("/api/openapi").json().path("paths");
        int asked = 0;
        for (Map.Entry<String, JsonNode> path : paths.properties()) {
            JsonNode get = path.getValue().path("get");
            if (!get.isMissingNode()) {
                String address = path.getKey()
                        .replace("{number}", "1")
                        .replace("{place}", "0")
                        .replaceAll("\\{[^}]*}", UUID.randomUUID().toString());
                boolean needsSession = get.path("security").toString().contains("\"session\"");
                assertThat(nobody().get(address).status() == 401).as(address).isEqualTo(needsSession);
                asked++;
            }
        }
        assertThat(asked).isGreaterThan(40);
        assertThat(nobody().get("/api/openapi").status()).isEqualTo(401);
    }
}
