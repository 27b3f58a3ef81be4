package org.mossbank.server.expected;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What was expected and claimed, against what came out. */
public class ExpectedTest extends ServerTest {
    private static final double EXACT = 1e-9;

    /** Bram expects osier and gives it 4, juri expects the other in their own words and gives everything 2. */
    private String closed() {
        String study = bringIn(SmallStudy.graded((rater, prompt, candidate, criterion) ->
                        rater.equals("bram") && candidate.equals("osier") ? 4 : 2)
                .andThen(withTable(
                        "expectations",
                        "rater,expects,uses_today,declared_at\nbram,osier ,Osier,2026-03-01T09:00:00Z\n"
                                + "juri,the one with the thistle,,2026-03-01T10:00:00Z\n"))
                .andThen(withTable(
                        "claims",
                        "candidate,measure,value,higher_is_better,source,as_of\n"
                                + "osier,Solved of 100,41,true,A page of its maker,2026-02-01\n"
                                + "teasel,Solved of 100,57,true,A page of its maker,\n"
                                + "osier,Faults in 100 lines,3,,A paper,\n"
                                + "teasel,Faults in 100 lines,9,,A paper,\n")));
        recommendation(as(LEAD), study);
        return "/api/studies/" + study;
    }

    private static String idOf(ApiClient lead, String path, String key) {
        return lead.get(path + "/candidates")
                .json()
                .valueStream()
                .filter(c -> c.path("key").asString().equals(key))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
    }

    private JsonNode report(String path) {
        return as(LEAD).get(path + "/recommendation/expected").json();
    }

    @Test
    public void wordsThatAreANameAreTakenForItOthersWaitForTheLead() {
        String path = closed();
        JsonNode people = report(path).path("expectations");
        assertThat(people.at("/0/byName").asBoolean()).isTrue();
        assertThat(people.at("/0/candidateId").asString()).isEqualTo(idOf(as(LEAD), path, "osier"));
        assertThat(people.at("/0/rank").asInt()).isEqualTo(1);
        assertThat(people.at("/1").has("candidateId")).isFalse();

        String juri = people.at("/1/accountId").asString();
        String teasel = idOf(as(LEAD), path, "teasel");
        assertThat(as(LEAD).put(path + "/expectations/" + juri + "/match", Map.of("candidateId", teasel))
                        .status())
                .isEqualTo(204);
        JsonNode matched = report(path).at("/expectations/1");
        assertThat(matched.path("candidateId").asString()).isEqualTo(teasel);
        assertThat(matched.path("rank").asInt()).isEqualTo(2);
        assertThat(as(LEAD).put(path + "/expectations/" + juri + "/match", Map.of())
                        .status())
                .isEqualTo(204);
        assertThat(report(path).at("/expectations/1").has("candidateId")).isFalse();
        String stranger = closed();
        assertThat(as(LEAD).put(
                                path + "/expectations/" + juri + "/match",
                                Map.of("candidateId", idOf(as(LEAD), stranger, "teasel")))
                        .status())
                .isEqualTo(400);
    }

    @Test
    public void favouritesAreTested() {
        String path = closed();
        String juri = report(path).at("/expectations/1/accountId").asString();
        as(LEAD).put(path + "/expectations/" + juri + "/match", Map.of("candidateId", idOf(as(LEAD), path, "teasel")));
        JsonNode favourites = report(path).path("favourites");
        assertThat(favourites.path("raters").asInt()).isEqualTo(2);
        // By hand: bram gives osier 50 points more than teasel, juri 0 more: 50 and, for teasel, 0 - (-50).
        assertThat(favourites.at("/higher/value").asDouble()).isCloseTo(50, within(EXACT));
        // One of two ways to deal the favourites out is as much.
        assertThat(favourites.at("/p/value").asDouble()).isCloseTo(0.5, within(EXACT));
    }

    @Test
    public void claimsAreHeldAgainstScores() {
        JsonNode measures = report(closed()).path("measures");
        assertThat(measures.at("/0/measure").asString()).isEqualTo("Solved of 100");
        // Osier stands higher here and is claimed to solve less, and to make fewer faults.
        assertThat(measures.at("/0/rho/value").asDouble()).isEqualTo(-1);
        assertThat(measures.at("/1/higherIsBetter").asBoolean()).isFalse();
        assertThat(measures.at("/1/rho/value").asDouble()).isEqualTo(1);
        assertThat(measures.at("/0/claims/0/asOf").asString()).isEqualTo("2026-02-01");
    }

    @Test
    public void matchesAndClaimsGoWithTheArchive() {
        String path = closed();
        String juri = report(path).at("/expectations/1/accountId").asString();
        as(LEAD).put(path + "/expectations/" + juri + "/match", Map.of("candidateId", idOf(as(LEAD), path, "teasel")));
        String copy = "/api/studies/"
                + as(LEAD).upload(
                                "/api/studies/archive?again=true",
                                export(as(LEAD), path.substring("/api/studies/".length())))
                        .json()
                        .path("studyId")
                        .asString();
        assertThat(report(copy).at("/expectations/1/candidateId").asString()).isEqualTo(idOf(as(LEAD), copy, "teasel"));
        assertThat(report(copy).path("measures").size()).isEqualTo(2);
    }

    @Test
    public void claimsAreWrittenBeforeTheRoundAlone() {
        StudyInTheMaking own = StudyInTheMaking.ready(as(LEAD));
        Map<String, Object> claim = new HashMap<>(Map.of(
                "candidateId",
                own.get("/candidates").at("/0/id").asString(),
                "measure",
                "Solved of 100",
                "value",
                41.5,
                "higherIsBetter",
                true,
                "source",
                "A page"));
        assertThat(own.put("/claims", Map.of("claims", List.of(claim))).size()).isEqualTo(1);
        assertThat(own.put("/claims", Map.of("claims", List.of(claim, claim))).size())
                .as("all of them are written anew")
                .isEqualTo(2);
        claim.put("source", " ");
        assertThat(own.lead
                        .put(own.path + "/claims", Map.of("claims", List.of(claim)))
                        .status())
                .as("a figure without a source is none")
                .isEqualTo(400);
        own.open(1, 0, false);
        assertThat(own.lead
                        .put(own.path + "/claims", Map.of("claims", List.of()))
                        .problem())
                .isEqualTo("round-opened");
        assertThat(own.get("/claims").size()).isEqualTo(2);
    }
}
