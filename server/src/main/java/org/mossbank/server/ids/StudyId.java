package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** A study. */
public record StudyId(@JsonValue UUID value) implements Id<StudyId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public StudyId {}

    /** A new one. */
    public static StudyId random() {
        return new StudyId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static StudyId from(String text) {
        return new StudyId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
