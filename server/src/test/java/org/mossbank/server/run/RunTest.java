package org.mossbank.server.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Predicate;
import org.awaitility.Awaitility;
import org.mossbank.server.Bodies;
import org.mossbank.server.OneConnection;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.server.ids.PromptId;
import org.mossbank.standin.StandIn;
import org.mossbank.testkit.ApiClient;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Runs against the stand-in: what is asked, what comes of it, what it costs, and how it stops. */
public class RunTest extends ServerTest {
    private static final Logger LOG = LoggerFactory.getLogger(RunTest.class);
    private static final Duration PATIENCE = Duration.ofSeconds(90);

    @Autowired
    private RunClaims claims;

    private StandIn standIn;

    @BeforeClass(dependsOnMethods = "springTestContextPrepareTestInstance")
    public void begin() throws IOException {
        standIn = StandIn.start(0, List.of(ROOT.resolve("demo")), SECRET);
    }

    @AfterClass
    public void end() {
        standIn.close();
    }

    /** A study with two prompts and candidates that the stand-in plays, by the service's name and what is to go wrong. */
    private StudyInTheMaking study(String... services) {
        StudyInTheMaking made = StudyInTheMaking.begunBy(as(LEAD));
        made.prompt("review", "First of review");
        made.prompt("debugging", "Of debugging");
        int number = 0;
        for (String service : services) {
            Map<String, Object> content = new HashMap<>(Bodies.candidate("Candidate " + ++number));
            content.put("contextWindow", 100_000);
            content.put("price", Map.of("inputPerMillion", 2, "outputPerMillion", 10, "currency", "EUR", "caps", ""));
            String id = made.post("/candidates", Map.of("content", content))
                    .path("id")
                    .asString();
            put(made, id, service, -1, Map.of());
        }
        return made;
    }

    private void put(StudyInTheMaking made, String candidate, String service, long version, Map<String, Object> more) {
        String url =
                "http://127.0.0.1:" + standIn.port() + "/" + service + (service.contains("?") ? "&" : "?") + "hurry=20";
        Map<String, Object> source = service.startsWith("quillwort") ? Bodies.source(url) : Bodies.eventSource(url);
        if (service.startsWith("tansy")) {
            source.putAll(
                    Map.of("inputTokensPointer", "", "outputTokensPointer", "", "finishPointer", "", "endMark", ""));
        }
        source.putAll(more);
        made.put("/sources/" + candidate, Map.of("version", version, "content", source));
    }

    private static List<String> ids(JsonNode list) {
        return list.values().stream().map(n -> n.path("id").asString()).toList();
    }

    private static Map<String, Object> all(StudyInTheMaking of) {
        return new HashMap<>(Bodies.run(ids(of.get("/prompts")), ids(of.get("/candidates"))));
    }

    private static String start(StudyInTheMaking in, Map<String, Object> what) {
        return in.post("/runs", what).path("id").asString();
    }

    private static JsonNode await(StudyInTheMaking in, String run, Predicate<JsonNode> until) {
        return Awaitility.await()
                .atMost(PATIENCE)
                .pollInterval(Duration.ofMillis(50))
                .until(() -> in.get("/runs/" + run), until);
    }

    private static Predicate<JsonNode> is(String state) {
        return run -> run.path("state").asString().equals(state)
                && run.path("cells")
                        .valueStream()
                        .noneMatch(c -> c.path("state").asString().equals("ASKING"));
    }

    private static List<JsonNode> answers(StudyInTheMaking of) {
        List<JsonNode> all = new ArrayList<>();
        of.get("/prompts")
                .forEach(p -> of.get("/prompts/" + p.path("id").asString() + "/answers")
                        .forEach(all::add));
        return all;
    }

    private static List<String> states(JsonNode run) {
        return run.path("cells")
                .valueStream()
                .map(c -> c.path("state").asString())
                .toList();
    }

    @Test
    public void collectsEveryPromptFromEveryCandidateWithMeasuresAndCost() throws Exception {
        StudyInTheMaking own = study("quillwort", "tansy");
        Map<String, Object> what = all(own);
        what.put("attempts", 2);
        JsonNode forecast = own.post("/runs/forecast", what);
        assertThat(forecast.path("cells").asInt()).isEqualTo(8);

        JsonNode run = await(own, start(own, what), is("FINISHED"));

        assertThat(states(run)).hasSize(8).containsOnly("DONE");
        List<JsonNode> answers = answers(own);
        assertThat(answers).hasSize(8).allSatisfy(a -> {
            assertThat(a.path("outcome").asString()).isEqualTo("COMPLETE");
            JsonNode took = a.path("measures");
            long in = took.path("inputTokens").asLong();
            long out = took.path("outputTokens").asLong();
            assertThat(in).isPositive();
            assertThat(out).isPositive();
            assertThat(took.path("firstOutputMs").asLong())
                    .isLessThanOrEqualTo(took.path("totalMs").asLong());
            // 2 EUR a million in and 10 out.
            assertThat(took.path("cost").decimalValue()).isEqualByComparingTo(BigDecimal.valueOf(2 * in + 10 * out, 6));
            assertThat(took.path("currency").asString()).isEqualTo("EUR");
            assertThat(took.path("tries").asInt()).isEqualTo(1);
        });
        assertThat(answers.stream().map(a -> a.path("attempt").asInt()).toList())
                .containsOnly(1, 2);
        String estimating = own.get("/candidates").get(1).path("id").asString();
        assertThat(answers)
                .allSatisfy(a -> assertThat(a.at("/measures/estimated").asBoolean())
                        .isEqualTo(a.path("candidateId").asString().equals(estimating)));
        assertThat(forecast.path("cost").decimalValue())
                .isGreaterThanOrEqualTo(run.path("spentCost").decimalValue());
    }

