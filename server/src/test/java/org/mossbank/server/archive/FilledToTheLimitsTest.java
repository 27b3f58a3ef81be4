package org.mossbank.server.archive;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Whatever the product takes, it takes again out of an archive that it wrote. */
public class FilledToTheLimitsTest extends ServerTest {
    private static final JsonNode DESCRIBED = JsonMapper.shared()
            .readTree(ROOT.resolve("web/openapi.json").toFile())
            .at("/components/schemas");

    private static JsonNode rules(String property) {
        String[] parts = property.split("\\.");
        return DESCRIBED.path(parts[0]).path("properties").path(parts[1]);
    }

    /** As long as it may be; it begins with its number, so that it can be told from others. */
    private static String text(String property, int number) {
        JsonNode rules = rules(property);
        int most = (rules.has("items") ? rules.path("items") : rules)
                .path("maxLength")
                .asInt();
        String begin = number + " ";
        return begin + "x".repeat(most - begin.length());
    }

    private static List<String> texts(String property) {
        return IntStream.range(0, most(property))
                .mapToObj(i -> text(property, i))
                .toList();
    }

    private static int most(String property) {
        int most = rules(property).path("maxItems").asInt();
        assertThat(most).as(property).isPositive();
        return most;
    }

    private static List<Map<String, Object>> each(int many, java.util.function.IntFunction<Map<String, Object>> one) {
        List<Map<String, Object>> all = new ArrayList<>();
        IntStream.range(0, many).forEach(i -> all.add(one.apply(i)));
        return all;
    }

    private static Map<String, Object> fullPrompt(int number) {
        String path =
                "src/" + "a".repeat(rules("StartingFile.path").path("maxLength").asInt() - 4);
        Map<String, Object> content = new HashMap<>(Bodies.prompt("", "What is it?"));
        content.put("title", text("PromptContent.title", number));
        content.put("language", text("PromptContent.language", 1));
        content.put("areas", texts("PromptContent.areas"));
        content.put("constraints", texts("PromptContent.constraints"));
        content.put("startingFiles", List.of(Map.of("path", path, "text", "class A {}\n".repeat(2_000))));
        content.put(
                "keyPoints",
                each(
                        most("PromptContent.keyPoints"),
                        i -> Map.of(
                                "stance",
                                "MUST_CONTAIN",
                                "text",
                                text("KeyPoint.text", i),
                                "weight",
                                999_999.5,
                                "file",
                                path,
                                "fromLine",
                                1,
                                "toLine",
                                2_000)));
        content.put("referenceAnswer", "Because. ".repeat(10_000));
        content.put("followUps", texts("PromptContent.followUps"));
        return content;
    }

    private static Map<String, Object> fullCandidate(int number) {
        Map<String, Object> content = new HashMap<>(Bodies.candidate(""));
        content.put("name", text("CandidateContent.name", number));
        content.put("version", text("CandidateContent.version", number));
        content.put("note", text("CandidateContent.note", number));
        content.put("contextWindow", 1_000_000_000_000L);
        content.put(
                "settings",
                each(
                        most("CandidateContent.settings"),
                        i -> Map.of("name", text("Setting.name", i), "value", text("Setting.value", i))));
        content.put(
                "considerations",
                each(
                        most("CandidateContent.considerations"),
                        i -> Map.of("sign", "FOR", "text", text("Consideration.text", i))));
        content.put(
                "price",
                Map.of(
                        "inputPerMillion", "99999999.999999",
                        "outputPerMillion", "0.000001",
                        "currency", "EUR",
                        "caps", text("Price.caps", 1)));
        return content;
    }

    /** As many kinds as a criterion may name. */
    private static void kinds(StudyInTheMaking study) {
        int there = study.get("/kinds").size();
        for (int i = there; i < most("CriterionContent.kindIds"); i++) {
            study.post("/kinds", Map.of("name", text("AddKind.name", i)));
        }
    }

