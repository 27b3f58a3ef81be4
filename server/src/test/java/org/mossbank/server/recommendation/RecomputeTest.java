package org.mossbank.server.recommendation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.SkipException;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Whoever has the table of grades comes to the same figures with the recipe that is documented. */
public class RecomputeTest extends ServerTest {
    private String study;
    private String table;

    @BeforeClass(dependsOnMethods = "springTestContextPrepareTestInstance")
    public void close() {
        study = bringIn(withTable("sheets", sheets()).andThen(withTable("grades", grades())));
        assertThat(as(LEAD).get(path("/grades")).problem()).isEqualTo("standings-hidden");
        recommendation(as(LEAD), study);
        table = as(LEAD).get(path("/grades")).body();
    }

    private static String sheets() {
        StringBuilder rows = new StringBuilder("rater,prompt,place,sent_at\n");
        for (String rater : List.of("bram", "juri")) {
            int place = 1;
            for (String prompt : List.of("mean-level", "spring-tide", "lost-hour", "flat-line")) {
                rows.append(rater + "," + prompt + "," + place++ + ",2026-03-10T09:14:04Z\n");
            }
        }
        return rows.toString();
    }

    private static String grades() {
        StringBuilder rows = new StringBuilder("rater,answer,criterion,level\n");
        int seed = 3;
        for (String rater : List.of("bram", "juri")) {
            for (String prompt : List.of("mean-level", "spring-tide", "lost-hour", "flat-line")) {
                for (String candidate : List.of("osier", "teasel")) {
                    for (String criterion : List.of("correctness", "idiom")) {
                        seed = (seed * 7 + 11) % 101;
                        rows.append(rater + "," + prompt + "-" + candidate + "," + criterion + "," + seed % 5 + "\n");
                    }
                }
            }
        }
        return rows.toString();
    }

    private String path(String what) {
        return "/api/studies/" + study + what;
    }

    @Test
    public void everyGradeIsARowOfItsOwn() {
        List<String> rows = table.lines().toList();
        assertThat(rows).hasSize(1 + 2 * 4 * 2 * 2);
        assertThat(rows.get(0))
                .isEqualTo(
                        "study,round,prompt,kind,candidate,answer,criterion,rater,level,highest_level,original,settled,"
                                + "sent_at");
        assertThat(rows.get(1)).startsWith("Tide gauge scripts,main,").endsWith(",2026-03-10T09:14:04Z");
        ApiClient.Response whole = as(LEAD).get(path("/grades"));
        assertThat(whole.raw().headers().firstValue("Content-Type").orElse("")).startsWith("text/csv");
        assertThat(as(RATER).get(path("/grades")).status()).isEqualTo(403);
    }

    @Test
    public void theDocumentedRecipeComesToTheSameFigures() throws Exception {
        Map<String, Double> found = recipe();
        JsonNode agreement = as(LEAD).get(path("/agreement")).json();
        JsonNode recommendation = as(LEAD).get(path("/recommendation")).json();
        for (JsonNode criterion : agreement.path("criteria")) {
            String key = criterion.path("name").asString().toLowerCase(java.util.Locale.ROOT);
            assertThat(found.get("alpha " + key))
                    .isCloseTo(criterion.at("/overall/alpha/value").asDouble(), within(1e-9));
        }
        Map<String, String> names = new TreeMap<>();
        recommendation
                .path("candidates")
                .forEach(c -> names.put(
                        c.path("id").asString(), c.path("name").asString().toLowerCase(java.util.Locale.ROOT)));
        int compared = 0;
        for (JsonNode criterion : recommendation.path("byCriterion")) {
            for (JsonNode standing : criterion.path("standings")) {
                String key = "score " + criterion.path("name").asString().toLowerCase(java.util.Locale.ROOT) + " "
                        + names.get(standing.path("candidateId").asString());
                assertThat(found.get(key))
                        .as(key)
                        .isCloseTo(standing.at("/plain/value").asDouble(), within(1e-9));
                compared++;
            }
        }
        assertThat(compared).isEqualTo(4);
    }

    /** What the Python of the document prints, by its words. */
    private Map<String, Double> recipe() throws IOException, InterruptedException {
        String document = Files.readString(ROOT.resolve("docs/recompute.md"));
        int start = document.indexOf("```python\n") + "```python\n".length();
        Path folder = Files.createTempDirectory("recompute");
        Path program = Files.writeString(
                folder.resolve("recompute.py"), document.substring(start, document.indexOf("```", start)));
        Path grades = Files.writeString(folder.resolve("grades.csv"), table);
        Process python;
        try {
            python = new ProcessBuilder("python3", program.toString(), grades.toString())
                    .redirectErrorStream(true)
                    .start();
        } catch (IOException e) {
            throw new SkipException("there is no python3 here");
        }
        String printed = new String(python.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(python.waitFor()).as(printed).isZero();
        Map<String, Double> found = new TreeMap<>();
        for (String line : new ArrayList<>(printed.lines().toList())) {
            int last = line.lastIndexOf(' ');
            found.put(line.substring(0, last), Double.parseDouble(line.substring(last + 1)));
        }
        return found;
    }
}
