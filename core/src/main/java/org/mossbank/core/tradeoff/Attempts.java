package org.mossbank.core.tradeoff;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;

/**
 * How steady a candidate is when it is asked the same again.
 *
 * <p>\[ s_c^2 = \frac{\sum_p \sum_a (\bar y_{cpa} - \bar y_{cp})^2}{\sum_p (A_{cp} - 1)}, \quad
 * w_c = \frac{1}{P} \sum_p \min_a \bar y_{cpa} \] over prompts that it answered more than once, each answer at the mean of its
 * raters' scores. In points. Undefined where no prompt was asked twice.
 *
 * @param candidate which
 * @param prompts   asked more than once
 * @param mean      of these answers, each prompt weighing alike
 * @param worst     mean of the worst answer to each
 * @param within    standard deviation from answer to answer of one prompt
 */
public record Attempts(String candidate, int prompts, Estimate mean, Estimate worst, Estimate within) {

    /** One answer with the mean score of its raters. */
    public record Answer(String candidate, String prompt, double score) {}

    /** One entry a candidate, in alphabetical order. */
    public static List<Attempts> of(Collection<Answer> answers) {
        List<Attempts> all = new ArrayList<>();
        answers.stream()
                .collect(Collectors.groupingBy(
                        Answer::candidate,
                        TreeMap::new,
                        Collectors.groupingBy(Answer::prompt, TreeMap::new, Collectors.toList())))
                .forEach((candidate, prompts) -> all.add(of(candidate, prompts)));
        return all;
    }

    /**
     * Standard deviation between candidates' means: what attempts vary by is to be seen against it.
     *
     * @return undefined with one candidate
     */
    public static Estimate between(Collection<Answer> answers) {
        double[] means = answers.stream()
                .collect(Collectors.groupingBy(Answer::candidate, Collectors.averagingDouble(Answer::score)))
                .values()
                .stream()
                .mapToDouble(Double::doubleValue)
                .toArray();
        return means.length < 2
                ? Estimate.undefined(Reason.TOO_FEW_LEVELS)
                : Estimate.of(Math.sqrt(squares(means) / (means.length - 1)));
    }

    private static Attempts of(String candidate, Map<String, List<Answer>> prompts) {
        double mean = 0;
        double worst = 0;
        double squares = 0;
        int freedom = 0;
        int n = 0;
        for (List<Answer> own : prompts.values()) {
            if (own.size() > 1) {
                double[] scores = own.stream().mapToDouble(Answer::score).toArray();
                mean += java.util.Arrays.stream(scores).average().orElseThrow();
                worst += java.util.Arrays.stream(scores).min().orElseThrow();
                squares += squares(scores);
                freedom += scores.length - 1;
                n++;
            }
        }
        if (n == 0) {
            Estimate none = Estimate.undefined(Reason.TOO_FEW_PAIRS);
            return new Attempts(candidate, 0, none, none, none);
        }
        return new Attempts(
                candidate, n, Estimate.of(mean / n), Estimate.of(worst / n), Estimate.of(Math.sqrt(squares / freedom)));
    }

    private static double squares(double[] x) {
        double mean = java.util.Arrays.stream(x).average().orElseThrow();
        return java.util.Arrays.stream(x).map(v -> (v - mean) * (v - mean)).sum();
    }
}
