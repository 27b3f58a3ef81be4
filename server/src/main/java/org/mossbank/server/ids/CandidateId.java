package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** A candidate. */
public record CandidateId(@JsonValue UUID value) implements Id<CandidateId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public CandidateId {}

    /** A new one. */
    public static CandidateId random() {
        return new CandidateId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static CandidateId from(String text) {
        return new CandidateId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
