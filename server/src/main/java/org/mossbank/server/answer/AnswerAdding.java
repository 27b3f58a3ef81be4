package org.mossbank.server.answer;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Objects;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Writing down by hand what a candidate gave. */
@Service
@Transactional(propagation = Propagation.NEVER)
class AnswerAdding {
    private final Answers answers;
    private final Prompts prompts;
    private final Candidates candidates;
    private final AnswerAdmission admission;
    private final AnswerCodes codes;
    private final TransactionTemplate transactions;

    AnswerAdding(
            Answers answers,
            Prompts prompts,
            Candidates candidates,
            AnswerAdmission admission,
            AnswerCodes codes,
            TransactionTemplate transactions) {
        this.answers = answers;
        this.prompts = prompts;
        this.candidates = candidates;
        this.admission = admission;
        this.codes = codes;
        this.transactions = transactions;
    }

    record AddAnswer(
            @NotNull PromptId promptId,
            @NotNull CandidateId candidateId,
            @NotNull Outcome outcome,
            @NotNull @Size(max = AnswerService.LONGEST_TEXT) String text,
            @NotNull @Size(max = FollowUp.MOST) List<@Valid @NotNull FollowUp> followUps,
            @NotNull @Valid Measures measures) {}

    /** Adds what a candidate gave to a prompt, as its next attempt. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public AnswerView add(StudyId study, AddAnswer request) {
        PromptView prompt = prompts.one(study, request.promptId())
                .orElseThrow(() -> Problem.invalid("promptId", "must be a prompt of this study"));
        CandidateView candidate = candidates
                .one(study, request.candidateId())
                .orElseThrow(() -> Problem.invalid("candidateId", "must be a candidate of this study"));
        AnswerAdmission.requireText(request.outcome(), request.text());
        Answers.Attempt attempt = new Answers.Attempt(
                new Answers.Named<>(prompt.id(), prompt.key()),
                new Answers.Named<>(candidate.id(), candidate.key()),
                null,
                request.outcome(),
                request.text(),
                request.followUps(),
                request.measures(),
                codes.size(prompt.startingCode(), WholeText.of(request.text(), request.followUps())));
        return Objects.requireNonNull(transactions.execute(status -> {
            admission.require(study, request.followUps().size());
            answers.requireRoom(
                    study, 1, WholeText.of(request.text(), request.followUps()).length());
            return answers.addAttempts(study, List.of(attempt)).get(0);
        }));
    }
}
