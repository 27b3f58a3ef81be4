package org.mossbank.server.run;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.secret.HeldSecrets;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/**
 * Holds back what looks like a secret until a person has said that it may be sent. Looked for outside every transaction, before
 * anything begins; and once more before each request goes out, as prompts may change meanwhile.
 */
@Service
@Transactional(propagation = Propagation.NEVER)
class BeforeSending {
    private final HeldSecrets held;
    private final RunRepository runs;
    private final RunCellRepository cells;
    private final Prompts prompts;
    private final Answers answers;
    private final RunWork work;
    private final Snapshot snapshot;

    BeforeSending(
            HeldSecrets held,
            RunRepository runs,
            RunCellRepository cells,
            Prompts prompts,
            Answers answers,
            RunWork work,
            Snapshot snapshot) {
        this.held = held;
        this.runs = runs;
        this.cells = cells;
        this.prompts = prompts;
        this.answers = answers;
        this.work = work;
        this.snapshot = snapshot;
    }

    /** @throws Problem 409 if something in these prompts is held back */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void require(StudyId study, Collection<PromptId> some) {
        int open = held.look(study, some).open();
        if (open > 0) {
            throw new Problem(ProblemType.SECRETS_FOUND, words(open));
        }
    }

    /** The same of every prompt that somebody grades. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void requireAll(StudyId study) {
        require(study, snapshot.of(() -> prompts.gradedIds(study)));
    }

    /** The same of the prompts that a run is about; of one that is not the study's, nothing. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void require(StudyId study, UUID run) {
        require(
                study,
                snapshot.of(() -> runs.ofStudyById(study, run).isPresent() ? ids(cells.prompts(run)) : List.of()));
    }

    /**
     * The same of what one answer is asked: its prompt is sent again, and then these words.
     *
     * @throws Problem 409 if something in them is held back
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void require(StudyId study, FollowUpRuns.AskFollowUp request) {
        require(
                study,
                snapshot.of(() -> answers.one(study, request.answerId()).map(AnswerView::promptId).stream()
                        .toList()));
        if (!Boolean.TRUE.equals(request.mayBeSent())
                && !held.openIn(study, request.asked()).isEmpty()) {
            throw new Problem(
                    ProblemType.SECRETS_FOUND,
                    "Something in what you ask looks like a secret. Say that it may be sent.");
        }
    }

    private record Scope(StudyId study, List<PromptId> prompts) {}

    /**
     * The versions of prompts that were looked at for a run; empty if something is held back, and the run is paused then. Empty too
     * while too much else is worked out to look: it is looked at the next time, and no other run waits for it.
     */
    @SystemOnly
    public Optional<Map<PromptId, Long>> lookedAt(UUID run) {
        Scope scope = snapshot.of(
                () -> new Scope(runs.findById(run).orElseThrow().studyId(), ids(cells.waitingPrompts(run))));
        HeldSecrets.Looked looked;
        try {
            looked = held.look(scope.study, scope.prompts);
        } catch (Problem busy) {
            return Optional.empty();
        }
        if (looked.open() > 0) {
            work.hold(run, words(looked.open()));
            return Optional.empty();
        }
        return Optional.of(looked.versions());
    }

    private static List<PromptId> ids(List<RunCellRepository.About> prompts) {
        return prompts.stream().map(RunCellRepository.About::promptId).toList();
    }

    private static String words(int open) {
        return open == 1
                ? "One place in what would be sent looks like a secret. Say under Answers, Collect from sources, whether it may be sent before anything is."
                : "%,d places in what would be sent look like secrets. Say under Answers, Collect from sources, of each whether it may be sent before anything is."
                        .formatted(open);
    }
}
