package org.mossbank.server.reconciliation;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Splits are talked through and settled, and what was given at first stays what figures rest on. */
public class ReconciliationTest extends ServerTest {
    private static final Map<String, String> WHY = Map.of("reason", "Read again together.");

    /** Bram and juri part by three levels on the correctness of osier's answer to one prompt, by two on another. */
    private static SmallStudy.Levels parted() {
        return (rater, prompt, candidate, criterion) -> {
            boolean ofOsier = candidate.equals("osier") && criterion.equals("correctness") && rater.equals("juri");
            if (ofOsier && prompt.equals("mean-level")) {
                return 4;
            }
            return ofOsier && prompt.equals("lost-hour")
                    ? 3
                    : SmallStudy.osier(1, 1).of(rater, prompt, candidate, criterion);
        };
    }

    /** With a third rater, who has no sheet. */
    private static final Consumer<Map<String, byte[]>> TOVE_TOO = files -> files.put(
            "raters.csv",
            bytes(new String(files.get("raters.csv"), StandardCharsets.UTF_8).stripTrailing()
                    + "\ntove,Tove Lindqvest\n"));

    private static final Consumer<Map<String, byte[]>> STRICT = files -> files.put(
            "study.json",
            bytes(new String(files.get("study.json"), StandardCharsets.UTF_8)
                    .replace("\"margin\": 5", "\"margin\": 5, \"strictOnSplits\": true")));

    private String parting() {
        return bringIn(SmallStudy.graded(parted()).andThen(TOVE_TOO));
    }

    private String path(String study) {
        return "/api/studies/" + study;
    }

    /** Takes the widest up; returns the split's address. */
    private String widest(String study) {
        assertThat(as(LEAD).post(path(study) + "/splits/widest", Map.of("count", 1))
                        .json()
                        .path("count")
                        .asInt())
                .isEqualTo(1);
        return "/api/splits/"
                + as(LEAD).get(path(study) + "/splits").json().at("/0/id").asString();
    }

    private static Map<String, Object> says(String words) {
        return Map.of("id", UUID.randomUUID().toString(), "words", words);
    }

    private static Map<String, Object> stands(int level) {
        return Map.of("id", UUID.randomUUID().toString(), "level", level, "reason", "Line 2 decides it.");
    }

    @Test
    public void theWidestIsTakenUpFirstAndOnce() {
        String study = parting();
        ApiClient lead = as(LEAD);
        String split = widest(study);
        assertThat(lead.get(split).json().path("distance").asInt()).isEqualTo(3);
        assertThat(lead.post(path(study) + "/splits/widest", Map.of("count", 9))
                        .json()
                        .path("count")
                        .asInt())
                .as("one more split, of two levels")
                .isEqualTo(1);
        JsonNode first = lead.get(path(study) + "/splits").json().get(0);
        Map<String, Object> again = Map.of(
                "splits",
                List.of(Map.of(
                        "answerId", first.path("answerId").asString(),
                        "criterionId", first.path("criterionId").asString())));
        assertThat(lead.post(path(study) + "/splits", again)
                        .json()
                        .path("count")
                        .asInt())
                .isZero();
        Map<String, Object> none = Map.of(
                "splits",
                List.of(Map.of(
                        "answerId", first.path("answerId").asString(),
                        "criterionId", UUID.randomUUID().toString())));
        assertThat(lead.post(path(study) + "/splits", none).problem()).isEqualTo("invalid-request");
    }

    @Test
    public void whoeverItConcernsTalksAndNobodyElse() {
        String study = parting();
        String split = widest(study);
        JsonNode page = as(RATER)
                .post(split + "/words", says("I took it for the median."))
                .json();
        assertThat(page.at("/words/0/by").asString()).isEqualTo("Bram Okkers");
        assertThat(page.at("/words/0/own").asBoolean()).isTrue();
        assertThat(as("juri").get(split).json().at("/words/0/own").asBoolean()).isFalse();
        assertThat(as(LEAD).post(split + "/words", says("Both of you, look at line 2."))
                        .status())
                .isEqualTo(200);
        for (ApiClient other : List.of(as("tove"), as(OUTSIDER))) {
            assertThat(other.get(split).status()).isEqualTo(404);
            assertThat(other.post(split + "/words", says("I")).status()).isEqualTo(404);
            assertThat(other.post(split + "/stances", stands(1)).status()).isEqualTo(404);
            assertThat(other.get(split + "/look").status()).isEqualTo(404);
            assertThat(other.get(split + "/code").status()).isEqualTo(404);
        }
        assertThat(as(RATER).get(split + "/code").json().path("start").isArray())
                .isTrue();
        assertThat(nobody().get(split).status()).isEqualTo(401);
        assertThat(as(LEAD).post(split + "/stances", stands(1)).status())
                .as("the lead gave no grade")
                .isEqualTo(403);
    }

