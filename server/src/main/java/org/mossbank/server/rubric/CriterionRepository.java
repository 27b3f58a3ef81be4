package org.mossbank.server.rubric;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.CriterionId;
import org.springframework.data.jpa.repository.JpaRepository;

interface CriterionRepository extends JpaRepository<Criterion, CriterionId> {
    List<Criterion> findByRubricVersionIdOrderByPlace(UUID rubricVersionId);

    List<Criterion> findByRubricVersionIdInOrderByPlace(Collection<UUID> rubricVersionIds);
}
