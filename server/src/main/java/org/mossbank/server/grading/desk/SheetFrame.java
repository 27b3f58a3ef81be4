package org.mossbank.server.grading.desk;

import java.util.List;
import java.util.Optional;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.rubric.CriterionView;

/**
 * What cannot change about a sheet while its round is open.
 *
 * @param criteria  on which its answers are graded
 * @param keyPoints how many its prompt has
 */
record SheetFrame(
        SheetId id,
        StudyId studyId,
        AccountId raterId,
        PromptId promptId,
        List<CriterionView> criteria,
        int keyPoints) {
    Optional<CriterionView> criterion(CriterionId criterion) {
        return criteria.stream().filter(c -> c.id().equals(criterion)).findFirst();
    }

    boolean hasTrait(String trait) {
        return criteria.stream().anyMatch(c -> c.traits().contains(trait));
    }
}