    /** Their own grades would no longer be independent. */
    @Test
    public void nobodyReadsATalkWhileTheyOrOthersHaveTheirGradesToGive() {
        String study = parting();
        String split = widest(study);
        String brams = sheets(as(RATER), study).get(3).path("id").asString();
        assertThat(as(RATER)
                        .post("/api/sheets/" + brams + "/take-back", Map.of())
                        .status())
                .isEqualTo(204);
        assertThat(as(RATER).get(split).status()).as("a sheet of his own").isEqualTo(404);
        assertThat(mine(RATER, study)).isEmpty();
        assertThat(as(RATER).get("/api/splits").json().path("later").asInt()).isPositive();
        assertThat(as("juri").get(split).status())
                .as("of another prompt, and hers are sent in")
                .isEqualTo(200);
        gradeAndSend(as(RATER), brams, 2);
        assertThat(as(RATER).get(split).status()).isEqualTo(200);
        assertThat(as(RATER)
                        .post("/api/sheets/" + brams + "/take-back", Map.of())
                        .problem())
                .as("he has seen what she gave")
                .isEqualTo("too-late");
    }

    @Test
    public void aFaultyPromptIsNeitherWaitedForNorTalkedThrough() {
        String study = parting();
        String split = widest(study);
        JsonNode other = sheets(as(RATER), study).get(3);
        as(RATER).post("/api/sheets/" + other.path("id").asString() + "/take-back", Map.of());
        assertThat(as(RATER).get(split).status()).as("a sheet of his own").isEqualTo(404);
        fault(study, "title", other.path("promptTitle").asString());
        assertThat(mine(RATER, study)).hasSize(1);
        assertThat(as(RATER).get(split).status()).isEqualTo(200);

        as(RATER).post(split + "/stances", stands(1));
        as("juri").post(split + "/stances", stands(4));
        assertThat(mine(LEAD, study)).as("it is to be closed").hasSize(1);
        String fault = fault(study, "key", "mean-level");
        assertThat(mine(LEAD, study)).isEmpty();
        assertThat(mine(RATER, study)).isEmpty();
        assertThat(as(RATER).get(split).status()).isEqualTo(404);
        as(LEAD).post(fault + "/take-back", WHY);
        assertThat(as(RATER).get(split).status()).isEqualTo(200);
    }

    /** Marks the prompt with a key or title faulty; returns the fault's address. */
    private String fault(String study, String field, String value) {
        String prompt = as(LEAD).get(path(study) + "/prompts")
                .json()
                .valueStream()
                .filter(p -> Stream.of(p, p.path("content"))
                        .anyMatch(part -> part.path(field).asString().equals(value)))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        String fault = path(study) + "/prompts/" + prompt + "/fault";
        assertThat(as(LEAD).put(fault, WHY).status()).isLessThan(300);
        return fault;
    }

    private List<JsonNode> mine(String name, String study) {
        return as(name).get("/api/splits")
                .json()
                .path("splits")
                .valueStream()
                .filter(s -> s.path("studyId").asString().equals(study))
                .toList();
    }

