package org.mossbank.server.figures;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import tools.jackson.databind.json.JsonMapper;

/**
 * A sort of figures, as text and back.
 *
 * @param sort unlike all others
 * @param type a record, of records all the way down
 */
public record FiguresOf<T>(String sort, Class<T> type) {
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .addMixIn(Estimate.class, SortOfEstimate.class)
            .addMixIn(Interval.class, SortOfInterval.class)
            .build();

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME)
    @JsonSubTypes({
        @JsonSubTypes.Type(value = Estimate.Defined.class, name = "defined"),
        @JsonSubTypes.Type(value = Estimate.Undefined.class, name = "undefined")
    })
    private interface SortOfEstimate {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME)
    @JsonSubTypes({
        @JsonSubTypes.Type(value = Interval.Bounds.class, name = "bounds"),
        @JsonSubTypes.Type(value = Interval.Undefined.class, name = "undefined")
    })
    private interface SortOfInterval {}

    String write(T figures) {
        return MAPPER.writeValueAsString(figures);
    }

    /** @throws tools.jackson.core.JacksonException if the text is none of these figures */
    T read(String text) {
        return MAPPER.readValue(text, type);
    }
}
