package org.mossbank.server.recommendation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * Every count, of a study in which a sheet was withdrawn, a prompt set aside, and a sheet given a second time: three raters, four prompts,
 * two candidates.
 */
public class CountsTest extends ServerTest {
    private String path;

    @BeforeClass(dependsOnMethods = "springTestContextPrepareTestInstance")
    public void close() {
        StringBuilder sheets = new StringBuilder("rater,prompt,place,sent_at,withdrawn_at,withdrawn_reason,repeat\n");
        StringBuilder grades = new StringBuilder("rater,answer,criterion,level,repeat\n");
        for (String rater : List.of("bram", "juri", "tove")) {
            for (String prompt : SmallStudy.PROMPTS) {
                boolean withdrawn = rater.equals("tove") && prompt.equals("spring-tide");
                sheet(sheets, rater, prompt, SmallStudy.PROMPTS.indexOf(prompt) + 1, withdrawn, false);
                grade(grades, rater, prompt, withdrawn ? 0 : 3, false);
            }
        }
        // What came a second time is graded otherwise, so that it would be seen if it counted.
        sheet(sheets, "bram", "mean-level", 5, false, true);
        grade(grades, "bram", "mean-level", 0, true);
        String study = bringIn(files -> {
            files.put("raters.csv", bytes("rater,name\nbram,Bram Okkers\njuri,Juri Halvard\ntove,Tove Lindqvest\n"));
            files.put(
                    "prompts.csv",
                    bytes(
                            "prompt,kind,title,file,fault,fault_found_by,fault_found_at\n"
                                    + "mean-level,explanation,What is the mean level?,text/mean-level.md,,,\n"
                                    + "spring-tide,explanation,What does spring mean?,text/spring-tide.md,,,\n"
                                    + "lost-hour,debugging,Where is the lost hour?,text/lost-hour.md,,,\n"
                                    + "flat-line,debugging,Why is the line flat?,text/flat-line.md,It asks for two things.,Orla,2026-03-11T09:00:00Z\n"));
            withTable("sheets", sheets.toString()).accept(files);
            withTable("grades", grades.toString()).accept(files);
        });
        recommendation(as(LEAD), study);
        path = "/api/studies/" + study;
    }

    private static void sheet(
            StringBuilder sheets, String rater, String prompt, int place, boolean withdrawn, boolean repeat) {
        sheets.append("%s,%s,%d,2026-03-10T09:14:04Z,%s,%s%n"
                .formatted(
                        rater, prompt, place, withdrawn ? "2026-03-11T09:14:04Z,A slip" : ",", repeat ? "true" : ""));
    }

    private static void grade(StringBuilder grades, String rater, String prompt, int level, boolean repeat) {
        for (String candidate : List.of("osier", "teasel")) {
            for (String criterion : List.of("correctness", "idiom")) {
                grades.append("%s,%s-%s,%s,%d,%s%n"
                        .formatted(rater, prompt, candidate, criterion, level, repeat ? "true" : ""));
            }
        }
    }

    private JsonNode get(String what) {
        return as(LEAD).get(path + what).json();
    }

    @Test
    public void theReportCountsWhatCounts() {
        JsonNode report = get("/recommendation");
        // By hand: three prompts count; two answers each; three raters' sheets for these less the withdrawn one, and
        // the one that came
        // twice.
        assertThat(report.at("/basis/prompts").asInt()).isEqualTo(3);
        assertThat(report.at("/basis/answers").asInt()).isEqualTo(6);
        assertThat(report.at("/basis/raters").asInt()).isEqualTo(3);
        assertThat(report.at("/basis/withdrawn").asInt()).isEqualTo(1);
        assertThat(report.path("setAside").size()).isEqualTo(1);
        // Neither the withdrawn grades nor those of the second time are in it: all others are 3 of 4.
        assertThat(report.path("overall")
                        .valueStream()
                        .map(s -> s.at("/plain/value").asDouble()))
                .containsOnly(75.0);
        assertThat(report.at("/overall/0/scores").asInt())
                .as("cells of a candidate")
                .isEqualTo(8);
    }

    @Test
    public void theMemoSaysSoInWords() {
        as(LEAD).post(path + "/memos", Map.of("change", ""));
        List<String> said = new ArrayList<>();
        get("/memos/1").at("/document/parts").forEach(p -> {
            p.path("sentences").forEach(s -> said.add(s.asString()));
            p.path("points").forEach(s -> said.add(s.path("text").asString()));
        });
        assertThat(String.join("\n", said))
                .contains("6 answers to 3 prompts, graded by 3 raters")
                .contains("1 more sheet was withdrawn and counts nowhere.")
                .contains("1 prompt was found faulty and counts nowhere.");
    }

    @Test
    public void everyOtherViewCountsTheSame() {
        assertThat(get("/recommendation/prompts").path("prompts").asInt()).isEqualTo(3);
        assertThat(get("/recommendation/prompts").at("/sums/0/answers").asInt()).isEqualTo(3);
        assertThat(get("/recommendation/costs").at("/rows/0/answers").asInt()).isEqualTo(3);
        assertThat(get("/recommendation/work").at("/parts/0/rows/0/answers").asInt())
                .isEqualTo(3);
        JsonNode byKind = get("/recommendation/groups").at("/groupings/0/groups");
        assertThat(byKind.valueStream().mapToInt(g -> g.path("prompts").asInt()).sum())
                .isEqualTo(3);
        assertThat(get("/recommendation/traits").at("/parts/0/rows").size()).isZero();
    }
}
