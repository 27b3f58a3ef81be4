package org.mossbank.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Supplier;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import tools.jackson.databind.JsonNode;

/**
 * A study of about 250,000 grades, brought in as an archive that is made here: how long its figures take the first time, and
 * again.
 */
public final class WholeArchive {
    private static final int RATERS = 8;
    private static final int CANDIDATES = 10;
    private static final int PROMPTS = 1042;
    private static final String[] CRITERIA = {"correctness", "idiom", "practice"};
    private static final int LEVELS = 5;
    private static final double NANOS_A_MILLI = 1e6;

    /** Of two thousand characters, as an explanation with some code has. */
    private static final String ANSWER = "The mean level is what all readings of a day come to.\n\n"
            + "```java\ndouble mean(double[] levels) {\n    double sum = 0;\n    for (double level : levels) {\n"
            + "        sum += level;\n    }\n    return sum / levels.length;\n}\n```\n\n"
            + "A reading that is missing is left out, so that no tide counts twice; of an empty day there is no mean.\n"
                    .repeat(17);

    private static final int TIMES = 5;

    private WholeArchive() {}

    /** @param arguments the project's folder, and how many prompts (1,042 if none are given) */
    public static void main(String[] arguments) throws IOException {
        Path root = Path.of(arguments[0]).toAbsolutePath().normalize();
        int prompts = arguments.length > 1 ? Integer.parseInt(arguments[1]) : PROMPTS;
        TestDatabase database = TestDatabase.create();
        String study = broughtIn(root, database, prompts);
        changed(database, CHECKS_AND_TRIALS);
        try (ServerProcess server = started(root, database)) {
            // As after an upgrade that changed nothing, or a night.
            ApiClient lead = signedIn(server);
            for (String page : PAGES) {
                timed(page + ", after a new start", () -> lead.get(study + page));
            }
            for (String page : EVIDENCE) {
                timed(page + ", the first time", () -> lead.get(study + page));
                timed(page + ", unchanged", () -> lead.get(study + page));
            }
            explore(lead, study);
            for (int again = 0; again < TIMES; again++) {
                for (String page : PAGES.subList(0, 2)) {
                    changed(database, ANOTHER_REVISION);
                    timed(page + ", after a change", () -> lead.get(study + page));
                }
            }
            endOfARound(lead, study);
        }
    }

    /** As a lead does who ends grading and looks at once what came of it. */
    private static void endOfARound(ApiClient lead, String study) {
        for (int again = 0; again < TIMES; again++) {
            timed("grade on", () -> lead.post(study + "/round/reopen", Map.of("reason", "More sheets are to come.")));
            timed("end grading", () -> lead.post(study + "/round/close", Map.of("reason", "That is all.")));
            for (String page : List.of("/agreement", "/recommendation", "/recommendation/prompts")) {
                timed(page + ", grading just ended", () -> lead.get(study + page));
            }
            timed("what the outcome hangs on, waited for", () -> lead.get(study + "/recommendation/robustness"));
        }
    }

