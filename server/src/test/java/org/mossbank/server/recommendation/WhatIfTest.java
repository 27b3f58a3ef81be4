package org.mossbank.server.recommendation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.awaitility.Awaitility;
import org.mossbank.server.OneConnection;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.server.figures.FiguresAhead;
import org.mossbank.server.ids.StudyId;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.util.ReflectionTestUtils;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What the rule would say otherwise, of a study that can be worked out by hand. */
public class WhatIfTest extends ServerTest {
    @Autowired
    private WhatIf whatIf;

    @Autowired
    private FiguresAhead ahead;

    private String study;
    private JsonNode rule;

    /** Osier stands one level below on correctness, which weighs 2, and is the better on idiom by three. */
    @BeforeClass
    public void close() {
        study = bringIn(SmallStudy.graded((rater, prompt, candidate, criterion) -> candidate.equals("teasel")
                ? criterion.equals("correctness") ? 4 : 1
                : criterion.equals("correctness") ? (rater.equals("juri") ? 2 : 3) : 4));
        rule = recommendation(as(LEAD), study);
    }

    private ApiClient.Response ask(List<?> weights, double margin, List<?> raters, List<?> prompts, List<?> kinds) {
        return ask(study, weights, margin, raters, prompts, kinds);
    }

    private ApiClient.Response ask(
            String of, List<?> weights, double margin, List<?> raters, List<?> prompts, List<?> kinds) {
        return as(LEAD).post(
                        "/api/studies/" + of + "/recommendation/what-if",
                        Map.of(
                                "weights",
                                weights,
                                "margin",
                                margin,
                                "withoutRaters",
                                raters,
                                "withoutPrompts",
                                prompts,
                                "withoutKinds",
                                kinds));
    }

    private static double standing(JsonNode found, String candidate) {
        return found.path("overall")
                .valueStream()
                .filter(s -> s.path("candidateId").asString().equals(candidate))
                .findFirst()
                .orElseThrow()
                .at("/adjusted/value")
                .asDouble();
    }

