package org.mossbank.server.calibration;

import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.grading.OpenSheets;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.StudyPeople;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Going on without somebody who does not send in. */
@Service
@Transactional
class CalibrationWithout {
    private final CalibrationReader reader;
    private final OpenSheets openSheets;
    private final StudyPeople people;
    private final Acts acts;

    CalibrationWithout(CalibrationReader reader, OpenSheets openSheets, StudyPeople people, Acts acts) {
        this.reader = reader;
        this.openSheets = openSheets;
        this.people = people;
        this.acts = acts;
    }

    /**
     * Withdraws what somebody has not sent in; the talk opens if all others have.
     *
     * @throws Problem 409 if they have nothing left to send in
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void goOn(StudyId study, int number, CalibrationRequests.GoOnWithout request) {
        Calibration calibration = reader.found(study, number);
        int withdrawn = openSheets.withdraw(
                study,
                request.raterId(),
                reader.outlines(calibration.key()).stream()
                        .map(Prompts.Outline::id)
                        .toList(),
                request.reason().strip());
        if (withdrawn == 0) {
            throw new Problem(ProblemType.NOT_READY, "They have nothing left to send in.");
        }
        acts.keep(
                study,
                ActSort.SHEET_WITHDRAWN,
                "%s: calibration %d, sheets: %d".formatted(people.name(study, request.raterId()), number, withdrawn),
                request.reason());
    }
}
