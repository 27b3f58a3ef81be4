package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** An answer on a sheet. */
public record SheetAnswerId(@JsonValue UUID value) implements Id<SheetAnswerId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public SheetAnswerId {}

    /** A new one. */
    public static SheetAnswerId random() {
        return new SheetAnswerId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static SheetAnswerId from(String text) {
        return new SheetAnswerId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
