package org.mossbank.server.plan;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.mossbank.core.assignment.Assignment;
import org.mossbank.core.assignment.GradingTask;
import org.mossbank.core.assignment.PlanBalance;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.Snapshot;
import org.mossbank.server.study.Role;
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
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final Masking masking;
    private final Rubrics rubrics;
    private final Accounts accounts;
    private final List<StepReport> reports;
    private final Snapshot snapshot;
    private final HeavyWork heavy;
    private final TransactionTemplate transactions;
    private final Clock clock;

    PlanService(
            Grading grading,
            Studies studies,
            Prompts prompts,
            Candidates candidates,
            Answers answers,
            Masking masking,
            Rubrics rubrics,
            Accounts accounts,
            List<StepReport> reports,
            Snapshot snapshot,
            HeavyWork heavy,
            TransactionTemplate transactions,
            Clock clock) {
        this.grading = grading;
        this.studies = studies;
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.masking = masking;
        this.rubrics = rubrics;
        this.accounts = accounts;
        this.reports = reports;
        this.clock = clock;
        this.snapshot = snapshot;
        this.heavy = heavy;
        this.transactions = transactions;
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public PlanView preview(UUID study, PlanRequest request) {
        return drawn(study, request).view;
    }

    /** A plan that was drawn, with what it was drawn from. */
    private record Drawn(PlanBasis basis, List<SheetPlan> plan, PlanView view) {}

    private Drawn drawn(UUID study, PlanRequest request) {
        PlanBasis basis = snapshot.of(() -> basis(study, request));
        List<SheetPlan> plan = heavy.run(() -> plan(basis, request));
        return new Drawn(basis, plan, view(basis, plan));
    }

    /**
     * Opens the round by the plan.
     *
     * @throws Problem 409 if something is missing, or it was opened already
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public PlanView open(UUID study, PlanRequest request) {
        Drawn drawn = drawn(study, request);
        transactions.executeWithoutResult(status -> open(study, request, drawn));
        return drawn.view;
    }

    private void open(UUID study, PlanRequest request, Drawn drawn) {
        studies.claimForRound(study);
        List<String> missing = missing(drawn.basis);
        if (!missing.isEmpty()) {
            throw new Problem(ProblemType.NOT_READY, String.join(" ", missing));
        }
        if (!basis(study, request).equals(drawn.basis)) {
            throw new Problem(
                    ProblemType.NOT_READY, "Something was changed while the plan was drawn. Look at it once more.");
        }
        rubrics.use(study);
        if (request.leadGrades()) {
            studies.leadGrades(study);
        }
        grading.open(
                study,
                new Grading.NewRound(
                        clock.instant(), null, request.ratersAnAnswer(), request.repeatShare(), request.leadGrades()),
                drawn.plan.stream().map(s -> sheet(s, drawn.basis)).toList());
    }

    private static Grading.SheetRecord sheet(SheetPlan plan, PlanBasis basis) {
        return new Grading.SheetRecord(
                Require.known(basis.raters(), plan.rater()).id(),
                Require.known(basis.prompts(), plan.prompt()).id(),
                plan.place(),
                plan.repeat(),
                null,
                null,
                IntStream.range(0, plan.answers().size())
                        .mapToObj(i -> Grading.AnswerRecord.blank(
                                Require.known(basis.answers(), plan.answers().get(i))
                                        .id(),
                                i))
                        .toList());
    }

    private static List<SheetPlan> plan(PlanBasis basis, PlanRequest request) {
        return Assignment.plan(
                basis.task(),
                request.options(),
                Resamples.generator(basis.study().seed()));
    }

    private PlanBasis basis(UUID study, PlanRequest request) {
        Map<UUID, Role> members = studies.members(study);
        List<UUID> graders = members.entrySet().stream()
                .filter(m -> m.getValue() == Role.RATER || request.leadGrades())
                .map(Map.Entry::getKey)
                .toList();
        Map<String, AccountView> raters = accounts.byId(graders).values().stream()
                .collect(Collectors.toMap(AccountView::signInName, Function.identity()));
        Map<String, PromptView> sound =
                prompts.sound(study).stream().collect(Collectors.toMap(PromptView::key, Function.identity()));
        List<AnswerView> all = answers.ofStudy(study);
        Map<UUID, CandidateView> byId =
                candidates.ofStudy(study).stream().collect(Collectors.toMap(CandidateView::id, Function.identity()));
        List<GradingTask.PromptTask> tasks = sound.values().stream()
                .map(p -> new GradingTask.PromptTask(
                        p.key(),
                        p.kind().key(),
                        all.stream()
                                .filter(a -> a.promptId().equals(p.id()))
                                .map(a -> new GradingTask.Entry(
                                        a.key(),
                                        Require.known(byId, a.candidateId()).key()))
                                .toList()))
                .filter(t -> !t.answers().isEmpty())
                .toList();
        return new PlanBasis(
                studies.get(study),
                raters,
                sound,
                all.stream().collect(Collectors.toMap(AnswerView::key, Function.identity())),
                new GradingTask(
                        new TreeSet<>(raters.keySet()),
                        tasks,
                        PlanBasis.barred(raters.values(), sound.values(), all, byId)));
    }

    private PlanView view(PlanBasis basis, List<SheetPlan> plan) {
        PlanBalance balance = PlanBalance.of(basis.task(), plan);
        return new PlanView(
                balance.sheetsByRater().entrySet().stream()
                        .map(e -> load(Require.known(basis.raters(), e.getKey()), e.getValue(), plan))
                        .toList(),
                balance.ratersAnAnswer().least(),
                balance.ratersAnAnswer().most(),
                balance.sharedAnswers().stream()
                        .map(p -> new PlanView.PairOverlap(
                                Require.known(basis.raters(), p.first()).id(),
                                Require.known(basis.raters(), p.second()).id(),
                                p.answers()))
                        .toList(),
                balance.exposure(),
                balance.answers(),
                balance.paired(),
                balance.complete(),
                balance.repeated(),
                balance.connected(),
                missing(basis),
                notes(basis, balance));
    }

    private static PlanView.RaterLoad load(AccountView rater, int sheets, List<SheetPlan> plan) {
        long repeats = plan.stream()
                .filter(s -> s.rater().equals(rater.signInName()) && s.repeat())
                .count();
        return new PlanView.RaterLoad(rater.id(), rater.displayName(), sheets, (int) repeats);
    }

    private List<String> missing(PlanBasis basis) {
        UUID study = basis.study().id();
        List<String> missing = new ArrayList<>();
        Map<Step, StepReport> byStep =
                reports.stream().collect(Collectors.toMap(StepReport::step, Function.identity()));
        Arrays.stream(Step.values())
                .filter(byStep::containsKey)
                .forEach(step -> missing.addAll(Require.known(byStep, step).missingBeforeRound(study)));
        List<UUID> notAccepted = studies.notAccepted(study);
        basis.raters().values().stream()
                .filter(r -> notAccepted.contains(r.id()))
                .forEach(r -> missing.add("Raters: " + r.displayName() + " was asked and has not accepted yet."));
        if (basis.raters().size() < 2) {
            missing.add("Raters: agreement needs two at least.");
        }
        return missing;
    }

    private List<String> notes(PlanBasis basis, PlanBalance balance) {
        List<String> notes = new ArrayList<>();
        long cells = (long) basis.prompts().size()
                * candidates.ofStudy(basis.study().id()).size();
        long filled = basis.task().prompts().stream()
                .mapToLong(p -> p.answers().stream()
                        .map(GradingTask.Entry::candidate)
                        .distinct()
                        .count())
                .sum();
        if (filled < cells) {
            notes.add((cells - filled) + " of " + cells
                    + " pairs of prompt and candidate have no answer; what was not asked cannot be compared.");
        }
        int wanted = basis.study().brief().rule().minimumRaters();
        if (balance.ratersAnAnswer().least() < wanted) {
            notes.add("The rule asks for " + wanted + " raters an answer; this plan gives some only "
                    + balance.ratersAnAnswer().least() + ". The recommendation would be withheld.");
        }
        if (!balance.connected()) {
            notes.add("Some raters share no answer with the others: strict and kind ones could not be told apart.");
        }
        if (balance.exposure() > 0) {
            notes.add("Somebody does not grade their own answers or prompts, so raters do not see every candidate"
                    + " equally often; standings are adjusted for that.");
        }
        masking.namesLeft(basis.study().id())
                .forEach(g -> notes.add(
                        "The answer " + g.answerKey() + " names " + g.candidate() + ", and it is not masked."));
        return notes;
    }
}
