package org.mossbank.server.recommendation;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.agreement.AgreementReport;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.study.KeptForecast;
import org.mossbank.server.study.Reopening;
import org.mossbank.server.study.RuleTerms;

/**
 * What the decision rule yields, in words and as data.
 *
 * @param headline one sentence
 * @param forecast what such a study was thought to show when the brief was closed; absent if nobody asked
 * @param leaderId the candidate with the highest standing, where the outcome rests on one
 */
public record RecommendationReport(
        long revision,
        Outcome outcome,
        String headline,
        @Nullable CandidateId leaderId,
        List<FindingView> findings,
        RuleView rule,
        BasisView basis,
        List<CandidateName> candidates,
        AllowanceView allowance,
        List<DecisiveView> agreement,
        List<FieldView> field,
        List<StandingView> overall,
        List<CriterionStandings> byCriterion,
        List<KindStandings> byKind,
        List<DifferenceView> differences,
        List<CandidateMeasures> measures,
        CostView costs,
        FailedView failed,
        SettledView settled,
        List<RuledOut> ruledOut,
        List<AgreementReport.SetAsidePrompt> setAside,
        List<UnequalFollowUps> unequalFollowUps,
        List<SeveralModels> severalModels,
        List<Reopening> reopenings,
        List<ExpectationView> expectations,
        BlindingView blinding,
        LookingView looking,
        @Nullable KeptForecast forecast) {

    /**
     * One reason.
     *
     * @param type     which sort of reason; names do not change
     * @param sentence the reason in words
     */
    public record FindingView(
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
    public record UnequalFollowUps(
            AnswerId answerId, PromptId promptId, String title, CandidateId candidateId, int attempt, int followUps) {}

    /**
     * A candidate for which more than one model answered, as its service said.
     *
     * @param answered how many answers each gave, or was a part of; in the order of names
     */
    public record SeveralModels(CandidateId candidateId, List<Answered> answered) {}

    /** @param answers how many say that it answered */
    public record Answered(String model, int answers) {}

    /** What may be said of a candidate against the best of the others. */
    public enum Place {
        BEST,
        SAFE,
        OPEN,
        OUT
    }

    /**
     * @param shortfall points that it lies below the best at worst; below 0 it is above even then
     * @param rivalId   the other against which it comes off worst
     * @param critical  how many standard errors of that difference were taken off
     */
    public record FieldView(
            CandidateId candidateId,
            Place place,
            @Nullable Double shortfall,
            @Nullable CandidateId rivalId,
            double critical) {}

    /**
     * How much may be said falsely.
     *
     * @param overall chance of a false statement over all kinds
     * @param kinds   within kinds, all of them together; 0 where kinds are not told apart
     */
    public record AllowanceView(double overall, double kinds) {}

    /** What agreement was on a criterion with weight, and the least there must be. */
    public record DecisiveView(CriterionId criterionId, String name, double weight, Figure value, double floor) {}

    /** Standings within one kind; what is said of it stands among the findings. */
    public record KindStandings(String kindKey, String name, List<StandingView> standings) {}

    /**
     * Answers that left nothing to grade.
     *
     * @param answers   how many
     * @param otherwise what the rule would say if they counted the other way; absent where it would say the same
     */
    public record FailedView(int answers, @Nullable String otherwise) {}

    /**
     * What settled grades would make of it; what decides rests on the original ones.
     *
     * @param splits    how many splits have a settled grade
     * @param open      how many have none
     * @param standings by candidate; none if nothing is settled
     * @param otherwise what the rule would say; absent where it would say the same
     */
    public record SettledView(
            int splits,
            int open,
            List<SettledStanding> standings,
            @Nullable String otherwise) {}

    /** @param adjusted the score with settled grades, in points of 100; without an interval, as they are not independent */
    public record SettledStanding(CandidateId candidateId, Figure adjusted) {}

    /**
     * What a prompt costs on average, over the prompts that all contenders answered.
     *
     * @param means     by candidate; empty where it is not known
     * @param prompts   how many are common to all
     * @param estimated whether some cost was not measured but estimated
     * @param why       why it is not known
     */
    public record CostView(
            List<MeanCost> means,
            @Nullable String currency,
            int prompts,
            boolean estimated,
            @Nullable String why) {}

    public record MeanCost(CandidateId candidateId, double mean) {}

    public record RuleView(RuleTerms terms, List<WeightView> weights) {}

    /** @param floor least agreement on it */
    public record WeightView(CriterionId criterionId, String key, String name, double weight, double floor) {}

    /** A candidate that cannot be taken, whatever the grades say. */
    public record RuledOut(CandidateId candidateId, List<String> reasons) {}

    /** What somebody expected before they saw anything. */
    public record ExpectationView(String name, boolean lead, String expects, String usesToday, Instant declaredAt) {}

    /**
     * Who did not know whose answers they graded.
     *
     * @param lead       whether the lead graded too, and saw no more than a rater meanwhile
     * @param giveAways  answers that name a candidate in what raters read
     * @param sentKnowing sheets that were sent in after the round had been closed once, and names had been open
     */
    public record BlindingView(int raters, boolean lead, int giveAways, int sentKnowing) {}

    /**
     * How often standings were seen, this time not counted.
     *
     * @param allowed by the brief, the look at the end included
     * @param taken   before, oldest first
     * @param counted prompts each of whose answers has as many raters as the rule asks for
     * @param planned prompts of the study
     */
    public record LookingView(int allowed, List<LookTaken> taken, int counted, int planned) {}

    /**
     * What the figures rest on.
     *
     * @param withdrawn sheets that were withdrawn and count nowhere; absent in what was seen at a look of an older release
     */
    public record BasisView(
            int sentSheets,
            int sheets,
            int raters,
            int prompts,
            int answers,
            int resamples,
            @Nullable Integer withdrawn) {}

    public record CandidateName(CandidateId id, String name, String version, String settings, boolean baseline) {
        static CandidateName of(CandidateView c) {
            return new CandidateName(c.id(), c.name(), c.content().version(), c.settingsLine(), c.isBaseline());
        }
    }

    /**
     * @param adjusted     mean score of 100, adjusted for prompts and raters
     * @param plain        mean of the scores as they are
     * @param scores       scores it rests on
     * @param chanceOfBest share of resamples in which it stands highest
     */
    public record StandingView(
            CandidateId candidateId, Figure adjusted, Figure plain, int scores, Figure chanceOfBest) {}

    public record CriterionStandings(CriterionId criterionId, String name, List<StandingView> standings) {}

    /**
     * @param difference         adjusted mean of the higher less that of the lower, 95 % interval
     * @param adjustedDifference the same with the interval that Holm's correction over all pairs leaves
     * @param standardError      for other prompts and other raters, in points
     * @param freedom            degrees of freedom of Student's t
     * @param here               on these prompts, by these raters: true of this study alone
     */
    public record DifferenceView(
            CandidateId higherId,
            CandidateId lowerId,
            Figure difference,
            Figure adjustedDifference,
            Figure p,
            Figure standardError,
            double freedom,
            Figure here) {}

    /**
     * What a candidate's answers took.
     *
     * @param medianTotalMs median milliseconds an answer, over those measured
     * @param totalCost     sum over those with a cost; absent when none has, or currencies differ
     */
    public record CandidateMeasures(
            CandidateId candidateId,
            int answers,
            int complete,
            @Nullable Long medianTotalMs,
            @Nullable Long medianOutputTokens,
            @Nullable BigDecimal totalCost,
            @Nullable String currency) {}
}
