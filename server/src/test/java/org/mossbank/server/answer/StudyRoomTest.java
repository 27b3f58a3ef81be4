package org.mossbank.server.answer;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A study holds so many answers and so much text, as all of it is read at once where it is searched. */
public class StudyRoomTest extends ServerTest {
    private StudyInTheMaking study;
    private JsonNode answer;

    @BeforeClass
    public void begin() {
        study = StudyInTheMaking.ready(as(LEAD));
        answer = study.get("/answers").get(0);
    }

    private Map<String, Object> another(String text) {
        Map<String, Object> body = new HashMap<>(Bodies.written(0, text));
        body.remove("version");
        body.put("promptId", answer.path("promptId").asString());
        body.put("candidateId", answer.path("candidateId").asString());
        return body;
    }

    private void told(ApiClient.Response refused, String words) {
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.body()).contains(words);
    }

    private void change(String sql) throws Exception {
        try (var connection = DATABASE.connect();
                var statement = connection.prepareStatement(sql)) {
            statement.setString(1, study.id());
            statement.executeUpdate();
        }
    }

    /** As if they had come with an archive; {@code %d} of them, each with a text of so many characters. */
    private void fill(int answers, long characters) throws Exception {
        change("delete from answer where study_id = ?::uuid and key like 'filled-%'");
        change("""
                insert into answer (id, study_id, key, prompt_id, candidate_id, attempt, outcome, text, estimated,
                    files_changed, lines_added, lines_removed, changes_complete, version)
                select gen_random_uuid(), study_id, 'filled-' || n, prompt_id, candidate_id, 10 + n, 'COMPLETE',
                    repeat('x', %d), false, 0, 0, 0, true, 0
                from answer, generate_series(1, %d) n where study_id = ?::uuid and attempt = 1 and id = '%s'
                """.formatted(characters, answers, answer.path("id").asString()));
    }

    @Test
    public void holdsSoManyAnswers() throws Exception {
        int there = study.get("/answers").size();
        String line = "{\"prompt\":\"First of review\",\"candidate\":\"Osierhold\",\"text\":\"From a file.\"}\n";
        fill(Answers.MOST - there - 1, 1);

        assertThat(study.lead
                        .post(study.path + "/answers", another("The last."))
                        .status())
                .isEqualTo(201);
        told(study.lead.post(study.path + "/answers", another("One more.")), "more than 20,000");
        told(
                study.lead.upload(study.path + "/answer-files", "answers.jsonl", line.getBytes(StandardCharsets.UTF_8)),
                "more than 20,000");
    }

    @Test(dependsOnMethods = "holdsSoManyAnswers")
    public void holdsSoMuchText() throws Exception {
        fill(32, Answers.MOST_TEXT / 32 - 100);

        told(study.lead.post(study.path + "/answers", another("x".repeat(4_000))), "characters");
        assertThat(study.lead.post(study.path + "/answers", another("Short.")).status())
                .isEqualTo(201);
        told(
                study.lead.put(
                        study.path + "/answers/" + answer.path("id").asString(), Bodies.written(0, "x".repeat(4_000))),
                "characters");
        change("delete from answer where study_id = ?::uuid and key like 'filled-%'");
        assertThat(study.lead
                        .post(study.path + "/answers", another("x".repeat(4_000)))
                        .status())
                .isEqualTo(201);
    }
}
