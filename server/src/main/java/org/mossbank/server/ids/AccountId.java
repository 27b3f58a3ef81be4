package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** An account. */
public record AccountId(@JsonValue UUID value) implements Id<AccountId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public AccountId {}

    /** A new one. */
    public static AccountId random() {
        return new AccountId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static AccountId from(String text) {
        return new AccountId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
