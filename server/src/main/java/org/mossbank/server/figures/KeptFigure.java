package org.mossbank.server.figures;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import org.hibernate.annotations.Immutable;
import org.mossbank.server.ids.StudyId;

/** One sort of figures of one study, as they were last worked out. */
@Entity
@Immutable
class KeptFigure {
    /** @param sort which figures */
    @Embeddable
    record Key(StudyId studyId, String sort) implements Serializable {}

    @EmbeddedId
    private Key key;

    private long revision;

    /** The code that worked them out: other code may come to others. */
    private String code;

    /** JSON. */
    private String figures;

    @SuppressWarnings("NullAway.Init")
    protected KeptFigure() {}

    boolean holds(long wanted, String by) {
        return revision == wanted && code.equals(by);
    }

    String figures() {
        return figures;
    }
}
