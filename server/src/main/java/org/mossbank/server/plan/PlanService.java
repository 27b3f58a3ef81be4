package org.mossbank.server.plan;

import java.time.Clock;
import java.util.List;
import java.util.stream.IntStream;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Planning who grades what, and opening the round by that plan. The study's seed makes preview and round the same. */
@Service
@Transactional(readOnly = true)
class PlanService {
    private final Grading grading;
    private final Studies studies;
    private final Rubrics rubrics;
    private final PlanDrawing drawing;
    private final TransactionTemplate transactions;
    private final Acts acts;
    private final Clock clock;
    private final CurrentAccount current;

    PlanService(
            Grading grading,
            Studies studies,
            Rubrics rubrics,
            PlanDrawing drawing,
            TransactionTemplate transactions,
            Acts acts,
            Clock clock,
            CurrentAccount current) {
        this.acts = acts;
        this.current = current;
        this.drawing = drawing;
        this.clock = clock;
        this.grading = grading;
        this.studies = studies;
        this.rubrics = rubrics;
        this.transactions = transactions;
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public PlanView preview(StudyId study, PlanRequest request) {
        return drawing.of(study, request).view();
    }

    /**
     * Opens the round by the plan.
     *
     * @throws Problem 409 if something is missing, or it was opened already
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public PlanView open(StudyId study, PlanRequest request) {
        PlanDrawing.Drawn drawn = drawing.of(study, request);
        transactions.executeWithoutResult(status -> open(study, request, drawn));
        return drawn.view();
    }

    private void open(StudyId study, PlanRequest request, PlanDrawing.Drawn drawn) {
        studies.claimForRound(study);
        List<String> missing = drawing.missing(drawn);
        if (!missing.isEmpty()) {
            throw new Problem(ProblemType.NOT_READY, String.join(" ", missing));
        }
        if (!drawing.holds(study, request, drawn)) {
            throw new Problem(
                    ProblemType.NOT_READY, "Something was changed while the plan was drawn. Look at it once more.");
        }
        List<String> unmet = drawing.unmet(study);
        String despite = request.despite() == null ? "" : request.despite().strip();
        if (!unmet.isEmpty() && despite.isEmpty()) {
            throw Problem.invalid("despite", "must say why the round opens all the same. " + String.join(" ", unmet));
        }
        rubrics.use(study);
        if (request.leadGrades()) {
            studies.leadGrades(study, current.id());
        }
        grading.open(
                study,
                new Grading.NewRound(
                        clock.instant(),
                        null,
                        null,
                        request.ratersAnAnswer(),
                        request.repeatShare(),
                        request.leadGrades()),
                drawn.plan().stream().map(s -> sheet(s, drawn.basis())).toList());
        acts.keep(study, ActSort.ROUND_OPENED, "sheets: " + drawn.plan().size(), despite);
    }

    private static Grading.SheetRecord sheet(SheetPlan plan, PlanBasis basis) {
        return Grading.SheetRecord.blank(
                        Require.known(basis.raters(), plan.rater()).id(),
                        Require.known(basis.prompts(), plan.prompt()).id(),
                        plan.place(),
                        plan.repeat())
                .with(IntStream.range(0, plan.answers().size())
                        .mapToObj(i -> Grading.AnswerRecord.blank(
                                Require.known(basis.answers(), plan.answers().get(i))
                                        .id(),
                                i))
                        .toList());
    }
}
