package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** A prompt. */
public record PromptId(@JsonValue UUID value) implements Id<PromptId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public PromptId {}

    /** A new one. */
    public static PromptId random() {
        return new PromptId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static PromptId from(String text) {
        return new PromptId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
