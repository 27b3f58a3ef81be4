package org.mossbank.server.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;

/** What is measured, who reads it, and what is never in it. */
public class MetricsTest extends ServerTest {
    private static final String PATH = "/actuator/prometheus";

    private ApiClient program() {
        ApiClient program = nobody();
        program.header("Authorization", "Bearer " + METRICS_TOKEN);
        return program;
    }

    @Test
    public void isReadByWhoBringsTheTokenAndByAdministrators() {
        assertThat(nobody().get(PATH).status()).isEqualTo(401);
        assertThat(as(RATER).get(PATH).status()).isEqualTo(403);
        assertThat(as(LEAD).get(PATH).status()).isEqualTo(200);
        assertThat(program().get(PATH).status()).isEqualTo(200);
        ApiClient wrong = nobody();
        wrong.header("Authorization", "Bearer " + METRICS_TOKEN + "s");
        assertThat(wrong.get(PATH).status()).isEqualTo(401);
    }

    @Test
    public void tellsOfRequestsGradesQueuesComputationsAndThePool() {
        as(LEAD).get("/api/studies");
        assertThat(program().get(PATH).body())
                .contains(
                        "http_server_requests_seconds_count",
                        "mossbank_grades_acknowledged_total",
                        "mossbank_queue_age_seconds{queue=\"answers\"}",
                        "mossbank_queue_age_seconds{queue=\"jobs\"}",
                        "mossbank_queue_trials",
                        "mossbank_computations_seconds_count",
                        "hikaricp_connections_active{pool=\"at-once\"}",
                        "hikaricp_connections_active{pool=\"whole\"}");
    }

    @Test
    public void countsAGradeOnceItIsAcknowledged() {
        double before = grades();
        String study = bringIn();
        ApiClient rater = as(RATER);
        String sheet = sheets(rater, study).get(0).path("id").asString();
        var shown = rater.get("/api/sheets/" + sheet).json();
        rater.put(
                "/api/sheets/" + sheet + "/answers/" + shown.at("/answers/0/id").asString() + "/grades/"
                        + shown.at("/criteria/0/id").asString(),
                grade(0, 3));
        assertThat(grades()).isGreaterThanOrEqualTo(before + 1);
    }

    private double grades() {
        return program()
                .get(PATH)
                .body()
                .lines()
                .filter(l -> l.startsWith("mossbank_grades_acknowledged_total"))
                .mapToDouble(l -> Double.parseDouble(l.substring(l.lastIndexOf(' '))))
                .findFirst()
                .orElse(0);
    }

    @Test
    public void namesNoCandidateNoPersonAndNoSecret() {
        String study = bringIn();
        as(LEAD).get("/api/studies/" + study + "/candidates");
        assertThat(program().get(PATH).body())
                .doesNotContain("Quillwort", "Brindle", "Tansy", "orla", study, SECRET, METRICS_TOKEN);
    }

    @Test
    public void everyAnswerHasTheIdByWhichTheLogTellsOfIt() {
        ApiClient.Response one = nobody().get("/api/setup");
        ApiClient.Response other = nobody().get("/api/nowhere");
        String id = one.raw().headers().firstValue("X-Request-Id").orElseThrow();
        assertThat(id)
                .hasSize(36)
                .isNotEqualTo(other.raw().headers().firstValue("X-Request-Id").orElseThrow());
    }
}
