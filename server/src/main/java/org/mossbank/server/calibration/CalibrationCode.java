package org.mossbank.server.calibration;

import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.answer.AnswerCodes;
import org.mossbank.server.answer.GradedCode;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What answers that raters calibrate by do to the starting code. */
@Service
class CalibrationCode {
    private final CalibrationReader reader;
    private final CalibrationPages pages;
    private final AnswerCodes codes;
    private final CurrentAccount current;
    private final Snapshot snapshot;

    CalibrationCode(
            CalibrationReader reader,
            CalibrationPages pages,
            AnswerCodes codes,
            CurrentAccount current,
            Snapshot snapshot) {
        this.reader = reader;
        this.pages = pages;
        this.codes = codes;
        this.current = current;
        this.snapshot = snapshot;
    }

    private record ToCompare(PromptView prompt, String text) {}

    /**
     * As raters may see it.
     *
     * @throws org.mossbank.server.shared.Problem 404 if there is no such answer, or whoever asks may not see it yet
     */
    @PreAuthorize("@studyAccess.mayEnter(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public GradedCode of(StudyId study, int number, int place) {
        ToCompare read = snapshot.of(() -> {
            CalibrationBasis.Shown shown =
                    reader.opened(study, number, current.id()).shown(place);
            return new ToCompare(shown.prompt(), pages.text(shown));
        });
        return codes.graded(read.prompt, read.text);
    }
}