    @Test
    public void itIsSettledOnceAllStandAtOneLevelAndGradesStay() {
        String study = parting();
        String split = widest(study);
        JsonNode before = as(LEAD).get(path(study) + "/agreement").json();
        assertThat(mine("juri", study).get(0).path("waitsFor").asString()).isEqualTo("STANCE");
        assertThat(as(RATER)
                        .post(split + "/stances", stands(2))
                        .json()
                        .path("state")
                        .asString())
                .isEqualTo("OPEN");
        JsonNode settled = as("juri").post(split + "/stances", stands(2)).json();
        assertThat(settled.path("state").asString()).isEqualTo("SETTLED");
        assertThat(settled.at("/closing/how").asString()).isEqualTo("CONSENT");
        assertThat(settled.at("/closing/level").asDouble()).isEqualTo(2);
        assertThat(settled.path("raters").valueStream().map(r -> r.path("level").asInt()))
                .as("what was given at first")
                .containsExactly(1, 4);
        assertThat(settled.at("/raters/0/stances/0/kept").asBoolean()).isFalse();
        assertThat(mine("juri", study).get(0).path("waitsFor").asString()).isEqualTo("NOTHING");
        JsonNode after = as(LEAD).get(path(study) + "/agreement").json();
        assertThat(after.path("criteria")).isEqualTo(before.path("criteria"));
        assertThat(as(RATER).post(split + "/words", says("Late.")).problem()).isEqualTo("split-closed");
        assertThat(as(RATER).post(split + "/stances", stands(5)).status()).isEqualTo(409);
    }

    /** The answer was lost on the way, and the client sends it again. */
    @Test
    public void theStanceThatSettlesItMayBeSentTwice() {
        String split = widest(parting());
        as(RATER).post(split + "/stances", stands(2));
        Map<String, Object> last = stands(2);
        as("juri").post(split + "/stances", last);
        ApiClient.Response again = as("juri").post(split + "/stances", last);
        assertThat(again.status()).isEqualTo(200);
        assertThat(again.json().path("state").asString()).isEqualTo("SETTLED");
    }

    @Test
    public void theLeadIsToldWhatIsToBeClosed() {
        String study = parting();
        String split = widest(study);
        as(RATER).post(split + "/stances", stands(1));
        assertThat(mine(LEAD, study)).isEmpty();
        as("juri").post(split + "/stances", stands(4));
        JsonNode waits = mine(LEAD, study).get(0);
        assertThat(waits.path("waitsFor").asString()).isEqualTo("CLOSING");
        assertThat(waits.path("title").asString()).isNotBlank();
        as("juri").post(split + "/words", says("No further."));
        assertThat(mine(RATER, study).get(0).path("waitsFor").asString()).isEqualTo("READING");
        as(RATER).get(split);
        assertThat(mine(RATER, study).get(0).path("waitsFor").asString()).isEqualTo("NOTHING");
    }

    @Test
    public void theSameWordsSentTwiceAreSaidOnce() {
        String split = widest(parting());
        Map<String, Object> once = says("Once.");
        as(RATER).post(split + "/words", once);
        assertThat(as(RATER).post(split + "/words", once).json().path("words").size())
                .isEqualTo(1);
        Map<String, Object> stance = stands(1);
        as(RATER).post(split + "/stances", stance);
        assertThat(as(RATER)
                        .post(split + "/stances", stance)
                        .json()
                        .at("/raters/0/stances")
                        .size())
                .isEqualTo(1);
        assertThat(as(RATER).post(split + "/stances", stands(5)).problem()).isEqualTo("invalid-request");
    }

    @Test
    public void theLeadSettlesLeavesOpenAndOpensAgainOnRecord() {
        String study = parting();
        String split = widest(study);
        String ofStudy = path(study) + "/splits" + split.substring(split.lastIndexOf('/'));
        ApiClient lead = as(LEAD);
        assertThat(lead.post(ofStudy + "/settle", Map.of("level", 3, "reason", ""))
                        .status())
                .isEqualTo(400);
        assertThat(lead.post(ofStudy + "/settle", Map.of("level", 3, "reason", "The spec says so."))
                        .status())
                .isEqualTo(204);
        assertThat(lead.post(ofStudy + "/leave-open", WHY).problem()).isEqualTo("split-closed");
        assertThat(lead.post(ofStudy + "/open-again", WHY).status()).isEqualTo(204);
        assertThat(lead.post(ofStudy + "/leave-open", WHY).status()).isEqualTo(204);
        assertThat(lead.get(path(study) + "/acts")
                        .json()
                        .valueStream()
                        .map(a -> a.path("sort").asString()))
                .containsExactly("SPLIT_SETTLED", "SPLIT_OPENED_AGAIN", "SPLIT_LEFT_OPEN");
        assertThat(lead.get(path(study) + "/acts").json().at("/0/subject").asString())
                .endsWith("Correctness: 3");
        assertThat(lead.get(split).json().at("/closing/namesKnown").asBoolean()).isTrue();
        assertThat(as(RATER)
                        .post(ofStudy + "/settle", Map.of("level", 1, "reason", "x"))
                        .status())
                .isEqualTo(403);
        for (String step : List.of("/leave-open", "/open-again")) {
            assertThat(as(RATER).post(ofStudy + step, WHY).status()).isEqualTo(403);
        }
        String other = path(bringIn()) + "/splits" + split.substring(split.lastIndexOf('/'));
        assertThat(lead.post(other + "/settle", Map.of("level", 3, "reason", "x"))
                        .status())
                .as("it is of another study")
                .isEqualTo(404);
    }

