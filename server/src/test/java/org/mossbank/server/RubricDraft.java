package org.mossbank.server;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.testkit.ApiClient;
import tools.jackson.databind.JsonNode;

/** The rubric as it is read, in the form in which it is written, to be changed by a test. */
public record RubricDraft(int number, long revision, List<Map<String, Object>> criteria) {
    public static RubricDraft of(StudyInTheMaking study) {
        JsonNode rubric = study.get("/rubric");
        List<Map<String, Object>> criteria = new ArrayList<>();
        rubric.path("criteria").forEach(c -> criteria.add(content(c)));
        return new RubricDraft(
                rubric.at("/version/number").asInt(), rubric.path("revision").asLong(), criteria);
    }

    private static Map<String, Object> content(JsonNode criterion) {
        Map<String, Object> content = new LinkedHashMap<>();
        for (String field : List.of("key", "name", "question", "weight", "kindIds", "traits")) {
            content.put(field, criterion.path(field));
        }
        List<Object> levels = new ArrayList<>();
        criterion.path("levels").forEach(l -> levels.add(Map.of("name", l.path("name"), "anchors", l.path("anchors"))));
        content.put("levels", levels);
        return content;
    }

    public Map<String, Object> first() {
        return criteria.get(0);
    }

    public ApiClient.Response write(StudyInTheMaking study) {
        return study.lead.put(
                study.path + "/rubric", Map.of("number", number, "revision", revision, "criteria", criteria));
    }
}
