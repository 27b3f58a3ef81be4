package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** An answer. */
public record AnswerId(@JsonValue UUID value) implements Id<AnswerId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public AnswerId {}

    /** A new one. */
    public static AnswerId random() {
        return new AnswerId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static AnswerId from(String text) {
        return new AnswerId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