    /**
     * However much a study holds: what is read for one answer is what it needs. Each is counted with a look of its own at the
     * run, though one look mostly takes several; what the clock sends while a service thinks is no part of it.
     */
    @Test
    public void aCollectedAnswerTakesFewStatements() throws Exception {
        StudyInTheMaking in = study("quillwort");
        await(in, start(in, run(in, 1)), is("FINISHED"));
        int attempts = 11;
        OneConnection.watch(true);
        Counts before = Counts.now();

        JsonNode finished = await(in, start(in, run(in, attempts)), is("FINISHED"));

        Counts after = Counts.now();
        OneConnection.watch(false);
        double own = (after.own - before.own) / (2.0 * attempts);
        double look = (double) (after.looking - before.looking) / (after.looks - before.looks);
        LOG.info("statements for a collected answer: {} of its own, {} for a look", own, look);
        assertThat(states(finished)).containsOnly("DONE").hasSize(2 * attempts);
        assertThat(own).isGreaterThan(3);
        assertThat(look).isGreaterThan(1);
        assertThat(own + look).isLessThanOrEqualTo(15);
    }

    /** Statements for the answers themselves, those for looking at the run, and how many looks there were. */
    private record Counts(long own, long looking, long looks) {
        static Counts now() {
            List<String> look = List.of("RunClaims.claim");
            List<String> claim = List.of("RunClaims$Claiming.claim");
            return new Counts(
                    OneConnection.statementsOf(claim, "")
                            + OneConnection.statementsOf(List.of("RunWork.weigh", "RunWork.finish"), ""),
                    OneConnection.statementsOf(look, "") - OneConnection.statementsOf(claim, ""),
                    OneConnection.statementsOf(look, " for no key update"));
        }
    }

    /** What was changed since it was looked at is looked at first. */
    @Test
    public void nothingIsClaimedOfAPromptInAnotherVersionThanWasLookedAt() throws Exception {
        StudyInTheMaking in = study("quillwort?fault=slow");
        UUID run = UUID.fromString(start(in, run(in, 20)));
        Map<PromptId, Long> others = new HashMap<>();
        in.get("/prompts")
                .forEach(p -> others.put(
                        PromptId.from(p.path("id").asString()),
                        p.path("version").asLong() + 1));
        assertThat(claims.claim(run, UUID.randomUUID(), 5, others)).isEmpty();
        assertThat(claims.claim(run, UUID.randomUUID(), 5, Map.of())).isEmpty();
        in.post("/runs/" + run + "/stop", Map.of("cutOff", true));
        await(in, run.toString(), is("PAUSED"));
    }

    private static Map<String, Object> run(StudyInTheMaking in, int attempts) {
        Map<String, Object> what = all(in);
        what.putAll(Map.of("attempts", attempts, "onlyMissing", false));
        return what;
    }

    @Test
    public void preparedFollowUpsAreAskedOfAllAlike() throws Exception {
        StudyInTheMaking own = study("brindle", "quillwort");
        JsonNode prompt = own.get("/prompts").get(0);
        Map<String, Object> content = new HashMap<>(Bodies.prompt("First of review", "Find the cause of it."));
        content.put("followUps", List.of("What does that cost?", "And at night?"));
        own.put(
                "/prompts/" + prompt.path("id").asString(),
                Map.of(
                        "version", prompt.path("version").asLong(),
                        "kindId", prompt.at("/kind/id").asString(),
                        "content", content));
        own.put("/follow-up-rule", Map.of("version", -1, "most", 1));
        Map<String, Object> what = all(own);
        what.put("followUps", 2);
        assertThat(own.lead.post(own.path + "/runs", what).body()).contains("at most 1, as the study gives up then");
        what.put("followUps", 1);

        await(own, start(own, what), is("FINISHED"));

        for (JsonNode answer : answers(own)) {
            boolean follows =
                    answer.path("promptId").asString().equals(prompt.path("id").asString());
            assertThat(answer.path("followUps")
                            .valueStream()
                            .map(f -> f.path("asked").asString()))
                    .containsExactlyElementsOf(follows ? List.of("What does that cost?") : List.of());
            assertThat(answer.path("outcome").asString()).isEqualTo("COMPLETE");
        }
        assertThat(own.get("/answers").valueStream().map(a -> a.path("unequal").asInt()))
                .containsOnly(0);
    }

