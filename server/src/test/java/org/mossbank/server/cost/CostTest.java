package org.mossbank.server.cost;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.commands.recompute.Recompute;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What answers took and what a month would cost, of a study that can be worked out by hand. */
public class CostTest extends ServerTest {
    private static final double EXACT = 1e-9;

    private String study;

    /**
     * Osier is sold by tokens, teasel by a plan with a cap; teasel's answers have costs too. Osier's four cost 0.1 each and take a second,
     * teasel's 0.4 and three.
     */
    @BeforeClass
    public void close() {
        StringBuilder words = new StringBuilder("rater,answer,works\n");
        for (String prompt : SmallStudy.PROMPTS) {
            for (String candidate : List.of("osier", "teasel")) {
                String answer = prompt + "-" + candidate;
                boolean osier = candidate.equals("osier");
                words.append("bram,%s,%s%njuri,%s,%s%n"
                        .formatted(answer, works(prompt, osier), answer, osier ? "not-tried" : "as-is"));
            }
        }
        study = bringIn(SmallStudy.graded(SmallStudy.osier(3, 3))
                .andThen(files -> {
                    files.put("answers.csv", bytes(answers()));
                    files.put(
                            "candidates.csv",
                            bytes(
                                    "candidate,name,input_price,output_price,monthly_price,currency,cap_amount,cap_unit,cap_period\n"
                                            + "osier,Osier,1,5,,EUR,,,\n"
                                            + "teasel,Teasel,2,8,20,EUR,5,prompts,day\n"));
                })
                .andThen(withTable("judgements", words.toString())));
        recommendation(as(LEAD), study);
    }

    private static String answers() {
        StringBuilder answers = new StringBuilder(
                "answer,prompt,candidate,attempt,outcome,file,total_ms,input_tokens,output_tokens,cost,currency\n");
        for (String prompt : SmallStudy.PROMPTS) {
            for (String candidate : List.of("osier", "teasel")) {
                String answer = prompt + "-" + candidate;
                boolean osier = candidate.equals("osier");
                answers.append("%s,%s,%s,1,complete,text/%s.md,%d,100,%d,%s,EUR%n"
                        .formatted(
                                answer,
                                prompt,
                                candidate,
                                answer,
                                osier ? 1000 : 3000,
                                osier ? 100 : 300,
                                osier ? "0.1" : "0.4"));
            }
        }
        return answers.toString();
    }

    /** Osier's works on two prompts of four; teasel's on all but one, where the two are split. */
    private static String works(String prompt, boolean osier) {
        int number = SmallStudy.PROMPTS.indexOf(prompt);
        return osier ? number < 2 ? "as-is" : "not" : number == 3 ? "after-repair" : "as-is";
    }

    private String path(String what) {
        return "/api/studies/" + study + what;
    }

    private JsonNode costs() {
        return as(LEAD).get(path("/recommendation/costs")).json();
    }

