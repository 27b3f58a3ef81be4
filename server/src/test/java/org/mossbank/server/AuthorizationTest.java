package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Every address as lead, rater, outsider and nobody; a new address without a row here fails. */
public class AuthorizationTest extends ServerTest {
    private static final String STUDY = "/api/studies/{studyId}";
    private static final String SHEET = "/api/sheets/{sheetId}";
    private static final String CELL = SHEET + "/answers/{answerId}/grades/{criterionId}";
    private static final String ANSWER = SHEET + "/answers/{answerId}";
    private static final String REASON = ANSWER + "/reason";
    private static final String KEPT_SHEET = STUDY + "/sheets/{sheetId}";
    private static final String CALIBRATION = STUDY + "/calibrations/{number}";
    private static final String MEMO = STUDY + "/memos/{number}";
    private static final String SPLIT = "/api/splits/{splitId}";

    /** Expected status for each person; rows are in an order in which the earlier ones do not spoil the later. */
    private record Row(String method, String path, int lead, int rater, int outsider, int nobody) {}

    private static final String PROMPT = STUDY + "/prompts/{promptId}";
    private static final String RUN = STUDY + "/runs/{runId}";
    private static final String CANDIDATE = STUDY + "/candidates/{candidateId}";

    /** What a lead does while preparing is closed to raters and, with the round open, refused with a reason to the lead. */
    private static Row prepares(String method, String path, int lead) {
        return new Row(method, path, lead, 403, 404, 401);
    }

