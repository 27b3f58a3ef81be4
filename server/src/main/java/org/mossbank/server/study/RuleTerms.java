package org.mossbank.server.study;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Locale;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.decision.Allowance;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.Gate;

/**
 * The decision rule as a lead sets it. Weights, and floors of single criteria, stand with the criteria.
 *
 * @param coefficient      which coefficient of agreement counts
 * @param agreementFloor   least agreement on every criterion with weight that has no floor of its own
 * @param floorOn          what must reach the floor: the estimate, or a limit of its interval
 * @param margin           smallest difference in score that matters, in points of 100
 * @param minimumRaters    least number of raters an answer
 * @param tieBreak         what decides between equals
 * @param strictOnMasking  whether an answer that gives its candidate away withholds the recommendation
 * @param strictOnSplits   whether an unsettled split does
 * @param byKind           whether kinds may be told apart where nothing holds over all of them, for a fifth of the allowance
 * @param looks            how often standings may be seen, the last time once grading has ended
 * @param failedAnswers    what an answer without any text counts for
 * @param gate             a criterion that caps the score of an answer that fails it
 */
public record RuleTerms(
        @NotNull Coefficient coefficient,
        @DecimalMin("-1") @DecimalMax("1") double agreementFloor,
        @NotNull DecisionRule.FloorOn floorOn,
        @DecimalMin("0") @DecimalMax("100") double margin,
        @Min(1) @Max(100) int minimumRaters,
        @NotNull DecisionRule.TieBreak tieBreak,
        boolean strictOnMasking,
        boolean strictOnSplits,
        boolean byKind,
        @Min(1) @Max(MOST_LOOKS) int looks,
        @NotNull FailedAnswers failedAnswers,
        @Nullable @Valid GateTerms gate) {

    public static final int MOST_LOOKS = 4;

    /** What a new study starts from. */
    static final RuleTerms USUAL = new RuleTerms(
            Coefficient.ALPHA_ORDINAL,
            0.67,
            DecisionRule.FloorOn.UPPER_LIMIT,
            5,
            3,
            DecisionRule.TieBreak.COST,
            false,
            false,
            false,
            1,
            FailedAnswers.LOWEST,
            null);

    /** What becomes of an answer that was refused, failed or timed out and left nothing to grade. */
    public enum FailedAnswers {
        /** The lowest level on every criterion, from each rater of its prompt. */
        LOWEST,
        /** It counts nowhere. */
        LEFT_OUT;

        public FailedAnswers other() {
            return this == LOWEST ? LEFT_OUT : LOWEST;
        }
    }

    /**
     * @param criterion key of the criterion
     * @param level     the highest level that is capped
     * @param cap       the most that such an answer may score
     */
    public record GateTerms(
            @NotNull @Size(min = 1, max = 80) String criterion,
            @Min(0) @Max(9) int level,
            @DecimalMin("0") @DecimalMax("100") double cap) {

        /** A grade as a gate leaves it: capped if it is on the gate's criterion and low enough. */
        public static CriterionGrade apply(@Nullable GateTerms gate, String criterion, CriterionGrade grade) {
            return gate != null && gate.criterion.equals(criterion)
                    ? new Gate(gate.level, gate.cap).apply(grade)
                    : grade;
        }
    }

    public DecisionRule decisionRule() {
        return new DecisionRule(
                floorOn,
                margin,
                minimumRaters,
                tieBreak,
                new DecisionRule.Strictness(strictOnMasking, strictOnSplits),
                byKind ? Allowance.WITH_KINDS : Allowance.OVERALL);
    }

    /** What earlier looks, evenly spread over the prompts, leave for the last one. */
    Allowance allowanceAtTheLastLook() {
        Allowance whole = decisionRule().allowance();
        return looks == 1
                ? whole
                : whole.at(IntStream.rangeClosed(1, looks)
                        .mapToObj(l -> (double) l / looks)
                        .toList());
    }

    /** The rule in words, as it stands in records and memos. */
    public String inWords() {
        return String.format(
                Locale.ROOT,
                "%s%s of at least %.2f, margin %.1f points, at least %d raters an answer, tie-break: %s%s%s%s%s%s%s",
                coefficient.sign(),
                switch (floorOn) {
                    case ESTIMATE -> "";
                    case LOWER_LIMIT -> " (lower limit)";
                    case UPPER_LIMIT -> " (upper limit)";
                },
                agreementFloor,
                margin,
                minimumRaters,
                tieBreak.name().toLowerCase(Locale.ROOT),
                strictOnMasking ? ", strict on masking" : "",
                strictOnSplits ? ", strict on open splits" : "",
                byKind ? ", kinds told apart" : "",
                looks > 1 ? ", " + looks + " looks" : "",
                failedAnswers == FailedAnswers.LEFT_OUT ? ", answers without text left out" : "",
                gate == null
                        ? ""
                        : String.format(
                                Locale.ROOT, ", %s at %d or below caps at %.0f", gate.criterion, gate.level, gate.cap));
    }
}
