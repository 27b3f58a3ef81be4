package org.mossbank.server.grading;

import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.springframework.stereotype.Component;

@Component
class GradingStep implements StepReport {
    private final Grading grading;

    GradingStep(Grading grading) {
        this.grading = grading;
    }

    @Override
    public Step step() {
        return Step.GRADING;
    }

    @Override
    public StepState stateOf(StudyId study) {
        return grading.round(study)
                .map(round -> opened(study, round.hasEnded()))
                .orElse(new StepState(Step.GRADING, 0, "not open yet", "the round is not open"));
    }

    private StepState opened(StudyId study, boolean closed) {
        Grading.SheetTotals totals = grading.totals(study);
        int left = totals.sheets() - totals.sent();
        String line = totals.sent() + " of " + totals.sheets() + " sheets";
        double done = totals.sheets() == 0 ? 0 : (double) totals.sent() / totals.sheets();
        String missing =
                left == 0 || closed ? null : left == 1 ? "one sheet is not sent in" : left + " sheets are not sent in";
        return new StepState(Step.GRADING, done, closed ? line + ", closed" : line, missing);
    }
}
