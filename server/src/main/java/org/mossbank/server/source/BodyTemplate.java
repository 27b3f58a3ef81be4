package org.mossbank.server.source;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Fills the JSON that a source is sent. Placeholders stand in JSON strings, so that no text can break out of its place. */
final class BodyTemplate {
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final String TURNS = "[[turns]]";
    private static final String PROMPT = "[[prompt]]";

    private final JsonNode body;
    private final @Nullable JsonNode asked;
    private final @Nullable JsonNode replied;

    private BodyTemplate(JsonNode body, @Nullable JsonNode asked, @Nullable JsonNode replied) {
        this.body = body;
        this.asked = asked;
        this.replied = replied;
    }

    /** A part that is no JSON, or that takes no prompt where it should. */
    static final class Unfit extends IllegalArgumentException {
        private static final long serialVersionUID = 1;

        private final String field;
        private final String rule;

        Unfit(String field, String rule) {
            super(field + " " + rule);
            this.field = field;
            this.rule = rule;
        }

        Sources.SourceFault fault() {
            return new Sources.SourceFault(field, rule);
        }
    }

    /** @throws Unfit if a part is no JSON, or nothing in it takes the prompt */
    static BodyTemplate of(SourceContent source) {
        JsonNode body = parse("body", source.body());
        boolean hasTurns = holds(body, TURNS);
        if (!hasTurns && !holds(body, PROMPT)) {
            throw new Unfit("body", "must hold [[prompt]] or [[turns]] in a string");
        }
        if (!hasTurns) {
            return new BodyTemplate(body, null, null);
        }
        return new BodyTemplate(body, turn("turnAsked", source.turnAsked()), turn("turnReplied", source.turnReplied()));
    }

    private static JsonNode turn(String field, String text) {
        JsonNode turn = parse(field, text);
        if (!holds(turn, "[[text]]")) {
            throw new Unfit(field, "must hold [[text]] in a string");
        }
        return turn;
    }

    private static JsonNode parse(String field, String text) {
        try {
            JsonNode json = JSON.readTree(text);
            if (json != null && !json.isMissingNode()) {
                return json;
            }
        } catch (JacksonException e) {
            throw new Unfit(field, "must be JSON" + line(e));
        }
        throw new Unfit(field, "must be JSON");
    }

    private static String line(JacksonException e) {
        return Optional.ofNullable(e.getLocation())
                .map(l -> ": see line " + l.getLineNr())
                .orElse("");
    }

    private static boolean holds(JsonNode node, String placeholder) {
        return node.isString()
                ? node.asString().contains(placeholder)
                : node.valueStream().anyMatch(child -> holds(child, placeholder));
    }

    /**
     * What is sent.
     *
     * @param turns what was asked and replied so far, then what is asked now
     */
    String fill(List<Turn> turns, int attempt, int outputTokens) {
        Map<String, String> texts = Map.of(
                PROMPT,
                Turn.asOneText(turns),
                "[[attempt]]",
                String.valueOf(attempt),
                "[[output-tokens]]",
                String.valueOf(outputTokens));
        return JSON.writeValueAsString(filled(body, texts, turns));
    }

    private JsonNode filled(JsonNode node, Map<String, String> texts, List<Turn> turns) {
        if (node.isString()) {
            return leaf(node.asString(), texts, turns);
        }
        if (node.isArray()) {
            ArrayNode array = JSON.createArrayNode();
            node.forEach(child -> array.add(filled(child, texts, turns)));
            return array;
        }
        if (node.isObject()) {
            ObjectNode object = JSON.createObjectNode();
            node.forEachEntry((name, child) -> object.set(name, filled(child, texts, turns)));
            return object;
        }
        return node;
    }

    private JsonNode leaf(String text, Map<String, String> texts, List<Turn> turns) {
        if (text.equals(TURNS) && asked != null && replied != null) {
            ArrayNode array = JSON.createArrayNode();
            for (Turn turn : turns) {
                array.add(filled(asked, Map.of("[[text]]", turn.asked()), List.of()));
                if (turn.reply() != null) {
                    array.add(filled(replied, Map.of("[[text]]", turn.reply()), List.of()));
                }
            }
            return array;
        }
        if (text.equals("[[attempt]]") || text.equals("[[output-tokens]]")) {
            return JSON.getNodeFactory().numberNode(Integer.parseInt(texts.get(text)));
        }
        return JSON.getNodeFactory().stringNode(replaced(text, texts));
    }

    /** In one pass, so that a placeholder in a prompt stays what it is. */
    private static String replaced(String text, Map<String, String> texts) {
        StringBuilder all = new StringBuilder();
        int at = 0;
        while (at < text.length()) {
            int from = at;
            List<String> here = new ArrayList<>();
            texts.keySet().stream().filter(p -> text.startsWith(p, from)).forEach(here::add);
            if (here.isEmpty()) {
                all.append(text.charAt(at));
                at++;
            } else {
                all.append(texts.get(here.get(0)));
                at += here.get(0).length();
            }
        }
        return all.toString();
    }
}
