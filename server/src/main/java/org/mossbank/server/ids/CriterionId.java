package org.mossbank.server.ids;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.UUID;

/** A criterion of a version of the rubric. */
public record CriterionId(@JsonValue UUID value) implements Id<CriterionId> {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public CriterionId {}

    /** A new one. */
    public static CriterionId random() {
        return new CriterionId(UUID.randomUUID());
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static CriterionId from(String text) {
        return new CriterionId(UUID.fromString(text));
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
