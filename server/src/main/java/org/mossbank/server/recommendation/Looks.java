package org.mossbank.server.recommendation;

import jakarta.persistence.EntityManager;
import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The looks that were taken at a study, for other modules. */
@Service
@Transactional(readOnly = true)
public class Looks {
    private final LookRepository looks;
    private final EntityManager entities;

    Looks(LookRepository looks, EntityManager entities) {
        this.looks = looks;
        this.entities = entities;
    }

    /** Oldest first. */
    @SystemOnly
    public List<LookTaken> ofStudy(StudyId study) {
        return looks.ofStudy(study);
    }

    /** As an archive brings them. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, List<LookTaken> all) {
        all.forEach(taken -> entities.persist(Look.of(study, taken, null, null)));
    }
}
