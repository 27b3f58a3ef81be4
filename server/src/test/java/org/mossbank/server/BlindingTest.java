package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Reads every response that a rater can get while the round is open and looks for any trace of a candidate. */
public class BlindingTest extends ServerTest {
    private static final Pattern UUID_FORM = Pattern.compile("\\b[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}\\b");

    /** Everything in the lead's view that tells candidates apart: names, ids, versions, settings, keys, measures. */
    private static Set<String> traces(ApiClient lead, String study) {
        Set<String> traces = new HashSet<>();
        for (JsonNode candidate :
                lead.get("/api/studies/" + study + "/candidates").json()) {
            for (String field : List.of("/id", "/key", "/content/name", "/content/version", "/content/note")) {
                traces.add(candidate.at(field).asString());
            }
            // A value alone, such as "none" or "high", is an ordinary word; with its name it is a setting.
            candidate
                    .at("/content/settings")
                    .forEach(s -> traces.add(
                            s.path("name").asString() + " " + s.path("value").asString()));
            candidate
                    .at("/content/considerations")
                    .forEach(c -> traces.add(c.path("text").asString()));
        }
        lead.get("/api/studies/" + study + "/masking").json().path("words").forEach(w -> traces.add(w.asString()));
        for (JsonNode answer : lead.get("/api/studies/" + study + "/answers").json()) {
            traces.add(answer.path("id").asString());
            traces.add(answer.path("key").asString());
            for (String measure : List.of("totalMs", "firstOutputMs", "cost")) {
                traces.add(answer.at("/measures/" + measure).asString());
            }
        }
        traces.removeIf(String::isBlank);
        return traces;
    }

    /** Every response of a rater's whole working day, refusals included. */
    private static List<String> responses(ApiClient rater, String study) {
        List<ApiClient.Response> responses = new ArrayList<>();
        for (String path : List.of(
                "/api/session",
                "/api/studies",
                "/api/sheets",
                "/api/read-backs",
                "/api/reminders",
                "/api/bank",
                "/api/setup",
                "/api/demo/sign-ins")) {
            responses.add(rater.get(path));
        }
        for (String path : List.of(
                "",
                "/brief",
                "/steps",
                "/people",
                "/expectation",
                "/kinds",
                "/prompts",
                "/prompts/titles",
                "/prompts/warnings",
                "/read-backs",
                "/candidates",
                "/candidates/unlike",
                "/answers",
                "/masking",
                "/rubric",
                "/rubric/versions/1",
                "/grading",
                "/oversight",
                "/agreement",
                "/recommendation",
                "/splits",
                "/archive")) {
            responses.add(rater.get("/api/studies/" + study + path));
        }
        responses.addAll(fromTheTalks(rater));
        for (JsonNode summary : oneOfEachKind(sheets(rater, study))) {
            String id = summary.path("id").asString();
            ApiClient.Response sheet = rater.get("/api/sheets/" + id);
            responses.add(sheet);
            responses.add(rater.post("/api/sheets/" + id + "/send", Map.of()));
            responses.addAll(fromTheDesk(rater, id, sheet.json()));
            responses.add(rater.post("/api/sheets/" + id + "/take-back", Map.of()));
            for (JsonNode answer : sheet.json().path("answers")) {
                for (JsonNode grade : answer.path("grades")) {
                    responses.add(rater.put(
                            gradePath(id, answer, grade),
                            grade(grade.path("revision").asLong(), 2)));
                    responses.add(rater.put(gradePath(id, answer, grade), grade(99, 2)));
                }
                responses.add(rater.put(
                        "/api/sheets/" + id + "/answers/" + answer.path("id").asString() + "/reason",
                        Map.of("changeId", UUID.randomUUID().toString(), "baseRevision", 77, "text", "x")));
            }
        }
        return responses.stream().map(BlindingTest::allOf).toList();
    }

    /** Sheets for prompts of one kind are made alike. */
    private static Collection<JsonNode> oneOfEachKind(List<JsonNode> sheets) {
        assertThat(sheets).extracting(s -> s.path("kind").asString()).hasSizeGreaterThan(4);
        return sheets.stream()
                .collect(Collectors.toMap(s -> s.path("kind").asString(), Function.identity(), (first, next) -> first))
                .values();
    }

    /** Splits that concern the rater, with the talk about them; what a rater says comes back too. */
    private static List<ApiClient.Response> fromTheTalks(ApiClient rater) {
        List<ApiClient.Response> responses = new ArrayList<>();
        ApiClient.Response mine = rater.get("/api/splits");
        responses.add(mine);
        for (JsonNode split : mine.json().path("splits")) {
            String on = "/api/splits/" + split.path("id").asString();
            String id = UUID.randomUUID().toString();
            responses.add(rater.get(on));
            responses.add(rater.get(on + "/code"));
            responses.add(rater.post(on + "/words", Map.of("id", id, "words", "As I see it.")));
            responses.add(rater.post(on + "/stances", Map.of("id", id, "level", 2, "reason", "So.")));
            responses.add(rater.get(on + "/look"));
        }
        return responses;
    }

