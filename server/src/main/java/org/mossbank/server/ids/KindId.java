package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** A kind of prompt. */
public record KindId(@JsonValue UUID value) implements Id<KindId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public KindId {}

    /** A new one. */
    public static KindId random() {
        return new KindId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static KindId from(String text) {
        return new KindId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
