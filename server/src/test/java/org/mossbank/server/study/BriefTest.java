package org.mossbank.server.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.Bodies;
import org.mossbank.server.OneConnection;
import org.mossbank.server.RubricDraft;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.slf4j.LoggerFactory;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The brief is written, closed, and changed after that only with a reason on record; expectations come before sight. */
public class BriefTest extends ServerTest {

    private static ApiClient.Response write(StudyInTheMaking study, long version, Map<String, Object> brief) {
        return study.lead.put(study.path + "/brief", Map.of("version", version, "title", "T", "brief", brief));
    }

    private static long version(StudyInTheMaking study) {
        return study.get("/brief").path("version").asLong();
    }

    @Test
    public void aNewStudyHasKindsARubricAndAnOpenBrief() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        assertThat(study.get("/kinds").values())
                .extracting(k -> k.path("key").asString())
                .containsExactly("explanation", "refactoring", "debugging", "review");
        JsonNode brief = study.get("/brief");
        assertThat(brief.has("closedAt")).isFalse();
        assertThat(brief.path("missing").size()).isEqualTo(2);
        List<String> missing = new ArrayList<>();
        study.get("/steps").forEach(s -> missing.add(s.path("missing").asString("")));
        assertThat(missing).hasSize(8).doesNotContain("");
    }

    /** The rail asks for them after every change, so they must not read what a study holds. */
    @Test
    public void theStepsOfAStudyTakeFewStatements() {
        String steps = "/api/studies/" + demoStudy() + "/steps";
        // Somebody who has just signed in: of older sessions it is written down now and then that they are in use.
        ApiClient lead = freshly(LEAD);
        lead.get(steps).json();
        long before = OneConnection.statementsOfRequests();

        lead.get(steps).json();

        long took = OneConnection.statementsOfRequests() - before;
        LoggerFactory.getLogger(BriefTest.class).info("statements for the steps: {}", took);
        assertThat(took).isLessThanOrEqualTo(25);
    }

    @Test
    public void writingIsSavedAndAStaleWritingRefusedWithWhatStandsNow() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        long first = version(study);
        assertThat(write(study, first, Bodies.brief("Which one, then?", true)).status())
                .isEqualTo(200);
        ApiClient.Response stale = write(study, first, Bodies.brief("Another", true));
        assertThat(stale.problem()).isEqualTo("changed-elsewhere");
        assertThat(stale.json().at("/current/brief/question").asString()).isEqualTo("Which one, then?");
        assertThat(study.get("/brief").at("/brief/question").asString()).isEqualTo("Which one, then?");
    }

    @DataProvider
    public static Object[][] badRules() {
        return new Object[][] {
            {"margin", -1},
            {"margin", 101},
            {"agreementFloor", 1.2},
            {"minimumRaters", 0},
            {"gate", Map.of("criterion", "correctness", "level", 1, "cap", 140)},
        };
    }

    @Test(dataProvider = "badRules")
    public void aRuleOutOfRangeIsRefusedWithItsField(String field, Object value) {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        Map<String, Object> rule = new HashMap<>(Bodies.rule());
        rule.put(field, value);
        Map<String, Object> brief = new HashMap<>(Bodies.brief("Q?", false));
        brief.put("rule", rule);
        ApiClient.Response response = write(study, version(study), brief);
        assertThat(response.problem()).isEqualTo("invalid-request");
        assertThat(response.json().at("/errors/0/field").asString()).contains(field);
    }

    @Test
    public void itCannotBeClosedWithGapsOrBeforeTheLeadSaidWhatTheyExpect() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        assertThat(study.lead.post(study.path + "/brief/close", Map.of()).problem())
                .isEqualTo("not-ready");
        write(study, version(study), Bodies.brief("Which?", true));
        assertThat(study.lead.post(study.path + "/brief/close", Map.of()).problem())
                .isEqualTo("expectation-first");
        study.put("/expectation", Map.of("expects", "Osierhold", "usesToday", ""));
        assertThat(study.post("/brief/close", Map.of()).has("closedAt")).isTrue();
    }

    @Test
    public void aClosedBriefChangesOnlyWithAReasonOnRecord() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD)).withClosedBrief();
        assertThat(write(study, version(study), Bodies.brief("Another?", false)).problem())
                .isEqualTo("brief-closed");
        assertThat(study.lead
                        .post(study.path + "/brief/reopen", Map.of("reason", " "))
                        .status())
                .isEqualTo(400);
        study.post("/brief/reopen", Map.of("reason", "The margin was too small to matter."));
        Map<String, Object> rule = new HashMap<>(Bodies.rule());
        rule.put("margin", 8);
        Map<String, Object> brief = new HashMap<>(Bodies.brief("Which one?", false));
        brief.put("rule", rule);
        assertThat(write(study, version(study), brief).status()).isEqualTo(200);
        study.post("/brief/close", Map.of());
        JsonNode reopening = study.get("/brief").at("/reopenings/0");
        assertThat(reopening.path("reason").asString()).isEqualTo("The margin was too small to matter.");
        assertThat(reopening.path("by").asString()).isEqualTo("Orla Fennick");
        assertThat(reopening.path("terms").asString()).contains("margin 5.0 points");
        assertThat(study.lead
                        .post(study.path + "/brief/reopen", Map.of("reason", "again"))
                        .status())
                .isEqualTo(200);
        assertThat(study.get("/brief").path("reopenings").size()).isEqualTo(2);
    }

    @Test
    public void weightsAndFloorsAreClosedWithTheBriefButWordingIsNot() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD)).withClosedBrief();
        RubricDraft heavier = RubricDraft.of(study);
        heavier.first().put("weight", 0.9);
        assertThat(heavier.write(study).problem()).isEqualTo("brief-closed");
        RubricDraft ownFloor = RubricDraft.of(study);
        ownFloor.first().put("floor", 0.8);
        assertThat(ownFloor.write(study).problem()).isEqualTo("brief-closed");
        RubricDraft reworded = RubricDraft.of(study);
        reworded.first().put("question", "Is it right?");
        assertThat(reworded.write(study).status()).isEqualTo(200);
    }

    @Test
    public void whileTheBriefIsOpenAgainNothingIsRecommended() {
        String study = bringIn();
        ApiClient lead = as(LEAD);
        lead.post("/api/studies/" + study + "/brief/reopen", Map.of("reason", "A floor was mistyped."));
        JsonNode report = recommendation(lead, study);
        assertThat(report.path("outcome").asString()).isEqualTo("WITHHELD");
        assertThat(report.at("/findings/0/type").asString()).isEqualTo("brief-open");
    }

    @Test
    public void whoIsAskedSeesNoSheetBeforeTheySaidWhatTheyExpect() {
        String study = bringIn(files -> files.put(
                "study.json",
                bytes(new String(files.get("study.json"), java.nio.charset.StandardCharsets.UTF_8)
                        .replaceFirst("\\{", "{\"asksExpectations\": true,"))));
        ApiClient rater = as(RATER);
        String sheet = sheets(rater, study).get(0).path("id").asString();
        ApiClient.Response early = rater.get("/api/sheets/" + sheet);
        assertThat(early.problem()).isEqualTo("expectation-first");
        assertThat(early.json().path("studyId").asString()).isEqualTo(study);
        Map<String, Object> expectation = Map.of("expects", "none", "usesToday", "nothing");
        assertThat(rater.put("/api/studies/" + study + "/expectation", expectation)
                        .status())
                .isEqualTo(200);
        assertThat(rater.get("/api/sheets/" + sheet).status()).isEqualTo(200);
        JsonNode own = rater.get("/api/studies/" + study + "/expectation").json();
        assertThat(own.path("declared").asBoolean()).isTrue();
        assertThat(own.path("expects").asString())
                .as("a name that the rater wrote stays away while they grade")
                .isEmpty();
        assertThat(rater.put("/api/studies/" + study + "/expectation", expectation)
                        .problem())
                .as("something has been seen since")
                .isEqualTo("too-late");
        JsonNode told = recommendation(as(LEAD), study).path("expectations");
        assertThat(told.size()).isEqualTo(1);
        assertThat(told.at("/0/expects").asString()).isEqualTo("none");
        assertThat(as(LEAD).get("/api/studies/" + study + "/people").body()).doesNotContain("none");
    }

    @Test
    public void theForecastTellsTheChanceOfEachOutcomeAndCountsTheHours() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        Map<String, Object> size = new HashMap<>(Map.of(
                "promptsByKind",
                List.of(3, 3),
                "candidates",
                3,
                "attempts",
                1,
                "raters",
                4,
                "ratersAnAnswer",
                2,
                "minutes",
                5,
                "gradedBy",
                "GOOD",
                "effort",
                "FIRST",
                "rule",
                Bodies.rule()));
        JsonNode forecast = study.post("/forecast", size);
        // 6 prompts × 3 candidates × 2 raters × 5 minutes.
        assertThat(forecast.at("/hours").asDouble()).isEqualTo(3);
        assertThat(forecast.at("/halfWidth/value").asDouble()).isBetween(3.0, 40.0);
        assertThat(forecast.path("leads").values())
                .extracting(l -> l.path("points").asDouble())
                .containsExactly(0.0, 5.0, 10.0, 15.0);
        assertThat(forecast.path("leads").values())
                .allSatisfy(l -> assertThat(l.path("recommended").asDouble()
                                + l.path("safeChoices").asDouble()
                                + l.path("byKind").asDouble()
                                + l.path("undecided").asDouble()
                                + l.path("withheld").asDouble())
                        .isCloseTo(1, within(1e-9)));
        // Guesses are withheld by the upper limit, as they may be chance.
        JsonNode withholding = study.post("/forecast/withholding", size);
        assertThat(withholding.values()).hasSize(3);
        assertThat(withholding.values()).allSatisfy(w -> {
            assertThat(w.path("guessing").asDouble()).isGreaterThan(0.9);
            assertThat(w.path("good").asDouble())
                    .isLessThanOrEqualTo(w.path("guessing").asDouble());
        });
        assertThat(study.post("/forecast/uses", size).values())
                .allSatisfy(u -> assertThat(u.path("hours").asDouble()).isLessThanOrEqualTo(3.0));
        size.put("ratersAnAnswer", 5);
        assertThat(study.lead.post(study.path + "/forecast", size).status()).isEqualTo(400);
    }

    /** Four looks at 1/4, 1/2, 3/4 and all leave at the end nearly all, and never more, of what one look has. */
    @Test
    public void earlierLooksCostTheLastOneSomething() {
        RuleTerms one = RuleTerms.USUAL;
        RuleTerms four = new RuleTerms(
                one.coefficient(),
                one.agreementFloor(),
                one.floorOn(),
                one.margin(),
                one.minimumRaters(),
                one.tieBreak(),
                one.strictOnMasking(),
                one.strictOnSplits(),
                one.byKind(),
                4,
                one.failedAnswers(),
                one.gate());
        double whole = one.allowanceAtTheLastLook().overall();
        assertThat(whole).isEqualTo(one.decisionRule().allowance().overall());
        assertThat(four.allowanceAtTheLastLook().overall()).isBetween(0.7 * whole, whole - 1e-6);
    }

    @Test
    public void whatSuchAStudyCouldShowIsKeptWithTheClosedBrief() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        write(study, version(study), Bodies.brief("Which one?", false));
        Map<String, Object> size = Map.of(
                "promptsByKind", List.of(2, 2),
                "candidates", 2,
                "attempts", 1,
                "raters", 2,
                "ratersAnAnswer", 2,
                "minutes", 5,
                "gradedBy", "MIDDLING",
                "effort", "FULL",
                "rule", Bodies.rule());
        study.post("/brief/close", Map.of("size", size));
        JsonNode kept = study.get("/brief").path("forecast");
        assertThat(kept.path("prompts").asInt()).isEqualTo(4);
        assertThat(kept.path("leads").size()).isEqualTo(4);
        double sum = 0;
        for (String outcome : List.of("recommended", "safeChoices", "byKind", "undecided", "withheld")) {
            sum += kept.at("/leads/2/" + outcome).asDouble();
        }
        assertThat(sum).isCloseTo(1, org.assertj.core.api.Assertions.within(1e-9));
        ApiClient.Response brought = as(LEAD).upload("/api/studies/archive?again=true", export(as(LEAD), study.id()));
        assertThat(brought.status()).as(brought.body()).isEqualTo(200);
        String again = brought.json().path("studyId").asString();
        assertThat(as(LEAD).get("/api/studies/" + again + "/brief").json().path("forecast"))
                .isEqualTo(kept);
    }
}
