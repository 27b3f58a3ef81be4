package org.mossbank.server.study;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Several lead a study, and it is handed over; nobody leads who must not know who wrote what. */
public class LeadershipTest extends ServerTest {
    private ApiClient colleague;
    private ApiClient reader;

    @BeforeClass
    public void people() {
        colleague = newcomer("colleague", false);
        reader = newcomer("reader", false);
    }

    private String begun() {
        return StudyInTheMaking.begunBy(as(LEAD)).path;
    }

    private void adds(String study, String name, String role, ApiClient person) {
        ApiClient.Response added =
                as(LEAD).post(study + "/raters", Map.of("signInName", name, "name", name, "role", role));
        assertThat(added.status()).as(added.body()).isEqualTo(201);
        String id = study.substring(study.lastIndexOf('/') + 1);
        assertThat(person.get("/api/asked").json().values().stream()
                        .filter(a -> a.path("studyId").asString().equals(id))
                        .map(a -> a.path("role").asString()))
                .containsExactly(role);
        assertThat(person.get(study).status()).as("before they accept").isEqualTo(404);
        assertThat(person.post("/api/asked/" + id, Map.of()).status()).isEqualTo(204);
    }

    @Test
    public void anotherLeadPreparesLikeTheFirst() {
        String study = begun();
        adds(study, "colleague", "LEAD", colleague);

        assertThat(colleague.get(study + "/brief").status()).isEqualTo(200);
        assertThat(colleague.get(study + "/people").json().values().stream()
                        .map(p -> p.path("role").asString()))
                .containsExactly("LEAD", "LEAD");
        assertThat(colleague.post(study + "/step-back", Map.of()).status()).isEqualTo(204);
        assertThat(colleague.get(study + "/brief").status()).isEqualTo(403);
        assertThat(as(LEAD).post(study + "/step-back", Map.of()).problem()).isEqualTo("last-lead");
    }

    @Test
    public void aStudyIsHandedOver() {
        String study = begun();
        adds(study, "colleague", "READER", colleague);

        assertThat(as(LEAD).post(study + "/hand-over/" + idOf(colleague), Map.of())
                        .status())
                .isEqualTo(204);

        assertThat(as(LEAD).get(study + "/brief").status()).isEqualTo(403);
        assertThat(as(LEAD).get(study).json().path("role").asString()).isEqualTo("READER");
        JsonNode told = colleague.get(study + "/audit-events").json().path("events");
        assertThat(List.of(
                        told.at("/0/sort").asString(),
                        told.at("/1/sort").asString(),
                        told.at("/1/subject").asString()))
                .containsExactly("LEAD_STEPPED_BACK", "LEAD_ADDED", "colleague");
    }

    @Test
    public void whoGradesCannotComeToLeadUntilTheRoundIsClosed() {
        String study = "/api/studies/" + bringIn();
        String rater = idOf(as(RATER));

        assertThat(as(LEAD).post(study + "/leads/" + rater, Map.of()).problem()).isEqualTo("round-opened");
        assertThat(as(LEAD).post(study + "/hand-over/" + rater, Map.of()).problem())
                .isEqualTo("round-opened");
        assertThat(as(LEAD).get(study + "/brief").status())
                .as("and nothing was handed over")
                .isEqualTo(200);

        as(LEAD).post(study + "/round/close", Map.of("reason", "It is enough."));
        assertThat(as(LEAD).post(study + "/leads/" + rater, Map.of()).status()).isEqualTo(204);
        assertThat(as(RATER).get(study + "/people").status()).isEqualTo(200);
    }

    @Test
    public void aReaderSeesWhatRatersSeeAfterTheRoundAndNothingBefore() {
        String study = "/api/studies/" + bringIn();
        adds(study, "reader", "READER", reader);

        for (String hidden : List.of("/brief", "/candidates", "/agreement", "/recommendation", "/grading")) {
            assertThat(reader.get(study + hidden).status()).as(hidden).isEqualTo(403);
        }
        assertThat(reader.get(study + "/expectation").json().path("asked").asBoolean())
                .isFalse();
        assertThat(sheets(reader, study.substring(study.lastIndexOf('/') + 1))).isEmpty();

        as(LEAD).post(study + "/round/close", Map.of("reason", "It is enough."));

        for (String shown : List.of("/brief", "/candidates", "/agreement", "/recommendation", "/memos")) {
            assertThat(reader.get(study + shown).status()).as(shown).isEqualTo(200);
        }
        for (String closed : List.of("/archive", "/audit-events", "/people")) {
            assertThat(reader.get(study + closed).status()).as(closed).isEqualTo(403);
        }
    }

    @Test
    public void aReaderIsDealtNoSheets() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        adds(study.path, "reader", "READER", reader);

        JsonNode plan = study.post("/plan", Map.of("ratersAnAnswer", 2, "repeatShare", 0, "leadGrades", false));

        assertThat(plan.toString()).doesNotContain("reader Newcomer").doesNotContain(idOf(reader));
    }

    @Test
    public void aLeadWhoCannotSignInIsNoneWhoStays() {
        String study = begun();
        as(LEAD).post(study + "/raters", Map.of("signInName", "never-here", "name", "N", "role", "LEAD"));
        assertThat(as(LEAD).post(study + "/step-back", Map.of()).problem()).isEqualTo("last-lead");
    }

    @Test
    public void whoWasAskedToLeadLeadsNothingBeforeTheyAccept() {
        String study = begun();
        as(LEAD).post(study + "/raters", Map.of("signInName", "colleague", "name", "C", "role", "LEAD"));

        assertThat(colleague.get(study + "/brief").status()).isEqualTo(404);
        assertThat(as(LEAD).post(study + "/leads/" + idOf(colleague), Map.of()).problem())
                .isEqualTo("not-ready");
        assertThat(as(LEAD).post(study + "/step-back", Map.of()).problem()).isEqualTo("last-lead");
        assertThat(as(LEAD).delete(study + "/raters/" + idOf(colleague)).status())
                .isEqualTo(204);
    }
}
