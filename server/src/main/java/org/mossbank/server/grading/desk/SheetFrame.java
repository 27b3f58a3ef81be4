package org.mossbank.server.grading.desk;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.rubric.CriterionView;

/**
 * What cannot change about a sheet while its round is open.
 *
 * @param criteria  on which its answers are graded
 * @param keyPoints how many its prompt has
 */
record SheetFrame(UUID id, UUID studyId, UUID raterId, UUID promptId, List<CriterionView> criteria, int keyPoints) {
    Optional<CriterionView> criterion(UUID criterion) {
        return criteria.stream().filter(c -> c.id().equals(criterion)).findFirst();
    }

    boolean hasTrait(String trait) {
        return criteria.stream().anyMatch(c -> c.traits().contains(trait));
    }
}
