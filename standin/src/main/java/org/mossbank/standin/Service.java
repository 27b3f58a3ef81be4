package org.mossbank.standin;

import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * A service that is played, with its wire shape.
 *
 * @param name           the candidate whose answers it gives
 * @param firstOutputMs  milliseconds to the first output, about
 * @param tokensASecond  how fast it writes, about
 */
record Service(String name, Wire wire, int firstOutputMs, int tokensASecond) {
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final int CHARACTERS_A_TOKEN = 4;
    private static final int CHARACTERS_A_PIECE = 24;

    /** Those that are played. */
    static final List<Service> ALL = List.of(
            new Service("quillwort", Wire.WHOLE_WITH_COUNTS, 900, 120),
            new Service("brindle", Wire.EVENTS_WITH_COUNTS, 250, 160),
            new Service("tansy", Wire.EVENTS_WITHOUT_COUNTS, 120, 240));

    /** Wire shapes, made up for this stand-in. */
    enum Wire {
        /** Asked with {@code {"ask": {"words": …}}}; says {@code {"said": {"words": …}, "took": {…}, "ended": …}}. */
        WHOLE_WITH_COUNTS,
        /** Asked with {@code {"exchange": [{"by": "us", "words": …}]}}; each event holds {@code {"more": …}}. */
        EVENTS_WITH_COUNTS,
        /** As before, but no event counts anything and the stream just ends. */
        EVENTS_WITHOUT_COUNTS;

        boolean isEvents() {
            return this != WHOLE_WITH_COUNTS;
        }
    }

    /** All that it was told, as one text. */
    String asked(JsonNode body) {
        if (wire == Wire.WHOLE_WITH_COUNTS) {
            return body.at("/ask/words").asString("");
        }
        StringBuilder all = new StringBuilder();
        body.path("exchange")
                .forEach(turn -> all.append(turn.path("words").asString("")).append("\n\n"));
        return all.toString();
    }

    /** How often it was told something. */
    long turns(JsonNode body) {
        return wire == Wire.WHOLE_WITH_COUNTS
                ? 1
                : body.path("exchange")
                        .valueStream()
                        .filter(t -> t.path("by").asString("").equals("us"))
                        .count();
    }

    int attempt(JsonNode body) {
        return Math.max(1, body.path("take").asInt(1));
    }

    static long tokens(String text) {
        return (text.length() + CHARACTERS_A_TOKEN - 1L) / CHARACTERS_A_TOKEN;
    }

    private String madeBy(int version) {
        return name + "-" + version;
    }

    /** The whole answer as one document. */
    String document(String asked, String text, String ended, int version) {
        ObjectNode json = JSON.createObjectNode();
        json.put("made_by", madeBy(version));
        json.putObject("said").put("words", text);
        json.putObject("took").put("read", tokens(asked)).put("wrote", tokens(text));
        json.put("ended", ended);
        return JSON.writeValueAsString(json);
    }

    /** The answer in events, without the one that ends it. */
    List<String> events(String text) {
        List<String> events = new ArrayList<>();
        for (int at = 0; at < text.length(); at += CHARACTERS_A_PIECE) {
            String piece = text.substring(at, Math.min(text.length(), at + CHARACTERS_A_PIECE));
            events.add(JSON.writeValueAsString(JSON.createObjectNode().put("more", piece)));
        }
        return events;
    }

    /** What comes after the last piece; empty if the stream just ends. */
    List<String> lastEvents(String asked, String text, String ended, int version) {
        if (wire == Wire.EVENTS_WITHOUT_COUNTS) {
            return List.of();
        }
        ObjectNode json = JSON.createObjectNode();
        json.put("made_by", madeBy(version));
        json.putObject("took").put("read", tokens(asked)).put("wrote", tokens(text));
        json.put("ended", ended);
        return List.of(JSON.writeValueAsString(json), "over");
    }
}
