package org.mossbank.server.grouping;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Standings among some of the prompts, of a study that can be worked out by hand. */
public class GroupingTest extends ServerTest {
    /** Osier is the better on explanations alone; sizes and areas are the same for all. */
    @Test
    public void eachGroupStandsByItself() {
        String study = bringIn(SmallStudy.graded(
                (rater, prompt, candidate, criterion) -> candidate.equals("osier") == isOsiers(prompt) ? 4 : 2));
        recommendation(as(LEAD), study);
        JsonNode report =
                as(LEAD).get("/api/studies/" + study + "/recommendation/groups").json();
        JsonNode byKind = report.at("/groupings/0");
        assertThat(byKind.path("by").asString()).isEqualTo("KIND");
        assertThat(byKind.path("groups").size()).isEqualTo(2);
        for (JsonNode group : byKind.path("groups")) {
            assertThat(group.path("prompts").asInt()).isEqualTo(2);
            assertThat(group.at("/standings/0/adjusted/value").asDouble()).isCloseTo(100, within(1e-9));
            assertThat(group.at("/standings/1/adjusted/value").asDouble()).isCloseTo(50, within(1e-9));
        }
        assertThat(byKind.at("/groups/0/standings/0/candidateId"))
                .isNotEqualTo(byKind.at("/groups/1/standings/0/candidateId"));
        assertThat(report.path("groupings").valueStream().map(g -> g.path("by").asString()))
                .as("where prompts do not differ there is nothing to tell apart")
                .doesNotContain("WORDING");
    }

    private static boolean isOsiers(String prompt) {
        return prompt.equals("mean-level") || prompt.equals("spring-tide");
    }
}
