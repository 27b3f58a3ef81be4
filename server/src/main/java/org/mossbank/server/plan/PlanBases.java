package org.mossbank.server.plan;

import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.assignment.GradingTask;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** Gathers what a plan is drawn from: within the transaction of whoever asks. */
@Component
class PlanBases {
    private final StudyPeople people;
    private final Studies studies;
    private final Prompts prompts;
    private final Candidates candidates;
    private final FactsOfAnswers answers;
    private final CurrentAccount current;

    PlanBases(
            StudyPeople people,
            Studies studies,
            Prompts prompts,
            Candidates candidates,
            FactsOfAnswers answers,
            CurrentAccount current) {
        this.people = people;
        this.studies = studies;
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.current = current;
    }

    PlanBasis of(StudyId study, PlanRequest request) {
        Map<AccountId, Role> members = studies.members(study);
        // Of several leads, only whoever draws the sheets takes some.
        List<AccountId> graders = members.entrySet().stream()
                .filter(m -> m.getValue() == Role.RATER
                        || request.leadGrades() && m.getKey().equals(current.id()))
                .map(Map.Entry::getKey)
                .toList();
        Map<String, AccountView> raters = people.of(study, graders).values().stream()
                .collect(Collectors.toMap(AccountView::signInName, Function.identity()));
        Map<String, PromptView> sound =
                prompts.sound(study).stream().collect(Collectors.toMap(PromptView::key, Function.identity()));
        List<AnswerFacts> all = answers.ofStudy(study);
        Map<CandidateId, CandidateView> byId =
                candidates.ofStudy(study).stream().collect(Collectors.toMap(CandidateView::id, Function.identity()));
        List<GradingTask.PromptTask> tasks = sound.values().stream()
                .map(p -> new GradingTask.PromptTask(
                        p.key(),
                        p.kind().key(),
                        all.stream()
                                // What left nothing to grade gets its levels by the rule.
                                .filter(a -> a.promptId().equals(p.id()) && !a.isWithoutText())
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
                all.stream().collect(Collectors.toMap(AnswerFacts::key, Function.identity())),
                new GradingTask(
                        new TreeSet<>(raters.keySet()),
                        tasks,
                        PlanBasis.barred(raters.values(), sound.values(), all, byId)));
    }
}