    /** Words for one answer alone are asked of its candidate, with all that was said before, and counted as unequal. */
    @Test
    public void oneAnswerCanBeFollowedUpAlone() throws Exception {
        StudyInTheMaking own = study("brindle");
        own.put("/follow-up-rule", Map.of("version", -1, "most", 1));
        await(own, start(own, all(own)), is("FINISHED"));
        JsonNode answer = answers(own).get(0);
        Map<String, String> ask =
                Map.of("answerId", answer.path("id").asString(), "asked", "Your code does not compile.");

        JsonNode run = own.post("/runs/follow-up", ask);
        await(own, run.path("id").asString(), is("FINISHED"));

        JsonNode after = answers(own).stream()
                .filter(a -> a.path("id").equals(answer.path("id")))
                .findFirst()
                .orElseThrow();
        assertThat(after.at("/followUps/0/asked").asString()).isEqualTo("Your code does not compile.");
        // The stand-in counts what it was told: our two turns were both there.
        assertThat(after.at("/followUps/0/reply").asString()).contains("(Reply 2.)");
        assertThat(after.at("/measures/outputTokens").asLong())
                .isGreaterThan(answer.at("/measures/outputTokens").asLong());
        assertThat(own.get("/answers")
                        .valueStream()
                        .mapToInt(a -> a.path("unequal").asInt())
                        .sum())
                .isEqualTo(1);
        assertThat(own.lead.post(own.path + "/runs/follow-up", ask).body())
                .contains("must be at most 1, as the study gives up then");
    }

    private static void find(StudyInTheMaking in, JsonNode answer, int turn, String verdict) {
        in.put("/answers/" + answer.path("id").asString() + "/turns/" + turn + "/verdict", Map.of("verdict", verdict));
    }

    /** So that turns to a working answer are a figure: whoever is done, gave up or has nothing prepared is left alone. */
    @Test
    public void theNextFollowUpIsAskedOnlyWhereTheLastReplyDoesNotDo() throws Exception {
        StudyInTheMaking own = study("brindle", "quillwort");
        for (JsonNode prompt : own.get("/prompts")) {
            Map<String, Object> content =
                    new HashMap<>(Bodies.prompt(prompt.at("/content/title").asString(), "Find the cause of it."));
            content.put("followUps", List.of("It still fails. Try again."));
            own.put(
                    "/prompts/" + prompt.path("id").asString(),
                    Map.of(
                            "version", prompt.path("version").asLong(),
                            "kindId", prompt.at("/kind/id").asString(),
                            "content", content));
        }
        assertThat(own.lead
                        .post(own.path + "/runs/follow-ups-where-needed", Map.of())
                        .problem())
                .isEqualTo("not-ready");
        await(own, start(own, all(own)), is("FINISHED"));
        List<JsonNode> all = answers(own);
        find(own, all.get(0), 0, "DOES_NOT");
        find(own, all.get(1), 0, "DOES");
        find(own, all.get(2), 0, "GAVE_UP");
        find(own, all.get(3), 0, "SAID_DONE");

        JsonNode run = own.post("/runs/follow-ups-where-needed", Map.of());
        await(own, run.path("id").asString(), is("FINISHED"));

        List<Integer> turns =
                answers(own).stream().map(a -> a.path("followUps").size()).toList();
        assertThat(turns).containsExactly(1, 0, 0, 1);
        assertThat(own.get("/answers")
                        .valueStream()
                        .mapToInt(a -> a.path("unequal").asInt()))
                .containsOnly(0);
        assertThat(own.get("/turn-verdicts").size())
                .as("what was found of first replies stays")
                .isEqualTo(4);
        find(own, all.get(0), 1, "DOES_NOT");
        assertThat(own.lead
                        .post(own.path + "/runs/follow-ups-where-needed", Map.of())
                        .problem())
                .as("nothing is prepared after that")
                .isEqualTo("not-ready");
    }

