package org.mossbank.server.succession;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The next study, begun from one that has ended, and what is said of the ruler between them. */
public class NextStudyTest extends ServerTest {
    private static final double EXACT = 1e-9;

    private String first;
    private String teasel;

    /** Teasel gets the highest level on everything, osier 2 of 4. */
    @BeforeClass
    public void close() {
        first = bringIn(SmallStudy.graded(SmallStudy.osier(2, 2)));
        recommendation(as(LEAD), first);
        teasel = as(LEAD).get("/api/studies/" + first + "/candidates")
                .json()
                .valueStream()
                .filter(c -> c.path("key").asString().equals("teasel"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
    }

    private ApiClient.Response begin(String study, double share, boolean raters) {
        return as(LEAD).post(
                        "/api/studies/" + study + "/next",
                        Map.of("title", "Again", "candidateIds", List.of(teasel), "share", share, "raters", raters));
    }

    private static Set<String> values(JsonNode list, String field) {
        return list.valueStream().map(n -> n.at(field).asString()).collect(Collectors.toSet());
    }

    private JsonNode get(String study, String what) {
        return as(LEAD).get("/api/studies/" + study + what).json();
    }

    @Test
    public void bringsPromptsRubricRuleAndRatersButNeitherGradesNorWhoIsLeftOut() {
        ApiClient.Response begun = begin(first, 0.5, true);
        assertThat(begun.status()).as(begun.body()).isEqualTo(201);
        String next = begun.json().path("studyId").asString();
        assertThat(begun.json().path("carried").asInt())
                .as("one prompt of each kind")
                .isEqualTo(2);
        assertThat(get(next, "/prompts").size()).isEqualTo(4);
        assertThat(values(get(next, "/candidates"), "/key")).containsExactly("teasel");
        assertThat(get(next, "/answers").size()).isEqualTo(2);
        assertThat(get(next, "/brief").at("/content/rule/margin").asDouble())
                .isEqualTo(get(first, "/brief").at("/content/rule/margin").asDouble());
        assertThat(get(next, "/brief").has("closedAt")).as("the brief is open").isFalse();
        assertThat(values(get(next, "/people"), "/signInName")).contains("bram", "juri");
        assertThat(get(next, "").path("stage").asString()).isEqualTo("PREPARING");
        assertThat(get(next, "/follows").path("title").asString()).isEqualTo("Tide gauge scripts");
        assertThat(get(next, "/follows").path("carried").asInt()).isEqualTo(2);
        assertThat(get(first, "/follows").has("title")).isFalse();
    }

    @Test
    public void withoutAShareOrRatersNeitherIsBroughtAlong() {
        String next = begin(first, 0, false).json().path("studyId").asString();
        assertThat(get(next, "/answers").size()).isZero();
        assertThat(values(get(next, "/people"), "/signInName")).doesNotContain("bram", "juri");
    }

    @Test
    public void isRefusedBeforeGradingHasEndedAndForStrangers() {
        String open = bringIn(SmallStudy.graded(SmallStudy.osier(2, 2)));
        assertThat(begin(open, 0.5, true).problem()).isEqualTo("standings-hidden");
        String other = bringIn(SmallStudy.graded(SmallStudy.osier(2, 2)));
        recommendation(as(LEAD), other);
        assertThat(begin(other, 0.5, true).body()).contains("must be candidates of this study");
    }

    @Test
    public void aStudyThatFollowsNoneHasNothingSince() {
        assertThat(as(LEAD).get("/api/studies/" + first + "/recommendation/since")
                        .status())
                .isEqualTo(404);
    }

    /** All of teasel's answers are graded again, a level lower on correctness, beside a new candidate's. */
    @Test
    public void saysWhetherTheRulerMovedAndPutsBothOnOneScale() {
        String next = begin(first, 1, true).json().path("studyId").asString();
        ApiClient lead = as(LEAD);
        String path = "/api/studies/" + next;
        String added = lead.post(path + "/candidates", Map.of("content", Bodies.candidate("Sedge")))
                .json()
                .path("id")
                .asString();
        get(next, "/prompts")
                .forEach(p ->
                        lead.post(path + "/answers", Bodies.answer(p.path("id").asString(), added, "Another answer.")));
        String archive = graded(next);
        JsonNode since = get(archive, "/recommendation/since");

        // By hand: correctness weighs 2 of 3; 3 of 4 instead of 4 of 4 is 25 points less on it.
        assertThat(since.at("/ruler/shift/value").asDouble()).isCloseTo(-25 * 2 / 3.0, within(EXACT));
        assertThat(since.at("/ruler/prompts").asInt()).isEqualTo(4);
        assertThat(since.at("/ruler/verdict").asString()).isEqualTo("MOVED");
        assertThat(since.path("byCriterion")
                        .valueStream()
                        .map(c -> c.path("criterion").asString() + " "
                                + c.at("/shift/value").asDouble()))
                .containsExactly("correctness -25.0", "idiom 0.0");
        JsonNode scale = since.path("candidates");
        assertThat(scale.valueStream().map(c -> c.path("name").asString())).containsExactly("Teasel", "Sedge", "Osier");
        assertThat(scale.at("/0/then/value").asDouble()).isCloseTo(100, within(EXACT));
        assertThat(scale.at("/0/moved/value").asDouble()).isCloseTo(100 - 50 / 3.0, within(EXACT));
        assertThat(scale.at("/1").has("then")).as("it is new").isFalse();
        assertThat(scale.at("/2").has("now")).as("it is gone").isFalse();
        assertThat(since.path("changes").valueStream().map(JsonNode::asString))
                .contains("New candidates: Sedge.", "Candidates that take no part any more: Osier.");
        assertThat(as("bram")
                        .get("/api/studies/" + archive + "/recommendation/since")
                        .status())
                .as("raters see it once the round is over")
                .isEqualTo(200);
    }

    /** Brings it in once more with everything graded: teasel 3 on correctness and 4 on idiom, sedge 4 on both. */
    private String graded(String study) {
        Map<String, String> files = unzip(export(as(LEAD), study));
        StringBuilder sheets = new StringBuilder("rater,prompt,place,sent_at\n");
        StringBuilder grades = new StringBuilder("rater,answer,criterion,level\n");
        Set<String> prompts = new HashSet<>(SmallStudy.PROMPTS);
        for (String rater : List.of("bram", "juri")) {
            int place = 1;
            for (String prompt : prompts) {
                sheets.append(rater + "," + prompt + "," + place++ + ",2026-05-10T09:14:04Z\n");
            }
            files.get("answers.csv").lines().skip(1).map(l -> l.split(",")).forEach(a -> {
                for (String criterion : List.of("correctness", "idiom")) {
                    boolean lower = a[2].equals("teasel") && criterion.equals("correctness");
                    grades.append(rater + "," + a[0] + "," + criterion + "," + (lower ? 3 : 4) + "\n");
                }
            });
        }
        Map<String, byte[]> all = new java.util.HashMap<>();
        files.forEach((name, text) -> all.put(name, bytes(text)));
        all.put("study.json", bytes(files.get("study.json").replaceAll("\"stage\"\\s*:\\s*\"preparing\",?", "")));
        withTable("sheets", sheets.toString()).accept(all);
        withTable("grades", grades.toString()).accept(all);
        ApiClient.Response brought = as(LEAD).upload("/api/studies/archive?again=true", zip(all));
        assertThat(brought.status()).as(brought.body()).isEqualTo(200);
        String id = brought.json().path("studyId").asString();
        recommendation(as(LEAD), id);
        return id;
    }
}
