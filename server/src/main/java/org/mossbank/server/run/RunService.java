package org.mossbank.server.run;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.Clock;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.FollowUpRules;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.source.Sources;
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
    private final Candidates candidates;
    private final Answers answers;
    private final FollowUpRules rules;
    private final Sources sources;
    private final Studies studies;
    private final Accounts accounts;
    private final CurrentAccount current;
    private final EntityManager entities;
    private final Clock clock;

    RunService(
            RunRepository runs,
            RunCellRepository cells,
            RunBoards boards,
            RunPlanning planning,
            Candidates candidates,
            Answers answers,
            FollowUpRules rules,
            Sources sources,
            Studies studies,
            Accounts accounts,
            CurrentAccount current,
            EntityManager entities,
            Clock clock) {
        this.runs = runs;
        this.cells = cells;
        this.boards = boards;
        this.planning = planning;
        this.candidates = candidates;
        this.answers = answers;
        this.rules = rules;
        this.sources = sources;
        this.studies = studies;
        this.accounts = accounts;
        this.current = current;
        this.entities = entities;
        this.clock = clock;
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
        Run run = begin(
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

    /** @param asked Markdown; one of the prepared follow-ups, or words for this answer alone */
    record AskFollowUp(
            @NotNull AnswerId answerId,
            @NotBlank @Size(max = FollowUp.LONGEST_ASKED) String asked) {}

    /**
     * Asks one candidate one thing more, as a run of its own.
     *
     * @throws Problem 400 if it cannot be asked, or the study gives up before; 409 once the round is open
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RunView followUp(StudyId study, AskFollowUp request) {
        studies.requirePreparing(study);
        AnswerView answer = answers.one(study, request.answerId()).orElseThrow(() -> Problem.notFound("This answer"));
        if (sources.of(study, answer.candidateId()).isEmpty()) {
            throw Problem.invalid("answerId", "must be of a candidate that has a source");
        }
        rules.require(study, answer.followUps().size() + 1);
        if (runs.ofStudy(study).stream()
                .anyMatch(r -> cells.ofRun(r.id()).stream().anyMatch(c -> c.isAbout(answer)))) {
            throw Problem.invalid("answerId", "must not be asked something already");
        }
        CandidateView candidate = candidates.one(study, answer.candidateId()).orElseThrow();
        Run run = begin(study, 1, 1, null, null, candidate.content().price().currency());
        entities.persist(RunCell.following(run.id(), answer, request.asked().strip()));
        entities.flush();
        return boards.view(run);
    }

    private Run begin(
            StudyId study,
            int attempts,
            int followUps,
            @Nullable BigDecimal budgetCost,
            @Nullable Long budgetTokens,
            @Nullable String currency) {
        Set<String> keys = runs.ofStudy(study).stream().map(r -> r.head().key()).collect(Collectors.toSet());
        AccountId who = current.id();
        Run run = Run.of(
                study,
                new Runs.RunHead(
                        FreeKey.of("run-" + (keys.size() + 1), "run", keys),
                        Objects.requireNonNull(accounts.byId(List.of(who)).get(who))
                                .displayName(),
                        clock.instant(),
                        attempts,
                        followUps,
                        budgetCost,
                        budgetTokens,
                        currency,
                        false,
                        ""));
        run.goOn();
        entities.persist(run);
        return run;
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
