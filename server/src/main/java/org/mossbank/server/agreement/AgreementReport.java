package org.mossbank.server.agreement;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;

/**
 * How alike raters grade, from the sheets sent in.
 *
 * @param revision    of the grades it was computed from
 * @param coefficient the one that the rule looks at
 * @param setAside    prompts that turned out faulty: nothing here rests on them
 */
public record AgreementReport(
        long revision,
        int sentSheets,
        int sheets,
        Coefficient coefficient,
        int resamples,
        List<CriterionAgreement> criteria,
        List<RaterName> raters,
        List<PairAgreement> pairs,
        List<RaterFigures> severity,
        List<SelfAgreement> selfAgreement,
        List<SplitView> splits,
        int splitCount,
        List<SetAsidePrompt> setAside) {

    /** With nothing of single raters but what is of this one: their place, their pairs, the splits they are part of. */
    AgreementReport forRater(AccountId own) {
        return new AgreementReport(
                revision,
                sentSheets,
                sheets,
                coefficient,
                resamples,
                criteria,
                raters,
                pairs.stream()
                        .filter(p -> p.firstRaterId().equals(own)
                                || p.secondRaterId().equals(own))
                        .toList(),
                severity.stream().filter(s -> s.raterId().equals(own)).toList(),
                selfAgreement.stream().filter(s -> s.raterId().equals(own)).toList(),
                splits.stream()
                        .filter(s ->
                                s.grades().stream().anyMatch(g -> g.raterId().equals(own)))
                        .toList(),
                splitCount,
                setAside);
    }

    /** Agreement on one criterion, with the least there must be, over all kinds and within each. */
    public record CriterionAgreement(
            CriterionId criterionId,
            String name,
            double weight,
            double floor,
            int highestLevel,
            AgreementFigures overall,
            List<KindAgreement> byKind) {}

    /** A prompt that counts nowhere, and why. */
    public record SetAsidePrompt(PromptId promptId, String title, String reason) {}

    /**
     * How far a rater agrees with themselves, over answers that came to them twice.
     *
     * @param grades  pairs of a first and a second grade
     * @param kappa   Cohen's kappa, quadratic, of first and second grades
     * @param sheetsApart how many sheets lay between, in the mean
     * @param daysApart   how many days, in the mean
     */
    public record SelfAgreement(
            AccountId raterId,
            String name,
            int grades,
            Figure exact,
            Figure withinOne,
            Figure kappa,
            double sheetsApart,
            double daysApart) {}

    public record KindAgreement(KindId kindId, String name, AgreementFigures figures) {}

    /**
     * @param alpha     Krippendorff's alpha, ordinal, with its interval over resampled prompts
     * @param ac2       Gwet's AC2, ordinal, beside it, because alpha collapses where almost all grades are alike
     * @param verdict   how the coefficient of the rule stands to the floor
     * @param exact     share of pairs of grades at the same level
     * @param withinOne share of pairs at most one level apart
     * @param pairs     pairs of grades it rests on
     * @param answers   answers with two grades or more
     * @param prompts   prompts of those answers
     * @param resampled what the interval resamples: prompts, or answers where there are too few prompts
     */
    public record AgreementFigures(
            Figure alpha,
            Figure ac2,
            Verdict verdict,
            Figure exact,
            Figure withinOne,
            int pairs,
            int answers,
            int prompts,
            Resampled resampled) {}

    /** What is drawn for an interval. */
    public enum Resampled {
        PROMPTS,
        ANSWERS
    }

    public record RaterName(AccountId raterId, String name) {}

    /** Cohen's kappa of two raters on one criterion, over the answers that both graded. */
    public record PairAgreement(
            CriterionId criterionId,
            AccountId firstRaterId,
            AccountId secondRaterId,
            Figure quadratic,
            Figure linear,
            int answers) {}

    /**
     * @param severity    levels below the others on the same answers
     * @param grades      grades given
     * @param shareAtEnds share of them at the lowest or highest level
     */
    public record RaterFigures(AccountId raterId, String name, Figure severity, int grades, double shareAtEnds) {}

    /** An answer and criterion on which raters lie two levels or more apart. */
    public record SplitView(
            AnswerId answerId,
            CandidateId candidateId,
            PromptId promptId,
            String promptTitle,
            CriterionId criterionId,
            String criterionName,
            int distance,
            List<SplitGrade> grades) {}

    public record SplitGrade(
            AccountId raterId,
            String name,
            int level,
            @Nullable String levelName) {}
}