    /** Nothing came and nothing was paid: the answer must not take the blame. */
    @Test
    public void aFollowUpThatIsTurnedAwayLeavesTheAnswerAsItWas() throws Exception {
        StudyInTheMaking own = study("brindle");
        await(own, start(own, all(own)), is("FINISHED"));
        JsonNode answer = answers(own).get(0);
        put(own, own.get("/candidates").get(0).path("id").asString(), "brindle?fault=denied", 0, Map.of());

        JsonNode run = own.post(
                "/runs/follow-up", Map.of("answerId", answer.path("id").asString(), "asked", "It does not compile."));
        JsonNode ended = await(own, run.path("id").asString(), is("FINISHED"));

        assertThat(states(ended)).containsOnly("TURNED_AWAY");
        JsonNode after = answers(own).stream()
                .filter(a -> a.path("id").equals(answer.path("id")))
                .findFirst()
                .orElseThrow();
        assertThat(after.path("followUps").size()).isZero();
        assertThat(after.path("outcome")).isEqualTo(answer.path("outcome"));
        assertThat(after.at("/measures/cost")).isEqualTo(answer.at("/measures/cost"));
        assertThat(after.at("/measures/outputTokens")).isEqualTo(answer.at("/measures/outputTokens"));
    }

    @Test
    public void anAnswerThatIsRemovedWhileItsFollowUpWaitsStallsNothing() throws Exception {
        StudyInTheMaking own = study("brindle");
        await(own, start(own, all(own)), is("FINISHED"));
        List<JsonNode> both = answers(own);
        put(
                own,
                own.get("/candidates").get(0).path("id").asString(),
                "brindle?fault=hang",
                0,
                Map.of("timeLimitMs", 1500, "mostAtOnce", 1, "mostTries", 1));
        List<String> runs = new ArrayList<>();
        for (JsonNode answer : both) {
            runs.add(own.post(
                            "/runs/follow-up",
                            Map.of("answerId", answer.path("id").asString(), "asked", "And the edge?"))
                    .path("id")
                    .asString());
        }

        own.lead.delete(own.path + "/answers/" + both.get(1).path("id").asString());

        await(own, runs.get(0), is("FINISHED"));
        JsonNode second = await(own, runs.get(1), is("FINISHED"));
        assertThat(second.at("/cells/0/notes").asString()).contains("not there any more");
        assertThat(answers(own)).singleElement().satisfies(a -> {
            assertThat(a.path("id")).isEqualTo(both.get(0).path("id"));
            assertThat(a.path("outcome").asString()).isEqualTo("TIMED_OUT");
        });
    }

    @DataProvider
    public Object[][] endings() {
        return new Object[][] {
            // service and fault, outcome of the answer, tries, a note
            {"quillwort?fault=refusal", "REFUSED", 1, "It refused."},
            {"quillwort?fault=limit", "INCOMPLETE", 1, "“length”"},
            {"quillwort?fault=malformed", "FAILED", 1, "no JSON"},
            {"brindle?fault=half", "INCOMPLETE", 1, "half way"},
            {"brindle?fault=hang", "TIMED_OUT", 1, "longer than 1 s"},
            {"quillwort?fault=busy", "FAILED", 2, "429"},
        };
    }

    @Test(dataProvider = "endings")
    public void whatGoesWrongIsAResult(String service, String outcome, int tries, String note) throws Exception {
        StudyInTheMaking own = study(service);
        String candidate = own.get("/candidates").get(0).path("id").asString();
        put(own, candidate, service, 0, Map.of("timeLimitMs", 1500, "mostTries", 2));

        JsonNode run = await(own, start(own, all(own)), is("FINISHED"));

        assertThat(answers(own)).hasSize(2).allSatisfy(a -> {
            assertThat(a.path("outcome").asString()).isEqualTo(outcome);
            assertThat(a.at("/measures/tries").asInt()).isEqualTo(tries);
        });
        assertThat(run.at("/cells/0/notes").asString()).contains(note);
    }

    @Test
    public void aServiceThatIsBusyIsAskedAgainWhenItSays() throws Exception {
        StandIn fresh = StandIn.start(0, List.of(ROOT.resolve("demo")), SECRET);
        StudyInTheMaking own = study("quillwort");
        String candidate = own.get("/candidates").get(0).path("id").asString();
        own.put(
                "/sources/" + candidate,
                Map.of(
                        "version",
                        0,
                        "content",
                        Bodies.source("http://127.0.0.1:" + fresh.port() + "/quillwort?fault=busy-once&hurry=20")));
        Map<String, Object> one = all(own);
        one.put("promptIds", ids(own.get("/prompts")).subList(0, 1));

        JsonNode run = await(own, start(own, one), is("FINISHED"));

        assertThat(fresh.asked("quillwort")).isEqualTo(2);
        assertThat(run.at("/cells/0/notes").asString()).contains("429");
        assertThat(answers(own)).singleElement().satisfies(a -> {
            assertThat(a.path("outcome").asString()).isEqualTo("COMPLETE");
            assertThat(a.at("/measures/tries").asInt()).isEqualTo(2);
        });
        fresh.close();
    }

