package org.mossbank.server.prompt;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;

@Entity
class Kind {
    @Id
    private UUID id;

    private UUID studyId;
    private String key;
    private String name;
    private int place;

    @SuppressWarnings("NullAway.Init")
    protected Kind() {}

    static Kind of(UUID studyId, String key, String name, int place) {
        Kind kind = new Kind();
        kind.id = UUID.randomUUID();
        kind.studyId = studyId;
        kind.key = key;
        kind.name = name;
        kind.place = place;
        return kind;
    }

    UUID studyId() {
        return studyId;
    }

    KindView view() {
        return new KindView(id, key, name);
    }
}
