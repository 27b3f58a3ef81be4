package org.mossbank.server.turn;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Saying of each reply whether it does what was asked. */
public class TurnTest extends ServerTest {
    private static final Map<String, String> DOES = Map.of("verdict", "DOES");

    /** The first answer of a study, with one follow-up. */
    private static JsonNode followedUp(StudyInTheMaking in) {
        JsonNode summary = in.get("/answers").get(0);
        JsonNode answer = in.get("/prompts/" + summary.path("promptId").asString() + "/answers")
                .valueStream()
                .filter(a -> a.path("id").equals(summary.path("id")))
                .findFirst()
                .orElseThrow();
        return write(in, answer, answer.path("text").asString(), "Is that all?");
    }

    private static JsonNode write(StudyInTheMaking in, JsonNode answer, String text, String reply) {
        Map<String, Object> body = new HashMap<>();
        body.put("version", answer.path("version").asLong());
        body.put("outcome", "COMPLETE");
        body.put("text", text);
        body.put("followUps", List.of(Map.of("asked", "Is that all?", "reply", reply)));
        body.put("measures", Map.of("estimated", false));
        return in.put("/answers/" + answer.path("id").asString(), body);
    }

    private static String path(JsonNode answer, int turn) {
        return "/answers/" + answer.path("id").asString() + "/turns/" + turn + "/verdict";
    }

    @Test
    public void isSaidChangedAndTakenBack() {
        StudyInTheMaking own = StudyInTheMaking.ready(as(LEAD));
        JsonNode answer = followedUp(own);
        own.put(path(answer, 0), Map.of("verdict", "SAID_DONE"));
        JsonNode two = own.put(path(answer, 1), DOES);
        assertThat(two.valueStream().map(t -> t.path("verdict").asString())).containsExactly("SAID_DONE", "DOES");
        assertThat(two.at("/0/by").asString()).isEqualTo("Orla Fennick");
        own.put(path(answer, 0), Map.of("verdict", "GAVE_UP"));
        assertThat(own.put(path(answer, 1), Map.of())
                        .valueStream()
                        .map(t -> t.path("verdict").asString()))
                .containsExactly("GAVE_UP");
        assertThat(own.lead.put(own.path + path(answer, 2), DOES).status())
                .as("there is no such reply")
                .isEqualTo(404);
        assertThat(own.lead.put(own.path + path(answer, -1), DOES).status()).isEqualTo(404);
    }

    @Test
    public void holdsOfThatReplyAndOfNoOther() {
        StudyInTheMaking own = StudyInTheMaking.ready(as(LEAD));
        JsonNode answer = followedUp(own);
        own.put(path(answer, 0), Map.of("verdict", "DOES_NOT"));
        own.put(path(answer, 1), DOES);
        write(own, answer, answer.path("text").asString(), "Another reply.");
        assertThat(own.get("/turn-verdicts")
                        .valueStream()
                        .map(t -> t.path("turn").asInt()))
                .as("the first reply is as it was")
                .containsExactly(0);
    }

    @Test
    public void staysAsItIsOnceTheRoundIsOpen() {
        StudyInTheMaking own = StudyInTheMaking.ready(as(LEAD));
        JsonNode answer = own.get("/answers").get(0);
        own.put(path(answer, 0), DOES);
        own.open(1, 0, false);
        ApiClient.Response refused = own.lead.put(own.path + path(answer, 0), Map.of());
        assertThat(refused.problem()).isEqualTo("round-opened");
        assertThat(own.get("/turn-verdicts").size()).isEqualTo(1);
    }

    @Test
    public void goesWithTheArchive() {
        StudyInTheMaking own = StudyInTheMaking.ready(as(LEAD));
        JsonNode answer = followedUp(own);
        own.put(path(answer, 0), Map.of("verdict", "DOES_NOT"));
        own.put(path(answer, 1), DOES);
        String copy = as(LEAD).upload("/api/studies/archive?again=true", export(as(LEAD), own.id()))
                .json()
                .path("studyId")
                .asString();
        assertThat(as(LEAD).get("/api/studies/" + copy + "/turn-verdicts")
                        .json()
                        .valueStream()
                        .map(t ->
                                t.path("turn").asInt() + " " + t.path("verdict").asString()))
                .containsExactly("0 DOES_NOT", "1 DOES");
    }

    @Test
    public void ofAReplyThatIsNotThereIsRefusedWithTheArchive() {
        Map<String, byte[]> files = byHand();
        withTable("turn-verdicts", "answer,turn,verdict,at,by\nmean-level-osier,1,does,2026-03-01T09:00:00Z,Orla\n")
                .accept(files);
        ApiClient.Response refused = as(LEAD).upload("/api/studies/archive?again=true", zip(files));
        assertThat(refused.body()).contains("turn-verdicts.csv").contains("a reply that the answer has");
    }
}
