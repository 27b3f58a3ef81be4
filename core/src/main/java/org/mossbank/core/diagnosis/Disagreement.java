package org.mossbank.core.diagnosis;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.estimate.Estimate;

/**
 * What the disagreement on one criterion consists of.
 *
 * <p>Every share is of the observed disagreement of ordinal alpha, a sum over pairs of grades ({@link PackedGrades}): in [0, 1], each
 * list together 1. Where all agree there are none. Cost O(answers × raters²).
 *
 * @param prompts    by prompt, largest first
 * @param raterPairs by two raters, largest first
 * @param levelPairs by two levels, largest first
 * @param merged     what alpha would be if two neighbouring levels were one, largest first; a diagnosis, never a change of figures
 */
public record Disagreement(List<Share> prompts, List<Share> raterPairs, List<Share> levelPairs, List<Merged> merged) {
    public Disagreement {
        prompts = List.copyOf(prompts);
        raterPairs = List.copyOf(raterPairs);
        levelPairs = List.copyOf(levelPairs);
        merged = List.copyOf(merged);
    }

    /**
     * @param first  a prompt, a rater, or a level as a number
     * @param second the other rater or level; empty for a prompt
     * @param share  of all disagreement, in [0, 1]
     * @param pairs  of grades that it rests on, those that agree included
     */
    public record Share(String first, String second, double share, int pairs) {}

    /** @param lower the lower of two neighbouring levels */
    public record Merged(int lower, Estimate alpha) {}

    /** @param promptOf the prompt of each unit of the matrix */
    public static Disagreement of(RatingMatrix matrix, UnaryOperator<String> promptOf) {
        Narrowed all = PackedGrades.of(matrix, promptOf, u -> "").narrowed(Narrowing.NONE, 0);
        return new Disagreement(
                shares(all.prompts()),
                orNone(all.raterPairs().stream()
                        .map(p -> new Share(p.first(), p.second(), p.share(), p.answers()))
                        .toList()),
                shares(all.levelPairs()),
                merged(matrix));
    }

    private static List<Share> shares(List<Narrowed.Part> parts) {
        return orNone(parts.stream()
                .map(p -> new Share(p.first(), p.second(), p.share(), p.pairs()))
                .toList());
    }

    private static List<Share> orNone(List<Share> shares) {
        return shares.stream().allMatch(s -> s.share() == 0) ? List.of() : shares;
    }

    private static List<Merged> merged(RatingMatrix matrix) {
        List<Merged> all = new ArrayList<>();
        for (int lower = 0; lower + 1 < matrix.levels(); lower++) {
            int last = lower;
            List<Rating> ratings = new ArrayList<>();
            for (int u = 0; u < matrix.units().size(); u++) {
                for (int r = 0; r < matrix.raters().size(); r++) {
                    OptionalInt level = matrix.category(u, r);
                    if (level.isPresent()) {
                        int given = level.getAsInt();
                        ratings.add(new Rating(
                                matrix.units().get(u), matrix.raters().get(r), given > last ? given - 1 : given));
                    }
                }
            }
            all.add(new Merged(
                    lower,
                    KrippendorffAlpha.of(RatingMatrix.ofLevels(ratings, Math.max(1, matrix.levels() - 2)))
                            .value(Metric.ORDINAL)));
        }
        all.sort(Comparator.comparingDouble((Merged m) -> m.alpha().value().orElse(Double.NEGATIVE_INFINITY))
                .reversed());
        return all;
    }
}