    private static final List<Row> ROWS = List.of(
            new Row("GET", "/api/session", 200, 200, 200, 200),
            new Row("POST", "/api/session", 400, 400, 400, 400),
            new Row("GET", "/api/setup", 200, 200, 200, 200),
            new Row("GET", "/api/demo/sign-ins", 200, 200, 200, 200),
            new Row("POST", "/api/links/inspect", 400, 400, 400, 400),
            new Row("POST", "/api/links/use", 400, 400, 400, 400),
            new Row("GET", "/api/sign-in", 200, 200, 200, 200),
            new Row("POST", "/api/links/provider", 400, 400, 400, 400),
            new Row("GET", "/api/mail", 200, 200, 200, 200),
            new Row("GET", "/api/account/mail", 200, 200, 200, 401),
            new Row("PUT", "/api/account/mail", 400, 400, 400, 401),
            new Row("DELETE", "/api/account/mail", 200, 200, 200, 401),
            new Row("POST", "/api/links/address", 400, 400, 400, 400),
            new Row("POST", "/api/links/lost", 400, 400, 400, 400),
            new Row("GET", "/api/account/identities", 200, 200, 200, 401),
            new Row("POST", "/api/account/identities/{provider}", 404, 404, 404, 401),
            new Row("DELETE", "/api/account/identities/{provider}", 200, 200, 200, 401),
            new Row("GET", "/api/account", 200, 200, 200, 401),
            new Row("PUT", "/api/account/password", 400, 400, 400, 401),
            new Row("DELETE", "/api/account/sessions", 200, 200, 200, 401),
            new Row("DELETE", "/api/account/sessions/{handle}", 200, 200, 200, 401),
            new Row("POST", "/api/account/proof", 400, 400, 400, 401),
            new Row("POST", "/api/account/proof/{provider}", 404, 404, 404, 401),
            new Row("PUT", "/api/account", 400, 400, 400, 401),
            // The demo's lead is an administrator as well.
            new Row("GET", "/api/accounts", 200, 403, 403, 401),
            new Row("POST", "/api/accounts", 201, 403, 403, 401),
            new Row("PUT", "/api/accounts/{accountId}/rights", 404, 403, 403, 401),
            new Row("POST", "/api/accounts/{accountId}/deactivate", 404, 403, 403, 401),
            new Row("POST", "/api/accounts/{accountId}/reactivate", 404, 403, 403, 401),
            new Row("POST", "/api/accounts/{accountId}/link", 404, 403, 403, 401),
            new Row("GET", "/api/audit-events", 200, 403, 403, 401),
            new Row("GET", "/api/audit-events/lines", 200, 403, 403, 401),
            new Row("GET", STUDY + "/search", 200, 403, 404, 401),
            prepares("GET", STUDY + "/audit-events", 200),
            prepares("GET", STUDY + "/audit-events/lines", 200),
            prepares("GET", STUDY + "/leavers", 200),
            prepares("PUT", STUDY + "/leavers", 200),
            prepares("POST", STUDY + "/leads/{accountId}", 404),
            prepares("POST", STUDY + "/step-back", 409),
            prepares("POST", STUDY + "/hand-over/{accountId}", 404),
            new Row("GET", "/api/asked", 200, 200, 200, 401),
            new Row("POST", "/api/asked/{studyId}", 404, 404, 404, 401),
            new Row("DELETE", "/api/asked/{studyId}", 404, 404, 404, 401),
            new Row("GET", "/api/studies", 200, 200, 200, 401),
            new Row("GET", "/api/my-studies", 200, 200, 200, 401),
            prepares("POST", STUDY + "/put-away", 204),
            prepares("POST", STUDY + "/bring-back", 204),
            prepares("POST", STUDY + "/copies", 201),
            new Row("GET", "/api/deleted-studies", 200, 200, 200, 401),
            new Row("POST", "/api/deleted-studies/{studyId}/undo", 404, 404, 404, 401),
            // The title is another one.
            prepares("POST", STUDY + "/deletion", 400),
            new Row("POST", "/api/studies", 201, 403, 403, 401),
            new Row("POST", "/api/studies/archive", 400, 403, 403, 401),
            new Row("POST", "/api/tables/agreement", 400, 400, 400, 401),
            new Row("GET", "/api/imports", 200, 403, 403, 401),
            new Row("POST", "/api/imports", 202, 403, 403, 401),
            new Row("GET", "/api/imports/{importId}", 404, 403, 403, 401),
            new Row("DELETE", "/api/imports/{importId}", 404, 403, 403, 401),
            new Row("GET", STUDY, 200, 200, 404, 401),
            new Row("GET", STUDY + "/brief", 200, 403, 404, 401),
            prepares("PUT", STUDY + "/brief", 409),
            prepares("POST", STUDY + "/brief/close", 200),
            prepares("POST", STUDY + "/brief/reopen", 200),
            prepares("POST", STUDY + "/forecast", 200),
            prepares("POST", STUDY + "/forecast/withholding", 200),
            prepares("POST", STUDY + "/forecast/uses", 200),
            new Row("GET", STUDY + "/steps", 200, 403, 404, 401),
            new Row("GET", STUDY + "/people", 200, 403, 404, 401),
            new Row("POST", STUDY + "/raters", 201, 403, 404, 401),
            prepares("DELETE", STUDY + "/raters/{raterId}", 409),
            new Row("GET", STUDY + "/expectation", 200, 200, 404, 401),
            new Row("PUT", STUDY + "/expectation", 409, 409, 404, 401),
            new Row("GET", STUDY + "/kinds", 200, 403, 404, 401),
            prepares("POST", STUDY + "/kinds", 409),
            prepares("DELETE", STUDY + "/kinds/{kindId}", 409),
            new Row("GET", STUDY + "/prompts", 200, 403, 404, 401),
            new Row("GET", STUDY + "/prompts/titles", 200, 403, 404, 401),
            prepares("GET", STUDY + "/prompts/warnings", 200),
            prepares("POST", STUDY + "/prompts", 409),
            prepares("PUT", PROMPT, 409),
            prepares("DELETE", PROMPT, 409),
            prepares("POST", PROMPT + "/variants", 409),
            prepares("PUT", PROMPT + "/fault", 200),
            prepares("POST", PROMPT + "/fault/take-back", 200),
            prepares("POST", PROMPT + "/keep", 200),
            prepares("POST", STUDY + "/prompts/from-bank", 404),
            prepares("POST", STUDY + "/starting-code/zip", 400),
            prepares("POST", STUDY + "/starting-code/git/listing", 400),
            prepares("POST", STUDY + "/starting-code/git", 400),
            new Row("GET", "/api/bank", 200, 403, 403, 401),
            new Row("GET", "/api/bank/{bankPromptId}", 404, 403, 403, 401),
            prepares("GET", STUDY + "/read-backs", 200),
            prepares("POST", PROMPT + "/read-backs", 409),
            prepares("PUT", STUDY + "/read-backs/{readBackId}/verdict", 404),
            new Row("GET", "/api/read-backs", 200, 200, 200, 401),
            new Row("PUT", "/api/read-backs/{readBackId}", 404, 404, 404, 401),
            new Row("GET", PROMPT + "/answers", 200, 403, 404, 401),
            new Row("GET", PROMPT + "/grades", 200, 403, 404, 401),
            new Row("GET", STUDY + "/candidates", 200, 403, 404, 401),
            new Row("GET", STUDY + "/candidates/unlike", 200, 403, 404, 401),
            prepares("POST", STUDY + "/candidates", 409),
            prepares("PUT", CANDIDATE, 409),
            prepares("PUT", CANDIDATE + "/considerations", 200),
            prepares("DELETE", CANDIDATE, 409),
            new Row("GET", STUDY + "/answers", 200, 403, 404, 401),
            prepares("POST", STUDY + "/answers", 409),
            prepares("POST", STUDY + "/answer-files/preview", 409),
            prepares("POST", STUDY + "/answer-files", 409),
            prepares("PUT", STUDY + "/answers/{answerId}", 409),
            prepares("DELETE", STUDY + "/answers/{answerId}", 409),
            new Row("GET", STUDY + "/answers/{answerId}/changes", 200, 403, 404, 401),
            new Row("GET", STUDY + "/follow-up-rule", 200, 403, 404, 401),
            prepares("PUT", STUDY + "/follow-up-rule", 409),
            prepares("GET", STUDY + "/sources", 200),
            prepares("PUT", STUDY + "/sources/{candidateId}", 409),
            prepares("DELETE", STUDY + "/sources/{candidateId}", 409),
            prepares("POST", STUDY + "/sources/{candidateId}/try-out", 404),
            prepares("GET", STUDY + "/runs", 200),
            prepares("GET", STUDY + "/secrets", 200),
            prepares("PUT", STUDY + "/secrets/{digest}", 404),
            prepares("DELETE", STUDY + "/secrets/{digest}", 204),
            prepares("POST", STUDY + "/runs/forecast", 400),
            prepares("POST", STUDY + "/runs", 409),
            prepares("POST", STUDY + "/runs/follow-up", 409),
            prepares("GET", RUN, 404),
            prepares("GET", RUN + "/events", 404),
            prepares("GET", RUN + "/cells/{place}/late-reply", 404),
            prepares("POST", RUN + "/stop", 404),
            prepares("POST", RUN + "/resume", 409),
            prepares("POST", RUN + "/again", 409),
            prepares("POST", RUN + "/failed-again", 409),
            prepares("PUT", RUN + "/budget", 409),
            prepares("GET", STUDY + "/masking", 200),
            prepares("PUT", STUDY + "/masking/words", 409),
            prepares("POST", STUDY + "/masking/decisions", 409),
            new Row("GET", STUDY + "/rubric", 200, 403, 404, 401),
            new Row("GET", STUDY + "/rubric/versions/{number}", 200, 403, 404, 401),
            prepares("PUT", STUDY + "/rubric", 409),
            prepares("POST", STUDY + "/rubric/publish", 409),
            prepares("POST", STUDY + "/rubric/examples", 200),
            prepares("POST", STUDY + "/plan", 200),
            prepares("POST", STUDY + "/round", 409),
            new Row("POST", STUDY + "/round/deal/preview", 200, 403, 404, 401),
            new Row("POST", STUDY + "/round/deal", 409, 403, 404, 401),
            new Row("GET", STUDY + "/grading", 200, 403, 404, 401),
            new Row("GET", STUDY + "/agreement", 200, 403, 404, 401),
            prepares("GET", STUDY + "/agreement/diagnosis", 200),
            prepares("GET", STUDY + "/agreement/crossing", 200),
            prepares("GET", STUDY + "/agreement/narrowed", 200),
            new Row("GET", STUDY + "/agreement/coefficients", 200, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/robustness", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/prompts", 409, 403, 404, 401),
            new Row("POST", STUDY + "/recommendation/what-if", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/traits", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/work", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/groups", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/expected", 409, 403, 404, 401),
            new Row("GET", STUDY + "/claims", 200, 403, 404, 401),
            new Row("PUT", STUDY + "/claims", 409, 403, 404, 401),
            new Row("PUT", STUDY + "/expectations/{accountId}/match", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/since", 409, 403, 404, 401),
            new Row("GET", STUDY + "/follows", 200, 403, 404, 401),
            new Row("POST", STUDY + "/next", 409, 403, 404, 401),
            new Row("GET", STUDY + "/turn-verdicts", 200, 403, 404, 401),
            new Row("GET", STUDY + "/toolchains", 200, 403, 404, 401),
            new Row("GET", STUDY + "/checks", 200, 403, 404, 401),
            new Row("PUT", STUDY + "/prompts/{promptId}/check", 409, 403, 404, 401),
            new Row("DELETE", STUDY + "/prompts/{promptId}/check", 409, 403, 404, 401),
            new Row("POST", STUDY + "/prompts/{promptId}/check/try", 409, 403, 404, 401),
            new Row("GET", STUDY + "/trials", 200, 403, 404, 401),
            new Row("POST", STUDY + "/trials", 409, 403, 404, 401),
            new Row("GET", STUDY + "/trials/events", 200, 403, 404, 401),
            new Row("GET", STUDY + "/trials/{trialId}", 404, 403, 404, 401),
            new Row("GET", STUDY + "/trials/{trialId}/pictures/{place}", 404, 403, 404, 401),
            new Row("GET", STUDY + "/answers/{answerId}/repairs", 200, 403, 404, 401),
            new Row("GET", STUDY + "/answers/{answerId}/repairable", 409, 403, 404, 401),
            new Row("POST", STUDY + "/answers/{answerId}/repairs", 409, 403, 404, 401),
            new Row("GET", STUDY + "/answers/{answerId}/repairs/{repairId}", 404, 403, 404, 401),
            new Row("GET", STUDY + "/answers/{answerId}/repairs/{repairId}/pictures/{place}", 404, 403, 404, 401),
            new Row("GET", STUDY + "/evidence", 200, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/evidence", 409, 403, 404, 401),
            new Row("GET", SHEET + "/trials", 404, 200, 404, 401),
            new Row("GET", ANSWER + "/repairable", 404, 409, 404, 401),
            new Row("POST", ANSWER + "/repairs", 404, 409, 404, 401),
            new Row("GET", ANSWER + "/repairs/{repairId}", 404, 404, 404, 401),
            new Row("GET", ANSWER + "/repairs/{repairId}/pictures/{place}", 404, 404, 404, 401),
            new Row("GET", ANSWER + "/pictures/{place}", 404, 404, 404, 401),
            new Row("GET", SHEET + "/inputs", 404, 200, 404, 401),
            new Row("POST", SHEET + "/inputs", 404, 409, 404, 401),
            new Row("PUT", SHEET + "/inputs/{inputId}/answers/{answerId}", 404, 409, 404, 401),
            new Row("POST", STUDY + "/trials/stop", 200, 403, 404, 401),
            new Row("POST", STUDY + "/trials/go-on", 409, 403, 404, 401),
            new Row("PUT", STUDY + "/answers/{answerId}/turns/{turn}/verdict", 409, 403, 404, 401),
            new Row("POST", STUDY + "/runs/follow-ups-where-needed", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/costs", 409, 403, 404, 401),
            new Row("GET", STUDY + "/recommendation/team-costs", 409, 403, 404, 401),
            new Row("POST", STUDY + "/recommendation/team-costs", 409, 403, 404, 401),
            new Row("PUT", STUDY + "/stated-use", 200, 403, 404, 401),
            new Row("DELETE", STUDY + "/stated-use", 204, 403, 404, 401),
            new Row("GET", STUDY + "/memos", 409, 403, 404, 401),
            prepares("POST", STUDY + "/memos", 409),
            new Row("GET", MEMO, 409, 403, 404, 401),
            prepares("PUT", MEMO, 404),
            prepares("DELETE", MEMO, 404),
            new Row("PUT", MEMO + "/dissent", 403, 403, 404, 401),
            prepares("POST", MEMO + "/signature", 404),
            new Row("GET", MEMO + "/appendix", 409, 403, 404, 401),
            new Row("GET", MEMO + "/page", 409, 403, 404, 401),
            new Row("GET", MEMO + "/markdown", 409, 403, 404, 401),
            prepares("GET", MEMO + "/package", 409),
            new Row("POST", MEMO + "/entries", 409, 403, 404, 401),
            prepares("POST", MEMO + "/links", 404),
            prepares("DELETE", MEMO + "/links/{linkId}", 404),
            new Row("GET", "/api/memo-links/{token}", 404, 404, 404, 404),
            new Row("GET", STUDY + "/acts", 200, 403, 404, 401),
            new Row("GET", STUDY + "/looks", 200, 403, 404, 401),
            prepares("POST", STUDY + "/looks", 409),
            new Row("GET", STUDY + "/looks/{number}", 404, 403, 404, 401),
            new Row("GET", STUDY + "/looks/{number}/robustness", 404, 403, 404, 401),
            prepares("GET", STUDY + "/archive", 200),
            prepares("GET", STUDY + "/grades", 409),
            new Row("POST", STUDY + "/raters/{raterId}/link", 200, 403, 404, 401),
            new Row("GET", "/api/sheets", 200, 200, 200, 401),
            new Row("GET", SHEET, 404, 200, 404, 401),
            new Row("PUT", CELL, 404, 200, 404, 401),
            new Row("PUT", REASON, 404, 200, 404, 401),
            new Row("PUT", ANSWER + "/works", 404, 200, 404, 401),
            new Row("PUT", ANSWER + "/preference", 404, 200, 404, 401),
            new Row("PUT", ANSWER + "/coverage/{point}", 404, 200, 404, 401),
            new Row("PUT", ANSWER + "/remarks/{remarkId}", 404, 200, 404, 401),
            new Row("PUT", ANSWER + "/guess", 404, 409, 404, 401),
            new Row("GET", ANSWER + "/code", 404, 200, 404, 401),
            new Row("GET", SHEET + "/comparison", 404, 200, 404, 401),
            new Row("PUT", SHEET + "/time", 404, 204, 404, 401),
            new Row("POST", SHEET + "/send", 404, 409, 404, 401),
            new Row("POST", SHEET + "/take-back", 404, 204, 404, 401),
            new Row("GET", STUDY + "/oversight", 200, 403, 404, 401),
            new Row("POST", KEPT_SHEET + "/hand-over", 400, 403, 404, 401),
            new Row("POST", KEPT_SHEET + "/withdraw", 204, 403, 404, 401),
            new Row("POST", KEPT_SHEET + "/give-back", 204, 403, 404, 401),
            new Row("POST", STUDY + "/raters/{raterId}/reminders", 204, 403, 404, 401),
            new Row("GET", "/api/reminders", 200, 200, 200, 401),
            new Row("POST", "/api/reminders/{reminderId}/put-away", 404, 404, 404, 401),
            new Row("GET", "/api/splits", 200, 200, 200, 401),
            new Row("GET", SPLIT, 404, 404, 404, 401),
            new Row("GET", SPLIT + "/code", 404, 404, 404, 401),
            new Row("POST", SPLIT + "/words", 404, 404, 404, 401),
            new Row("POST", SPLIT + "/stances", 404, 404, 404, 401),
            new Row("GET", SPLIT + "/look", 404, 404, 404, 401),
            new Row("PUT", SPLIT + "/look", 404, 404, 404, 401),
            new Row("GET", STUDY + "/splits", 200, 403, 404, 401),
            prepares("POST", STUDY + "/splits", 400),
            prepares("POST", STUDY + "/splits/widest", 200),
            prepares("POST", STUDY + "/splits/{splitId}/settle", 404),
            prepares("POST", STUDY + "/splits/{splitId}/leave-open", 404),
            prepares("POST", STUDY + "/splits/{splitId}/open-again", 404),
            prepares("GET", STUDY + "/splits/{splitId}/looks", 404),
            prepares("POST", STUDY + "/splits/{splitId}/looks", 404),
            new Row("GET", "/api/calibrations", 200, 200, 200, 401),
            new Row("GET", STUDY + "/calibrations", 200, 200, 404, 401),
            prepares("POST", STUDY + "/calibrations", 409),
            new Row("GET", CALIBRATION, 404, 404, 404, 401),
            prepares("POST", CALIBRATION + "/again", 409),
            prepares("POST", CALIBRATION + "/keep", 404),
            prepares("POST", CALIBRATION + "/without", 404),
            new Row("GET", STUDY + "/specimens", 200, 403, 404, 401),
            new Row("GET", CALIBRATION + "/answers/{place}", 404, 404, 404, 401),
            new Row("GET", CALIBRATION + "/answers/{place}/code", 404, 404, 404, 401),
            new Row("POST", CALIBRATION + "/answers/{place}/words", 404, 404, 404, 401),
            prepares("PUT", CALIBRATION + "/answers/{place}/levels/{criterion}/{source}", 404),
            prepares("DELETE", CALIBRATION + "/answers/{place}/levels/{criterion}/{source}", 404),
            prepares("GET", STUDY + "/rubric/proposals", 200),
            new Row("POST", STUDY + "/rubric/proposals", 400, 400, 404, 401),
            prepares("POST", STUDY + "/rubric/proposals/{proposalId}/take", 404),
            prepares("POST", STUDY + "/rubric/proposals/{proposalId}/decline", 404),
            new Row("POST", STUDY + "/round/take-out/preview", 200, 403, 404, 401),
            new Row("POST", STUDY + "/round/take-out", 200, 403, 404, 401),
            new Row("POST", STUDY + "/round/close", 204, 403, 404, 401),
            new Row("POST", STUDY + "/round/reopen", 204, 403, 404, 401));

    @Autowired
    @Qualifier("requestMappingHandlerMapping")
    private RequestMappingHandlerMapping mappings;

    private Map<String, ApiClient> people;
    private Map<String, String> ids;

    @BeforeClass
    public void prepare() {
        String study = bringIn(withTable(
                "key-points",
                "prompt,stance,text\nmean-level,must-contain,a\nspring-tide,must-contain,b\n"
                        + "lost-hour,must-contain,c\nflat-line,must-contain,d\n"));
        people = Map.of("lead", as(LEAD), "rater", as(RATER), "outsider", as(OUTSIDER), "nobody", nobody());
        ApiClient rater = people.get("rater");
        JsonNode sheet = rater.get(
                        "/api/sheets/" + sheets(rater, study).get(0).path("id").asString())
                .json();
        JsonNode grading =
                people.get("lead").get("/api/studies/" + study + "/grading").json();
        ApiClient lead = people.get("lead");
        String prompt = grading.at("/raters/0/sheets/0/promptId").asString();
        String ofStudy = "/api/studies/" + study;
        ids = new HashMap<>(Map.of(
                "studyId", study,
                "promptId", prompt,
                "raterId", grading.at("/raters/0/raterId").asString(),
                "sheetId", sheet.path("id").asString(),
                "answerId", sheet.at("/answers/0/id").asString(),
                "criterionId", sheet.at("/criteria/0/id").asString(),
                "number", "1",
                "readBackId", UUID.randomUUID().toString(),
                "bankPromptId", UUID.randomUUID().toString()));
        ids.put("importId", UUID.randomUUID().toString());
        ids.put("linkId", UUID.randomUUID().toString());
        ids.put("token", "none");
        ids.put("criterion", "correctness");
        ids.put("source", "SETTLED");
        ids.put("proposalId", UUID.randomUUID().toString());
        ids.put("splitId", UUID.randomUUID().toString());
        ids.put("place", "0");
        ids.put("handle", "none");
        ids.put("provider", "none");
        ids.put("point", "0");
        ids.put("turn", "0");
        ids.put("digest", "0".repeat(64));
        ids.put("accountId", UUID.randomUUID().toString());
        ids.put("remarkId", UUID.randomUUID().toString());
        ids.put("reminderId", UUID.randomUUID().toString());
        ids.put("runId", UUID.randomUUID().toString());
        ids.put("trialId", UUID.randomUUID().toString());
        ids.put("repairId", UUID.randomUUID().toString());
        ids.put("inputId", UUID.randomUUID().toString());
        ids.put("kindId", lead.get(ofStudy + "/kinds").json().at("/0/id").asString());
        ids.put(
                "candidateId",
                lead.get(ofStudy + "/candidates").json().at("/0/id").asString());
        ids.put(
                "keptAnswerId",
                lead.get(ofStudy + "/answers").json().at("/0/id").asString());
    }

    @Test
    public void everyAddressHasARow() {
        Set<String> served = new TreeSet<>();
        mappings.getHandlerMethods().forEach((info, handler) -> {
            if (handler.getBeanType().getPackageName().startsWith("org.mossbank")) {
                info.getMethodsCondition()
                        .getMethods()
                        .forEach(method -> info.getPatternValues().forEach(path -> served.add(method + " " + path)));
            }
        });
        Set<String> covered = new TreeSet<>();
        ROWS.forEach(r -> covered.add(r.method + " " + r.path));
        assertThat(covered).isEqualTo(served);
    }

    @DataProvider
    public static Iterator<Object[]> everyone() {
        List<Object[]> cases = new ArrayList<>();
        // The strictest first, so that the lead's changes come last.
        for (Row row : ROWS) {
            cases.add(new Object[] {row.method, row.path, "nobody", row.nobody});
            cases.add(new Object[] {row.method, row.path, "outsider", row.outsider});
            cases.add(new Object[] {row.method, row.path, "rater", row.rater});
            cases.add(new Object[] {row.method, row.path, "lead", row.lead});
        }
        return cases.iterator();
    }

    @Test(dataProvider = "everyone")
    public void answersEachAsTheyMay(String method, String path, String person, int expected) {
        String address = path.replace(STUDY + "/answers/{answerId}", STUDY + "/answers/" + ids.get("keptAnswerId"));
        for (Map.Entry<String, String> id : ids.entrySet()) {
            address = address.replace("{" + id.getKey() + "}", id.getValue());
        }
        if (address.endsWith("/crossing")) {
            address += "?criterionId=" + ids.get("criterionId") + "&firstId=" + ids.get("raterId") + "&secondId="
                    + ids.get("raterId");
        }
        if (address.endsWith("/search")) {
            address += "?words=tide";
        }
        if (address.endsWith("/narrowed")) {
            address += "?criterionId=" + ids.get("criterionId");
        }
        if (address.endsWith("/comparison")) {
            address += "?first=" + ids.get("answerId") + "&second=" + ids.get("answerId");
        }
        ApiClient.Response response = call(people.get(person), method, address);
        assertThat(response.status())
                .as(method + " " + path + " as " + person + ": " + response.body())
                .isEqualTo(expected);
        if (expected >= 400) {
            assertThat(response.raw().headers().firstValue("Content-Type").orElse(""))
                    .startsWith("application/problem+json");
        }
    }

    private ApiClient.Response call(ApiClient client, String method, String address) {
        return switch (method) {
            case "GET" -> client.get(address);
            case "DELETE" -> client.delete(address);
            case "PUT" -> client.put(address, body(address));
            default ->
                address.endsWith("/archive")
                                || address.endsWith("/imports")
                                || address.endsWith("/tables/agreement")
                                || address.endsWith("/zip")
                                || address.contains("/answer-files")
                        ? client.upload(address, bytes("no zip"))
                        : client.post(address, body(address));
        };
    }

    /** A well-formed body for each address, so that a refusal is about the person and not about the body. */
    private Object body(String address) {
        if (address.contains("/grades/")) {
            return grade(0, 3);
        }
        if (address.equals("/api/accounts")) {
            return Map.of("signInName", "made-for-this", "name", "Made For This", "mayBringIn", false);
        }
        if (address.endsWith("/deletion")) {
            return Map.of("title", "Another title");
        }
        if (address.endsWith("/copies")) {
            return Map.of("title", "A second one", "answers", false);
        }
        if (address.endsWith("/rights")) {
            return Map.of("mayBringIn", false, "administrator", false);
        }
        if (address.endsWith("/take-out/preview")) {
            return Map.of("raterId", ids.get("raterId"));
        }
        if (address.endsWith("/take-out")) {
            return Map.of("raterId", ids.get("raterId"), "reason", "They are ill.");
        }
        if (address.contains("/round/deal")) {
            return Map.of("raterId", ids.get("raterId"), "from", "UNBEGUN");
        }
        if (address.endsWith("/team-costs") || address.endsWith("/stated-use")) {
            return Map.of("people", 3, "tasksPerDay", 4, "daysPerMonth", 21);
        }
        if (address.endsWith("/claims")) {
            return Map.of("claims", List.of());
        }
        if (address.endsWith("/match")) {
            return Map.of();
        }
        if (address.endsWith("/next")) {
            return Map.of("title", "The next one", "candidateIds", List.of(), "share", 0.5, "raters", true);
        }
        if (address.endsWith("/check")) {
            return Map.of("revision", 0, "content", Checks.shell("true"));
        }
        if (address.endsWith("/check/try")) {
            Map<String, Object> unknown = new HashMap<>(Checks.shell("true"));
            unknown.put("toolchain", "none");
            return Map.of("subject", "STARTING_CODE", "content", unknown);
        }
        if (address.endsWith("/trials")) {
            return Map.of("promptIds", List.of(), "repetitions", 1);
        }
        if (address.endsWith("/turns/0/verdict")) {
            return Map.of("verdict", "DOES");
        }
        if (address.contains("/memos") || address.endsWith("/what-if")) {
            return ofMemo(address);
        }
        if (address.contains("/calibrations") || address.contains("/proposals")) {
            return ofRuler(address);
        }
        if (address.contains("/splits")) {
            return ofSplit(address);
        }
        if (address.endsWith("/reason")) {
            return Map.of("changeId", UUID.randomUUID().toString(), "baseRevision", 0, "text", "Because.");
        }
        return Bodies.of(address, people.get("lead"), ids);
    }

    @Test
    public void signingOutIsOpenToAllAndEndsTheSession() {
        ApiClient client = freshly(RATER);
        assertThat(client.delete("/api/session").status()).isEqualTo(204);
        assertThat(client.get("/api/sheets").status()).isEqualTo(401);
        assertThat(nobody().delete("/api/session").status()).isEqualTo(204);
    }

    @Test
    public void nothingElseIsServedUnderApi() {
        assertThat(nobody().get("/api/nothing").status()).isEqualTo(401);
        assertThat(as(LEAD).get("/api/nothing").status()).isEqualTo(404);
        assertThat(nobody().get("/actuator/env").status()).isEqualTo(401);
    }

    /** Another rater of the same study is an outsider to a sheet. */
    @Test
    public void noRaterSeesAnothersSheet() {
        ApiClient other = as("juri");
        assertThat(other.get("/api/sheets/" + ids.get("sheetId")).status()).isEqualTo(404);
    }

    private static Object ofMemo(String address) {
        if (address.endsWith("/what-if")) {
            return Map.of(
                    "weights",
                    List.of(),
                    "margin",
                    5,
                    "withoutRaters",
                    List.of(),
                    "withoutPrompts",
                    List.of(),
                    "withoutKinds",
                    List.of());
        }
        if (address.endsWith("/memos")) {
            return Map.of("change", "");
        }
        if (address.endsWith("/signature")) {
            return Map.of("version", 0, "revision", 0);
        }
        if (address.endsWith("/dissent")) {
            return Map.of("words", "I see it otherwise.");
        }
        if (address.endsWith("/entries")) {
            return Map.of("sort", "COUNTERSIGNED", "words", "", "decidedBy", "");
        }
        return address.endsWith("/links")
                ? Map.of("days", 7)
                : Map.of("version", 0, "names", "BY_NAME", "change", "", "words", List.of());
    }

    private static Object ofRuler(String address) {
        String id = UUID.randomUUID().toString();
        if (address.endsWith("/calibrations")) {
            return Map.of("promptIds", List.of(id, UUID.randomUUID().toString()));
        }
        if (address.endsWith("/without")) {
            return Map.of("raterId", id, "reason", "At sea.");
        }
        if (address.endsWith("/take")) {
            return Map.of("words", "So.");
        }
        if (address.endsWith("/proposals")) {
            return Map.of("id", id, "criterion", "none", "kindId", id, "level", 1, "words", "So.", "why", "");
        }
        return address.contains("/levels/") ? Map.of("level", 1, "reason", "So.") : Map.of("id", id, "words", "So.");
    }

    private Object ofSplit(String address) {
        String id = UUID.randomUUID().toString();
        if (address.endsWith("/widest")) {
            return Map.of("count", 1);
        }
        if (address.endsWith("/words")) {
            return Map.of("id", id, "words", "I see it otherwise.");
        }
        if (address.endsWith("/splits")) {
            return Map.of("splits", List.of(Map.of("answerId", id, "criterionId", id)));
        }
        if (address.endsWith("/leave-open") || address.endsWith("/open-again")) {
            return Map.of("reason", "It does.");
        }
        if (address.endsWith("/looks")) {
            return Map.of("raterId", id);
        }
        return address.endsWith("/stances")
                ? Map.of("id", id, "level", 1, "reason", "It does.")
                : Map.of("level", 1, "reason", "It does.");
    }
}