    private static JsonNode row(JsonNode report, String name) {
        return report.path("rows")
                .valueStream()
                .filter(r -> r.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    public void anAnswerThatWorksIsPaidForWithThoseThatDoNot() {
        // By hand: 4 × 0.1 over the two that work; 4 × 0.4 over the three that do, as a tie is a no.
        assertThat(row(costs(), "Osier").at("/oneThatWorks/value").asDouble()).isCloseTo(0.2, within(EXACT));
        JsonNode teasel = row(costs(), "Teasel");
        assertThat(teasel.at("/oneThatWorks/value").asDouble()).isCloseTo(1.6 / 3, within(EXACT));
        assertThat(teasel.path("working").asInt()).isEqualTo(3);
        assertThat(teasel.path("judged").asInt()).isEqualTo(4);
        assertThat(teasel.at("/time/value").asDouble()).isEqualTo(3000);
        assertThat(teasel.at("/tokens/value").asDouble()).isEqualTo(400);
    }

    @Test
    public void nobodyIsOutdoneWhereTheBetterIsTheDearer() {
        JsonNode front = costs().at("/fronts/0");
        assertThat(front.path("measure").asString()).isEqualTo("COST");
        assertThat(front.path("candidateIds").size()).isEqualTo(2);
        assertThat(costs().path("dots").size()).isEqualTo(8);
        assertThat(costs().at("/dots/0/cost").asDouble()).isIn(0.1, 0.4);
    }

    @Test
    public void aMonthIsPricedInEachWay() {
        JsonNode team = as(LEAD).post(
                        path("/recommendation/team-costs"), Map.of("people", 3, "tasksPerDay", 8, "daysPerMonth", 20))
                .json();
        assertThat(team.path("tasks").asDouble()).isEqualTo(480);
        // By hand: 480 × 0.1.
        assertThat(row(team, "Osier").at("/ways/0/monthly").asDouble()).isCloseTo(48, within(EXACT));
        JsonNode ways = row(team, "Teasel").path("ways");
        // Three people over their cap of 5 by 3 on 20 days: 180 tasks, 72 by tokens on top of 60; all by tokens is 192.
        assertThat(ways.valueStream().map(w -> w.path("way").asString()))
                .containsExactly("PLAN_AND_TOKENS", "TOKENS", "PLAN");
        assertThat(ways.at("/0/monthly").asDouble()).isCloseTo(132, within(EXACT));
        assertThat(ways.at("/1/monthly").asDouble()).isCloseTo(192, within(EXACT));
        assertThat(ways.at("/2/monthly").asDouble()).isCloseTo(60, within(EXACT));
        assertThat(ways.at("/2/stopped").asDouble()).isCloseTo(180, within(EXACT));
    }

    @Test
    public void aUseThatNobodyCanMeanIsRefused() {
        ApiClient.Response response = as(LEAD).post(
                        path("/recommendation/team-costs"), Map.of("people", 0, "tasksPerDay", 0, "daysPerMonth", 32));
        assertThat(response.status()).isEqualTo(400);
        assertThat(response.json()
                        .path("errors")
                        .valueStream()
                        .map(e -> e.path("field").asString()))
                .containsExactlyInAnyOrder("people", "tasksPerDay", "daysPerMonth");
    }

    @Test
    public void aStatedUseIsKeptGoesWithTheArchiveAndCanBeTakenBack() {
        String copy = as(LEAD).upload("/api/studies/archive?again=true", export(as(LEAD), study))
                .json()
                .path("studyId")
                .asString();
        String stated = "/api/studies/" + copy + "/stated-use";
        Map<String, Object> use = Map.of("people", 7, "tasksPerDay", 2.5, "daysPerMonth", 19);
        assertThat(as(LEAD).put(stated, use).status()).isEqualTo(200);
        String third = as(LEAD).upload("/api/studies/archive?again=true", export(as(LEAD), copy))
                .json()
                .path("studyId")
                .asString();
        JsonNode kept = as(LEAD).get("/api/studies/" + third + "/recommendation/team-costs")
                .json();
        assertThat(kept.at("/stated/use/people").asInt()).isEqualTo(7);
        assertThat(kept.at("/use/tasksPerDay").asDouble()).isEqualTo(2.5);
        assertThat(kept.at("/stated/by").asString()).isNotEmpty();
        assertThat(as(LEAD).delete("/api/studies/" + third + "/stated-use").status())
                .isEqualTo(204);
        assertThat(as(LEAD).get("/api/studies/" + third + "/recommendation/team-costs")
                        .json()
                        .has("stated"))
                .isFalse();
    }

    /** Both do alike; osier's prompts are cheaper, and a month of teasel's plan is. */
    @Test
    public void aUseMovesTheTieBreakOfWhatIf() {
        String alike = bringIn(SmallStudy.graded(
                        (rater, prompt, candidate, criterion) -> SmallStudy.PROMPTS.indexOf(prompt) % 2 + 3)
                .andThen(files -> {
                    files.put("answers.csv", bytes(answers()));
                    files.put(
                            "candidates.csv",
                            bytes("candidate,name,input_price,output_price,monthly_price,currency\n"
                                    + "osier,Osier,1,5,,EUR\nteasel,Teasel,2,8,2,EUR\n"));
                    String rule = new String(files.get("study.json"), StandardCharsets.UTF_8);
                    files.put(
                            "study.json",
                            bytes(rule.replace("\"margin\": 5", "\"margin\": 5, \"tieBreak\": \"cost\"")));
                }));
        recommendation(as(LEAD), alike);
        assertThat(headline(alike, Map.of())).contains("prefers Osier");
        // 100 tasks a month: 10 by osier's tokens, 2 by teasel's plan.
        assertThat(headline(alike, Map.of("use", Map.of("people", 1, "tasksPerDay", 5, "daysPerMonth", 20))))
                .contains("prefers Teasel");
    }

    private String headline(String of, Map<String, Object> more) {
        Map<String, Object> asked = new HashMap<>(Map.of(
                "weights", List.of(),
                "margin", 5,
                "withoutRaters", List.of(),
                "withoutPrompts", List.of(),
                "withoutKinds", List.of()));
        asked.putAll(more);
        return as(LEAD).post("/api/studies/" + of + "/recommendation/what-if", asked)
                .json()
                .path("headline")
                .asString();
    }

    /** With the month of a stated use, by a reader that knows nothing of the server. */
    @Test
    public void theMemosCostsAreWorkedOutAgainFromItsArchive() throws Exception {
        String copy = as(LEAD).upload("/api/studies/archive?again=true", export(as(LEAD), study))
                .json()
                .path("studyId")
                .asString();
        as(LEAD).put("/api/studies/" + copy + "/stated-use", Map.of("people", 3, "tasksPerDay", 8, "daysPerMonth", 20));
        String memos = "/api/studies/" + copy + "/memos";
        as(LEAD).post(memos, Map.of("change", ""));
        JsonNode draft = as(LEAD).get(memos + "/1").json();
        as(LEAD).post(
                        memos + "/1/signature",
                        Map.of(
                                "version", draft.path("version").asLong(),
                                "revision", draft.at("/document/revision").asLong()));
        Path file = Files.createTempFile("memo", ".zip");
        Files.write(file, as(LEAD).get(memos + "/1/package").raw().body());
        ByteArrayOutputStream printed = new ByteArrayOutputStream();
        assertThat(Recompute.of(file, new PrintStream(printed, false, StandardCharsets.UTF_8)))
                .isZero();
        Files.delete(file);
        assertThat(printed.toString(StandardCharsets.UTF_8))
                .contains("month/osier ")
                .contains("month/teasel ")
                .contains("one-that-works/teasel ");
    }
}
