package org.mossbank.server.recommendation;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.agreement.AgreementReport;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.study.Reopening;
import org.mossbank.server.study.RuleTerms;

/**
 * What the decision rule yields, in words and as data.
 *
 * @param headline one sentence
 * @param leaderId the candidate with the highest standing, where the outcome rests on one
 */
record RecommendationReport(
        long revision,
        Outcome outcome,
        String headline,
        @Nullable CandidateId leaderId,
        List<FindingView> findings,
        RuleView rule,
        BasisView basis,
        List<CandidateName> candidates,
        List<FieldView> field,
        List<StandingView> overall,
        List<CriterionStandings> byCriterion,
        List<DifferenceView> differences,
        List<CandidateMeasures> measures,
        List<RuledOut> ruledOut,
        List<AgreementReport.SetAsidePrompt> setAside,
        List<UnequalFollowUps> unequalFollowUps,
        List<Reopening> reopenings,
        List<ExpectationView> expectations,
        BlindingView blinding) {

    /**
     * One reason.
     *
     * @param type     which sort of reason; names do not change
     * @param sentence the reason in words
     */
    record FindingView(
            String type,
            String sentence,
            @Nullable String criterion,
            @Nullable CandidateId otherCandidateId,
            @Nullable Double value,
            @Nullable Double limit) {}

    /**
     * An answer that was followed up with words of its own, which the others were not.
     *
     * @param followUps how many such
     */
    record UnequalFollowUps(
            AnswerId answerId, PromptId promptId, String title, CandidateId candidateId, int attempt, int followUps) {}

    /** What may be said of a candidate against the best of the others. */
    enum Place {
        BEST,
        SAFE,
        OPEN,
        OUT
    }

    /** @param shortfall points that it lies below the best at worst; below 0 it is above even then */
    record FieldView(
            CandidateId candidateId, Place place, @Nullable Double shortfall) {}

    record RuleView(RuleTerms terms, List<WeightView> weights) {}

    /** @param floor least agreement on it */
    record WeightView(CriterionId criterionId, String key, String name, double weight, double floor) {}

    /** A candidate that cannot be taken, whatever the grades say. */
    record RuledOut(CandidateId candidateId, List<String> reasons) {}

    /** What somebody expected before they saw anything. */
    record ExpectationView(String name, boolean lead, String expects, String usesToday, Instant declaredAt) {}

    /**
     * Who did not know whose answers they graded.
     *
     * @param lead       whether the lead graded too, and saw no more than a rater meanwhile
     * @param giveAways  answers that name a candidate in what raters read
     */
    record BlindingView(int raters, boolean lead, int giveAways) {}

    /** What the figures rest on. */
    record BasisView(int sentSheets, int sheets, int raters, int prompts, int answers, int resamples) {}

    record CandidateName(CandidateId id, String name, String version, String settings, boolean baseline) {}

    /**
     * @param adjusted     mean score of 100, adjusted for prompts and raters
     * @param plain        mean of the scores as they are
     * @param scores       scores it rests on
     * @param chanceOfBest share of resamples in which it stands highest
     */
    record StandingView(CandidateId candidateId, Figure adjusted, Figure plain, int scores, Figure chanceOfBest) {}

    record CriterionStandings(CriterionId criterionId, String name, List<StandingView> standings) {}

    /**
     * @param difference         adjusted mean of the higher less that of the lower, 95 % interval
     * @param adjustedDifference the same with the interval that Holm's correction over all pairs leaves
     */
    record DifferenceView(
            CandidateId higherId, CandidateId lowerId, Figure difference, Figure adjustedDifference, Figure p) {}

    /**
     * What a candidate's answers took.
     *
     * @param medianTotalMs median milliseconds an answer, over those measured
     * @param totalCost     sum over those with a cost; absent when none has, or currencies differ
     */
    record CandidateMeasures(
            CandidateId candidateId,
            int answers,
            int complete,
            @Nullable Long medianTotalMs,
            @Nullable Long medianOutputTokens,
            @Nullable BigDecimal totalCost,
            @Nullable String currency) {}
}
