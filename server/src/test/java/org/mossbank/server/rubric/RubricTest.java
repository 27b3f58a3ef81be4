package org.mossbank.server.rubric;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.RubricDraft;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

public class RubricTest extends ServerTest {
    @Test
    public void theDefaultHasAnAnchorForEachCriterionLevelAndKind() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        JsonNode rubric = study.get("/rubric");
        assertThat(rubric.path("criteria").values())
                .extracting(c -> c.path("key").asString())
                .containsExactly("correctness", "idiom", "practice");
        rubric.path("criteria").forEach(c -> {
            assertThat(c.path("levels").size()).isEqualTo(5);
            assertThat(c.path("traits").size()).isGreaterThan(3);
            c.path("levels").forEach(l -> {
                assertThat(l.path("anchors").size())
                        .as(c.path("key") + " " + l.path("level"))
                        .isEqualTo(4);
                l.path("anchors")
                        .forEach(a -> assertThat(a.path("text").asString()).isNotBlank());
            });
        });
    }

    @Test
    public void publishingMakesAVersionAndWritingOnBeginsTheNext() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD)).withRubric();
        RubricDraft draft = RubricDraft.of(study);
        draft.first().put("question", "Is it right?");
        JsonNode second = StudyInTheMaking.ok(draft.write(study));
        assertThat(second.at("/version/number").asInt()).isEqualTo(2);
        assertThat(second.at("/version").has("publishedAt")).isFalse();
        assertThat(study.get("/rubric/versions/1").at("/criteria/0/question").asString())
                .isNotEqualTo("Is it right?");
        study.post("/rubric/publish", Map.of("note", "asks more plainly"));
        assertThat(study.get("/rubric").path("versions").values())
                .extracting(v -> v.path("note").asString())
                .containsExactly("as it comes", "asks more plainly");
        assertThat(study.lead
                        .post(study.path + "/rubric/publish", Map.of("note", ""))
                        .problem())
                .as("nothing changed since")
                .isEqualTo("not-ready");
    }

    @Test
    public void aStaleDraftIsRefusedWithWhatStandsNow() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        RubricDraft one = RubricDraft.of(study);
        RubricDraft other = RubricDraft.of(study);
        one.first().put("name", "Rightness");
        assertThat(one.write(study).status()).isEqualTo(200);
        ApiClient.Response stale = other.write(study);
        assertThat(stale.problem()).isEqualTo("changed-elsewhere");
        assertThat(stale.json().at("/current/criteria/0/name").asString()).isEqualTo("Rightness");
    }

    @Test
    public void newCriteriaGetKeysAndKeepThemAndPassOrFailIsTwoLevels() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        RubricDraft draft = RubricDraft.of(study);
        Map<String, Object> safety = new HashMap<>(draft.first());
        safety.remove("key");
        safety.put("name", "Safe to run");
        safety.put("weight", 0);
        safety.put(
                "levels",
                List.of(Map.of("name", "Fail", "anchors", List.of()), Map.of("name", "Pass", "anchors", List.of())));
        safety.put("kindIds", List.of(study.kind("debugging")));
        draft.criteria().add(safety);
        JsonNode written = StudyInTheMaking.ok(draft.write(study));
        assertThat(written.at("/criteria/3/key").asString()).isEqualTo("safe-to-run");
        assertThat(written.at("/criteria/3/levels").size()).isEqualTo(2);
    }

    @Test
    public void wrongDraftsAreRefusedWithTheirField() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        RubricDraft oneLevel = RubricDraft.of(study);
        oneLevel.first().put("levels", List.of(Map.of("name", "only", "anchors", List.of())));
        assertThat(oneLevel.write(study).json().at("/errors/0/field").asString())
                .isEqualTo("criteria[0].levels");
        RubricDraft twice = RubricDraft.of(study);
        twice.criteria().add(twice.first());
        assertThat(twice.write(study).json().at("/errors/0/field").asString()).isEqualTo("criteria[3].key");
        RubricDraft strange = RubricDraft.of(study);
        strange.first().put("kindIds", List.of(java.util.UUID.randomUUID().toString()));
        assertThat(strange.write(study).json().at("/errors/0/field").asString()).isEqualTo("criteria[0].kindIds");
        RubricDraft weightless = RubricDraft.of(study);
        weightless.criteria().forEach(c -> c.put("weight", 0));
        assertThat(weightless.write(study).status()).isEqualTo(200);
        assertThat(study.lead
                        .post(study.path + "/rubric/publish", Map.of("note", ""))
                        .problem())
                .isEqualTo("not-ready");
    }

    @Test
    public void aCriterionForOneKindIsOnlyOnItsSheets() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD)).withClosedBrief();
        RubricDraft draft = RubricDraft.of(study);
        draft.criteria().get(2).put("kindIds", List.of(study.kind("review")));
        StudyInTheMaking.ok(draft.write(study));
        study.withRubric();
        study.prompt("debugging", "D");
        study.prompt("review", "R");
        study.candidate("Osierhold");
        study.candidate("Teaselworth");
        study.rater("bram");
        study.rater("juri");
        study.answered();
        study.open(2, 0, false);
        ApiClient rater = as("bram");
        for (JsonNode summary : sheets(rater, study.id())) {
            JsonNode sheet =
                    rater.get("/api/sheets/" + summary.path("id").asString()).json();
            int criteria = sheet.at("/prompt/kind").asString().equals("Review") ? 3 : 2;
            assertThat(sheet.path("criteria").size()).isEqualTo(criteria);
            assertThat(summary.path("cells").asInt()).isEqualTo(2 * criteria);
            gradeAndSend(rater, summary.path("id").asString(), 3);
        }
    }

    @Test
    public void examplesShowWhatWeightsAndGateDo() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        Map<String, Object> criterion = Map.of("key", "a", "weight", 3, "highestLevel", 4);
        Map<String, Object> other = Map.of("key", "b", "weight", 1, "highestLevel", 2);
        JsonNode plain = study.post("/rubric/examples", Map.of("criteria", List.of(criterion, other)));
        assertThat(plain.at("/0/share").asDouble()).isEqualTo(0.75);
        assertThat(plain.at("/0/lowestHere").asDouble()).isCloseTo(25, within(1e-9));
        assertThat(plain.at("/1/lowestHere").asDouble()).isCloseTo(75, within(1e-9));
        JsonNode gated = study.post(
                "/rubric/examples",
                Map.of(
                        "criteria", List.of(criterion, other),
                        "gate", Map.of("criterion", "b", "level", 0, "cap", 30)));
        assertThat(gated.at("/1/lowestHere").asDouble()).as("capped").isEqualTo(30);
        assertThat(gated.at("/0/highestHere").asDouble())
                .as("b is at its lowest here too")
                .isEqualTo(30);
    }
}
