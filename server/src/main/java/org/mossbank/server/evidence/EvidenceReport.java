package org.mossbank.server.evidence;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.study.RaterTerms;

/**
 * What trials say of a study's answers to sound prompts.
 *
 * @param shown      when raters see trials, by the brief
 * @param candidates in their order
 * @param prompts    those that have a check
 * @param answers    to those prompts, tried or not
 * @param parts      over all kinds, then by kind where there is more than one
 */
record EvidenceReport(
        RaterTerms.TrialsShown shown,
        List<EvidenceCandidate> candidates,
        List<EvidencePrompt> prompts,
        List<AnswerEvidence> answers,
        List<EvidencePart> parts) {
    EvidenceReport {
        candidates = List.copyOf(candidates);
        prompts = List.copyOf(prompts);
        answers = List.copyOf(answers);
        parts = List.copyOf(parts);
    }

    record EvidenceCandidate(CandidateId candidateId, String name) {}

    record EvidencePrompt(PromptId promptId, String title, String kind) {}

    /** Whether an answer's code works by trial. */
    enum Standing {
        AS_IS,
        AFTER_REPAIR,
        NOT,
        /** It passed once and did not another time. */
        FLAKY,
        NOT_TRIED
    }

    /**
     * An answer.
     *
     * @param lines        of the smallest repair after which it passes; absent where none is needed or none helps
     * @param last         of its last turn, of several trials the one that ended worst; absent if it was not tried
     * @param times        how often that was tried
     * @param turns        all that were tried, in their order
     * @param repairs      that people tried
     * @param warnings     of the compiler
     * @param deprecations warnings of what is not to be used any more
     * @param broken       tests of a repository that passed before
     * @param mended       tests of it that failed before
     */
    record AnswerEvidence(
            AnswerId answerId,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            Standing standing,
            @Nullable Integer lines,
            @Nullable TrialSummary last,
            int times,
            List<TurnOutcome> turns,
            int repairs,
            int warnings,
            int deprecations,
            int broken,
            int mended) {
        AnswerEvidence {
            turns = List.copyOf(turns);
        }
    }

    /** @param turn 0 for the first reply, then the follow-ups */
    record TurnOutcome(int turn, TrialSummary summary) {}

    /**
     * Part of the study.
     *
     * @param kindId absent for all of it
     * @param kind   its name; empty for all of it
     */
    record EvidencePart(@Nullable KindId kindId, String kind, List<CandidateEvidence> candidates) {
        EvidencePart {
            candidates = List.copyOf(candidates);
        }
    }

    /**
     * What trials say of a candidate's answers in a part of the study.
     *
     * @param answers      to prompts with a check
     * @param tried        of those
     * @param asIs         share of those tried that work as they came, with Wilson's interval
     * @param withRepairs  share that works as it came or after a repair
     * @param warnings     of the compiler, all together
     * @param deprecations warnings of what is not to be used any more
     * @param breaking     answers that broke a test of a repository
     */
    record CandidateEvidence(
            CandidateId candidateId,
            int answers,
            int tried,
            int worksAsIs,
            int worksAfterRepair,
            int worksNot,
            int flaky,
            Figure asIs,
            Figure withRepairs,
            int warnings,
            int deprecations,
            int breaking) {}
}
