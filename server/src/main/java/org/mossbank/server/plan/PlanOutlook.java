package org.mossbank.server.plan;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.assignment.PlanBalance;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** What a plan comes to, what is missing before it can begin, and what should be known before. */
@Component
class PlanOutlook {
    private final Studies studies;
    private final Candidates candidates;
    private final Masking masking;
    private final List<StepReport> reports;
    private final List<OpeningCondition> conditions;

    PlanOutlook(
            Studies studies,
            Candidates candidates,
            Masking masking,
            List<StepReport> reports,
            List<OpeningCondition> conditions) {
        this.conditions = conditions;
        this.studies = studies;
        this.candidates = candidates;
        this.masking = masking;
        this.reports = reports;
    }

    PlanView view(PlanBasis basis, List<SheetPlan> plan) {
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
                unmet(basis.study().id()),
                notes(basis, balance));
    }

    private static PlanView.RaterLoad load(AccountView rater, int sheets, List<SheetPlan> plan) {
        long repeats = plan.stream()
                .filter(s -> s.rater().equals(rater.signInName()) && s.repeat())
                .count();
        return new PlanView.RaterLoad(rater.id(), rater.displayName(), sheets, (int) repeats);
    }

    List<String> unmet(StudyId study) {
        return conditions.stream().flatMap(c -> c.unmet(study).stream()).toList();
    }

    List<String> missing(PlanBasis basis) {
        StudyId study = basis.study().id();
        List<String> missing = new ArrayList<>();
        Map<Step, StepReport> byStep =
                reports.stream().collect(Collectors.toMap(StepReport::step, Function.identity()));
        Arrays.stream(Step.values())
                .filter(byStep::containsKey)
                .forEach(step -> missing.addAll(Require.known(byStep, step).missingBeforeRound(study)));
        List<AccountId> notAccepted = studies.notAccepted(study);
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
        long cells =
                (long) basis.prompts().size() * candidates.count(basis.study().id());
        // An answer without text is on no sheet, but it was asked for and counts by the rule.
        Set<PromptId> sound =
                basis.prompts().values().stream().map(PromptView::id).collect(Collectors.toSet());
        long filled = basis.answers().values().stream()
                .filter(a -> sound.contains(a.promptId()))
                .map(a -> List.of(a.promptId(), a.candidateId()))
                .distinct()
                .count();
        long textless = basis.answers().values().stream()
                .filter(a -> sound.contains(a.promptId()) && a.isWithoutText())
                .count();
        if (textless > 0) {
            notes.add(textless + (textless == 1 ? " answer has" : " answers have")
                    + " no text: nobody grades what is not there, and the rule says what it counts for.");
        }
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
