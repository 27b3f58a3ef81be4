package org.mossbank.server.candidate;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

public class CandidateTest extends ServerTest {

    private static Map<String, Object> with(String field, Object value) {
        Map<String, Object> content = new HashMap<>(Bodies.candidate("Osierhold"));
        content.put(field, value);
        return content;
    }

    private static Map<String, Object> setting(String name, String value) {
        return Map.of("name", name, "value", value);
    }

    @Test
    public void aCandidateKeepsAllThatIsWrittenInIt() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        Map<String, Object> content = with(
                "price",
                Map.of("inputPerMillion", 0.15, "outputPerMillion", 2.5, "currency", "EUR", "caps", "40 a day"));
        content.put("contextWindow", 200_000);
        content.put("asOf", "2026-03-02");
        content.put("considerations", List.of(Map.of("sign", "AGAINST", "text", "Sends code abroad.")));
        study.post("/candidates", Map.of("content", content));
        JsonNode read = study.get("/candidates").get(0).path("content");
        assertThat(read.at("/price/inputPerMillion").asDouble()).isEqualTo(0.15);
        assertThat(read.at("/price/caps").asString()).isEqualTo("40 a day");
        assertThat(read.path("contextWindow").asLong()).isEqualTo(200_000);
        assertThat(read.path("asOf").asString()).isEqualTo("2026-03-02");
        assertThat(read.at("/considerations/0/sign").asString()).isEqualTo("AGAINST");
    }

    @DataProvider
    public static Object[][] wrongContents() {
        return new Object[][] {
            {"price without a currency", with("price", Map.of("monthly", 20, "caps", ""))},
            {"currency without a price", with("price", Map.of("currency", "EUR", "caps", ""))},
            {"currency in words", with("price", Map.of("monthly", 20, "currency", "euro", "caps", ""))},
            {"negative price", with("price", Map.of("monthly", -1, "currency", "EUR", "caps", ""))},
            {"setting twice", with("settings", List.of(setting("effort", "low"), setting("effort", "high")))},
            {"no context", with("contextWindow", 0)},
            {"a person's model", with("personId", "00000000-0000-4000-8000-000000000000")},
            {"empty consideration", with("considerations", List.of(Map.of("sign", "FOR", "text", " ")))},
        };
    }

    @Test(dataProvider = "wrongContents")
    public void isRefused(String name, Map<String, Object> content) {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        ApiClient.Response response = study.lead.post(study.path + "/candidates", Map.of("content", content));
        assertThat(response.problem()).isEqualTo("invalid-request");
        assertThat(study.get("/candidates").size()).isZero();
    }

    @Test
    public void settingsThatDifferOrAreNotGivenArePointedOut() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        study.post(
                "/candidates",
                Map.of("content", with("settings", List.of(setting("effort", "high"), setting("Tools", "none")))));
        Map<String, Object> other =
                with("settings", List.of(setting("Effort", "low"), setting("tools", "None"), setting("seed", "7")));
        other.put("name", "Teaselworth");
        study.post("/candidates", Map.of("content", other));
        JsonNode unlike = study.get("/candidates/unlike");
        assertThat(unlike.values())
                .as("names and values are compared without case; a baseline has none")
                .extracting(u -> u.path("setting").asString())
                .containsExactly("effort", "seed");
        assertThat(unlike.at("/1/values/0").has("value")).isFalse();
    }

    @Test
    public void twinsAreNamedAsMissing() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        study.candidate("Osierhold");
        study.candidate("Osierhold");
        JsonNode step = StudyInTheMaking.list(study.get("/steps")).get(2);
        assertThat(step.path("missing").asString()).contains("same name, version and settings");
    }

    @Test
    public void aStaleWritingIsRefused() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        String id = study.candidate("Osierhold");
        study.put("/candidates/" + id, Map.of("version", 0, "content", with("note", "first")));
        ApiClient.Response stale = study.lead.put(
                study.path + "/candidates/" + id, Map.of("version", 0, "content", with("note", "second")));
        assertThat(stale.problem()).isEqualTo("changed-elsewhere");
        assertThat(stale.json().at("/current/content/note").asString()).isEqualTo("first");
    }
}
