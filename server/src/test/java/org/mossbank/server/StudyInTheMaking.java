package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.testkit.ApiClient;
import tools.jackson.databind.JsonNode;

/** A study that a lead builds through the interface, step by step, with what the later steps need. */
public final class StudyInTheMaking {
    public final ApiClient lead;
    public final String path;
    private final String id;

    private StudyInTheMaking(ApiClient lead, String id) {
        this.lead = lead;
        this.id = id;
        this.path = "/api/studies/" + id;
    }

    public static StudyInTheMaking begunBy(ApiClient lead) {
        JsonNode study = ok(lead.post("/api/studies", Map.of("title", "Which model for the quay?")));
        return new StudyInTheMaking(lead, study.path("id").asString());
    }

    /** One that is there. */
    public static StudyInTheMaking of(ApiClient lead, String id) {
        return new StudyInTheMaking(lead, id);
    }

    public String id() {
        return id;
    }

    public static JsonNode ok(ApiClient.Response response) {
        assertThat(response.status()).as(response.body()).isBetween(200, 299);
        return response.body().isEmpty() ? null : response.json();
    }

    public JsonNode get(String tail) {
        return ok(lead.get(path + tail));
    }

    public JsonNode post(String tail, Object body) {
        return ok(lead.post(path + tail, body));
    }

    public JsonNode put(String tail, Object body) {
        return ok(lead.put(path + tail, body));
    }

    public String kind(String key) {
        return get("/kinds").values().stream()
                .filter(k -> k.path("key").asString().equals(key))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
    }

    public StudyInTheMaking withClosedBrief() {
        JsonNode brief = get("/brief");
        put(
                "/brief",
                Map.of(
                        "version", brief.path("version").asLong(),
                        "title", brief.path("title").asString(),
                        "brief", Bodies.brief("Which one?", false)));
        post("/brief/close", Map.of());
        return this;
    }

    public StudyInTheMaking withRubric() {
        post("/rubric/publish", Map.of("note", "as it comes"));
        return this;
    }

    public String prompt(String kind, String title) {
        return post("/prompts", Map.of("kindId", kind(kind), "content", Bodies.prompt(title, "Find the cause of it.")))
                .path("id")
                .asString();
    }

    public String candidate(String name) {
        return post("/candidates", Map.of("content", Bodies.candidate(name)))
                .path("id")
                .asString();
    }

    /** Somebody's own answers. */
    public String baseline(String name, String personId) {
        Map<String, Object> content = new HashMap<>(Bodies.candidate(name));
        content.put("baseline", true);
        content.put("personId", personId);
        return post("/candidates", Map.of("content", content)).path("id").asString();
    }

    /** Adds somebody who has an account. */
    public String rater(String signInName) {
        return post("/raters", Map.of("signInName", signInName, "name", signInName))
                .path("accountId")
                .asString();
    }

    public void answered() {
        for (JsonNode prompt : get("/prompts")) {
            for (JsonNode candidate : get("/candidates")) {
                String key = prompt.path("key").asString() + " "
                        + candidate.path("key").asString();
                // Numbered, because raters read it: the name of the candidate must not be in it.
                post(
                        "/answers",
                        Bodies.answer(
                                prompt.path("id").asString(),
                                candidate.path("id").asString(),
                                "Because of " + Math.abs(key.hashCode())));
            }
        }
    }

    /** Brief closed, two prompts of two kinds each, two candidates, all answered, three raters. */
    public static StudyInTheMaking ready(ApiClient lead) {
        StudyInTheMaking study = begunBy(lead).withClosedBrief().withRubric();
        for (String kind : List.of("debugging", "review")) {
            study.prompt(kind, "First of " + kind);
            study.prompt(kind, "Second of " + kind);
        }
        study.candidate("Osierhold");
        study.candidate("Teaselworth");
        List.of("bram", "juri", "sana").forEach(study::rater);
        study.answered();
        return study;
    }

    /** Prompts that nobody of the study wrote, so that the lead may grade answers to them. */
    public StudyInTheMaking ofOthersPrompts() {
        for (JsonNode prompt : get("/prompts")) {
            put(
                    "/prompts/" + prompt.path("id").asString(),
                    Map.of(
                            "version", prompt.path("version").asLong(),
                            "kindId", prompt.at("/kind/id").asString(),
                            "content", prompt.path("content")));
        }
        return this;
    }

    public JsonNode open(int ratersAnAnswer, double repeatShare, boolean leadGrades) {
        return post("/round", Bodies.plan(ratersAnAnswer, repeatShare, leadGrades));
    }

    public static List<JsonNode> list(JsonNode array) {
        List<JsonNode> list = new ArrayList<>();
        array.forEach(list::add);
        return list;
    }
}
