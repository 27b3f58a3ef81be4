package org.mossbank.server.agreement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** Reads what the figures of agreement are computed from. */
@Component
class AgreementBasis {
    private final Studies studies;
    private final Prompts prompts;
    private final FactsOfAnswers answers;
    private final Rubrics rubrics;
    private final Grading grading;
    private final StudyPeople people;
    private final Snapshot snapshot;

    AgreementBasis(
            Studies studies,
            Prompts prompts,
            FactsOfAnswers answers,
            Rubrics rubrics,
            Grading grading,
            StudyPeople people,
            Snapshot snapshot) {
        this.studies = studies;
        this.prompts = prompts;
        this.answers = answers;
        this.rubrics = rubrics;
        this.grading = grading;
        this.people = people;
        this.snapshot = snapshot;
    }

    /** As it stood at one moment. */
    AgreementData of(StudyId study) {
        return snapshot.of(() -> gather(study));
    }

    private AgreementData gather(StudyId study) {
        Map<PromptId, PromptView> byId =
                prompts.ofStudy(study).stream().collect(Collectors.toMap(PromptView::id, Function.identity()));
        List<AnswerFacts> all = answers.ofStudy(study);
        // What left nothing to grade has its levels from the rule; what raters gave it says nothing of how they agree.
        Set<AnswerId> gradable = all.stream()
                .filter(a -> !a.isWithoutText())
                .map(AnswerFacts::id)
                .collect(Collectors.toSet());
        Map<AccountId, AccountView> raters = people.of(study, studies.raters(study));
        // By keys that an archive keeps, so that a study loaded again gives the same intervals.
        List<SentGrade> grades = inOrder(
                grading.sentGrades(study),
                all.stream()
                        .filter(a -> !a.isWithoutText())
                        .sorted(Comparator.comparing(AnswerFacts::key))
                        .map(AnswerFacts::id)
                        .toList(),
                raters);
        return new AgreementData(
                studies.get(study),
                prompts.kinds(study),
                rubrics.ofStudy(study),
                all.stream().collect(Collectors.toMap(AnswerFacts::id, a -> byId.get(a.promptId()))),
                all.stream().collect(Collectors.toMap(AnswerFacts::id, AnswerFacts::candidateId)),
                raters,
                grades,
                grading.repeatGrades(study).stream()
                        .filter(g -> gradable.contains(g.answerId()))
                        .toList(),
                grading.repeatDistances(study),
                grading.totals(study),
                byId.values().stream()
                        .sorted(Comparator.comparing(PromptView::key))
                        .flatMap(p -> AgreementBasis.setAside(p).stream())
                        .toList());
    }

    /**
     * Answer by answer, and rater by rater of each: of hundreds of thousands no two are compared by their names.
     *
     * @param grades those of an answer after one another, and of them those of a rater
     */
    private static List<SentGrade> inOrder(
            List<SentGrade> grades, List<AnswerId> answers, Map<AccountId, AccountView> raters) {
        Map<AccountId, Integer> places = new HashMap<>();
        raters.values().stream()
                .sorted(Comparator.comparing(AccountView::signInName))
                .forEach(r -> places.put(r.id(), places.size()));
        Map<AnswerId, List<List<SentGrade>>> byAnswer = new HashMap<>();
        for (List<SentGrade> ofAnswer : runs(grades, SentGrade::answerId)) {
            byAnswer.put(ofAnswer.get(0).answerId(), runs(ofAnswer, SentGrade::raterId));
        }
        List<SentGrade> ordered = new ArrayList<>(grades.size());
        for (AnswerId answer : answers) {
            byAnswer.getOrDefault(answer, List.of()).stream()
                    .sorted(Comparator.comparingInt(
                            g -> Require.known(places, g.get(0).raterId())))
                    .forEach(ordered::addAll);
        }
        return ordered;
    }

    /** What stands after one another and has the same key. */
    private static List<List<SentGrade>> runs(List<SentGrade> grades, Function<SentGrade, ?> key) {
        List<List<SentGrade>> runs = new ArrayList<>();
        int from = 0;
        for (int i = 1; i <= grades.size(); i++) {
            if (i == grades.size() || !key.apply(grades.get(i)).equals(key.apply(grades.get(from)))) {
                runs.add(grades.subList(from, i));
                from = i;
            }
        }
        return runs;
    }

    private static Optional<AgreementReport.SetAsidePrompt> setAside(PromptView prompt) {
        PromptView.FaultView fault = prompt.fault();
        return fault == null
                ? Optional.empty()
                : Optional.of(new AgreementReport.SetAsidePrompt(prompt.id(), prompt.title(), fault.reason()));
    }
}