    /** Code, comparisons, and every part that is set, refusals and conflicts with what they tell included. */
    private static List<ApiClient.Response> fromTheDesk(ApiClient rater, String id, JsonNode sheet) {
        List<ApiClient.Response> responses = new ArrayList<>();
        String first = sheet.at("/answers/0/id").asString();
        for (JsonNode answer : sheet.path("answers")) {
            String on = "/api/sheets/" + id + "/answers/" + answer.path("id").asString();
            responses.add(rater.get(on + "/code"));
            responses.add(rater.get("/api/sheets/" + id + "/comparison?first=" + first + "&second="
                    + answer.path("id").asString()));
            for (long base : new long[] {0, 99}) {
                responses.add(rater.put(on + "/works", change(base, Map.of("works", "NOT"))));
                responses.add(rater.put(on + "/preference", change(base, Map.of("place", 1))));
                responses.add(rater.put(on + "/coverage/0", change(base, Map.of("verdict", "MISSED"))));
                responses.add(rater.put(on + "/guess", change(base, Map.of("noIdea", true))));
                responses.add(rater.put(
                        on + "/remarks/" + UUID.randomUUID(),
                        change(base, Map.of("remark", Map.of("stance", "FAULT", "trait", "", "words", "So.")))));
            }
            responses.add(rater.get(on + "/repairable"));
            responses.add(rater.post(
                    on + "/repairs", Map.of("files", List.of(Map.of("path", "Tide.java", "text", "class Tide {}")))));
            responses.add(rater.put(
                    "/api/sheets/" + id + "/inputs/" + UUID.randomUUID() + "/answers/"
                            + answer.path("id").asString(),
                    Map.of()));
            responses.add(rater.put(on + "/coverage/999", change(0, Map.of("verdict", "MISSED"))));
        }
        responses.add(rater.get("/api/sheets/" + id + "/trials"));
        responses.add(rater.get("/api/sheets/" + id + "/inputs"));
        responses.add(rater.post("/api/sheets/" + id + "/inputs", Map.of("arguments", List.of(), "input", "1")));
        responses.add(rater.put(
                "/api/sheets/" + id + "/time",
                Map.of(
                        "windowId",
                        UUID.randomUUID().toString(),
                        "answers",
                        List.of(Map.of("answerId", first, "ms", 1000)))));
        return responses;
    }

    /** Headers and body; but a body's length in bytes is no measure of an answer, though it may be the same number. */
    private static String allOf(ApiClient.Response response) {
        Map<String, List<String>> headers =
                new TreeMap<>(response.raw().headers().map());
        headers.remove("content-length");
        return headers + "\n" + withoutChoices(response.body());
    }

    /** The one place where names stand while the round is open: on a sheet that is sent in, if the brief asks for guesses. */
    private static String withoutChoices(String body) {
        if (body.contains("\"guessChoices\"")) {
            assertThat(body).contains("\"sent\":true");
        }
        return body.replaceAll("\"guessChoices\":\\[[^\\]]*\\]", "");
    }

    @Test
    public void noResponseToARaterHoldsATraceOfACandidate() {
        ApiClient lead = as(LEAD);
        String study = copyOfTheDemo();
        Set<String> traces = traces(lead, study);
        assertThat(traces).hasSizeGreaterThan(50);
        responses(as("juri"), study).forEach(response -> assertThatNoneIsIn(response, traces));
    }

    /** Where raters meet, and a lead who knows the names lets one slip. */
    @Test
    public void noTalkHoldsATraceOfACandidate() {
        ApiClient lead = as(LEAD);
        String study = copyOfTheDemo();
        Set<String> traces = traces(lead, study);
        for (JsonNode split : lead.get("/api/studies/" + study + "/splits").json()) {
            lead.post(
                    "/api/splits/" + split.path("id").asString() + "/words",
                    Map.of("id", UUID.randomUUID().toString(), "words", "Tansy! And QUILLWORT, not Marram."));
        }
        List<ApiClient.Response> responses = fromTheTalks(as(RATER));
        assertThat(responses.stream().map(ApiClient.Response::body)).anyMatch(b -> b.contains("[masked]! And"));
        responses.forEach(r -> assertThatNoneIsIn(allOf(r), traces));
    }

