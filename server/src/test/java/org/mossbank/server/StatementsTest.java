package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** No page asks the database more often because a study has more rows. */
public class StatementsTest extends ServerTest {
    private static final List<String> PAGES = List.of(
            "",
            "/steps",
            "/people",
            "/brief",
            "/kinds",
            "/prompts",
            "/prompts/titles",
            "/prompts/warnings",
            "/read-backs",
            "/candidates",
            "/answers",
            "/masking",
            "/rubric",
            "/grading",
            "/trials",
            "/runs",
            "/acts",
            "/audit-events",
            "/search?words=some",
            "/agreement",
            "/agreement/diagnosis",
            "/oversight",
            "/recommendation",
            "/recommendation/prompts",
            "/recommendation/robustness",
            "/recommendation/costs",
            "/recommendation/work",
            "/recommendation/groups",
            "/memos");

    private static final int TIMES = 4;

    private String small = "";
    private String large = "";

    @BeforeClass
    public void bringBothIn() {
        small = ended(2, 2);
        large = ended(9, 4);
    }

    private String ended(int prompts, int raters) {
        JsonNode brought = as(LEAD).upload("/api/studies/archive?again=true", zip(archive(prompts, raters)))
                .json();
        String study = "/api/studies/" + brought.path("studyId").asString();
        as(LEAD).post(study + "/round/close", Map.of("reason", "That is all."));
        return study;
    }

    private static Map<String, byte[]> archive(int prompts, int raters) {
        StringBuilder allPrompts = new StringBuilder("prompt,kind,title,file\n");
        StringBuilder answers = new StringBuilder("answer,prompt,candidate,attempt,outcome,file\n");
        StringBuilder people = new StringBuilder("rater,name\n");
        StringBuilder sheets = new StringBuilder("rater,prompt,place,sent_at\n");
        StringBuilder grades = new StringBuilder("rater,answer,criterion,level\n");
        for (int r = 0; r < raters; r++) {
            people.append("counted%d,Counted %d%n".formatted(r, r));
        }
        for (int p = 0; p < prompts; p++) {
            allPrompts.append("p%d,debugging,Prompt %d,text.md%n".formatted(p, p));
            for (int c = 0; c < 3; c++) {
                answers.append("p%d-c%d,p%d,c%d,1,complete,text.md%n".formatted(p, c, p, c));
            }
            for (int r = 0; r < raters; r++) {
                sheets.append("counted%d,p%d,%d,2026-03-02T09:00:00Z%n".formatted(r, p, p + 1));
                for (int c = 0; c < 3; c++) {
                    grades.append("counted%d,p%d-c%d,a,%d%n".formatted(r, p, c, (p + r + c) % 5));
                }
            }
        }
        Map<String, byte[]> files = new HashMap<>();
        StringBuilder resources = new StringBuilder();
        Map.of(
                        "prompts", allPrompts,
                        "answers", answers,
                        "raters", people,
                        "sheets", sheets,
                        "grades", grades,
                        "kinds", "kind,name\ndebugging,Debugging\n",
                        "candidates", "candidate,name\nc0,One\nc1,Two\nc2,Three\n",
                        "criteria", "criterion,name,question,weight,highest_level\na,A,?,1,4\n")
                .forEach((table, text) -> {
                    files.put(table + ".csv", bytes(text.toString()));
                    resources.append(", {\"name\": \"%s\", \"path\": \"%s.csv\"}".formatted(table, table));
                });
        files.put("text.md", bytes("Some text."));
        files.put("study.json", bytes("""
                {"title": "Counted", "question": "How often?", "audience": "us", "seed": 1,
                "decisionRule": {"agreementFloor": 0.5, "margin": 5, "minimumRaters": 2}}"""));
        files.put("datapackage.json", bytes("""
                {"name": "counted", "mossbank": {"format": 1}, "resources": [{"name": "study", "path": "study.json"}%s]}""".formatted(resources)));
        return files;
    }

    @DataProvider
    public static Object[][] pages() {
        return PAGES.stream().map(p -> new Object[] {p}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "pages")
    public void areAsManyHoweverLargeAStudyIs(String page) {
        // An answer that is sent before it is whole writes down twice that its session is used.
        assertThat(asked(large + page)).isLessThanOrEqualTo(asked(small + page) + 1);
    }

    /** Now and then a request also writes down that its session is used: the least of some counts. */
    private long asked(String path) {
        // The first time figures are worked out and kept.
        ApiClient.Response response = as(LEAD).get(path);
        assertThat(response.status()).as(response.body()).isEqualTo(200);
        return IntStream.range(0, TIMES).mapToLong(i -> askedOnce(path)).min().orElseThrow();
    }

    private long askedOnce(String path) {
        long before = OneConnection.statementsOfRequests();
        as(LEAD).get(path);
        return OneConnection.statementsOfRequests() - before;
    }
}
