package org.mossbank.server.acts;

import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What people read of the record. */
@Service
@Transactional(readOnly = true)
class ActsService {
    private final Acts acts;
    private final Sight sight;

    ActsService(Acts acts, Sight sight) {
        this.acts = acts;
        this.sight = sight;
    }

    /** Oldest first; without outcomes while standings are hidden. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public List<ActView> ofStudy(StudyId study) {
        List<ActView> all = acts.ofStudy(study);
        return sight.seesStandings(study)
                ? all
                : all.stream().map(ActView::withoutOutcomes).toList();
    }
}
