package org.mossbank.server.study.people;

import jakarta.validation.constraints.NotNull;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.StudyPeople;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a study calls people who have left; its leads say so, at any time. */
@Service
@Transactional(readOnly = true)
public class LeaversService {
    private final StudyPeople people;
    private final Moment moment;

    LeaversService(Moment moment) {
        this.people = moment.called();
        this.moment = moment;
    }

    /** @param shown by their names, or by numbers */
    record Leavers(@NotNull LeaversShown shown) {}

    @PreAuthorize("@studyAccess.mayLead(#study)")
    public Leavers of(StudyId study) {
        return new Leavers(people.shown(study));
    }

    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public Leavers show(StudyId study, Leavers request) {
        if (people.shown(study) != request.shown()) {
            people.show(study, request.shown());
            moment.audit().keep(AuditSort.LEAVERS_SHOWN, study, request.shown().inWords());
        }
        return of(study);
    }
}
