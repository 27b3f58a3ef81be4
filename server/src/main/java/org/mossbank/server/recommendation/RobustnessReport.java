package org.mossbank.server.recommendation;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.robustness.Robustness;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.shared.Figure;

/**
 * What the outcome hangs on, and what else the grades tell.
 *
 * @param sentence   what it hangs on, in words; empty while nothing is recommended for lack of ground
 * @param without    what would be said without one thing; those that change it first
 * @param weightings how many weightings were tried
 * @param same       share of them that says the same
 * @param shares     of the weightings, by candidate
 * @param along      what is said as one criterion's weight goes from 0 to 1
 * @param checks     whether anything beside the answers moved grades
 * @param attempts   how steady candidates are when asked again; empty where none was
 * @param bestPair   the pair whose second opinions gain most
 * @param mix        one candidate a kind
 * @param worth      points of score for each unit of money
 * @param guesses    whether raters could tell who wrote what; absent if nobody guessed
 */
public record RobustnessReport(
        String sentence,
        List<WithoutView> without,
        int weightings,
        double same,
        List<ShareView> shares,
        List<AlongView> along,
        List<CheckView> checks,
        List<AttemptsView> attempts,
        @Nullable Figure betweenCandidates,
        @Nullable MixView bestPair,
        @Nullable MixView mix,
        List<WorthView> worth,
        @Nullable GuessView guesses) {

    /**
     * @param name  of the prompt, rater, criterion or kind
     * @param says  what would be said; part of a sentence
     */
    public record WithoutView(Robustness.Factor factor, String name, Outcome outcome, String says, boolean changes) {}

    /** Shares of weightings, in [0, 1]: recommended; recommended or safe; out. */
    public record ShareView(CandidateId candidateId, double best, double safe, double out) {}

    public record AlongView(String criterion, List<PointView> points) {}

    public record PointView(double weight, String says, boolean changes) {}

    /** What may move grades. */
    public enum Influence {
        PLACE_ON_SHEET,
        LENGTH,
        HOUR
    }

    /** @param slope points a place, a doubling of the length, or an hour */
    public record CheckView(Influence of, Figure slope, int scores) {}

    /**
     * @param prompts asked more than once
     * @param worst   mean of the worst answer to each
     * @param within  standard deviation from answer to answer
     */
    public record AttemptsView(CandidateId candidateId, int prompts, Figure mean, Figure worst, Figure within) {}

    /**
     * @param kinds of each candidate, where they are chosen by kind
     * @param gain  over the best single one, in points
     */
    public record MixView(List<CandidateId> candidateIds, List<String> kinds, Figure gain) {}

    public record WorthView(CandidateId candidateId, Figure pointsAUnit, String currency) {}

    /**
     * @param chance the share that chance alone would have
     * @param p      how likely as many are by chance alone
     */
    public record GuessView(int hits, int tries, Figure share, double chance, Figure p) {}
}