    /** One wrong field of a source spoils no whole run. */
    @Test
    public void threeAlikeFaultsPauseARun() throws Exception {
        StudyInTheMaking own = study("quillwort?fault=denied", "tansy");
        String candidate = own.get("/candidates").get(0).path("id").asString();
        Map<String, Object> what = all(own);
        what.put("attempts", 3);

        String id = start(own, what);
        JsonNode run = await(own, id, is("PAUSED"));

        assertThat(run.path("reason").asString())
                .isEqualTo(
                        "Candidate 1 failed 3 times in the same way, and answered nothing so far. Try its source before"
                                + " you go on.");
        assertThat(states(run)).contains("WAITING");
        put(own, candidate, "quillwort", 0, Map.of());
        own.post("/runs/" + id + "/again", Map.of());
        assertThat(states(await(own, id, is("FINISHED")))).containsOnly("DONE");
        assertThat(answers(own)).hasSize(12);
    }

    /** It is told once; what either gave stays as it is, and the recommendation says that there were two. */
    @Test
    public void anotherModelInTheMiddlePausesARun() throws Exception {
        StudyInTheMaking own = study("quillwort");
        String candidate = own.get("/candidates").get(0).path("id").asString();
        await(own, start(own, all(own)), is("FINISHED"));
        put(own, candidate, "quillwort?fault=newer", 0, Map.of());
        Map<String, Object> more = all(own);
        more.put("attempts", 3);

        String id = start(own, more);
        JsonNode run = await(own, id, is("PAUSED"));
        assertThat(run.path("reason").asString())
                .isEqualTo(
                        "Candidate 1 says that quillwort-2 answered, and before that quillwort-1. Its answers are marked."
                                + " Go on if they may stand for one candidate.");
        assertThat(states(run)).contains("WAITING");

        own.post("/runs/" + id + "/resume", Map.of());
        await(own, id, is("FINISHED"));
        assertThat(answers(own))
                .extracting(a -> a.at("/measures/model").asString())
                .containsOnly("quillwort-1", "quillwort-2");
        JsonNode several = own.get("/recommendation").at("/severalModels/0");
        assertThat(several.path("candidateId").asString()).isEqualTo(candidate);
        assertThat(several.at("/answered/0/model").asString()).isEqualTo("quillwort-1");
        assertThat(several.at("/answered/0/answers").asInt()).isEqualTo(2);
    }

    /** The answers are taken out together; what they cost, and that they failed, stays with the run. */
    @Test
    public void whatFailedCanBeAskedAgain() throws Exception {
        StudyInTheMaking own = study("quillwort?fault=malformed");
        String candidate = own.get("/candidates").get(0).path("id").asString();
        String id = start(own, all(own));
        JsonNode run = await(own, id, is("FINISHED"));
        assertThat(answers(own))
                .hasSize(2)
                .allSatisfy(a -> assertThat(a.path("outcome").asString()).isEqualTo("FAILED"));
        long spent = run.path("spentTokens").asLong();

        put(own, candidate, "quillwort", 0, Map.of());
        own.post("/runs/" + id + "/failed-again", Map.of());
        JsonNode again = await(own, id, is("FINISHED"));

        assertThat(answers(own)).hasSize(2).allSatisfy(a -> {
            assertThat(a.path("outcome").asString()).isEqualTo("COMPLETE");
            assertThat(a.at("/measures/tries").asInt()).isGreaterThan(1);
        });
        assertThat(again.path("cells").valueStream())
                .allSatisfy(c -> assertThat(c.path("notes").asString()).contains("It failed, and was asked again."));
        assertThat(again.path("spentTokens").asLong()).isGreaterThan(spent);
    }

    @Test
    public void whatIsTurnedAwayIsNoAnswerAndCanBeAskedAgain() throws Exception {
        StudyInTheMaking own = study("quillwort?fault=denied");
        String candidate = own.get("/candidates").get(0).path("id").asString();

        String id = start(own, all(own));
        JsonNode run = await(own, id, is("FINISHED"));

        assertThat(states(run)).containsOnly("TURNED_AWAY");
        assertThat(run.at("/cells/0/notes").asString()).contains("401");
        assertThat(run.path("spentTokens").asLong()).isZero();
        assertThat(answers(own)).isEmpty();

        put(own, candidate, "quillwort", 0, Map.of());
        own.post("/runs/" + id + "/again", Map.of());

        assertThat(states(await(own, id, is("FINISHED")))).containsOnly("DONE");
        assertThat(answers(own)).hasSize(2);
    }

