package org.mossbank.server;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.testkit.ApiClient;
import tools.jackson.databind.JsonNode;

/** Well-formed bodies for what a lead sends while preparing a study. */
public final class Bodies {
    private Bodies() {}

    public static Map<String, Object> prompt(String title, String request) {
        return Map.of(
                "title",
                title,
                "language",
                "Java 17",
                "request",
                request,
                "areas",
                List.of("back end"),
                "size",
                "SMALL",
                "constraints",
                List.of(),
                "startingFiles",
                List.of(),
                "keyPoints",
                List.of(Map.of("stance", "MUST_CONTAIN", "text", "the cause", "weight", 1)),
                "referenceAnswer",
                "",
                "followUps",
                List.of());
    }

    public static Map<String, Object> candidate(String name) {
        return Map.of(
                "name",
                name,
                "version",
                "1.0",
                "settings",
                List.of(Map.of("name", "effort", "value", "high")),
                "price",
                Map.of("caps", ""),
                "note",
                "",
                "considerations",
                List.of(),
                "baseline",
                false);
    }

    public static Map<String, Object> answer(String promptId, String candidateId, String text) {
        return Map.of(
                "promptId",
                promptId,
                "candidateId",
                candidateId,
                "outcome",
                "COMPLETE",
                "text",
                text,
                "followUps",
                List.of(),
                "measures",
                Map.of("totalMs", 1200, "estimated", false));
    }

    /** An answer as it is written again. */
    public static Map<String, Object> written(long version, String text) {
        return Map.of(
                "version",
                version,
                "outcome",
                "COMPLETE",
                "text",
                text,
                "followUps",
                List.of(),
                "measures",
                Map.of("estimated", false));
    }

    /** A source that answers in one document, as the stand-in's first does. */
    public static Map<String, Object> source(String url) {
        Map<String, Object> source = new HashMap<>();
        source.put("url", url);
        source.put("method", "POST");
        source.put("headers", List.of(Map.of("name", "X-Pass", "value", "[[secret STANDIN]]")));
        source.put(
                "body",
                "{\"ask\": {\"words\": \"[[prompt]]\"}, \"take\": \"[[attempt]]\", \"most\": \"[[output-tokens]]\"}");
        source.put("turnAsked", "");
        source.put("turnReplied", "");
        source.put("shape", "WHOLE");
        source.put("textPointer", "/said/words");
        source.put("inputTokensPointer", "/took/read");
        source.put("outputTokensPointer", "/took/wrote");
        source.put("finishPointer", "/ended");
        source.put("modelPointer", "/made_by");
        source.put("completeWords", List.of("done"));
        source.put("refusedWords", List.of("declined"));
        source.put("endMark", "");
        source.put("mostOutputTokens", 2000);
        source.put("timeLimitMs", 20000);
        source.put("mostTries", 3);
        source.put("mostAtOnce", 4);
        return source;
    }

    /** A source that answers in events with turns, as the stand-in's second does. */
    public static Map<String, Object> eventSource(String url) {
        Map<String, Object> source = source(url);
        source.put("body", "{\"exchange\": \"[[turns]]\", \"take\": \"[[attempt]]\"}");
        source.put("turnAsked", "{\"by\": \"us\", \"words\": \"[[text]]\"}");
        source.put("turnReplied", "{\"by\": \"you\", \"words\": \"[[text]]\"}");
        source.put("shape", "EVENTS");
        source.put("textPointer", "/more");
        source.put("endMark", "over");
        return source;
    }

    public static Map<String, Object> run(List<String> promptIds, List<String> candidateIds) {
        return Map.of(
                "promptIds",
                promptIds,
                "candidateIds",
                candidateIds,
                "attempts",
                1,
                "onlyMissing",
                false,
                "followUps",
                0);
    }

    /** What raters send from the desk, and leads about sheets. */
    private static Object atTheDesk(String tail, Map<String, String> ids) {
        Map<String, Object> change =
                new HashMap<>(Map.of("changeId", java.util.UUID.randomUUID().toString(), "baseRevision", 0));
        return switch (tail.replaceAll("^/api/sheets/\\*", "").replaceAll("^/answers/\\*", "")) {
            case "/works" -> with(change, "works", "AS_IS");
            case "/preference" -> with(change, "place", 1);
            case "/coverage/0" -> with(change, "verdict", "PARTLY");
            case "/remarks/*" -> with(change, "remark", Map.of("stance", "FAULT", "trait", "", "words", "No."));
            case "/guess" -> with(change, "noIdea", true);
            case "/repairs" -> Map.of("files", List.of(Map.of("path", "a.sh", "text", "true")));
            case "/inputs" -> Map.of("arguments", List.of(), "input", "1");
            case "/time" ->
                Map.of(
                        "windowId",
                        java.util.UUID.randomUUID().toString(),
                        "answers",
                        List.of(Map.of("answerId", ids.get("answerId"), "ms", 5000)));
            case "/sheets/*/withdraw", "/sheets/*/give-back" -> Map.of("reason", "Ill.");
            case "/sheets/*/hand-over" -> Map.of("raterId", ids.get("raterId"), "reason", "Ill.");
            case "/raters/*/reminders" -> Map.of("words", "Could you?");
            default -> Map.of();
        };
    }

    private static Map<String, Object> with(Map<String, Object> change, String name, Object value) {
        change.put(name, value);
        return change;
    }

