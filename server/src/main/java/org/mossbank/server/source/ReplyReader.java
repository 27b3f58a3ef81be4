package org.mossbank.server.source;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonPointer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads a service's answer: one JSON document, or server-sent events (WHATWG HTML, section 9.2.6) of JSON documents.
 */
final class ReplyReader {
    /** More than any answer; a service that sends without end is cut off. */
    private static final int MOST_BYTES = 8 << 20;

    private static final JsonMapper JSON = JsonMapper.shared();

    private final SourceContent source;
    private final LongSupplier elapsedMs;
    private final Reply.Progress progress;
    private final StringBuilder text = new StringBuilder();
    private @Nullable Long firstOutputMs;
    private @Nullable Long inputTokens;
    private @Nullable Long outputTokens;
    private @Nullable String model;
    private @Nullable String finish;
    private boolean ended;

    /** @param elapsedMs milliseconds since the request was sent */
    ReplyReader(SourceContent source, LongSupplier elapsedMs, Reply.Progress progress) {
        this.source = source;
        this.elapsedMs = elapsedMs;
        this.progress = progress;
    }

    /** What came so far. */
    record Came(
            String text,
            @Nullable Long firstOutputMs,
            @Nullable Long inputTokens,
            @Nullable Long outputTokens,
            @Nullable String model) {}

    Came came() {
        return new Came(text.toString(), firstOutputMs, inputTokens, outputTokens, model);
    }

    /** What a service sent that cannot be read. */
    static final class Unreadable extends IOException {
        private static final long serialVersionUID = 1L;

        Unreadable(String message) {
            super(message);
        }
    }

    /** @throws Unreadable with the reason in words */
    void read(InputStream in) throws IOException {
        InputStream limited = new LimitedStream(in);
        if (source.shape() == SourceContent.Shape.WHOLE) {
            take(parse(new String(limited.readAllBytes(), StandardCharsets.UTF_8)));
            ended = true;
        } else {
            events(new BufferedReader(new InputStreamReader(limited, StandardCharsets.UTF_8)));
        }
    }

    private static JsonNode parse(String document) throws Unreadable {
        try {
            JsonNode json = JSON.readTree(document);
            if (json != null && json.isContainer()) {
                return json;
            }
        } catch (JacksonException e) {
            throw new Unreadable("It sent what is no JSON.");
        }
        throw new Unreadable("It sent what is no JSON document.");
    }

    private void events(BufferedReader lines) throws IOException {
        StringBuilder data = new StringBuilder();
        for (String line = lines.readLine(); line != null && !ended; line = lines.readLine()) {
            if (line.isEmpty()) {
                dispatch(data);
            } else if (line.startsWith("data:")) {
                if (!data.isEmpty()) {
                    data.append('\n');
                }
                data.append(line.startsWith("data: ") ? line.substring(6) : line.substring(5));
            }
        }
        if (!ended && source.endMark().isEmpty()) {
            dispatch(data);
            ended = true;
        }
    }

    private void dispatch(StringBuilder data) throws Unreadable {
        String event = data.toString();
        data.setLength(0);
        if (event.isEmpty()) {
            return;
        }
        if (!source.endMark().isEmpty() && event.equals(source.endMark())) {
            ended = true;
        } else {
            take(parse(event));
        }
    }

    private void take(JsonNode json) {
        at(json, source.textPointer()).filter(JsonNode::isString).ifPresent(added -> {
            if (!added.asString().isEmpty()) {
                if (firstOutputMs == null) {
                    firstOutputMs = elapsedMs.getAsLong();
                }
                text.append(added.asString());
                progress.came(text.toString(), firstOutputMs);
            }
        });
        inputTokens = count(json, source.inputTokensPointer()).orElse(inputTokens);
        outputTokens = count(json, source.outputTokensPointer()).orElse(outputTokens);
        at(json, source.modelPointer())
                .filter(JsonNode::isString)
                .map(n -> n.asString().strip())
                .filter(n -> !n.isEmpty())
                .ifPresent(n -> model = n);
        at(json, source.finishPointer()).filter(JsonNode::isString).ifPresent(word -> finish = word.asString());
    }

    private static Optional<JsonNode> at(JsonNode json, String pointer) {
        if (pointer.isEmpty()) {
            return Optional.empty();
        }
        JsonNode found = json.at(JsonPointer.compile(pointer));
        return found.isMissingNode() ? Optional.empty() : Optional.of(found);
    }

    private static Optional<@Nullable Long> count(JsonNode json, String pointer) {
        return at(json, pointer)
                .filter(n -> n.isIntegralNumber() && n.canConvertToLong() && n.asLong() >= 0)
                .map(n -> Long.valueOf(n.asLong()));
    }

    /** How it ended, when the service had no more to send. */
    Reply reply(long totalMs) {
        if (finish != null && source.refusedWords().contains(finish)) {
            return Reply.broken(Reply.Ending.REFUSED, came(), totalMs, "It refused.");
        }
        if (!ended || !source.finishPointer().isEmpty() && finish == null) {
            return text.isEmpty()
                    ? Reply.broken(Reply.Ending.FAILED, came(), totalMs, "It ended before it said anything.")
                    : Reply.broken(Reply.Ending.INCOMPLETE, came(), totalMs, "It stopped half way.");
        }
        if (finish != null && !source.completeWords().contains(finish)) {
            return Reply.broken(Reply.Ending.INCOMPLETE, came(), totalMs, "It ended with “" + finish + "”.");
        }
        if (text.toString().isBlank()) {
            return Reply.broken(
                    Reply.Ending.FAILED, came(), totalMs, "There was no text at " + source.textPointer() + ".");
        }
        return new Reply(
                Reply.Ending.COMPLETE,
                text.toString(),
                firstOutputMs,
                totalMs,
                inputTokens,
                outputTokens,
                model,
                "",
                false,
                false,
                null);
    }

    /** Ends a stream that sends too much. */
    private static final class LimitedStream extends InputStream {
        private final InputStream in;
        private long left = MOST_BYTES;

        LimitedStream(InputStream in) {
            this.in = in;
        }

        @Override
        public int read() throws IOException {
            int one = in.read();
            spend(one < 0 ? 0 : 1);
            return one;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            int count = in.read(buffer, offset, length);
            spend(Math.max(0, count));
            return count;
        }

        private void spend(int bytes) throws Unreadable {
            left -= bytes;
            if (left < 0) {
                throw new Unreadable("It sent more than " + (MOST_BYTES >> 20) + " MB.");
            }
        }
    }
}