    private String candidate(String name) {
        return rule.path("candidates")
                .valueStream()
                .filter(c -> c.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
    }

    private String criterion(String key) {
        return rule.at("/rule/weights")
                .valueStream()
                .filter(w -> w.path("key").asString().equals(key))
                .findFirst()
                .orElseThrow()
                .path("criterionId")
                .asString();
    }

    private double margin() {
        return rule.at("/rule/terms/margin").asDouble();
    }

    private long statementsOfTheFirstQuestion(boolean ahead) {
        String fresh = bringIn(SmallStudy.graded((rater, prompt, candidate, criterion) -> 2));
        recommendation(as(LEAD), fresh);
        if (ahead) {
            whatIf.readAhead(StudyId.from(fresh));
        }
        long before = OneConnection.statementsOfRequests();
        assertThat(ask(fresh, List.of(), 5, List.of(), List.of(), List.of()).status())
                .isEqualTo(200);
        return OneConnection.statementsOfRequests() - before;
    }

    /** Reading them takes most of a first question's time. */
    @Test
    public void gradesAreReadBeforeTheFirstQuestion() {
        long read = statementsOfTheFirstQuestion(false);
        assertThat(statementsOfTheFirstQuestion(true)).isLessThan(read / 2);
    }

    /** Nothing is worked out ahead while tests count statements; here it is, by whoever opens the recommendation. */
    @Test
    public void openingTheRecommendationReadsThem() {
        String fresh = bringIn(SmallStudy.graded((rater, prompt, candidate, criterion) -> 2));
        ReflectionTestUtils.setField(ahead, "wanted", true);
        try {
            recommendation(as(LEAD), fresh);
        } finally {
            ReflectionTestUtils.setField(ahead, "wanted", false);
        }
        Awaitility.await().until(() -> whatIf.isReadFor(StudyId.from(fresh)));
    }

    @Test
    public void nothingTurnedIsWhatTheRuleSays() {
        JsonNode found =
                ask(List.of(), margin(), List.of(), List.of(), List.of()).json();
        assertThat(found.path("headline").asString())
                .isEqualTo(rule.path("headline").asString());
        assertThat(found.path("same").asBoolean()).isTrue();
        assertThat(standing(found, candidate("Osier")))
                .isCloseTo(
                        rule.path("overall")
                                .valueStream()
                                .filter(s -> s.path("candidateId").asString().equals(candidate("Osier")))
                                .findFirst()
                                .orElseThrow()
                                .at("/adjusted/value")
                                .asDouble(),
                        within(1e-9));
    }

    @Test
    public void otherWeightsMakeOtherScores() {
        JsonNode found = ask(
                        List.of(
                                Map.of("criterionId", criterion("correctness"), "weight", 1),
                                Map.of("criterionId", criterion("idiom"), "weight", 3)),
                        margin(),
                        List.of(),
                        List.of(),
                        List.of())
                .json();
        // by hand: (1 · 4 + 3 · 1) / 16 and (1 · 2.5 + 3 · 4) / 16 of 100
        assertThat(standing(found, candidate("Teasel"))).isCloseTo(43.75, within(1e-9));
        assertThat(standing(found, candidate("Osier"))).isCloseTo(90.625, within(1e-9));
        assertThat(found.path("same").asBoolean()).isFalse();
        assertThat(found.path("rule").asString())
                .isEqualTo(rule.path("headline").asString());
    }

    /** Of what juri gave alone, which leaves one rater. */
    @Test
    public void aRaterCanBeLeftOut() {
        String bram = as(LEAD).get("/api/studies/" + study + "/people")
                .json()
                .valueStream()
                .filter(p -> p.path("name").asString().equals("Bram Okkers"))
                .findFirst()
                .orElseThrow()
                .path("accountId")
                .asString();
        JsonNode found =
                ask(List.of(), margin(), List.of(bram), List.of(), List.of()).json();
        // by hand: (2 · 2 + 4) / 12 of 100
        assertThat(standing(found, candidate("Osier"))).isCloseTo(800 / 12.0, within(1e-9));
    }

    @Test
    public void aKindCanBeLeftOutAndAllOfThem() {
        List<String> kinds = as(LEAD).get("/api/studies/" + study + "/kinds")
                .json()
                .valueStream()
                .map(k -> k.path("id").asString())
                .toList();
        JsonNode one = ask(List.of(), margin(), List.of(), List.of(), kinds.subList(0, 1))
                .json();
        assertThat(one.at("/overall/0/scores").asInt())
                .isLessThan(rule.at("/overall/0/scores").asInt());
        JsonNode none = ask(List.of(), margin(), List.of(), List.of(), kinds).json();
        assertThat(none.path("outcome").asString()).isEqualTo("WITHHELD");
        assertThat(none.path("overall")).isEmpty();
    }

    @Test
    public void askingChangesNothing() {
        JsonNode before = as(LEAD).get("/api/studies/" + study + "/acts").json();
        ask(List.of(Map.of("criterionId", criterion("idiom"), "weight", 0)), 90, List.of(), List.of(), List.of());
        JsonNode after =
                as(LEAD).get("/api/studies/" + study + "/recommendation").json();
        assertThat(after).isEqualTo(rule);
        assertThat(as(LEAD).get("/api/studies/" + study + "/acts").json()).isEqualTo(before);
    }

    @Test
    public void whatCannotBeAskedIsRefused() {
        Map<String, Object> twice = Map.of("criterionId", criterion("idiom"), "weight", 1);
        assertThat(ask(List.of(twice, twice), 5, List.of(), List.of(), List.of())
                        .problem())
                .isEqualTo("invalid-request");
        assertThat(ask(List.of(), 101, List.of(), List.of(), List.of()).problem())
                .isEqualTo("invalid-request");
        assertThat(ask(
                                List.of(Map.of("criterionId", criterion("idiom"), "weight", -1)),
                                5,
                                List.of(),
                                List.of(),
                                List.of())
                        .problem())
                .isEqualTo("invalid-request");
    }
}
