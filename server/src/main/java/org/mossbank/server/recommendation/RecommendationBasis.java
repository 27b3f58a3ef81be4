package org.mossbank.server.recommendation;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Snapshot;
import org.mossbank.server.study.Declared;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Reads what a recommendation rests on. */
@Component
class RecommendationBasis {
    private final Studies studies;
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final Rubrics rubrics;
    private final Grading grading;
    private final Accounts accounts;
    private final Snapshot snapshot;

    RecommendationBasis(
            Studies studies,
            Prompts prompts,
            Candidates candidates,
            Answers answers,
            Rubrics rubrics,
            Grading grading,
            Accounts accounts,
            Snapshot snapshot) {
        this.studies = studies;
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.rubrics = rubrics;
        this.grading = grading;
        this.accounts = accounts;
        this.snapshot = snapshot;
    }

    /** As it stood at one moment. */
    RecommendationData of(StudyId study) {
        return snapshot.of(() -> gather(study));
    }

    private List<RecommendationReport.ExpectationView> expectations(StudyId study) {
        Map<AccountId, Role> members = studies.members(study);
        List<Declared> declared = studies.expectations(study);
        Map<AccountId, AccountView> people =
                accounts.byId(declared.stream().map(Declared::accountId).toList());
        return declared.stream()
                .map(d -> new RecommendationReport.ExpectationView(
                        Require.known(people, d.accountId()).displayName(),
                        members.get(d.accountId()) == Role.LEAD,
                        d.expects(),
                        d.usesToday(),
                        d.declaredAt()))
                .toList();
    }

    private RecommendationData gather(StudyId study) {
        Map<PromptId, PromptView> soundPrompts =
                prompts.sound(study).stream().collect(Collectors.toMap(PromptView::id, Function.identity()));
        return new RecommendationData(
                studies.get(study),
                candidates.ofStudy(study),
                rubrics.ofStudy(study),
                soundPrompts,
                answers.ofStudy(study).stream()
                        .filter(a -> soundPrompts.containsKey(a.promptId()))
                        .collect(Collectors.toMap(AnswerView::id, Function.identity())),
                accounts.byId(studies.raters(study)),
                grading.sentGrades(study),
                grading.ratersByAnswer(study),
                studies.reopenings(study),
                expectations(study),
                grading.round(study).map(Grading.RoundState::leadWasBlind).orElse(false));
    }
}
