package org.mossbank.server.evidence;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.Contradiction;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.study.RaterTerms;

/**
 * What trials and raters say of the same answers. Nothing here corrects a grade.
 *
 * @param criterion      that trials speak for; absent if the rubric has none
 * @param contradicting  how many grades on it trials speak against
 * @param contradictions those grades; the first of them where there are very many
 * @param saidOtherwise  how often raters said something against a trial
 * @param otherwise      what they said, in their words; the first of it where there is very much
 * @param seen           whether raters saw trials, and what that did
 * @param people         what raters and leads tried of their own
 */
record GradedEvidence(
        @Nullable String criterion,
        int contradicting,
        List<ContradictionView> contradictions,
        int saidOtherwise,
        List<SaidOtherwise> otherwise,
        SeenByRaters seen,
        List<TriedByPerson> people) {
    GradedEvidence {
        contradictions = List.copyOf(contradictions);
        otherwise = List.copyOf(otherwise);
        people = List.copyOf(people);
    }

    /**
     * A grade that trials speak against.
     *
     * @param level   from 0
     * @param highest on the scale
     */
    record ContradictionView(
            AnswerId answerId,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            String rater,
            int level,
            int highest,
            Contradiction sort,
            TrialOutcome outcome) {}

    /** @param byTrial absent where trials say nothing any more */
    record SaidOtherwise(
            AnswerId answerId,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            String rater,
            Works works,
            @Nullable Works byTrial,
            String why) {}

    /**
     * Whether raters saw trials, and how alike they graded with and without.
     *
     * @param shown    when they saw them, by the brief
     * @param answers  how many times a rater saw the trials of an answer that they graded
     * @param changed  how many of those grades are others than when they first saw them
     * @param raised   how many of those are higher
     * @param before   agreement on the criterion as they had graded before they saw them
     * @param after    on the same grades as they are now
     * @param withTrials    agreement on it over prompts whose trials were seen
     * @param withoutTrials over the others
     */
    record SeenByRaters(
            RaterTerms.TrialsShown shown,
            int answers,
            int changed,
            int raised,
            Figure before,
            Figure after,
            Figure withTrials,
            Figure withoutTrials) {}

    /** @param inputs of their own that they gave */
    record TriedByPerson(String name, int inputs, int repairs) {}
}
