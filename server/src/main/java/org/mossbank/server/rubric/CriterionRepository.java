package org.mossbank.server.rubric;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface CriterionRepository extends JpaRepository<Criterion, UUID> {
    List<Criterion> findByRubricVersionIdOrderByPlace(UUID rubricVersionId);
}
