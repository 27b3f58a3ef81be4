package org.mossbank.server.oversight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What a lead sees of how grading goes, and does about it. */
public class OversightTest extends ServerTest {
    private String study;
    private ApiClient lead;
    private ApiClient rater;
    private String sheet;

    @BeforeMethod
    public void openTheRound() {
        // Juri has no sheet for the first prompt, so that one can be handed over.
        study = bringIn(withTable(
                "sheets",
                "rater,prompt,place\nbram,mean-level,1\nbram,lost-hour,2\nbram,flat-line,3\njuri,lost-hour,1\n"));
        lead = as(LEAD);
        rater = as(RATER);
        sheet = sheets(rater, study).get(0).path("id").asString();
    }

    private String at(String step) {
        return "/api/studies/" + study + "/sheets/" + sheet + step;
    }

    private JsonNode progressOf(String name) {
        return lead.get("/api/studies/" + study + "/grading").json().path("raters").values().stream()
                .filter(r -> r.path("signInName").asString().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private int countedSheets() {
        return lead.get("/api/studies/" + study + "/agreement")
                .json()
                .path("sentSheets")
                .asInt();
    }

    @Test
    public void aWithdrawnSheetKeepsItsGradesAndCountsNowhere() {
        gradeAndSend(rater, sheet, 3);
        assertThat(countedSheets()).isEqualTo(1);

        assertThat(lead.post(at("/withdraw"), Map.of("reason", "Was ill.")).status())
                .isEqualTo(204);

        assertThat(countedSheets()).isZero();
        assertThat(progressOf(RATER).at("/sheets/0/made").asInt()).isEqualTo(4);
        assertThat(progressOf(RATER).at("/sheets/0/withdrawn").asString()).isEqualTo("Was ill.");
        JsonNode seen = rater.get("/api/sheets/" + sheet).json();
        assertThat(seen.path("withdrawn").asString()).isEqualTo("Was ill.");
        assertThat(rater.post("/api/sheets/" + sheet + "/take-back", Map.of()).problem())
                .isEqualTo("sheet-withdrawn");
        assertThat(rater.put(gradePath(sheet, seen.at("/answers/0"), seen.at("/answers/0/grades/0")), grade(1, 0))
                        .problem())
                .isEqualTo("sheet-withdrawn");
        assertThat(sheets(rater, study).get(0).path("withdrawn").asBoolean()).isTrue();

        assertThat(lead.post(at("/give-back"), Map.of("reason", "It was theirs after all."))
                        .status())
                .isEqualTo(204);
        assertThat(countedSheets()).isEqualTo(1);
    }

    @Test
    public void theNextSheetIsNeverAWithdrawnOne() {
        String second = sheets(rater, study).get(1).path("id").asString();
        String third = sheets(rater, study).get(2).path("id").asString();
        lead.post("/api/studies/" + study + "/sheets/" + second + "/withdraw", Map.of("reason", "No."));
        gradeAndSend(rater, sheet, 2);
        assertThat(rater.post("/api/sheets/" + sheet + "/send", Map.of())
                        .json()
                        .path("nextSheetId")
                        .asString())
                .isEqualTo(third);
    }

    @Test
    public void aSheetIsHandedOverEmptyAndTheOldOneKept() {
        JsonNode view = rater.get("/api/sheets/" + sheet).json();
        rater.put(gradePath(sheet, view.at("/answers/0"), view.at("/answers/0/grades/0")), grade(0, 1));
        String juri = progressOf("juri").path("raterId").asString();

        ApiClient.Response over = lead.post(at("/hand-over"), Map.of("raterId", juri, "reason", "On leave."));

        assertThat(over.status()).isEqualTo(204);
        assertThat(progressOf(RATER).at("/sheets/0/made").asInt()).isEqualTo(1);
        assertThat(progressOf(RATER).at("/sheets/0/withdrawn").asString()).isEqualTo("On leave.");
        List<JsonNode> theirs = sheets(as("juri"), study);
        assertThat(theirs).hasSize(2);
        assertThat(theirs.get(1).path("promptTitle").asString())
                .isEqualTo(sheets(rater, study).get(0).path("promptTitle").asString());
        assertThat(theirs.get(1).path("made").asInt()).isZero();
        gradeAndSend(as("juri"), theirs.get(1).path("id").asString(), 2);
        assertThat(countedSheets()).isEqualTo(1);
        assertThat(lead.post(at("/hand-over"), Map.of("raterId", juri, "reason", "Again."))
                        .status())
                .as("Juri has it now")
                .isEqualTo(400);
    }

    @Test
    public void aSheetGoesToNobodyWhoMayNotGradeIt() {
        String bram = progressOf(RATER).path("raterId").asString();
        String leadId = lead.get("/api/session").json().at("/account/id").asString();
        assertThat(lead.post(at("/hand-over"), Map.of("raterId", bram, "reason", "x"))
                        .status())
                .as("to whom it is with")
                .isEqualTo(400);
        assertThat(lead.post(at("/hand-over"), Map.of("raterId", leadId, "reason", "x"))
                        .status())
                .as("a lead who does not grade has seen too much")
                .isEqualTo(400);
        gradeAndSend(rater, sheet, 2);
        String juri = progressOf("juri").path("raterId").asString();
        assertThat(lead.post(at("/hand-over"), Map.of("raterId", juri, "reason", "x"))
                        .problem())
                .isEqualTo("sheet-sent");
        lead.post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."));
        assertThat(lead.post(at("/withdraw"), Map.of("reason", "x")).problem()).isEqualTo("round-closed");
    }

    @Test
    public void aReminderStandsUntilItIsPutAway() {
        String bram = progressOf(RATER).path("raterId").asString();
        String path = "/api/studies/" + study + "/raters/" + bram + "/reminders";
        assertThat(lead.post(path, Map.of("words", "<b>Three</b> sheets are left."))
                        .status())
                .isEqualTo(204);

        JsonNode mine = rater.get("/api/reminders").json().values().stream()
                .filter(r -> r.path("studyId").asString().equals(study))
                .findFirst()
                .orElseThrow();
        assertThat(mine.path("words").asString()).isEqualTo("<b>Three</b> sheets are left.");
        assertThat(mine.path("by").asString()).isEqualTo("Orla Fennick");
        assertThat(progressOf(RATER).has("remindedAt")).isTrue();
        String putAway = "/api/reminders/" + mine.path("id").asString() + "/put-away";
        assertThat(as("juri").post(putAway, Map.of()).status()).isEqualTo(404);
        assertThat(rater.post(putAway, Map.of()).status()).isEqualTo(204);
        assertThat(rater.get("/api/reminders").json().values())
                .noneMatch(r -> r.path("id").equals(mine.path("id")));
        assertThat(lead.post(path, Map.of("words", " ")).status()).isEqualTo(400);
        String outsider =
                as(OUTSIDER).get("/api/session").json().at("/account/id").asString();
        assertThat(lead.post("/api/studies/" + study + "/raters/" + outsider + "/reminders", Map.of("words", "You?"))
                        .status())
                .isEqualTo(404);
    }

    @Test
    public void whatIsOddIsSaidWithItsEvidenceToTheLeadAlone() {
        JsonNode view = rater.get("/api/sheets/" + sheet).json();
        rater.put(
                "/api/sheets/" + sheet + "/time",
                Map.of(
                        "windowId",
                        java.util.UUID.randomUUID().toString(),
                        "answers",
                        List.of(Map.of("answerId", view.at("/answers/0/id").asString(), "ms", 20))));
        gradeAndSend(rater, sheet, 3);

        JsonNode bram = lead.get("/api/studies/" + study + "/oversight").json().path("raters").values().stream()
                .filter(r -> r.path("activeMs").asInt() == 20)
                .findFirst()
                .orElseThrow();
        assertThat(bram.at("/oddities/0/sort").asString()).isEqualTo("TOO_FAST");
        assertThat(bram.at("/oddities/0/evidence").asString()).contains("sheet 1 in 1 s");
        assertThat(bram.path("leftMs").asInt())
                .as("10 ms an answer, 4 answers left")
                .isEqualTo(40);
        assertThat(rater.get("/api/studies/" + study + "/oversight").status()).isEqualTo(403);
        lead.post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."));
        assertThat(rater.get("/api/studies/" + study + "/oversight").status())
                .as("nor when names are open")
                .isEqualTo(403);
    }

    @Test
    public void anArchiveBringsBackWhatWasSaidAndWithdrawn() {
        JsonNode view = rater.get("/api/sheets/" + sheet).json();
        String answer =
                "/api/sheets/" + sheet + "/answers/" + view.at("/answers/1/id").asString();
        rater.put(answer + "/works", change(0, Map.of("works", "AFTER_REPAIR")));
        rater.put(answer + "/preference", change(0, Map.of("place", 1)));
        rater.put(
                answer + "/remarks/" + java.util.UUID.randomUUID(),
                change(
                        0,
                        Map.of(
                                "remark",
                                Map.of(
                                        "stance",
                                        "CREDIT",
                                        "trait",
                                        "",
                                        "words",
                                        "=Short, \"and\" right",
                                        "lines",
                                        Map.of("part", "TEXT", "from", 1, "to", 1, "quote", "Text")))));
        gradeAndSend(rater, sheet, 3);
        lead.post(at("/withdraw"), Map.of("reason", "A trial."));

        byte[] first = export(lead, study);
        String again = lead.upload("/api/studies/archive?again=true", first)
                .json()
                .path("studyId")
                .asString();
        Map<String, String> files = unzip(first);
        Map<String, String> second = unzip(export(lead, again));

        for (String table : List.of("judgements", "remarks", "sheets", "grades", "reasons")) {
            assertThat(second.get(table + ".csv")).as(table).isEqualTo(files.get(table + ".csv"));
        }
        assertThat(files.get("sheets.csv")).contains("A trial.");
        assertThat(files.get("judgements.csv")).contains("after-repair,,1");
    }
}
