package org.mossbank.server.run;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How far runs are. */
@Service
@Transactional(readOnly = true)
class RunBoards {
    private final RunRepository runs;
    private final RunCellRepository cells;

    RunBoards(RunRepository runs, RunCellRepository cells) {
        this.runs = runs;
        this.cells = cells;
    }

    /** For whoever was let in before. */
    @SystemOnly
    public RunView view(UUID run) {
        return view(runs.findById(run).orElseThrow());
    }

    @SystemOnly
    public RunView view(Run run) {
        Runs.RunHead head = run.head();
        List<RunView.CellView> board =
                cells.ofRun(run.id()).stream().map(RunCell::view).toList();
        // After the cells: what a cell that is shown as done has cost is then among it.
        RunCellRepository.Standing spending = cells.standing(run.id());
        return new RunView(
                run.id(),
                head.key(),
                head.startedBy(),
                head.startedAt(),
                head.attempts(),
                head.followUps(),
                head.budgetCost(),
                head.budgetTokens(),
                head.currency(),
                run.state(),
                run.reason().isEmpty() ? null : run.reason(),
                run.isCut() && board.stream().anyMatch(c -> c.state() == CellStage.ASKING),
                RunCosts.plainOrZero(spending.cost()),
                spending.tokens(),
                board);
    }
}
