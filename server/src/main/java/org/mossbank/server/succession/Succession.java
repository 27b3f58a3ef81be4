package org.mossbank.server.succession;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import org.hibernate.annotations.Immutable;
import org.mossbank.server.ids.StudyId;
import tools.jackson.databind.json.JsonMapper;

/** That a study follows another. Only ever added. */
@Entity
@Immutable
class Succession {
    @Id
    private StudyId studyId;

    /** {@link Before} as JSON. */
    private String before;

    @SuppressWarnings("NullAway.Init")
    protected Succession() {}

    static Succession of(StudyId study, Before before) {
        Succession succession = new Succession();
        succession.studyId = study;
        succession.before = JsonMapper.shared().writeValueAsString(before);
        return succession;
    }

    Before before() {
        return JsonMapper.shared().readValue(before, Before.class);
    }
}