    @Test
    public void ofTwoWhoCloseOneAtOnceTheSecondIsToldWhatTheFirstDid() throws Exception {
        String study = parting();
        String split = widest(study);
        String ofStudy = path(study) + "/splits" + split.substring(split.lastIndexOf('/'));
        List<ApiClient> windows = List.of(freshly(LEAD), freshly(LEAD));
        List<CompletableFuture<ApiClient.Response>> both = windows.stream()
                .map(w -> CompletableFuture.supplyAsync(
                        () -> w.post(ofStudy + "/settle", Map.of("level", 2, "reason", "So it is."))))
                .toList();
        List<ApiClient.Response> came = List.of(both.get(0).get(), both.get(1).get());
        assertThat(came.stream().map(ApiClient.Response::status)).containsExactlyInAnyOrder(204, 409);
        ApiClient.Response second =
                came.stream().filter(r -> r.status() == 409).findFirst().orElseThrow();
        assertThat(second.json().path("detail").asString()).contains("settled at 2 by Orla Fennick");
    }

    @Test
    public void aThirdLooksBlindAndTheMedianOfAllStands() {
        String study = parting();
        String split = widest(study);
        String ofStudy = path(study) + "/splits" + split.substring(split.lastIndexOf('/'));
        ApiClient lead = as(LEAD);
        JsonNode free = lead.get(ofStudy + "/looks").json();
        assertThat(free.valueStream().map(f -> f.path("name").asString())).containsExactly("Tove Lindqvest");
        assertThat(lead.post(
                                ofStudy + "/looks",
                                Map.of("raterId", free.at("/0/raterId").asString()))
                        .status())
                .isEqualTo(204);
        assertThat(lead.get(ofStudy + "/looks").json().size()).isZero();
        assertThat(as("tove").get(split).status()).as("she sees no grades").isEqualTo(404);
        assertThat(mine("tove", study).get(0).path("waitsFor").asString()).isEqualTo("LOOK");
        String look = as("tove").get(split + "/look").body();
        assertThat(look).doesNotContain("raters", "stances", "osier");
        assertThat(as("tove").get(split + "/code").status())
                .as("what it changes is part of it")
                .isEqualTo(200);
        as("tove").put(split + "/look", Map.of("level", 2, "reason", "Half of it."));
        JsonNode page = as("tove").get(split).json();
        assertThat(page.at("/closing/level").asDouble()).as("of 1, 2 and 4").isEqualTo(2);
        assertThat(page.at("/closing/how").asString()).isEqualTo("THIRD_LOOK");
        assertThat(as(RATER).get(split + "/look").status()).isEqualTo(404);
    }

    @Test
    public void medianOfAnEvenNumberLiesBetween() {
        assertThat(SplitTalk.median(List.of(4, 1))).isEqualTo(2.5);
        assertThat(SplitTalk.median(List.of(4, 1, 1))).isEqualTo(1);
    }