    /** Where raters learn the ruler, on answers whose candidates they are to grade afterwards. */
    @Test
    public void noCalibrationHoldsATraceOfACandidate() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        study.post(
                "/calibrations",
                Map.of(
                        "promptIds",
                        study.get("/prompts").values().stream()
                                .map(p -> p.path("id").asString())
                                .limit(2)
                                .toList()));
        for (String rater : List.of("bram", "juri", "sana")) {
            sheets(as(rater), study.id())
                    .forEach(s -> gradeAndSend(as(rater), s.path("id").asString(), 1));
        }
        String answer = study.path + "/calibrations/1/answers/1";
        Map<String, Object> naming = Map.of("id", UUID.randomUUID().toString(), "words", "OSIERHOLD, I am sure.");
        assertThat(as("bram").post(answer + "/words", naming).status()).isEqualTo(200);
        study.put(
                "/calibrations/1/answers/1/levels/correctness/SETTLED",
                Map.of("level", 1, "reason", "Teaselworth does better."));
        Set<String> traces = traces(as(LEAD), study.id());
        // The version of all candidates here, and what a key point weighs.
        traces.remove("1.0");
        List<ApiClient.Response> responses = new ArrayList<>();
        for (String path : List.of("/api/calibrations", study.path + "/calibrations", study.path + "/calibrations/1")) {
            responses.add(as("juri").get(path));
        }
        for (int place = 0; place < 6; place++) {
            String at = study.path + "/calibrations/1/answers/" + place;
            responses.add(as("juri").get(at));
            responses.add(as("juri").get(at + "/code"));
        }
        responses.add(as("juri")
                .post(answer + "/words", Map.of("id", UUID.randomUUID().toString(), "words", "So?")));
        assertThat(responses.stream().map(ApiClient.Response::body)).anyMatch(b -> b.contains("[masked], I am sure."));
        responses.forEach(r -> assertThatNoneIsIn(allOf(r), traces));
    }

    private static void assertThatNoneIsIn(String response, Set<String> traces) {
        String whole = response.toLowerCase(Locale.ROOT);
        // Four digits in the middle of a random id are no measure; ids are looked for among ids.
        String withoutIds = UUID_FORM.matcher(whole).replaceAll("an-id");
        for (String trace : traces) {
            String plain = trace.toLowerCase(Locale.ROOT);
            String text = UUID_FORM.matcher(plain).matches() ? whole : withoutIds;
            // Most are nowhere near, and then no pattern is needed.
            if (text.contains(plain)) {
                // Whole words only: a measure of 0.001 must not be found in 10.0011.
                Pattern word = Pattern.compile("(?<![\\p{L}\\p{N}._])" + Pattern.quote(plain) + "(?![\\p{L}\\p{N}._])");
                assertThat(word.matcher(text).find())
                        .as("trace " + trace + " in " + response)
                        .isFalse();
            }
        }
    }

    @Test
    public void idsOnASheetAreOfThatSheetAlone() {
        String study = bringIn();
        Set<String> seen = new HashSet<>();
        int answers = 0;
        for (String name : List.of(RATER, "juri")) {
            ApiClient rater = as(name);
            for (JsonNode summary : sheets(rater, study)) {
                for (JsonNode answer : rater.get(
                                "/api/sheets/" + summary.path("id").asString())
                        .json()
                        .path("answers")) {
                    seen.add(answer.path("id").asString());
                    answers++;
                    assertThat(UUID.fromString(answer.path("id").asString()).version())
                            .as("random, so without an order of entry")
                            .isEqualTo(4);
                }
            }
        }
        assertThat(seen).hasSize(answers);
    }

    @Test
    public void orderOfAnswersDiffersBetweenSheetsAndIsBalanced() {
        String study = bringIn();
        ApiClient rater = as(RATER);
        List<String> firsts = sheets(rater, study).stream()
                .map(s -> rater.get("/api/sheets/" + s.path("id").asString()).json())
                .map(s -> s.at("/answers/0/text").asString().substring(0, "Text one".length()))
                .toList();
        assertThat(firsts).hasSize(4).filteredOn(t -> t.equals("Text one")).hasSize(2);
    }

    @Test
    public void namesOpenToRatersWhenTheRoundIsClosed() {
        String study = bringIn();
        ApiClient rater = as(RATER);
        assertThat(rater.get("/api/studies/" + study + "/candidates").status()).isEqualTo(403);
        assertThat(as(LEAD).post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."))
                        .status())
                .isEqualTo(204);
        assertThat(rater.get("/api/studies/" + study + "/candidates").body()).contains("Osier");
        assertThat(rater.get("/api/studies/" + study + "/recommendation").status())
                .isEqualTo(200);
        assertThat(rater.get("/api/studies/" + study + "/archive").status()).isEqualTo(403);
        assertThat(as(OUTSIDER).get("/api/studies/" + study + "/candidates").status())
                .isEqualTo(404);
    }
}