    @Test
    public void aBudgetIsNeverExceeded() throws Exception {
        StandIn fresh = StandIn.start(0, List.of(ROOT.resolve("demo")), SECRET);
        StudyInTheMaking own = study("quillwort");
        String candidate = own.get("/candidates").get(0).path("id").asString();
        own.put(
                "/sources/" + candidate,
                Map.of(
                        "version",
                        0,
                        "content",
                        Bodies.source("http://127.0.0.1:" + fresh.port() + "/quillwort?hurry=20")));
        Map<String, Object> what = all(own);
        what.put("attempts", 5);
        JsonNode forecast = own.post("/runs/forecast", what);
        // Room for what one request can cost, and for what three did: then no other fits.
        BigDecimal oneAtMost = forecast.path("cost").decimalValue().divide(BigDecimal.TEN);
        BigDecimal budget = oneAtMost.add(new BigDecimal("0.0015"));
        what.put("budgetCost", budget);

        String id = start(own, what);
        JsonNode run = await(own, id, is("PAUSED"));

        assertThat(run.path("reason").asString()).contains("budget");
        assertThat(run.path("spentCost").decimalValue()).isPositive().isLessThanOrEqualTo(budget);
        long done = states(run).stream().filter("DONE"::equals).count();
        assertThat(done).isBetween(1L, 9L).isEqualTo(fresh.asked("quillwort"));
        assertThat(run.path("spentCost").decimalValue().add(oneAtMost))
                .as("the next one might have exceeded it")
                .isGreaterThan(budget);

        own.put("/runs/" + id + "/budget", Map.of());
        own.post("/runs/" + id + "/resume", Map.of());

        assertThat(states(await(own, id, is("FINISHED")))).containsOnly("DONE");
        assertThat(fresh.asked("quillwort")).isEqualTo(10);
        fresh.close();
    }

    @Test
    public void aBudgetOfTokensHoldsToo() throws Exception {
        StudyInTheMaking own = study("tansy");
        Map<String, Object> what = all(own);
        what.put("budgetTokens", 10);

        JsonNode run = await(own, start(own, what), is("PAUSED"));

        assertThat(states(run)).containsOnly("WAITING");
        assertThat(run.path("spentTokens").asLong()).isZero();
    }

    @Test
    public void stoppingKeepsWhatCameAndResumingAsksTheRestOnce() throws Exception {
        StandIn fresh = StandIn.start(0, List.of(ROOT.resolve("demo")), SECRET);
        StudyInTheMaking own = study("brindle");
        String candidate = own.get("/candidates").get(0).path("id").asString();
        Map<String, Object> slow = Bodies.eventSource("http://127.0.0.1:" + fresh.port() + "/brindle?fault=hold");
        slow.put("mostAtOnce", 1);
        own.put("/sources/" + candidate, Map.of("version", 0, "content", slow));
        Map<String, Object> what = all(own);
        what.put("attempts", 2);

        String id = start(own, what);
        await(
                own,
                id,
                r -> r.path("cells")
                        .valueStream()
                        .anyMatch(c -> c.path("tokensSoFar").asLong() > 0));
        own.post("/runs/" + id + "/stop", Map.of("cutOff", true));
        JsonNode stopped = await(own, id, is("PAUSED"));

        assertThat(states(stopped)).contains("DONE").contains("WAITING");
        assertThat(answers(own))
                .filteredOn(a -> a.path("outcome").asString().equals("INCOMPLETE"))
                .singleElement()
                .satisfies(a -> {
                    assertThat(a.path("text").asString()).isNotEmpty();
                    assertThat(a.at("/measures/estimated").asBoolean()).isTrue();
                    assertThat(a.at("/measures/cost").decimalValue()).isPositive();
                });
        int asked = fresh.asked("brindle");

        slow.put("url", "http://127.0.0.1:" + fresh.port() + "/brindle?hurry=20");
        own.put("/sources/" + candidate, Map.of("version", 1, "content", slow));
        own.post("/runs/" + id + "/resume", Map.of());
        await(own, id, is("FINISHED"));

        assertThat(answers(own)).hasSize(4);
        assertThat(fresh.asked("brindle")).isEqualTo(4).isGreaterThan(asked);
        fresh.close();
    }

    /** As if another server had claimed a cell and was killed: its lease runs out, and what it had kept is written down. */
    @Test
    public void whatAServerThatIsGoneWasAskingIsKeptAndNotAskedAgain() throws Exception {
        StudyInTheMaking own = study("quillwort");
        Map<String, Object> what = all(own);
        what.put("budgetTokens", 1);
        String id = start(own, what);
        await(own, id, is("PAUSED"));
        try (var connection =
                        java.sql.DriverManager.getConnection(DATABASE.url(), DATABASE.user(), DATABASE.password());
                var statement = connection.prepareStatement(
                        "update run_cell set state = 'ASKING', owner = gen_random_uuid(), asked_at = now() - interval '40 s', "
                                + "lease_until = now() - interval '20 s', partial = 'The loop ends', first_output_ms = 300, "
                                + "reserved_tokens = 900, tries = 1, version = version + 1 where run_id = ?::uuid and place = 0")) {
            statement.setString(1, id);
            assertThat(statement.executeUpdate()).isEqualTo(1);
        }
        int asked = standIn.asked("quillwort");

        JsonNode run = await(own, id, r -> r.at("/cells/0/state").asString().equals("DONE"));

        assertThat(run.at("/cells/0/notes").asString())
                .matches("The server that asked was not heard of for \\d+ seconds, so it was given up\\.");
        assertThat(run.path("spentTokens").asLong())
                .as("it may have been paid for")
                .isEqualTo(900);
        assertThat(answers(own)).singleElement().satisfies(a -> {
            assertThat(a.path("text").asString()).isEqualTo("The loop ends");
            assertThat(a.path("outcome").asString()).isEqualTo("INCOMPLETE");
        });
        assertThat(standIn.asked("quillwort")).isEqualTo(asked);
    }

