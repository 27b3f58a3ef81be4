package org.mossbank.server.run;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.AnswersToSettle;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Runs, for other modules. */
@Service
@Transactional(readOnly = true)
public class Runs {
    private final RunRepository runs;
    private final RunCellRepository cells;
    private final Answers answers;
    private final EntityManager entities;

    Runs(RunRepository runs, RunCellRepository cells, Answers answers, EntityManager entities) {
        this.runs = runs;
        this.cells = cells;
        this.answers = answers;
        this.entities = entities;
    }

    /**
     * A run without its cells.
     *
     * @param startedBy a name
     * @param reason    why it does not go on; may be empty
     */
    public record RunHead(
            String key,
            String startedBy,
            Instant startedAt,
            int attempts,
            int followUps,
            @Nullable BigDecimal budgetCost,
            @Nullable Long budgetTokens,
            @Nullable String currency,
            boolean finished,
            String reason) {}

    /**
     * One cell of a run.
     *
     * @param ownFollowUp what was asked in place of the prepared follow-up, for this answer alone
     * @param lateReply what came when the cell was written down already
     */
    public record CellRecord(
            int group,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            CellState state,
            @Nullable String ownFollowUp,
            int turn,
            int tries,
            BigDecimal spentCost,
            long spentTokens,
            String notes,
            @Nullable String lateReply,
            @Nullable AnswerId answerId) {}

    /** A run with its cells in their order. */
    public record RunRecord(RunHead head, List<CellRecord> cells) {}

    @SystemOnly
    public List<RunRecord> ofStudy(StudyId study) {
        return runs.ofStudy(study).stream()
                .map(r -> new RunRecord(
                        r.head(),
                        cells.ofRun(r.id()).stream().map(RunCell::toRecord).toList()))
                .toList();
    }

    /** Lays down a run of a study that is brought in; it does not go on by itself. */
    @SystemOnly
    @Transactional
    public void add(StudyId study, RunRecord record) {
        Run run = Run.of(study, record.head());
        entities.persist(run);
        int place = 0;
        for (CellRecord cell : record.cells()) {
            AnswerId answer = cell.answerId();
            Outcome outcome = answer == null
                    ? null
                    : answers.one(answer).map(AnswerView::outcome).orElse(null);
            entities.persist(RunCell.of(run.id(), cell, outcome, place));
            place++;
        }
    }

    /** Nobody pays for the answers of a study that nobody sees. */
    @SystemOnly
    @EventListener
    @Transactional
    public void stop(Studies.StudyDeleted deleted) {
        for (Run run : runs.ofStudy(deleted.studyId())) {
            entities.lock(run, LockModeType.PESSIMISTIC_WRITE);
            entities.refresh(run);
            if (run.state() == Run.State.RUNNING) {
                run.cut("The study was deleted.");
            }
        }
    }

    /** While a run goes on, answers still come. */
    @Component
    static class RunsToSettle implements AnswersToSettle {
        private final RunRepository runs;
        private final RunCellRepository cells;

        RunsToSettle(RunRepository runs, RunCellRepository cells) {
            this.runs = runs;
            this.cells = cells;
        }

        @Override
        public Optional<String> toSettle(StudyId study) {
            boolean going = runs.ofStudy(study).stream()
                    .anyMatch(r -> r.state() == Run.State.RUNNING || cells.count(r.id(), CellStage.ASKING) > 0);
            return going ? Optional.of("a run is still collecting") : Optional.empty();
        }
    }
}
