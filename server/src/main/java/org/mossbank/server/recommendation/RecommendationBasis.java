package org.mossbank.server.recommendation;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Reads what a recommendation rests on. */
@Component
class RecommendationBasis {
    private final Studies studies;
    private final Prompts prompts;
    private final Candidates candidates;
    private final FactsOfAnswers answers;
    private final Rubrics rubrics;
    private final Grading grading;
    private final StudyTold told;
    private final Snapshot snapshot;

    RecommendationBasis(
            Studies studies,
            Prompts prompts,
            Candidates candidates,
            FactsOfAnswers answers,
            Rubrics rubrics,
            Grading grading,
            StudyTold told,
            Snapshot snapshot) {
        this.studies = studies;
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.rubrics = rubrics;
        this.grading = grading;
        this.told = told;
        this.snapshot = snapshot;
    }

    /** As it stood at one moment. */
    RecommendationData of(StudyId study) {
        return snapshot.of(() -> gather(study));
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
                        .collect(Collectors.toMap(AnswerFacts::id, Function.identity())),
                told.raters(study),
                grading.sentGrades(study),
                grading.ratersByAnswer(study),
                studies.reopenings(study),
                told.expectations(study),
                new RecommendationData.Looking(told.looks(study), soundPrompts.size()),
                grading.round(study)
                        .map(r -> new RecommendationData.RoundSeen(
                                r.leadWasBlind(),
                                r.namesOpenedAt() == null ? 0 : grading.sentAfter(study, r.namesOpenedAt()),
                                grading.withdrawn(study),
                                told.settled(study)))
                        .orElse(new RecommendationData.RoundSeen(false, 0, 0, List.of())));
    }
}
