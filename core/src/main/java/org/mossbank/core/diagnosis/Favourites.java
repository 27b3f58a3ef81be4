package org.mossbank.core.diagnosis;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.random.RandomGenerator;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.StudentMean;

/**
 * Whether raters graded the candidate higher that they had expected to do best, although they did not know which it was.
 *
 * <p>On each prompt a rater's <i>contrast</i> for a candidate is what they gave it less the mean of what they gave the others, less the
 * mean of the same contrast of everybody else on that prompt: \[ k_{rc} = \frac{1}{|P_{rc}|} \sum_{p} \Big[ (y_{rpc} - \bar y_{rp, -c}) -
 * \overline{(y_{qpc} - \bar y_{qp, -c})}_{q \ne r} \Big] \] over prompts on which somebody else graded it too. In points. The statistic is
 * the mean of \(k_{r f(r)}\) over raters with a favourite \(f(r)\); where names are hidden, favourites could as well be another
 * rater's, so its p value, one-sided, is the share of all ways to deal the favourites out among these raters that give as much or more:
 * all of them up to seven raters, else 9,999 at random, the one that is there counted in (Phipson &amp; Smyth 2010).
 *
 * <p>Source: R. A. Fisher (1935), <i>The Design of Experiments</i>, ch. 3; B. Phipson, G. K. Smyth (2010), Permutation p-values should
 * never be zero, <i>Stat. Appl. Genet. Mol. Biol.</i> 9(1), art. 39, doi:10.2202/1544-6115.1585.
 *
 * @param raters with a favourite that they and somebody else graded
 * @param higher by how much favourites were graded higher, with Student's interval over raters
 * @param p      chance of as much or more were it nothing; undefined with fewer than two different favourites
 */
public record Favourites(int raters, StudentMean higher, Estimate p) {
    private static final double LEVEL = 0.95;
    private static final int MOST_EXACT = 7;
    private static final int DRAWS = 9999;
    /** Sums of the same contrasts in another order differ by rounding alone. */
    private static final double ROUNDING = 1e-9;

    /** @param favourites by rater; those who expected nothing are not in it */
    public static Favourites of(List<ScoredCell> cells, Map<String, String> favourites, RandomGenerator random) {
        Contrasts contrasts = new Contrasts(cells);
        List<String> raters = new ArrayList<>();
        List<String> dealt = new ArrayList<>();
        new TreeMap<>(favourites).forEach((rater, favourite) -> {
            if (contrasts.of(rater, favourite).isPresent()) {
                raters.add(rater);
                dealt.add(favourite);
            }
        });
        double[] own = new double[raters.size()];
        for (int i = 0; i < own.length; i++) {
            own[i] = contrasts.of(raters.get(i), dealt.get(i)).orElseThrow();
        }
        boolean alike = dealt.stream().distinct().count() < 2;
        return new Favourites(
                own.length,
                StudentMean.of(own, LEVEL),
                alike
                        ? Estimate.undefined(Reason.TOO_FEW_LEVELS)
                        : Estimate.of(p(contrasts.table(raters, dealt), random)));
    }

    /** @param table by rater and favourite in their order; the favourite that is dealt to a rater stands on the diagonal */
    private static double p(double[][] table, RandomGenerator random) {
        int n = table.length;
        int[] deal = new int[n];
        double seen = 0;
        for (int i = 0; i < n; i++) {
            deal[i] = i;
            seen += table[i][i];
        }
        if (n <= MOST_EXACT) {
            int[] counts = new int[2];
            permute(table, deal, 0, 0, seen, counts);
            return (double) counts[0] / counts[1];
        }
        int asMuch = 1;
        for (int draw = 0; draw < DRAWS; draw++) {
            double sum = 0;
            for (int i = n - 1; i >= 0; i--) {
                int j = random.nextInt(i + 1);
                int swapped = deal[i];
                deal[i] = deal[j];
                deal[j] = swapped;
                sum += table[i][deal[i]];
            }
            if (sum >= seen - ROUNDING) {
                asMuch++;
            }
        }
        return (double) asMuch / (DRAWS + 1);
    }

    private static void permute(double[][] table, int[] deal, int from, double sum, double seen, int[] counts) {
        if (from == deal.length) {
            counts[1]++;
            if (sum >= seen - ROUNDING) {
                counts[0]++;
            }
            return;
        }
        for (int j = from; j < deal.length; j++) {
            swap(deal, from, j);
            permute(table, deal, from + 1, sum + table[from][deal[from]], seen, counts);
            swap(deal, from, j);
        }
    }

    private static void swap(int[] deal, int i, int j) {
        int kept = deal[i];
        deal[i] = deal[j];
        deal[j] = kept;
    }

    private static final class Contrasts {
        /** By prompt, then rater, then candidate; attempts as their mean. */
        private final Map<String, Map<String, Map<String, Double>>> scores;

        Contrasts(List<ScoredCell> cells) {
            scores = cells.stream()
                    .collect(Collectors.groupingBy(
                            ScoredCell::prompt,
                            TreeMap::new,
                            Collectors.groupingBy(
                                    ScoredCell::rater,
                                    TreeMap::new,
                                    Collectors.groupingBy(
                                            ScoredCell::candidate,
                                            TreeMap::new,
                                            Collectors.averagingDouble(ScoredCell::score)))));
        }

        /** Empty where nobody else can be compared with. */
        OptionalDouble of(String rater, String candidate) {
            List<Double> all = new ArrayList<>();
            for (Map<String, Map<String, Double>> prompt : scores.values()) {
                Optional<Double> own = plain(prompt.getOrDefault(rater, Map.of()), candidate);
                OptionalDouble others = prompt.entrySet().stream()
                        .filter(e -> !e.getKey().equals(rater))
                        .flatMap(e -> plain(e.getValue(), candidate).stream())
                        .mapToDouble(Double::doubleValue)
                        .average();
                if (own.isPresent() && others.isPresent()) {
                    all.add(own.get() - others.getAsDouble());
                }
            }
            return all.stream().mapToDouble(Double::doubleValue).average();
        }

        private static Optional<Double> plain(Map<String, Double> given, String candidate) {
            Double own = given.get(candidate);
            OptionalDouble rest = given.entrySet().stream()
                    .filter(e -> !e.getKey().equals(candidate))
                    .mapToDouble(Map.Entry::getValue)
                    .average();
            return own == null || rest.isEmpty() ? Optional.empty() : Optional.of(own - rest.getAsDouble());
        }

        /** What is not known of a rater and a favourite says nothing either way. */
        double[][] table(List<String> raters, List<String> favourites) {
            Map<String, Double> known = new HashMap<>();
            double[][] table = new double[raters.size()][favourites.size()];
            for (int i = 0; i < raters.size(); i++) {
                String rater = raters.get(i);
                known.clear();
                for (int j = 0; j < favourites.size(); j++) {
                    table[i][j] = known.computeIfAbsent(
                            favourites.get(j), f -> of(rater, f).orElse(0));
                }
            }
            return table;
        }
    }
}
