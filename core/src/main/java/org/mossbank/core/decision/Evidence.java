package org.mossbank.core.decision;

import java.util.List;
import java.util.OptionalDouble;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Require;

/**
 * What the rule looks at.
 *
 * @param state      what stands in the way whatever the figures say
 * @param answers    how many raters graded each answer
 * @param agreement  agreement on each criterion that has weight
 * @param standings  overall standings of all candidates
 * @param contenders the candidates that may be recommended: no person's baseline, and none that a fact rules out
 * @param kinds      standings within each kind, where the rule lets kinds be told apart
 */
public record Evidence(
        State state,
        List<AnswerRaters> answers,
        List<CriterionAgreement> agreement,
        Standings standings,
        List<Contender> contenders,
        List<WithinKind> kinds) {
    public Evidence {
        answers = List.copyOf(answers);
        agreement = List.copyOf(agreement);
        contenders = List.copyOf(contenders);
        kinds = List.copyOf(kinds);
    }

    /** Nothing within kinds. */
    public Evidence(
            State state,
            List<AnswerRaters> answers,
            List<CriterionAgreement> agreement,
            Standings standings,
            List<Contender> contenders) {
        this(state, answers, agreement, standings, contenders, List.of());
    }

    /** Standings on the prompts of one kind. */
    public record WithinKind(String kind, Standings standings) {}

    /**
     * @param briefClosed whether the rule is closed
     * @param giveAways   answers whose text gives their candidate away
     * @param openSplits  splits without a settled grade
     */
    public record State(boolean briefClosed, int giveAways, int openSplits) {
        /** @throws IllegalArgumentException if a count is negative */
        public State {
            Require.atLeast("giveAways", 0, giveAways);
            Require.atLeast("openSplits", 0, openSplits);
        }

        /** Nothing stands in the way. */
        public static final State CLEAR = new State(true, 0, 0);
    }

    /** How many raters graded an answer. */
    public record AnswerRaters(String answer, int raters) {}

    /** Agreement on a criterion over all kinds, and the least there must be. */
    public record CriterionAgreement(String criterion, Estimate coefficient, Interval interval, double floor) {
        /** @throws IllegalArgumentException if the floor lies outside [-1, 1] */
        public CriterionAgreement {
            Require.that(floor >= -1 && floor <= 1, "floor", "must lie in [-1, 1]", floor);
        }
    }

    /** A candidate that may be recommended, with what the tie-break compares, where it is known. */
    public record Contender(String candidate, OptionalDouble tieBreakValue) {}

    /** The same with other standings, and nothing within kinds. */
    public Evidence with(Standings other) {
        return new Evidence(state, answers, agreement, other, contenders, List.of());
    }

    boolean isContender(String candidate) {
        return contenders.stream().anyMatch(c -> c.candidate().equals(candidate));
    }

    List<Standing> contending() {
        return contending(standings);
    }

    List<Standing> contending(Standings of) {
        return of.standings().stream().filter(s -> isContender(s.candidate())).toList();
    }

    List<Difference> contendingDifferences() {
        return contendingDifferences(standings);
    }

    /** Differences between contenders; their p stay corrected for all pairs that were looked at. */
    List<Difference> contendingDifferences(Standings of) {
        return of.differences().stream()
                .filter(d -> isContender(d.higher()) && isContender(d.lower()))
                .toList();
    }
}
