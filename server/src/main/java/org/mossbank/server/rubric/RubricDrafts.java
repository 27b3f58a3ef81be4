package org.mossbank.server.rubric;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.springframework.stereotype.Component;

/** Writes drafts of the rubric. Within the transaction of whoever has locked its versions. */
@Component
class RubricDrafts {
    private final Rubrics rubrics;
    private final CriterionRepository criteria;
    private final EntityManager entities;

    RubricDrafts(Rubrics rubrics, CriterionRepository criteria, EntityManager entities) {
        this.rubrics = rubrics;
        this.criteria = criteria;
        this.entities = entities;
    }

    /** Replaces a draft, or begins the next one after a published version. */
    RubricVersion write(StudyId study, RubricVersion newest, List<CriterionContent> contents) {
        RubricVersion draft = newest;
        if (newest.isDraft()) {
            criteria.deleteAll(criteria.findByRubricVersionIdOrderByPlace(newest.id()));
            entities.lock(newest, LockModeType.PESSIMISTIC_FORCE_INCREMENT);
        } else {
            draft = RubricVersion.draft(study, newest.number() + 1);
            entities.persist(draft);
        }
        entities.flush();
        rubrics.write(draft.id(), contents);
        entities.flush();
        return draft;
    }
}
