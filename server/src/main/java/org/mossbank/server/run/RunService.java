package org.mossbank.server.run;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a lead does with runs. */
@Service
@Transactional(readOnly = true)
class RunService {
    private final RunRepository runs;
    private final RunCellRepository cells;
    private final RunBoards boards;
    private final RunPlanning planning;
    private final Studies studies;
    private final EntityManager entities;
    private final RunBeginning beginning;
    private final Answers answers;

    RunService(
            RunRepository runs,
            RunCellRepository cells,
            RunBoards boards,
            RunPlanning planning,
            Studies studies,
            EntityManager entities,
            RunBeginning beginning,
            Answers answers) {
        this.answers = answers;
        this.beginning = beginning;
        this.runs = runs;
        this.cells = cells;
        this.boards = boards;
        this.planning = planning;
        this.studies = studies;
        this.entities = entities;
    }

    /** @throws Problem 400 with what cannot be asked */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public RunForecast forecast(StudyId study, StartRun request) {
        return planning.asked(study, request).forecast(request.followUps());
    }

    /** @throws Problem 400 with what cannot be asked; 409 once the round is open */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RunView start(StudyId study, StartRun request) {
        studies.requirePreparing(study);
        RunPlanning.Asked asked = planning.asked(study, request);
        if (asked.cells().isEmpty()) {
            throw Problem.invalid("attempts", "must leave something to ask; every attempt is there");
        }
        Run run = beginning.begin(
                study,
                request.attempts(),
                request.followUps(),
                request.budgetCost(),
                request.budgetTokens(),
                asked.currency());
        int place = 0;
        for (RunPlan.Cell cell : asked.cells()) {
            entities.persist(RunCell.of(run.id(), cell, place));
            place++;
        }
        entities.flush();
        return boards.view(run);
    }

    /** What came when a cell was written down already. */
    record LateReply(String text) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public LateReply lateReply(StudyId study, UUID id, int place) {
        return runs.findById(id)
                .filter(r -> r.studyId().equals(study))
                .flatMap(r -> cells.findByRunIdAndPlace(id, place))
                .flatMap(c -> Optional.ofNullable(c.lateReply()))
                .map(LateReply::new)
                .orElseThrow(() -> Problem.notFound("A late reply"));
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<RunView> ofStudy(StudyId study) {
        return runs.ofStudy(study).stream().map(boards::view).toList();
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public RunView one(StudyId study, UUID id) {
        return boards.view(find(study, id));
    }

    private Run find(StudyId study, UUID id) {
        return runs.ofStudyById(study, id).orElseThrow(() -> Problem.notFound("This run"));
    }

    private Run lock(StudyId study, UUID id) {
        return runs.lockOfStudy(study, id).orElseThrow(() -> Problem.notFound("This run"));
    }

    /** @param cutOff whether what is under way is ended too, and kept as incomplete */
    record StopRun(boolean cutOff) {}

    /** Asks nothing more. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RunView stop(StudyId study, UUID id, StopRun request) {
        Run run = lock(study, id);
        if (run.state() != Run.State.FINISHED) {
            if (request.cutOff()) {
                run.cut("It was stopped.");
            } else {
                run.pause("It was stopped.");
            }
            entities.flush();
        }
        return boards.view(run);
    }

    /** Goes on with what waits. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RunView resume(StudyId study, UUID id) {
        studies.requirePreparing(study);
        Run run = lock(study, id);
        if (run.state() == Run.State.PAUSED) {
            run.goOn();
            entities.flush();
        }
        return boards.view(run);
    }

    /**
     * Asks again what failed: its answers are taken out, what was said of it and what it cost stays with the cell, and the next
     * answer says how many tries it took.
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RunView failedAgain(StudyId study, UUID id) {
        studies.requirePreparing(study);
        Run run = lock(study, id);
        List<RunCell> failed =
                cells.ofRun(id).stream().filter(RunCell::isFailedAtFirst).toList();
        failed.forEach(cell -> {
            AnswerId answer = cell.forgetAnswer();
            if (answer != null) {
                answers.remove(study, answer);
            }
        });
        run.goOn();
        entities.flush();
        return boards.view(run);
    }

    /** Asks again what was turned away, and for which nothing was paid. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RunView again(StudyId study, UUID id) {
        studies.requirePreparing(study);
        Run run = lock(study, id);
        cells.ofRun(id).stream().filter(c -> c.state() == CellStage.TURNED_AWAY).forEach(RunCell::again);
        run.goOn();
        entities.flush();
        return boards.view(run);
    }

    /** Keeps a new budget, so that a run that its budget stopped can go on. */
    record Budget(
            @Nullable @DecimalMin("0") @Digits(integer = 8, fraction = 6)
            BigDecimal cost,

            @Nullable @Min(0) @Max(1_000_000_000_000L) Long tokens) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RunView budget(StudyId study, UUID id, Budget request) {
        studies.requirePreparing(study);
        Run run = lock(study, id);
        if (request.cost() != null && run.head().currency() == null) {
            throw Problem.invalid("cost", "needs candidates with prices for tokens");
        }
        run.spendAtMost(request.cost(), request.tokens());
        entities.flush();
        return boards.view(run);
    }
}
