package org.mossbank.server.recommendation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.mossbank.core.decision.Allowance;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** How candidates stand is hidden until grading ends, but for the looks that the brief allows. */
public class LooksTest extends ServerTest {
    private static Consumer<Map<String, byte[]>> looks(int looks) {
        return files -> files.put(
                "study.json",
                bytes(new String(files.get("study.json"), StandardCharsets.UTF_8)
                        .replace("\"minimumRaters\": 2", "\"minimumRaters\": 2, \"looks\": " + looks)));
    }

    private JsonNode looksAt(String study) {
        return as(LEAD).get("/api/studies/" + study + "/looks").json();
    }

    private ApiClient.Response take(String study) {
        return as(LEAD).post("/api/studies/" + study + "/looks", Map.of());
    }

    /** Both raters grade the first so many prompts of the study. */
    private void grade(String study, int prompts) {
        List<String> titles = as(LEAD).get("/api/studies/" + study + "/prompts/titles")
                .json()
                .valueStream()
                .map(t -> t.path("title").asString())
                .sorted()
                .limit(prompts)
                .toList();
        for (String name : List.of(RATER, "juri")) {
            for (JsonNode sheet : sheets(as(name), study)) {
                if (titles.contains(sheet.path("promptTitle").asString())
                        && sheet.path("sentAt").asString("").isEmpty()) {
                    gradeAndSend(as(name), sheet.path("id").asString(), 3);
                }
            }
        }
    }

    @Test
    public void nobodySeesStandingsWhileRatersGrade() {
        String study = bringIn();
        grade(study, 2);
        for (String hidden : List.of(
                "/recommendation",
                "/recommendation/robustness",
                "/recommendation/prompts",
                "/memos",
                "/memos/1",
                "/recommendation/traits",
                "/recommendation/costs",
                "/recommendation/work",
                "/recommendation/groups",
                "/recommendation/expected",
                "/recommendation/evidence",
                "/recommendation/since",
                "/recommendation/team-costs")) {
            assertThat(as(LEAD).get("/api/studies/" + study + hidden).problem()).isEqualTo("standings-hidden");
        }
        JsonNode steps = as(LEAD).get("/api/studies/" + study + "/steps").json();
        JsonNode step = steps.get(steps.size() - 1);
        assertThat(step.path("step").asString()).isEqualTo("RECOMMENDATION");
        assertThat(step.path("line").asString()).isEqualTo("hidden until grading ends");
        assertThat(take(study).problem()).as("the brief allows one, at the end").isEqualTo("not-ready");
    }

    @Test
    public void aLookShowsPromptsThatCountAndStaysAsItWas() {
        String study = bringIn(looks(2));
        assertThat(take(study).problem()).as("nothing counts yet").isEqualTo("not-ready");
        grade(study, 2);
        // One rater of two: this prompt does not count yet.
        gradeAndSend(
                as(RATER),
                sheets(as(RATER), study).stream()
                        .filter(s -> s.path("sentAt").asString("").isEmpty())
                        .findFirst()
                        .orElseThrow()
                        .path("id")
                        .asString(),
                0);
        JsonNode before = looksAt(study);
        assertThat(before.path("counted").asInt()).isEqualTo(2);
        assertThat(before.path("planned").asInt()).isEqualTo(4);
        assertThat(take(study).status()).isEqualTo(201);
        JsonNode seen = as(LEAD).get("/api/studies/" + study + "/looks/1").json();
        assertThat(seen.at("/basis/prompts").asInt()).isEqualTo(2);
        // Everything is at 75 of 100 on the prompts that count; the third is not in it.
        seen.path("overall")
                .forEach(s -> assertThat(s.at("/plain/value").asDouble()).isEqualTo(75));
        assertThat(take(study).problem()).as("the second is the end").isEqualTo("not-ready");
        grade(study, 4);
        assertThat(as(LEAD).get("/api/studies/" + study + "/looks/1").json()).isEqualTo(seen);
        assertThat(as(LEAD).get("/api/studies/" + study + "/acts")
                        .json()
                        .at("/0/sort")
                        .asString())
                .isEqualTo("LOOK_TAKEN");
        assertThat(as(RATER).get("/api/studies/" + study + "/looks/1").status()).isEqualTo(403);
    }

    @Test
    public void looksSpendWhatTheyMayAndTheLastWhatIsLeft() {
        String study = bringIn(looks(3));
        grade(study, 2);
        take(study);
        assertThat(take(study).problem())
                .as("nothing new counts since the last look")
                .isEqualTo("not-ready");
        JsonNode seen = as(LEAD).get("/api/studies/" + study + "/looks/1").json();
        assertThat(seen.at("/allowance/overall").asDouble())
                .isCloseTo(Allowance.OVERALL.at(List.of(0.5)).overall(), within(1e-12));
        grade(study, 3);
        assertThat(take(study).json().path("number").asInt()).isEqualTo(2);
        grade(study, 4);
        JsonNode end = recommendation(as(LEAD), study);
        assertThat(end.at("/allowance/overall").asDouble())
                .isCloseTo(Allowance.OVERALL.at(List.of(0.5, 0.75, 1.0)).overall(), within(1e-12));
        assertThat(end.at("/looking/taken").size()).isEqualTo(2);
    }

    @Test
    public void oneLookSpendsAllOfIt() {
        String study = bringIn(looks(1));
        grade(study, 3);
        assertThat(recommendation(as(LEAD), study).at("/allowance/overall").asDouble())
                .isEqualTo(0.05);
    }

    @Test
    public void looksGoThroughAnArchive() {
        String study = bringIn(looks(2));
        grade(study, 2);
        take(study);
        grade(study, 4);
        JsonNode end = recommendation(as(LEAD), study);
        String again = as(LEAD).upload("/api/studies/archive?again=true", export(as(LEAD), study))
                .json()
                .path("studyId")
                .asString();
        JsonNode same = recommendation(as(LEAD), again);
        assertThat(same.path("looking")).isEqualTo(end.path("looking"));
        assertThat(same.path("allowance")).isEqualTo(end.path("allowance"));
        assertThat(as(LEAD).get("/api/studies/" + again + "/looks/1").status())
                .as("what was seen stays where it was seen")
                .isEqualTo(404);
    }

    @Test
    public void moreLooksThanTheBriefAllowsAreAFault() {
        ApiClient.Response refused = as(LEAD).upload(
                        "/api/studies/archive?again=true",
                        zip(changed(looks(2).andThen(withTable(
                                "looks",
                                "at,by,counted,planned,outcome,headline\n"
                                        + "2026-03-11T10:00:00Z,Orla,1,4,undecided,Undecided.\n"
                                        + "2026-03-12T10:00:00Z,Orla,2,4,undecided,Undecided.\n")))));
        assertThat(refused.problem()).isEqualTo("archive-refused");
        assertThat(refused.body()).contains("fewer looks than the brief allows");
    }

    private static Map<String, byte[]> changed(Consumer<Map<String, byte[]>> change) {
        Map<String, byte[]> files = byHand();
        change.accept(files);
        return files;
    }
}