    private static Map<String, Object> fullCriterion(List<String> kinds, int number) {
        Map<String, Object> criterion = new HashMap<>();
        criterion.put("name", text("CriterionContent.name", number));
        criterion.put("question", text("CriterionContent.question", number));
        criterion.put("weight", 1_000_000);
        criterion.put("floor", 1);
        criterion.put("kindIds", kinds);
        criterion.put("traits", texts("CriterionContent.traits"));
        criterion.put(
                "levels",
                each(
                        most("CriterionContent.levels"),
                        l -> Map.of(
                                "name",
                                text("LevelContent.name", l),
                                "anchors",
                                kinds.stream()
                                        .limit(3)
                                        .map(k -> Map.of("kindId", k, "text", text("AnchorContent.text", l)))
                                        .toList())));
        return criterion;
    }

    private static Map<String, Object> fullAnswer(String prompt, String candidate) {
        Map<String, Object> answer = new HashMap<>(Bodies.answer(prompt, candidate, "y".repeat(1_000_000)));
        answer.put(
                "followUps",
                each(
                        most("AddAnswer.followUps"),
                        i -> Map.of("asked", text("FollowUp.asked", i), "reply", "Reply " + i)));
        answer.put(
                "measures",
                Map.of("totalMs", 1_000_000_000_000L, "cost", "99999999.999999", "currency", "EUR", "estimated", true));
        return answer;
    }

    private static StudyInTheMaking filled(ApiClient lead) {
        StudyInTheMaking study = StudyInTheMaking.begunBy(lead);
        Map<String, Object> brief = new HashMap<>(Bodies.brief("", true));
        brief.put("question", text("Brief.question", 1));
        brief.put("audience", text("Brief.audience", 1));
        brief.put("background", text("Brief.background", 1));
        study.put("/brief", Map.of("version", 0, "title", text("WriteBrief.title", 1), "brief", brief));
        study.put(
                "/expectation",
                Map.of("expects", text("Declare.expects", 1), "usesToday", text("Declare.usesToday", 1)));
        study.post("/brief/close", Map.of());
        study.post("/brief/reopen", Map.of("reason", text("ReopenBrief.reason", 1)));
        kinds(study);
        List<String> kinds = study.get("/kinds")
                .valueStream()
                .map(k -> k.path("id").asString())
                .toList();
        String prompt = study.post("/prompts", Map.of("kindId", kinds.get(0), "content", fullPrompt(1)))
                .path("id")
                .asString();
        String faulty = study.post("/prompts", Map.of("kindId", kinds.get(59), "content", fullPrompt(2)))
                .path("id")
                .asString();
        study.put("/prompts/" + faulty + "/fault", Map.of("reason", text("FaultReason.reason", 1)));
        String candidate = study.post("/candidates", Map.of("content", fullCandidate(1)))
                .path("id")
                .asString();
        study.post("/candidates", Map.of("content", fullCandidate(2)));
        JsonNode rubric = study.get("/rubric");
        study.put(
                "/rubric",
                Map.of(
                        "number",
                        rubric.at("/version/number").asInt(),
                        "revision",
                        rubric.path("revision").asLong(),
                        "criteria",
                        each(most("WriteRubric.criteria"), i -> fullCriterion(kinds, i))));
        study.post("/rubric/publish", Map.of("note", text("PublishRubric.note", 1)));
        study.post("/answers", fullAnswer(prompt, candidate));
        study.put("/masking/words", Map.of("version", 0, "words", texts("WriteWords.words")));
        return study;
    }

    @Test
    public void aStudyFilledToEveryLimitMakesTheRoundTrip() {
        StudyInTheMaking study = filled(as(LEAD));
        byte[] first = export(study.lead, study.id());
        ApiClient.Response back = study.lead.upload("/api/studies/archive?again=true", first);

        assertThat(back.status()).as(back.body()).isEqualTo(200);
        assertThat(unzip(export(study.lead, back.json().path("studyId").asString())))
                .isEqualTo(unzip(first));
    }
}
