package org.mossbank.server.calibration;

import java.util.List;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.grading.OpenSheets;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Going on without somebody who does not send in. */
@Service
@Transactional
class CalibrationWithout {
    private final CalibrationReader reader;
    private final OpenSheets openSheets;
    private final Accounts accounts;
    private final Acts acts;

    CalibrationWithout(CalibrationReader reader, OpenSheets openSheets, Accounts accounts, Acts acts) {
        this.reader = reader;
        this.openSheets = openSheets;
        this.accounts = accounts;
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
                "%s: calibration %d, sheets: %d"
                        .formatted(
                                Require.known(accounts.byId(List.of(request.raterId())), request.raterId())
                                        .displayName(),
                                number,
                                withdrawn),
                request.reason());
    }
}
