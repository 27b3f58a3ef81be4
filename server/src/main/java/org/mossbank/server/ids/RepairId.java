package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** A change that a person made to an answer's code so that it can be tried. */
public record RepairId(@JsonValue UUID value) implements Id<RepairId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public RepairId {}

    /** A new one. */
    public static RepairId random() {
        return new RepairId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static RepairId from(String text) {
        return new RepairId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
