package org.mossbank.core.comparison;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Student;

/**
 * What may be said of each candidate by comparing it with the best of the others (multiple comparisons with the best).
 *
 * <p>With differences \(\hat\delta_{ij}\), their standard errors \(s_{ij}\) and degrees of freedom \(\nu_{ij}\), and an allowance
 * of error \(\alpha\):
 *
 * <p>\[ i \text{ is the best if } \min_{j \ne i} (\hat\delta_{ij} - t_{1 - \alpha / 2, \nu_{ij}} s_{ij}) > 0, \quad
 * i \text{ is safe if } \min_{j \ne i} (\hat\delta_{ij} - d_{ij} s_{ij}) > -\text{margin} \]
 *
 * <p>with \(d_{ij}\) the one-sided critical value of {@link DunnettCritical} for all other candidates, at the least correlation
 * that any candidate's differences have. A candidate is out (not the best) if some other is above it after Holm's correction
 * over all pairs. In points. A candidate of which a difference is not known is none of these.
 *
 * <p>That the best needs no correction for the number of candidates holds for independent, equally precise estimates (Gutmann and
 * Maymin 1987); here it is a working rule, checked by simulation.
 *
 * <p>Sources: J. Hsu (1984), Constrained simultaneous confidence intervals for multiple comparisons with the best, <i>Annals of
 * Statistics</i> 12(3), 1136-1144, doi:10.1214/aos/1176346732; D. Edwards and J. Hsu (1983), Multiple comparisons with the best
 * treatment, <i>JASA</i> 78(384), 965-971, doi:10.1080/01621459.1983.10477047; S. Gutmann and Z. Maymin (1987), Is the selected
 * population the best?, <i>Annals of Statistics</i> 15(1), 456-461, doi:10.1214/aos/1176350280.
 *
 * @param candidates in the order given
 */
public record WithBest(List<Candidate> candidates) {
    public WithBest {
        candidates = List.copyOf(candidates);
    }

    /**
     * One candidate against the best of the others.
     *
     * @param name      which
     * @param best      above every other beyond doubt
     * @param out       below some other beyond doubt
     * @param outBy     which one that is, the one that shows it best; empty unless it is out
     * @param shortfall how far it lies below the best of the others at worst, in points; below 0 it lies above even then. Empty
     *                  where a difference is not known
     * @param rival     the other against which it comes off worst
     * @param critical  how many standard errors of that difference were taken off; 0 where nothing varies
     */
    public record Candidate(
            String name,
            boolean best,
            boolean out,
            String outBy,
            OptionalDouble shortfall,
            String rival,
            double critical) {
        /** Whether it is at worst less than so many points below the best. */
        public boolean isSafe(double margin) {
            return shortfall.isPresent() && shortfall.getAsDouble() < margin;
        }
    }

    /**
     * @param names       candidates, at least 2
     * @param differences of each pair of them
     * @param alpha       allowance of error, for example 0.05
     * @throws IllegalArgumentException if a pair's difference is missing
     */
    public static WithBest of(List<String> names, List<Difference> differences, double alpha) {
        Require.that(names.size() >= 2, "names", "must be at least 2", names.size());
        Pairs pairs = new Pairs(differences);
        double correlation = leastCorrelation(names, pairs);
        List<Candidate> all = new ArrayList<>();
        for (String name : names) {
            all.add(candidate(name, names, pairs, correlation, alpha));
        }
        return new WithBest(all);
    }

    private static Candidate candidate(String name, List<String> names, Pairs pairs, double correlation, double alpha) {
        boolean known = true;
        boolean best = true;
        double lowest = Double.POSITIVE_INFINITY;
        double leastP = alpha;
        String outBy = "";
        String rival = "";
        double critical = 0;
        for (String other : names) {
            if (other.equals(name)) {
                continue;
            }
            Pairs.Towards d = pairs.from(name, other);
            if (d.difference.standardError().value().isEmpty()) {
                known = false;
                continue;
            }
            double error = d.difference.standardError().value().getAsDouble();
            double freedom = d.difference.freedom();
            best &= d.estimate > 0 && (error == 0 || Student.of(freedom).twoSidedP(d.estimate / error) < alpha);
            double times = error == 0 ? 0 : DunnettCritical.of(names.size() - 1, freedom, correlation, alpha);
            if (d.estimate - error * times < lowest) {
                lowest = d.estimate - error * times;
                rival = other;
                critical = times;
            }
            double p = d.difference.adjustedP().value().orElse(1);
            if (d.estimate < 0 && p < leastP) {
                leastP = p;
                outBy = other;
            }
        }
        return new Candidate(
                name,
                known && best,
                !outBy.isEmpty(),
                outBy,
                known ? OptionalDouble.of(-lowest) : OptionalDouble.empty(),
                rival,
                critical);
    }

    /** From the variances of three differences: \( 2 \mathrm{Cov}(\hat\delta_{ij}, \hat\delta_{il}) = V_{ij} + V_{il} - V_{jl} \). */
    private static double leastCorrelation(List<String> names, Pairs pairs) {
        double least = 0.99;
        for (String i : names) {
            double sum = 0;
            int count = 0;
            for (String j : names) {
                for (String l : names) {
                    if (i.equals(j) || i.equals(l) || j.compareTo(l) >= 0) {
                        continue;
                    }
                    double ij = pairs.variance(i, j);
                    double il = pairs.variance(i, l);
                    if (ij > 0 && il > 0) {
                        sum += (ij + il - pairs.variance(j, l)) / (2 * Math.sqrt(ij * il));
                        count++;
                    }
                }
            }
            if (count > 0) {
                least = Math.min(least, sum / count);
            }
        }
        return Math.max(0, least);
    }

    /** Differences by both their candidates. */
    private static final class Pairs {
        private final Map<List<String>, Difference> byPair = new HashMap<>();

        Pairs(List<Difference> differences) {
            differences.forEach(d -> byPair.put(List.of(d.higher(), d.lower()), d));
        }

        /** A difference seen from one of the two. */
        private record Towards(Difference difference, double estimate) {}

        Towards from(String name, String other) {
            Difference as = byPair.get(List.of(name, other));
            if (as != null) {
                return new Towards(as, as.estimate().value().orElse(0));
            }
            Difference reverse = Require.known(byPair, List.of(other, name));
            return new Towards(reverse, -reverse.estimate().value().orElse(0));
        }

        double variance(String one, String other) {
            double error = from(one, other).difference.standardError().value().orElse(0);
            return error * error;
        }
    }
}