    public static Map<String, Object> rule() {
        return Map.ofEntries(
                Map.entry("coefficient", "ALPHA_ORDINAL"),
                Map.entry("agreementFloor", 0.6),
                Map.entry("floorOn", "ESTIMATE"),
                Map.entry("margin", 5),
                Map.entry("minimumRaters", 2),
                Map.entry("tieBreak", "COST"),
                Map.entry("strictOnMasking", false),
                Map.entry("strictOnSplits", false),
                Map.entry("byKind", false),
                Map.entry("looks", 1),
                Map.entry("failedAnswers", "LOWEST"));
    }

    public static Map<String, Object> brief(String question, boolean asksExpectations) {
        return Map.of(
                "question",
                question,
                "audience",
                "us",
                "background",
                "",
                "rule",
                rule(),
                "asksExpectations",
                asksExpectations,
                "raters",
                Map.of(
                        "reasons",
                        "AT_THE_ENDS",
                        "showsReference",
                        false,
                        "asksSourceGuess",
                        false,
                        "trials",
                        "AFTER_OWN_GRADE"));
    }

    public static Map<String, Object> plan(int ratersAnAnswer, double repeatShare, boolean leadGrades) {
        return Map.of("ratersAnAnswer", ratersAnAnswer, "repeatShare", repeatShare, "leadGrades", leadGrades);
    }

    /** @param ids ids of things there are, by the name they have in addresses */
    public static Object of(String address, ApiClient lead, Map<String, String> ids) {
        String study = "/api/studies/" + ids.get("studyId");
        String tail = address.replace(study, "").replaceAll("/[0-9a-f-]{36,64}", "/*");
        return switch (tail) {
            case "/api/studies" -> Map.of("title", "Another one");
            case "/brief" -> Map.of("version", 0, "title", "T", "brief", brief("Q?", false));
            case "/brief/reopen" -> Map.of("reason", "A floor was mistyped.");
            case "/forecast", "/forecast/withholding", "/forecast/uses" ->
                Map.of(
                        "promptsByKind", List.of(2, 2),
                        "candidates", 2,
                        "attempts", 1,
                        "raters", 2,
                        "ratersAnAnswer", 2,
                        "minutes", 5,
                        "gradedBy", "MIDDLING",
                        "effort", "FIRST",
                        "rule", rule());
            case "/leavers" -> Map.of("shown", "BY_NAME");
            case "/raters" -> Map.of("signInName", "newcomer", "name", "New Comer");
            case "/expectation" -> Map.of("expects", "", "usesToday", "nothing");
            case "/kinds" -> Map.of("name", "Advice");
            case "/prompts" -> Map.of("kindId", ids.get("kindId"), "content", prompt("T", "R"));
            case "/prompts/*" -> Map.of("version", 0, "kindId", ids.get("kindId"), "content", prompt("T", "R"));
            case "/prompts/*/variants" -> Map.of("wording", "VAGUE");
            case "/prompts/*/fault", "/prompts/*/fault/take-back" -> Map.of("reason", "Its wording was unclear.");
            case "/prompts/*/read-backs" -> Map.of("readerId", ids.get("raterId"));
            case "/prompts/from-bank" ->
                Map.of("bankPromptId", ids.get("bankPromptId"), "version", 1, "kindId", ids.get("kindId"));
            case "/starting-code/git/listing" -> Map.of("repository", "/nowhere", "commit", "main");
            case "/starting-code/git" -> Map.of("repository", "/nowhere", "commit", "main", "paths", List.of("A.java"));
            case "/read-backs/*/verdict" -> Map.of("verdict", "UNCLEAR");
            case "/api/read-backs/*" -> Map.of("answer", "To find the cause.");
            case "/candidates" -> Map.of("content", candidate("Sedge"));
            case "/candidates/*" -> Map.of("version", 0, "content", candidate("Sedge"));
            case "/candidates/*/considerations" -> {
                JsonNode known = lead.get(study + "/candidates").json().get(0);
                yield Map.of(
                        "version",
                        known.path("version").asLong(),
                        "considerations",
                        List.of(),
                        "reason",
                        "A word was wrong.");
            }
            case "/answers" -> answer(ids.get("promptId"), ids.get("candidateId"), "text");
            case "/answers/*" -> written(0, "t");
            case "/follow-up-rule" -> Map.of("version", -1, "most", 2);
            case "/sources/*" -> Map.of("version", -1, "content", source("http://127.0.0.1:1/ask"));
            case "/sources/*/try-out" -> Map.of("text", "Are you there?");
            case "/runs", "/runs/forecast" -> run(List.of(ids.get("promptId")), List.of(ids.get("candidateId")));
            case "/runs/follow-up" ->
                Map.of("answerId", ids.getOrDefault("keptAnswerId", ids.get("promptId")), "asked", "Why?");
            case "/secrets/*" -> Map.of("why", "It opens nothing.");
            case "/runs/*/stop" -> Map.of("cutOff", false);
            case "/masking/words" -> Map.of("version", 0, "words", List.of("Moor Works"));
            case "/masking/decisions" ->
                Map.of(
                        "decisions",
                        List.of(Map.of("answerId", ids.getOrDefault("answerId", ids.get("promptId")), "from", 0)));
            case "/rubric" -> Map.of("number", 1, "revision", 0, "criteria", List.of());
            case "/rubric/publish" -> Map.of("note", "");
            case "/rubric/examples" ->
                Map.of("criteria", List.of(Map.of("key", "correctness", "weight", 1, "highestLevel", 4)));
            case "/round/close", "/round/reopen" -> Map.of("reason", "Enough is graded.");
            case "/plan", "/round" -> plan(2, 0, false);
            default -> atTheDesk(tail, ids);
        };
    }
}
