package org.mossbank.server.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mossbank.server.Bodies;
import org.mossbank.server.RubricDraft;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Opening a round by a plan, what is fixed from then on, and a lead who grades. */
public class RoundTest extends ServerTest {

    @Test
    public void whatIsMissingIsNamedAndKeepsTheRoundShut() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        JsonNode plan = study.post("/plan", Bodies.plan(2, 0, false));
        List<String> missing = new ArrayList<>();
        plan.path("missing").forEach(m -> missing.add(m.asString()));
        assertThat(missing)
                .anyMatch(m -> m.contains("brief is not closed"))
                .anyMatch(m -> m.contains("no prompt yet"))
                .anyMatch(m -> m.contains("two candidates"))
                .anyMatch(m -> m.contains("not published"))
                .anyMatch(m -> m.startsWith("Raters"));
        assertThat(study.lead
                        .post(study.path + "/round", Bodies.plan(2, 0, false))
                        .problem())
                .isEqualTo("not-ready");
    }

    @Test
    public void thePreviewIsWhatTheRoundWillBe() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        JsonNode preview = study.post("/plan", Bodies.plan(2, 0.5, false));
        JsonNode opened = study.open(2, 0.5, false);
        assertThat(opened).isEqualTo(preview);
        int sheets = 0;
        for (JsonNode rater : preview.path("raters")) {
            sheets += rater.path("sheets").asInt();
        }
        int given = 0;
        for (JsonNode rater : study.get("/grading").path("raters")) {
            given += rater.path("sheets").size();
        }
        assertThat(given).isEqualTo(sheets);
        assertThat(preview.path("fewestRaters").asInt()).isEqualTo(2);
        assertThat(preview.path("mostRaters").asInt()).isEqualTo(2);
        assertThat(preview.path("repeated").asInt()).isPositive();
    }

    @Test
    public void nobodyGetsTheirOwnPromptOrTheirOwnAnswers() {
        ApiClient lead = as(LEAD);
        StudyInTheMaking study = StudyInTheMaking.ready(lead);
        JsonNode people = study.get("/people");
        Map<String, String> ids = new HashMap<>();
        people.forEach(p ->
                ids.put(p.path("signInName").asString(), p.path("accountId").asString()));
        JsonNode prompt = study.get("/prompts").get(0);
        study.put(
                "/prompts/" + prompt.path("id").asString(),
                Map.of(
                        "version", prompt.path("version").asLong(),
                        "kindId", prompt.at("/kind/id").asString(),
                        "authorId", ids.get("juri"),
                        "content", prompt.path("content")));
        String own = study.baseline("B. O.", ids.get("bram"));
        study.get("/prompts")
                .forEach(p ->
                        study.post("/answers", Bodies.answer(p.path("id").asString(), own, "out of a human head")));
        study.open(3, 0, false);
        for (JsonNode sheet : sheets(as("bram"), study.id())) {
            String text =
                    as("bram").get("/api/sheets/" + sheet.path("id").asString()).body();
            assertThat(text).doesNotContain("out of a human head");
        }
        assertThat(as("sana")
                        .get("/api/sheets/"
                                + sheets(as("sana"), study.id())
                                        .get(0)
                                        .path("id")
                                        .asString())
                        .body())
                .contains("out of a human head");
        assertThat(sheets(as("juri"), study.id()))
                .hasSize(3)
                .noneMatch(s -> s.path("promptTitle")
                        .asString()
                        .equals(prompt.at("/content/title").asString()));
    }

    @Test
    public void fromTheOpeningOnEverythingStaysAsItIs() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        study.open(3, 0, false);
        JsonNode prompt = study.get("/prompts").get(0);
        JsonNode candidate = study.get("/candidates").get(0);
        assertThat(study.lead
                        .post(study.path + "/round", Bodies.plan(3, 0, false))
                        .problem())
                .isEqualTo("round-opened");
        assertThat(study.lead
                        .put(
                                study.path + "/prompts/" + prompt.path("id").asString(),
                                Map.of(
                                        "version", prompt.path("version").asLong(),
                                        "kindId", prompt.at("/kind/id").asString(),
                                        "content", prompt.path("content")))
                        .problem())
                .isEqualTo("round-opened");
        assertThat(RubricDraft.of(study).write(study).problem()).isEqualTo("round-opened");
        study.put(
                "/candidates/" + candidate.path("id").asString() + "/considerations",
                Map.of(
                        "version", candidate.path("version").asLong(),
                        "considerations", List.of(Map.of("sign", "RULES_OUT", "text", "Its maker is gone.")),
                        "reason", "It was in the news."));
        assertThat(recommendation(study.lead, study.id())
                        .at("/ruledOut/0/reasons/0")
                        .asString())
                .isEqualTo("Its maker is gone.");
    }

    @Test
    public void twoOpeningsAtOnceMakeOneRound() throws Exception {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        ApiClient second = freshly(LEAD);
        List<Integer> statuses = List.of(study.lead, second).parallelStream()
                .map(c ->
                        c.post(study.path + "/round", Bodies.plan(3, 0, false)).status())
                .sorted()
                .toList();
        assertThat(statuses).containsExactly(201, 409);
        assertThat(sheets(as("bram"), study.id())).hasSize(4);
    }

    @Test
    public void aLeadWhoGradesIsBlindUntilTheRoundIsClosed() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD)).ofOthersPrompts();
        study.open(2, 0, true);
        ApiClient lead = study.lead;
        Set<String> names = new HashSet<>(Set.of("Osierhold", "Teaselworth"));
        assertThat(lead.get(study.path).json().path("blind").asBoolean()).isTrue();
        for (String hidden : List.of(
                "/candidates",
                "/candidates/unlike",
                "/answers",
                "/agreement",
                "/recommendation",
                "/archive",
                "/prompts",
                "/rubric",
                "/brief",
                "/prompts/warnings",
                "/read-backs")) {
            ApiClient.Response response = lead.get(study.path + hidden);
            assertThat(response.status()).as(hidden).isEqualTo(403);
        }
        for (String open : List.of("/steps", "/grading", "/people", "/prompts/titles")) {
            ApiClient.Response response = lead.get(study.path + open);
            assertThat(response.status()).as(open).isEqualTo(200);
            names.forEach(name -> assertThat(response.body()).as(open).doesNotContain(name));
        }
        assertThat(lead.post(study.path + "/brief/reopen", Map.of("reason", "x"))
                        .status())
                .isEqualTo(403);
        assertThat(sheets(lead, study.id())).isNotEmpty();
        gradeAndSend(lead, sheets(lead, study.id()).get(0).path("id").asString(), 3);
        assertThat(lead.post(study.path + "/round/close", Map.of("reason", "Enough is graded."))
                        .status())
                .isEqualTo(204);
        JsonNode report = lead.get(study.path + "/recommendation").json();
        assertThat(report.at("/blinding/lead").asBoolean()).isTrue();
        assertThat(report.at("/blinding/raters").asInt()).isEqualTo(4);
    }

    @Test
    public void repeatsCountForSelfAgreementAlone() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        study.open(3, 0.5, false);
        for (String name : List.of("bram", "juri", "sana")) {
            ApiClient rater = as(name);
            Map<String, String> first = new HashMap<>();
            int sent = 0;
            for (JsonNode sheet = next(rater, study); sheet != null; sheet = next(rater, study)) {
                String id = sheet.path("id").asString();
                assertThat(sheet.toString()).as("unannounced").doesNotContain("repeat");
                String before = first.putIfAbsent(sheet.path("promptTitle").asString(), id);
                if (before != null) {
                    assertThat(rater.get("/api/sheets/" + before).problem())
                            .as("how it was graded first")
                            .isEqualTo("repeat-open");
                    assertThat(rater.post("/api/sheets/" + before + "/take-back", Map.of())
                                    .problem())
                            .as("nor by taking it back")
                            .isEqualTo("repeat-open");
                }
                // The second time everything is graded otherwise; no figure of the first may move by it.
                gradeAndSend(rater, id, before == null ? 3 : 0);
                sent++;
                if (before != null) {
                    assertThat(rater.get("/api/sheets/" + before).status()).isEqualTo(200);
                }
            }
            assertThat(sent).as("half of four once more").isEqualTo(6);
        }
        JsonNode agreement = study.get("/agreement");
        assertThat(agreement.path("selfAgreement").size()).isEqualTo(3);
        assertThat(agreement.at("/selfAgreement/0/exact/value").asDouble()).isZero();
        assertThat(agreement.at("/selfAgreement/0/sheetsApart").asDouble())
                .as("of six sheets")
                .isBetween(1.0, 5.0);
        assertThat(agreement.at("/selfAgreement/0/daysApart").asDouble()).isBetween(0.0, 0.1);
        assertThat(agreement.at("/criteria/0/overall/exact/value").asDouble()).isEqualTo(1);
        JsonNode overall = recommendation(study.lead, study.id()).path("overall");
        overall.forEach(s -> assertThat(s.at("/plain/value").asDouble()).isEqualTo(75));
    }

    /** The sheet that is next for a rater; no prompt stands twice among those that are not sent in. */
    private static JsonNode next(ApiClient rater, StudyInTheMaking study) {
        List<JsonNode> open = sheets(rater, study.id()).stream()
                .filter(s -> s.path("sentAt").asString("").isEmpty())
                .toList();
        assertThat(open).extracting(s -> s.path("promptTitle").asString()).doesNotHaveDuplicates();
        return open.isEmpty() ? null : open.get(0);
    }

    @Test
    public void aFaultyPromptLeavesEveryFigure() {
        ApiClient lead = as(LEAD);
        String whole = bringIn();
        String path = "/api/studies/" + whole;
        JsonNode prompt = StudyInTheMaking.list(lead.get(path + "/prompts").json()).stream()
                .filter(p -> p.path("key").asString().equals("mean-level"))
                .findFirst()
                .orElseThrow();
        for (String name : List.of("bram", "juri")) {
            int level = name.equals("bram") ? 1 : 4;
            for (JsonNode sheet : sheets(as(name), whole)) {
                gradeAndSend(as(name), sheet.path("id").asString(), level);
            }
        }
        JsonNode before = lead.get(path + "/agreement").json();
        lead.put(path + "/prompts/" + prompt.path("id").asString() + "/fault", Map.of("reason", "It was ambiguous."));
        JsonNode agreement = lead.get(path + "/agreement").json();
        JsonNode report = recommendation(lead, whole);
        assertThat(agreement.at("/setAside/0/reason").asString()).isEqualTo("It was ambiguous.");
        assertThat(report.at("/setAside/0/title").asString())
                .isEqualTo(prompt.at("/content/title").asString());
        int answers = before.at("/criteria/0/overall/answers").asInt();
        int ofPrompt = lead.get(path + "/prompts/" + prompt.path("id").asString() + "/answers")
                .json()
                .size();
        assertThat(agreement.at("/criteria/0/overall/answers").asInt()).isEqualTo(answers - ofPrompt);
        assertThat(agreement.path("sheets").asInt())
                .isEqualTo(before.path("sheets").asInt() - 2);
        agreement.path("splits").forEach(s -> assertThat(s.path("promptId")).isNotEqualTo(prompt.path("id")));
        int cells = 0;
        for (JsonNode standing : report.path("overall")) {
            cells += standing.path("scores").asInt();
        }
        // Two raters on the answers to the other prompts.
        assertThat(cells).isEqualTo(2 * (answers - ofPrompt));
        for (JsonNode measures : report.path("measures")) {
            assertThat(measures.path("answers").asInt()).isEqualTo((answers - ofPrompt) / 2);
        }
        assertThat(report.at("/basis/prompts").asInt())
                .isEqualTo(lead.get(path + "/prompts").json().size() - 1);
        assertThat(sheets(as("bram"), whole)).anyMatch(s -> s.path("setAside").asBoolean());
        Map<String, String> reason = Map.of("reason", "It was clear after all.");
        String takenBack = path + "/prompts/" + prompt.path("id").asString() + "/fault/take-back";
        assertThat(lead.post(takenBack, reason).problem()).isEqualTo("round-closed");
        lead.post(path + "/round/reopen", reason);
        lead.post(takenBack, reason);
        assertThat(lead.get(path + "/agreement").json().path("criteria")).isEqualTo(before.path("criteria"));
    }

    @Test
    public void aFaultyPromptIsNotPlanned() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        String prompt = study.get("/prompts").get(0).path("id").asString();
        study.put("/prompts/" + prompt + "/fault", Map.of("reason", "Ambiguous."));
        study.open(3, 0, false);
        assertThat(sheets(as("bram"), study.id())).hasSize(3);
    }

    @Test
    public void aRuledOutCandidateOrABaselineIsNeverRecommended() {
        String study = bringIn();
        ApiClient lead = as(LEAD);
        JsonNode report = recommendation(lead, study);
        lead.post("/api/studies/" + study + "/round/reopen", Map.of("reason", "They are gone."));
        String highest = report.at("/overall/0/candidateId").asString("");
        JsonNode candidates = lead.get("/api/studies/" + study + "/candidates").json();
        for (JsonNode c : candidates) {
            lead.put(
                    "/api/studies/" + study + "/candidates/" + c.path("id").asString() + "/considerations",
                    Map.of(
                            "version", c.path("version").asLong(),
                            "considerations", List.of(Map.of("sign", "RULES_OUT", "text", "gone")),
                            "reason", "They are gone."));
        }
        JsonNode after = recommendation(lead, study);
        assertThat(after.path("outcome").asString()).isEqualTo("WITHHELD");
        assertThat(after.path("findings").values())
                .extracting(f -> f.path("type").asString())
                .contains("too-few-candidates");
        assertThat(after.at("/overall/0/candidateId").asString(""))
                .as("standings stay")
                .isEqualTo(highest);
    }

    @Test
    public void raterAddedWithoutAnAccountGetsALinkThatLetsThemIn() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        JsonNode added = study.post("/raters", Map.of("signInName", "newrater", "name", "New Rater"));
        String token = added.at("/invitation/token").asString();
        assertThat(study.get("/people").toString()).doesNotContain(token);
        ApiClient newcomer = nobody();
        StudyInTheMaking.ok(newcomer.post(
                "/api/links/use",
                Map.of("token", token, "displayName", "New Rater", "password", "a fair long password")));
        assertThat(newcomer.get(study.path).json().path("role").asString()).isEqualTo("RATER");
        assertThat(newcomer.get(study.path + "/prompts").status()).isEqualTo(403);
        String id = added.path("accountId").asString();
        assertThat(study.lead.delete(study.path + "/raters/" + id).status()).isEqualTo(204);
        assertThat(newcomer.get(study.path).status()).isEqualTo(404);
    }
}