    /** The lead knows names and may let one slip. */
    @Test
    public void namesInTheTalkAreMaskedForRaters() {
        String study = parting();
        String split = widest(study);
        as(LEAD).post(split + "/words", says("Osier does that often, and so does TEASEL."));
        assertThat(as(RATER).get(split).body().toLowerCase(java.util.Locale.ROOT))
                .doesNotContain("osier", "teasel")
                .contains("[masked] does that often");
        assertThat(as(LEAD).get(split).body()).contains("Osier does that");
        as(LEAD).post(path(study) + "/round/close", Map.of("reason", ""));
        assertThat(as(RATER).get(split).body()).contains("Osier does that");
        assertThat(as(RATER).post(split + "/words", says("Now I know.")).problem())
                .isEqualTo("round-closed");
    }

    @Test
    public void settledGradesStandBesideAndNeverDecide() {
        String study = parting();
        String split = widest(study);
        as(RATER).post(split + "/stances", stands(4));
        as("juri").post(split + "/stances", stands(4));
        JsonNode report = recommendation(as(LEAD), study);
        // By hand, weights 2 and 1, levels to 4. Correctness over 4 prompts and 2 raters: (6·1 + 4 + 3)/8 = 13/8; idiom
        // 1: (2·13/8 + 1)/3/4 = 35.42.
        assertThat(score(report.path("overall"), "adjusted")).isEqualTo(35.42, Offset.offset(0.01));
        // Settled at 4: (5·1 + 2·4 + 3)/8 = 2; (2·2 + 1)/3/4 = 41.67.
        assertThat(score(report.at("/settled/standings"), "adjusted")).isEqualTo(41.67, Offset.offset(0.01));
        assertThat(report.at("/settled/splits").asInt()).isEqualTo(1);
        assertThat(report.at("/settled/open").asInt()).isEqualTo(1);
    }

    /** Of the candidate that does not stand highest. */
    private static double score(JsonNode standings, String figure) {
        return standings
                .valueStream()
                .mapToDouble(s -> s.path(figure).path("value").asDouble())
                .min()
                .orElseThrow();
    }

    @Test
    public void aRuleThatIsStrictAboutSplitsIsMetOnceAllAreSettled() {
        String study = bringIn(SmallStudy.graded(parted()).andThen(STRICT));
        ApiClient lead = as(LEAD);
        assertThat(lead.post(path(study) + "/splits/widest", Map.of("count", 200))
                        .json()
                        .path("count")
                        .asInt())
                .isEqualTo(2);
        JsonNode splits = lead.get(path(study) + "/splits").json();
        String first = path(study) + "/splits/" + splits.at("/0/id").asString();
        String second = path(study) + "/splits/" + splits.at("/1/id").asString();
        lead.post(first + "/settle", Map.of("level", 1, "reason", "So it is."));
        lead.post(second + "/leave-open", WHY);
        assertThat(findings(recommendation(lead, study)))
                .as("one is left without a settled grade")
                .contains("splits-open");
        lead.post(path(study) + "/round/reopen", WHY);
        lead.post(second + "/open-again", WHY);
        lead.post(second + "/settle", Map.of("level", 1, "reason", "So it is."));
        assertThat(findings(recommendation(lead, study))).doesNotContain("splits-open");
    }

    private static List<String> findings(JsonNode report) {
        return report.path("findings")
                .valueStream()
                .map(f -> f.path("type").asString())
                .toList();
    }

    @Test
    public void talksGoIntoTheArchiveAndComeOutTheSame() {
        String study = parting();
        String split = widest(study);
        as(LEAD).post(path(study) + "/splits/widest", Map.of("count", 1));
        as(LEAD).post(split + "/words", says("Look at line 2."));
        as(RATER).post(split + "/words", says("I have, \"twice\"."));
        as(RATER).post(split + "/stances", stands(2));
        as("juri").post(split + "/stances", stands(2));
        byte[] first = export(as(LEAD), study);
        String again = as(LEAD).upload("/api/studies/archive?again=true", first)
                .json()
                .path("studyId")
                .asString();
        assertThat(unzip(export(as(LEAD), again))).isEqualTo(unzip(first));
        assertThat(unzip(first).get("split-words.csv"))
                .contains("Look at line 2.")
                .contains("bram");
        JsonNode splits = as(LEAD).get(path(again) + "/splits").json();
        assertThat(splits.valueStream().map(s -> s.path("state").asString()))
                .containsExactlyInAnyOrder("SETTLED", "OPEN");
    }
}