    private static void changed(TestDatabase database, String how) {
        try (var connection = database.connect();
                var statement = connection.createStatement()) {
            statement.execute(how);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    /** As if somebody had sent in a sheet: what was kept of the figures is of no use any more, nor are the grades that were read. */
    private static final String ANOTHER_REVISION = "update round set revision = revision + 1";

    /** One trial of each answer, as if each prompt had a check; a third fails. */
    private static final String CHECKS_AND_TRIALS = """
            insert into prompt_check (prompt_id, study_id, content, digest, revision, changed_at, changed_by)
            select p.id, p.study_id, '{}', 'bench', 1, now(), 'Bench' from prompt p
            where not exists (select 1 from prompt_check c where c.prompt_id = p.id);
            insert into trial (id, study_id, prompt_id, answer_id, turn, repetition, check_digest, digest, place, state, ended_at,
                outcome, passed, asked, result)
            select gen_random_uuid(), a.study_id, a.prompt_id, a.id, 0, 1, 'bench', 'bench', row_number() over (), 'ENDED', now(),
                case when row_number() over () % 3 = 0 then 'WRONG_OUTPUT' else 'PASSED' end, 3, 5, '{}'
            from answer a join prompt_check c on c.prompt_id = a.prompt_id and c.digest = 'bench'""";

    private static final List<String> EVIDENCE = List.of("/evidence", "/recommendation/evidence", "/trials");

    private static final List<String> PAGES = List.of(
            "/agreement",
            "/recommendation",
            "/recommendation/robustness",
            "/recommendation/prompts",
            "/recommendation/traits",
            "/recommendation/costs",
            "/recommendation/work",
            "/recommendation/groups",
            "/recommendation/expected",
            "/agreement/diagnosis",
            "/oversight",
            "/grading",
            "/steps");

    private static ServerProcess started(Path root, TestDatabase database) {
        return ServerProcess.startDemo(root, database, Map.of("MOSSBANK_JIT", "4"));
    }

    private static ApiClient signedIn(ServerProcess server) {
        return ApiClient.signedIn(server.address(), "orla", "tide and lantern");
    }

    /** The address of the study, which came in, went out, and came in again. */
    private static String broughtIn(Path root, TestDatabase database, int prompts) throws IOException {
        try (ServerProcess server = started(root, database)) {
            ApiClient lead = signedIn(server);
            byte[] archive = archive(prompts);
            System.out.printf(
                    "%,d grades, %,d kB%n", prompts * RATERS * CANDIDATES * CRITERIA.length, archive.length / 1024);
            ApiClient.Response brought =
                    timed("bring it in", () -> lead.upload("/api/studies/archive?again=true", archive));
            String study = "/api/studies/" + brought.json().path("studyId").asString();
            for (String page : PAGES) {
                timed(page + ", the first time", () -> lead.get(study + page));
                timed(page + ", unchanged", () -> lead.get(study + page));
            }
            narrowDown(lead, study);
            explore(lead, study);
            handOut(lead, study);
            byte[] out = timed("write it out", () -> lead.get(study + "/archive"))
                    .raw()
                    .body();
            ApiClient.Response same =
                    timed("bring in what was written out", () -> lead.upload("/api/studies/archive", out));
            byte[] twice = lead.get(
                            "/api/studies/" + same.json().path("studyId").asString() + "/archive")
                    .raw()
                    .body();
            System.out.println("the same study: " + Arrays.equals(out, twice));
            return study;
        }
    }

    /** As somebody does who presses one thing after the other. */
    private static void narrowDown(ApiClient lead, String study) {
        JsonNode agreement = lead.get(study + "/agreement").json();
        String on = study + "/agreement/narrowed?criterionId="
                + agreement.at("/criteria/0/criterionId").asString();
        String rater = "&raterId=" + agreement.at("/raters/0/raterId").asString();
        String kind = "&kindId=" + agreement.at("/criteria/0/byKind/0/kindId").asString();
        for (int again = 0; again < TIMES; again++) {
            for (String to : new String[] {"", rater, kind, kind + rater, "&lower=2&higher=3"}) {
                timed("narrowed down" + to, () -> lead.get(on + to));
            }
        }
    }

    /** As somebody does who turns one thing after the other. */
    private static void explore(ApiClient lead, String study) {
        JsonNode report = lead.get(study + "/recommendation").json();
        String criterion = report.at("/rule/weights/0/criterionId").asString();
        String rater =
                lead.get(study + "/agreement").json().at("/raters/0/raterId").asString();
        read();
        for (int again = 0; again < TIMES; again++) {
            List<?> weights = List.of(Map.of("criterionId", criterion, "weight", again));
            asked(lead, study, "another weight", weights, List.of());
            asked(lead, study, "without a rater", List.of(), List.of(rater));
        }
    }

    /** A person reads what the rule says before they turn anything. */
    private static void read() {
        try {
            Thread.sleep(2_000);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void asked(ApiClient lead, String study, String what, List<?> weights, List<?> raters) {
        timed(
                "what if, " + what,
                () -> lead.post(
                        study + "/recommendation/what-if",
                        Map.of(
                                "weights",
                                weights,
                                "margin",
                                5,
                                "withoutRaters",
                                raters,
                                "withoutPrompts",
                                List.of(),
                                "withoutKinds",
                                List.of())));
    }

    /** From the first word of a memo to its package. */
    private static void handOut(ApiClient lead, String study) {
        String memo = study + "/memos/1";
        JsonNode begun = timed("begin the memo", () -> lead.post(study + "/memos", Map.of("change", "")))
                .json();
        timed("read it", () -> lead.get(memo));
        timed(
                "sign it",
                () -> lead.post(
                        memo + "/signature",
                        Map.of(
                                "version",
                                begun.path("version").asLong(),
                                "revision",
                                begun.at("/document/revision").asLong())));
        timed("read it, signed", () -> lead.get(memo));
        timed("the whole page", () -> lead.get(memo + "/page"));
        timed("its package", () -> lead.get(memo + "/package"));
    }

    private static ApiClient.Response timed(String what, Supplier<ApiClient.Response> request) {
        long start = System.nanoTime();
        ApiClient.Response response = request.get();
        System.out.printf(
                "%s: %.0f ms, %d, %,d kB%n",
                what,
                (System.nanoTime() - start) / NANOS_A_MILLI,
                response.status(),
                response.body().length() / 1024);
        return response;
    }

    static byte[] archive(int prompts) {
        Random random = new Random(1);
        StringBuilder prompt = new StringBuilder("prompt,kind,title,file\n");
        StringBuilder answers = new StringBuilder("answer,prompt,candidate,attempt,outcome,file\n");
        StringBuilder sheets = new StringBuilder("rater,prompt,place,sent_at\n");
        StringBuilder grades = new StringBuilder("rater,answer,criterion,level\n");
        StringBuilder candidates = new StringBuilder("candidate,name\n");
        StringBuilder raters = new StringBuilder("rater,name\n");
        for (int c = 0; c < CANDIDATES; c++) {
            candidates.append("c" + c + ",Candidate " + c + "\n");
        }
        for (int r = 0; r < RATERS; r++) {
            raters.append("rater" + r + ",Rater " + r + "\n");
        }
        for (int p = 0; p < prompts; p++) {
            prompt.append("p" + p + ",k" + p % 4 + ",Prompt " + p + ",text.md\n");
            for (int c = 0; c < CANDIDATES; c++) {
                answers.append("p" + p + "c" + c + ",p" + p + ",c" + c + ",1,complete,answer.md\n");
            }
            for (int r = 0; r < RATERS; r++) {
                sheets.append("rater" + r + ",p" + p + "," + (p + 1) + ",2026-03-10T09:14:04Z\n");
            }
            for (int c = 0; c < CANDIDATES; c++) {
                for (String criterion : CRITERIA) {
                    int truth = random.nextInt(LEVELS);
                    for (int r = 0; r < RATERS; r++) {
                        int level = Math.max(0, Math.min(LEVELS - 1, truth + random.nextInt(3) - 1));
                        grades.append("rater" + r + ",p" + p + "c" + c + "," + criterion + "," + level + "\n");
                    }
                }
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            put(zip, "datapackage.json", packaged());
            put(
                    zip,
                    "study.json",
                    "{\"title\": \"A large one\", \"question\": \"Which?\", \"audience\": \"Us\", \"seed\": 1,"
                            + " \"round\": {\"openedAt\": \"2026-03-10T08:00:00Z\", \"closedAt\": \"2026-03-11T08:00:00Z\"},"
                            + " \"decisionRule\": {\"agreementFloor\": 0.5, \"margin\": 5, \"minimumRaters\": 3}}");
            put(zip, "kinds.csv", "kind,name\nk0,Explanation\nk1,Debugging\nk2,Refactoring\nk3,Review\n");
            put(
                    zip,
                    "criteria.csv",
                    "criterion,name,question,weight,highest_level\ncorrectness,Correctness,Right?,2,4\n"
                            + "idiom,Idiom,Usual?,1,4\npractice,Practice,Good?,1,4\n");
            put(zip, "text.md", "What is the mean level?\n");
            put(zip, "answer.md", ANSWER);
            put(zip, "candidates.csv", candidates.toString());
            put(zip, "raters.csv", raters.toString());
            put(zip, "prompts.csv", prompt.toString());
            put(zip, "answers.csv", answers.toString());
            put(zip, "sheets.csv", sheets.toString());
            put(zip, "grades.csv", grades.toString());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static String packaged() {
        StringBuilder resources = new StringBuilder("{ \"name\": \"study\", \"path\": \"study.json\" }");
        for (String table :
                new String[] {"kinds", "prompts", "candidates", "answers", "criteria", "raters", "sheets", "grades"}) {
            resources.append(", { \"name\": \"" + table + "\", \"path\": \"" + table + ".csv\" }");
        }
        return "{ \"name\": \"large\", \"mossbank\": { \"format\": 1 }, \"resources\": [" + resources + "] }";
    }

    private static void put(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }
}
