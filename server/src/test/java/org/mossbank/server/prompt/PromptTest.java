package org.mossbank.server.prompt;

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

public class PromptTest extends ServerTest {

    private static Map<String, Object> with(String field, Object value) {
        Map<String, Object> content = new HashMap<>(Bodies.prompt("T", "R"));
        content.put(field, value);
        return content;
    }

    private ApiClient.Response write(StudyInTheMaking study, String prompt, long version, Map<String, Object> content) {
        return study.lead.put(
                study.path + "/prompts/" + prompt,
                Map.of("version", version, "kindId", study.kind("review"), "content", content));
    }

    @Test
    public void aPromptKeepsAllThatIsWrittenInIt() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        String prompt = study.prompt("review", "A change");
        Map<String, Object> content = new HashMap<>(Bodies.prompt("A change", "Review it."));
        content.put("constraints", List.of("No new library"));
        content.put("followUps", List.of("What if it is null?"));
        content.put("referenceAnswer", "Line 5.");
        content.put("startingFiles", List.of(Map.of("path", "src/A.java", "text", "class A {\n}\n")));
        content.put("origin", Map.of("repository", "/srv/git/a", "commit", "abc123"));
        content.put(
                "keyPoints",
                List.of(Map.of(
                        "stance",
                        "MUST_NOT",
                        "text",
                        "praise it",
                        "weight",
                        2.5,
                        "file",
                        "src/A.java",
                        "fromLine",
                        1,
                        "toLine",
                        2)));
        JsonNode written = StudyInTheMaking.ok(write(study, prompt, 0, content));
        assertThat(written.path("version").asLong()).isEqualTo(1);
        JsonNode read = study.get("/prompts").get(0).path("content");
        assertThat(read.at("/constraints/0").asString()).isEqualTo("No new library");
        assertThat(read.at("/keyPoints/0/toLine").asInt()).isEqualTo(2);
        assertThat(read.at("/keyPoints/0/weight").asDouble()).isEqualTo(2.5);
        assertThat(read.at("/startingFiles/0/text").asString()).isEqualTo("class A {\n}\n");
        assertThat(read.at("/origin/commit").asString()).isEqualTo("abc123");
        assertThat(read.path("size").asString()).isEqualTo("SMALL");
        assertThat(write(study, prompt, 0, content).problem()).isEqualTo("changed-elsewhere");
    }

    @DataProvider
    public static Object[][] wrongContents() {
        Map<String, Object> file = Map.of("path", "A.java", "text", "x");
        return new Object[][] {
            {
                "path upwards",
                with("startingFiles", List.of(Map.of("path", "../A.java", "text", "x"))),
                "startingFiles[0].path"
            },
            {
                "path upwards inside",
                with("startingFiles", List.of(Map.of("path", "a/../../A", "text", ""))),
                "startingFiles[0].path"
            },
            {
                "absolute path",
                with("startingFiles", List.of(Map.of("path", "/etc/passwd", "text", ""))),
                "startingFiles[0].path"
            },
            {"backslash", with("startingFiles", List.of(Map.of("path", "a\\b", "text", ""))), "startingFiles[0].path"},
            {"path twice", with("startingFiles", List.of(file, file)), "content"},
            {
                "weightless key point",
                with("keyPoints", List.of(Map.of("stance", "MUST_CONTAIN", "text", "x", "weight", 0))),
                "keyPoints[0].weight"
            },
            {
                "lines without a file",
                with(
                        "keyPoints",
                        List.of(Map.of(
                                "stance", "MUST_CONTAIN", "text", "x", "weight", 1, "fromLine", 1, "toLine", 2))),
                "keyPoints[0]"
            },
            {
                "lines out of order",
                with(
                        "keyPoints",
                        List.of(Map.of(
                                "stance",
                                "MUST_CONTAIN",
                                "text",
                                "x",
                                "weight",
                                1,
                                "file",
                                "A",
                                "fromLine",
                                3,
                                "toLine",
                                2))),
                "keyPoints[0]"
            },
            {"empty constraint", with("constraints", List.of(" ")), "constraints"},
        };
    }

    @Test(dataProvider = "wrongContents")
    public void isRefusedWithItsField(String name, Map<String, Object> content, String field) {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        String prompt = study.prompt("review", "T");
        ApiClient.Response response = write(study, prompt, 0, content);
        assertThat(response.problem()).isEqualTo("invalid-request");
        assertThat(response.json().at("/errors/0/field").asString()).contains(field);
    }

    @Test
    public void aVariantIsACopyOfTheSameFamily() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        String base = study.prompt("refactoring", "Clean up");
        JsonNode variant = study.post("/prompts/" + base + "/variants", Map.of("wording", "EXACT"));
        JsonNode ofVariant =
                study.post("/prompts/" + variant.path("id").asString() + "/variants", Map.of("wording", "VAGUE"));
        assertThat(variant.path("variantOf").asString()).isEqualTo(base);
        assertThat(ofVariant.path("variantOf").asString())
                .as("of the first one")
                .isEqualTo(base);
        assertThat(variant.at("/content/keyPoints").size()).isEqualTo(1);
        assertThat(study.lead.delete(study.path + "/prompts/" + base).problem()).isEqualTo("not-ready");
    }

    @Test
    public void warnsOfWhatUsuallyGoesWrong() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        study.candidate("Osierhold");
        String prompt = study.prompt("review", "Ask Osierhold");
        Map<String, Object> content = with("keyPoints", List.of());
        content.put("language", "Java");
        content.put("request", "What would osierhold say?");
        write(study, prompt, 0, content);
        assertThat(study.get("/prompts/warnings").get(0).path("warnings").values())
                .extracting(w -> w.path("type").asString())
                .containsExactlyInAnyOrder("no-key-points", "no-language-version", "names-candidate");
    }

    @Test
    public void aReaderSeesTheRequestButNeitherKeyPointsNorTheReference() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        String bram = study.rater("bram");
        String prompt = study.prompt("debugging", "Unclear?");
        Map<String, Object> content = new HashMap<>(Bodies.prompt("Unclear?", "Find it."));
        content.put("referenceAnswer", "a hidden reference");
        write(study, prompt, 0, content);
        JsonNode asked = study.post("/prompts/" + prompt + "/read-backs", Map.of("readerId", bram));
        String reading = "/api/read-backs/" + asked.path("id").asString();
        ApiClient reader = as("bram");
        String mine = StudyInTheMaking.list(reader.get("/api/read-backs").json()).stream()
                .filter(r -> r.path("id").asString().equals(asked.path("id").asString()))
                .findFirst()
                .orElseThrow()
                .toString();
        assertThat(mine)
                .contains("Find it.")
                .doesNotContain("a hidden reference")
                .doesNotContain("the cause");
        assertThat(as("juri").put(reading, Map.of("answer", "x")).status()).isEqualTo(404);
        assertThat(study.lead
                        .put(
                                study.path + "/read-backs/" + asked.path("id").asString() + "/verdict",
                                Map.of("verdict", "UNCLEAR"))
                        .status())
                .as("nothing to judge yet")
                .isEqualTo(400);
        assertThat(reader.put(reading, Map.of("answer", "To find something.")).status())
                .isEqualTo(200);
        study.put("/read-backs/" + asked.path("id").asString() + "/verdict", Map.of("verdict", "UNCLEAR"));
        assertThat(study.get("/prompts/warnings").get(0).path("warnings").values())
                .extracting(w -> w.path("type").asString())
                .contains("read-back-unclear");
        assertThat(study.lead
                        .post(study.path + "/prompts/" + prompt + "/read-backs", Map.of("readerId", bram))
                        .json()
                        .at("/errors/0/message")
                        .asString())
                .isEqualTo("was asked already");
    }

    @Test
    public void theBankKeepsVersionsAndTellsHowAPromptDid() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        String prompt = study.get("/prompts").get(0).path("id").asString();
        JsonNode kept = study.post("/prompts/" + prompt + "/keep", Map.of());
        assertThat(kept.at("/bank/number").asInt()).isEqualTo(1);
        assertThat(study.post("/prompts/" + prompt + "/keep", Map.of())
                        .at("/bank/number")
                        .asInt())
                .as("the same words are kept once")
                .isEqualTo(1);
        write(study, prompt, kept.path("version").asLong(), Bodies.prompt("Said better", "Find the cause, please."));
        assertThat(study.post("/prompts/" + prompt + "/keep", Map.of())
                        .at("/bank/number")
                        .asInt())
                .isEqualTo(2);
        String bankPrompt = kept.at("/bank/bankPromptId").asString();

        StudyInTheMaking other = StudyInTheMaking.begunBy(as(LEAD));
        JsonNode taken = other.post(
                "/prompts/from-bank",
                Map.of("bankPromptId", bankPrompt, "version", 1, "kindId", other.kind("debugging")));
        assertThat(taken.at("/content/request").asString()).isEqualTo("Find the cause of it.");

        study.open(3, 0, false);
        for (String name : List.of("bram", "juri")) {
            ApiClient rater = as(name);
            for (JsonNode sheet : sheets(rater, study.id())) {
                gradeAndSend(rater, sheet.path("id").asString(), name.equals("bram") ? 3 : 4);
            }
        }
        JsonNode entry = study.lead.get("/api/bank/" + bankPrompt).json();
        assertThat(entry.path("versions").size()).isEqualTo(2);
        JsonNode use = StudyInTheMaking.list(entry.path("uses")).stream()
                .filter(u -> u.path("studyId").asString().equals(study.id()))
                .findFirst()
                .orElseThrow();
        assertThat(use.at("/showing/sheets").asInt()).isEqualTo(2);
        assertThat(use.at("/showing/withinOne/value").asDouble()).isEqualTo(1);
        assertThat(use.at("/showing/apart/value").asDouble())
                .as("all answers alike")
                .isZero();
    }

    @Test
    public void promptsWithAnswersStay() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        String prompt = study.get("/prompts").get(0).path("id").asString();
        String candidate = study.get("/candidates").get(0).path("id").asString();
        assertThat(study.lead.delete(study.path + "/prompts/" + prompt).problem())
                .isEqualTo("has-answers");
        assertThat(study.lead.delete(study.path + "/candidates/" + candidate).problem())
                .isEqualTo("has-answers");
        study.get("/answers")
                .forEach(a -> study.lead.delete(
                        study.path + "/answers/" + a.path("id").asString()));
        assertThat(study.lead.delete(study.path + "/prompts/" + prompt).status())
                .isEqualTo(204);
        assertThat(study.lead.delete(study.path + "/candidates/" + candidate).status())
                .isEqualTo(204);
    }

    @Test
    public void kindsAreAddedAndTakenOutWhileNoPromptIsOfThem() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        JsonNode kind = study.post("/kinds", Map.of("name", "Writing tests"));
        assertThat(kind.path("key").asString()).isEqualTo("writing-tests");
        assertThat(study.lead
                        .post(study.path + "/kinds", Map.of("name", "writing TESTS"))
                        .status())
                .isEqualTo(400);
        study.prompt("writing-tests", "Test it");
        String kinds = study.path + "/kinds/";
        assertThat(study.lead.delete(kinds + kind.path("id").asString()).problem())
                .isEqualTo("not-ready");
        assertThat(study.lead.delete(kinds + study.kind("explanation")).status())
                .isEqualTo(204);
        assertThat(study.get("/rubric").at("/criteria/0/levels/0/anchors").size())
                .isEqualTo(3);
    }

    @Test
    public void nobodyWritesInAnothersStudy() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        String prompt = study.prompt("review", "Mine");
        StudyInTheMaking other = StudyInTheMaking.begunBy(as(LEAD));
        ApiClient.Response response = other.lead.put(
                other.path + "/prompts/" + prompt,
                Map.of("version", 0, "kindId", other.kind("review"), "content", Bodies.prompt("T", "R")));
        assertThat(response.status()).as("a prompt of another study").isEqualTo(404);
    }
}