    /** The cell is written down by another server while its reply still comes: the reply was paid for, and is kept and told. */
    @Test
    public void aReplyThatComesTooLateIsKeptBesideWhatCounts() throws Exception {
        StudyInTheMaking own = study("brindle?fault=hold");
        String id = start(own, all(own));
        await(own, id, r -> r.at("/cells/0/tokensSoFar").asLong() > 0);
        try (var connection =
                        java.sql.DriverManager.getConnection(DATABASE.url(), DATABASE.user(), DATABASE.password());
                var statement = connection.prepareStatement(
                        "update run_cell set state = 'DONE', owner = null, lease_until = null, version = version + 1 "
                                + "where run_id = ?::uuid and place = 0")) {
            statement.setString(1, id);
            assertThat(statement.executeUpdate()).isEqualTo(1);
        }
        standIn.letGo();

        JsonNode run = await(own, id, r -> r.at("/cells/0/late").asBoolean());

        assertThat(run.at("/cells/0/notes").asString()).startsWith("A reply came after the cell was written down");
        String late =
                own.get("/runs/" + id + "/cells/0/late-reply").path("text").asString();
        assertThat(late).isNotBlank();
        assertThat(unzip(export(own.lead, own.id())).get("run-cells.csv")).contains("late_reply");
    }

    @Test
    public void aRoundDoesNotOpenWhileARunCollects() throws Exception {
        StudyInTheMaking own = study("brindle?fault=hang");

        String id = start(own, all(own));

        assertThat(own.lead.post(own.path + "/round", Bodies.plan(2, 0, false)).body())
                .contains("a run is still collecting");
        own.post("/runs/" + id + "/stop", Map.of("cutOff", true));
        await(own, id, is("PAUSED"));
    }

    @DataProvider
    public Object[][] refused() {
        return new Object[][] {
            {"promptIds", List.of("00000000-0000-0000-0000-000000000001"), "promptIds"},
            {"candidateIds", List.of("00000000-0000-0000-0000-000000000001"), "candidateIds"},
            {"candidateIds", List.of(), "candidateIds"},
            {"attempts", 0, "attempts"},
            {"attempts", 21, "attempts"},
            {"followUps", 21, "followUps"},
            {"budgetCost", -1, "budgetCost"},
        };
    }

