package org.mossbank.server.run;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.FollowUpRules;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.source.Sources;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Asking one answer one thing more. */
@Service
@Transactional
class FollowUpRuns {
    private final RunRepository runs;
    private final RunCellRepository cells;
    private final RunBoards boards;
    private final RunBeginning beginning;
    private final Candidates candidates;
    private final Answers answers;
    private final FollowUpRules rules;
    private final Sources sources;

    FollowUpRuns(
            RunRepository runs,
            RunCellRepository cells,
            RunBoards boards,
            RunBeginning beginning,
            Candidates candidates,
            Answers answers,
            FollowUpRules rules,
            Sources sources) {
        this.runs = runs;
        this.cells = cells;
        this.boards = boards;
        this.beginning = beginning;
        this.candidates = candidates;
        this.answers = answers;
        this.rules = rules;
        this.sources = sources;
    }

    /**
     * What to ask of whom.
     *
     * @param asked     Markdown; one of the prepared follow-ups, or words for this answer alone
     * @param mayBeSent that what looks like a secret in these words may be sent all the same; absent or false until a person says so
     */
    record AskFollowUp(
            @NotNull AnswerId answerId,
            @NotBlank @Size(max = FollowUp.LONGEST_ASKED) String asked,
            @Nullable Boolean mayBeSent) {}

    /**
     * Asks one candidate one thing more, as a run of its own.
     *
     * @throws Problem 400 if it cannot be asked, or the study gives up before; 409 once the round is open
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public RunView followUp(StudyId study, AskFollowUp request) {
        beginning.require(study);
        AnswerView answer = answers.one(study, request.answerId()).orElseThrow(() -> Problem.notFound("This answer"));
        if (sources.of(study, answer.candidateId()).isEmpty()) {
            throw Problem.invalid("answerId", "must be of a candidate that has a source");
        }
        rules.require(study, answer.followUps().size() + 1);
        if (isBeingAsked(study, answer)) {
            throw Problem.invalid("answerId", "must not be asked something already");
        }
        CandidateView candidate = candidates.one(study, answer.candidateId()).orElseThrow();
        Run run = beginning.begin(
                study, 1, 1, null, null, candidate.content().price().currency());
        cells.saveAndFlush(RunCell.following(run.id(), answer, request.asked().strip(), 0));
        return boards.view(run);
    }

    private boolean isBeingAsked(StudyId study, AnswerView answer) {
        return runs.ofStudy(study).stream()
                .anyMatch(r -> cells.ofRun(r.id()).stream()
                        .anyMatch(c -> c.awaited().filter(answer.id()::equals).isPresent()));
    }
}
