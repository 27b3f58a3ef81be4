package org.mossbank.server.evidence;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.util.UUID;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.trial.InputEnd;
import tools.jackson.databind.json.JsonMapper;

/** What one answer's program did with an input of a rater's own. */
@Entity
class OwnInputEnd {
    @Embeddable
    record Key(UUID inputId, SheetAnswerId sheetAnswerId) implements Serializable {}

    @EmbeddedId
    private Key key;

    /** {@link InputEnd} as JSON. */
    private String result;

    @SuppressWarnings("NullAway.Init")
    protected OwnInputEnd() {}

    static OwnInputEnd of(Key key, InputEnd end) {
        OwnInputEnd row = new OwnInputEnd();
        row.key = key;
        row.result = JsonMapper.shared().writeValueAsString(end);
        return row;
    }

    Key key() {
        return key;
    }

    /** As it is kept. */
    String text() {
        return result;
    }

    InputEnd end() {
        return JsonMapper.shared().readValue(result, InputEnd.class);
    }
}