    @Test(dataProvider = "refused")
    public void whatCannotBeAskedIsRefusedByName(String field, Object value, String named) {
        StudyInTheMaking own = study("quillwort");
        Map<String, Object> what = all(own);
        what.put(field, value);

        ApiClient.Response refused = own.lead.post(own.path + "/runs", what);

        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.json().at("/errors/0/field").asString()).startsWith(named);
        assertThat(own.get("/runs").values()).isEmpty();
    }

    @Test
    public void aCandidateWithoutASourceCannotBeAsked() {
        StudyInTheMaking own = study("quillwort");
        own.candidate("Sedgehold");

        assertThat(own.lead.post(own.path + "/runs", all(own)).body()).contains("Sedgehold has none");
    }

    /** There is nobody to decide on it: the text is there to be written. */
    @Test
    public void aTryOutSendsNothingThatLooksLikeASecret() {
        StudyInTheMaking own = study("quillwort");
        String path = own.path + "/sources/"
                + own.get("/candidates").get(0).path("id").asString() + "/try-out";
        ApiClient.Response held = own.lead.post(path, Map.of("text", "Hello.\npassword = 'gr33n-heron-41'"));
        assertThat(held.problem()).isEqualTo("secrets-found");
        assertThat(held.body()).contains("Line 2").doesNotContain("gr33n-heron-41");
        assertThat(own.lead.post(path, Map.of("text", "Hello.")).status()).isEqualTo(200);
    }

    @Test
    public void secretsAreInNoResponseLogOrArchive() throws Exception {
        StudyInTheMaking own = study("quillwort?fault=telltale", "quillwort");
        String candidate = own.get("/candidates").get(0).path("id").asString();
        JsonNode tryOut = own.post("/sources/" + candidate + "/try-out", Map.of("text", "Are you there?"));
        String id = start(own, all(own));
        await(own, id, is("FINISHED"));

        assertThat(tryOut.path("reason").asString()).contains("(secret)");
        for (String tail : List.of("/sources", "/runs", "/runs/" + id, "/answers", "/candidates")) {
            assertThat(own.lead.get(own.path + tail).body()).as(tail).doesNotContain(SECRET);
        }
        assertThat(own.get("/sources").path("secretNames").valueStream().map(JsonNode::asString))
                .contains("STANDIN");
        byte[] archive = own.lead.get(own.path + "/archive").raw().body();
        for (Map.Entry<String, byte[]> file : unzipped(archive).entrySet()) {
            assertThat(new String(file.getValue(), java.nio.charset.StandardCharsets.UTF_8))
                    .as(file.getKey())
                    .doesNotContain(SECRET);
        }
        try (var connection =
                        java.sql.DriverManager.getConnection(DATABASE.url(), DATABASE.user(), DATABASE.password());
                var rows = connection
                        .createStatement()
                        .executeQuery("select notes from run_cell union all "
                                + "select text from answer union all select value from source_header")) {
            while (rows.next()) {
                assertThat(rows.getString(1)).doesNotContain(SECRET);
            }
        }
    }

    @DataProvider
    public Object[][] badSources() {
        return new Object[][] {
            {"url", "http://10.0.0.1/ask", "content.url"},
            {"url", "http://[::1]/ask", "content.url"},
            {"url", "ftp://127.0.0.1/ask", "content.url"},
            {"url", "no address", "content.url"},
            {"headers", List.of(Map.of("name", "X", "value", "[[secret NOBODY]]")), "content.headers[0].value"},
            {"headers", List.of(Map.of("name", "X Y", "value", "1")), "content.headers[0].name"},
            {"headers", List.of(Map.of("name", "X", "value", "a\r\nEvil: 1")), "content.headers[0].value"},
            {"body", "{", "content.body"},
            {"body", "{\"a\": 1}", "content.body"},
            {"body", "{\"a\": \"[[turns]]\"}", "content.turnAsked"},
            {"textPointer", "said", "content.textPointer"},
            {"textPointer", "/said~2", "content.textPointer"},
            {"finishPointer", "x", "content.finishPointer"},
            {"completeWords", List.of(), "content.completeWords"},
            {"timeLimitMs", 10, "content.timeLimitMs"},
            {"mostTries", 0, "content.mostTries"},
            {"mostAtOnce", 100, "content.mostAtOnce"},
            {"mostOutputTokens", 0, "content.mostOutputTokens"},
        };
    }

    @Test(dataProvider = "badSources")
    public void aSourceThatIsNotRightIsRefusedByName(String field, Object value, String named) {
        StudyInTheMaking own = StudyInTheMaking.begunBy(as(LEAD));
        String candidate = own.candidate("Osierhold");
        Map<String, Object> source = Bodies.source("http://127.0.0.1:1/ask");
        source.put(field, value);

        ApiClient.Response refused =
                own.lead.put(own.path + "/sources/" + candidate, Map.of("version", -1, "content", source));

        assertThat(refused.status()).as(refused.body()).isEqualTo(400);
        assertThat(refused.json().at("/errors/0/field").asString()).isEqualTo(named);
    }

    @Test
    public void theBoardIsToldWhileItGoes() throws Exception {
        StudyInTheMaking own = study("brindle?fault=hang");
        String id = start(own, all(own));

        String told = own.lead.firstEvents(own.path + "/runs/" + id + "/events", 2);

        assertThat(told).contains("event:board").contains("\"state\":\"RUNNING\"");
        own.post("/runs/" + id + "/stop", Map.of("cutOff", true));
        await(own, id, is("PAUSED"));
    }

    @Test
    public void sourcesAndRunsGoIntoTheArchiveAndBack() throws Exception {
        StudyInTheMaking own = study("quillwort", "brindle?fault=refusal");
        own.put("/follow-up-rule", Map.of("version", -1, "most", 2));
        String prompt = own.get("/prompts").get(0).path("id").asString();
        Map<String, Object> byHand = new HashMap<>(
                Bodies.answer(prompt, own.get("/candidates").get(0).path("id").asString(), "A first try."));
        byHand.put("followUps", List.of(Map.of("asked", "Which file?", "reply", "Berths.java\n")));
        own.post("/answers", byHand);
        await(own, start(own, all(own)), is("FINISHED"));
        byte[] archive = own.lead.get(own.path + "/archive").raw().body();

        JsonNode copy = StudyInTheMaking.ok(own.lead.upload("/api/studies/archive?again=true", archive));
        byte[] again = own.lead
                .get("/api/studies/" + copy.path("studyId").asString() + "/archive")
                .raw()
                .body();

        assertThat(unzip(again)).isEqualTo(unzip(archive));
        assertThat(unzip(archive).get("turns.csv")).contains("Which file?");
        assertThat(unzip(archive).get("run-cells.csv")).contains("It refused.");
    }
}
