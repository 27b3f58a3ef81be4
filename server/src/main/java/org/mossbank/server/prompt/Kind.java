package org.mossbank.server.prompt;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;

@Entity
class Kind {
    @Id
    private KindId id;

    private StudyId studyId;
    private String key;
    private String name;
    private int place;

    @SuppressWarnings("NullAway.Init")
    protected Kind() {}

    static Kind of(StudyId studyId, String key, String name, int place) {
        Kind kind = new Kind();
        kind.id = KindId.random();
        kind.studyId = studyId;
        kind.key = key;
        kind.name = name;
        kind.place = place;
        return kind;
    }

    StudyId studyId() {
        return studyId;
    }

    KindView view() {
        return new KindView(id, key, name);
    }
}
