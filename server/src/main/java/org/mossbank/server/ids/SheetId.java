package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** A sheet. */
public record SheetId(@JsonValue UUID value) implements Id<SheetId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public SheetId {}

    /** A new one. */
    public static SheetId random() {
        return new SheetId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static SheetId from(String text) {
        return new SheetId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
