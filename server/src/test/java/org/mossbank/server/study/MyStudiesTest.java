package org.mossbank.server.study;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.mossbank.server.OneConnection;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Studies as things that one keeps: found, put away, brought back, made a second time. */
public class MyStudiesTest extends ServerTest {
    private ApiClient keeper;

    @BeforeClass
    public void manyStudies() {
        keeper = newcomer("keeper", true);
        for (int i = 0; i < 30; i++) {
            keeper.post("/api/studies", Map.of("title", "Kept %02d".formatted(i)));
        }
    }

    private static List<String> titles(JsonNode page) {
        return page.path("studies").values().stream()
                .map(s -> s.path("title").asString())
                .toList();
    }

    private JsonNode page(String query) {
        return keeper.get("/api/my-studies?" + query).json();
    }

    @Test
    public void areFoundByTitleSortedAndComeInPages() {
        assertThat(titles(page("order=TITLE"))).hasSize(25).startsWith("Kept 00", "Kept 01");
        assertThat(page("order=TITLE").path("total").asInt()).isGreaterThanOrEqualTo(30);
        assertThat(titles(page("order=TITLE&part=kept%20&from=25"))).startsWith("Kept 25");
        assertThat(titles(page("part=KEPT%2017"))).containsExactly("Kept 17");
        assertThat(titles(page("stage=CLOSED"))).isEmpty();
        assertThat(titles(page("role=RATER"))).isEmpty();
    }

    @Test
    public void arePutAwayAndBroughtBack() {
        String id = page("part=Kept%2003").at("/studies/0/id").asString();

        assertThat(keeper.post("/api/studies/" + id + "/put-away", Map.of()).status())
                .isEqualTo(204);

        assertThat(titles(page("part=Kept%2003"))).isEmpty();
        assertThat(titles(page("away=true"))).contains("Kept 03");
        assertThat(keeper.get("/api/studies").body()).doesNotContain("Kept 03");
        assertThat(keeper.get("/api/studies/" + id).status())
                .as("and it is still there")
                .isEqualTo(200);
        keeper.post("/api/studies/" + id + "/bring-back", Map.of());
        assertThat(titles(page("part=Kept%2003"))).containsExactly("Kept 03");
        assertThat(keeper.get("/api/studies/" + id + "/audit-events").json().path("events").values().stream()
                        .map(e -> e.path("sort").asString()))
                .startsWith("STUDY_BROUGHT_BACK", "STUDY_PUT_AWAY");
    }

    @Test
    public void tellALeadWhatWaits() {
        String study = bringIn();
        JsonNode own = as(LEAD).get("/api/my-studies?order=NEWEST").json();
        JsonNode line = own.path("studies").values().stream()
                .filter(s -> s.path("id").asString().equals(study))
                .findFirst()
                .orElseThrow();
        assertThat(line.path("waits").asString()).matches("\\d+ of \\d+ sheets are in");
        as(LEAD).post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough."));
        assertThat(as(LEAD).get("/api/my-studies").body()).contains("no memo is signed yet");
        assertThat(as(RATER).get("/api/my-studies?role=RATER").body())
                .as("what waits is the lead's")
                .doesNotContain("waits");
    }

    /** However many studies there are. */
    @Test
    public void areListedWithAsManyQuestionsHoweverManyThereAre() {
        ApiClient one = newcomer("keeps-one", true);
        one.post("/api/studies", Map.of("title", "The only one"));
        assertThat(asked(() -> one.get("/api/my-studies"))).isEqualTo(asked(() -> keeper.get("/api/my-studies")));
        assertThat(asked(() -> one.get("/api/studies"))).isEqualTo(asked(() -> keeper.get("/api/studies")));
    }

    private static long asked(Runnable request) {
        request.run();
        long before = OneConnection.statementsOfRequests();
        request.run();
        return OneConnection.statementsOfRequests() - before;
    }

    @Test
    public void areMadeASecondTimeWithoutPeopleAndGrades() {
        String study = "/api/studies/" + bringIn();
        assertThat(writtenDown(as(LEAD), study + "/audit-events")).containsExactly("STUDY_BROUGHT_IN");
        int answers = as(LEAD).get(study + "/answers").json().size();

        for (boolean with : new boolean[] {true, false}) {
            ApiClient.Response made =
                    as(LEAD).post(study + "/copies", Map.of("title", "A second one", "answers", with));
            assertThat(made.status()).as(made.body()).isEqualTo(201);
            String copy = "/api/studies/" + made.json().path("studyId").asString();
            assertThat(as(LEAD).get(copy).json().path("stage").asString()).isEqualTo("PREPARING");
            assertThat(as(LEAD).get(copy).json().path("title").asString()).isEqualTo("A second one");
            assertThat(as(LEAD).get(copy + "/prompts").json().size())
                    .isEqualTo(as(LEAD).get(study + "/prompts").json().size());
            assertThat(as(LEAD).get(copy + "/answers").json().size()).isEqualTo(with ? answers : 0);
            assertThat(as(LEAD).get(copy + "/people").json().size()).isEqualTo(1);
            assertThat(as(LEAD).get(copy + "/brief").json().has("closedAt")).isFalse();
            assertThat(writtenDown(as(LEAD), copy + "/audit-events")).containsExactly("STUDY_DUPLICATED");
        }
    }

    @Test
    public void aRaterCannotPutThemAway() {
        String study = StudyInTheMaking.begunBy(as(LEAD)).path;
        assertThat(keeper.post(study + "/put-away", Map.of()).status()).isEqualTo(404);
    }
}
