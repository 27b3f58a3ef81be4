package org.mossbank.core.comparison;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;

/**
 * The sign-flip test of paired differences: if two candidates were alike, each difference could as well have had the other
 * sign.
 *
 * <p>\[ p = \#\{s \in \{-1, 1\}^n : |\textstyle\sum_i s_i d_i| \ge |\sum_i d_i|\} / 2^n \]
 *
 * <p>one-sided with the sum at least, or at most, what was seen. The seen signs are one of the patterns, so p is never 0.
 * Exact: sums are counted in whole multiples of the last decimal place of the differences, so that sums that are equal as
 * decimals count as equal, and nothing is drawn at random. Dimensionless, in (0, 1]. Undefined without a pair. Cost: pairs ×
 * distinct sums; where these would pass four million, differences are rounded to fewer places.
 *
 * <p>Sources: R. Fisher (1935), <i>The Design of Experiments</i>, sec. 21; E. Pitman (1937), Significance tests which may be
 * applied to samples from any populations, <i>Supplement to the JRSS</i> 4(1), 119-130, doi:10.2307/2984124.
 *
 * @param pairs     differences, those of 0 included
 * @param mean      their mean
 * @param twoSided  share of patterns with a sum as far from 0
 * @param greater   share with a sum at least as high
 * @param less      share with a sum at most as high
 */
public record SignFlip(int pairs, Estimate mean, Estimate twoSided, Estimate greater, Estimate less) {
    /** Twenty-two signs, or sums of so many bits. */
    private static final int MOST_PATTERNS = 22;

    public static SignFlip of(List<BigDecimal> differences) {
        if (differences.isEmpty()) {
            Estimate none = Estimate.undefined(Reason.NO_DATA);
            return new SignFlip(0, none, none, none, none);
        }
        List<BigInteger> whole = whole(differences);
        Map<BigInteger, Double> shares = Map.of(BigInteger.ZERO, 1.0);
        for (BigInteger d : whole) {
            Map<BigInteger, Double> next = new HashMap<>();
            shares.forEach((sum, share) -> {
                next.merge(sum.add(d), share / 2, Double::sum);
                next.merge(sum.subtract(d), share / 2, Double::sum);
            });
            shares = next;
        }
        BigInteger seen = whole.stream().reduce(BigInteger.ZERO, BigInteger::add);
        double twoSided = 0;
        double greater = 0;
        double less = 0;
        for (Map.Entry<BigInteger, Double> sum : shares.entrySet()) {
            twoSided += sum.getKey().abs().compareTo(seen.abs()) >= 0 ? sum.getValue() : 0;
            greater += sum.getKey().compareTo(seen) >= 0 ? sum.getValue() : 0;
            less += sum.getKey().compareTo(seen) <= 0 ? sum.getValue() : 0;
        }
        double mean = differences.stream()
                .mapToDouble(BigDecimal::doubleValue)
                .average()
                .orElseThrow();
        return new SignFlip(
                differences.size(), Estimate.of(mean), Estimate.of(twoSided), Estimate.of(greater), Estimate.of(less));
    }

    /** In multiples of a decimal place: the last one, or the last for which there are not too many sums. */
    private static List<BigInteger> whole(List<BigDecimal> differences) {
        int places = Math.max(
                0, differences.stream().mapToInt(BigDecimal::scale).max().orElse(0));
        while (true) {
            int at = places;
            List<BigInteger> whole = differences.stream()
                    .map(d -> d.setScale(at, RoundingMode.HALF_EVEN).unscaledValue())
                    .toList();
            BigInteger range = whole.stream().map(BigInteger::abs).reduce(BigInteger.ZERO, BigInteger::add);
            if (at == 0 || whole.size() <= MOST_PATTERNS || range.bitLength() < MOST_PATTERNS) {
                return whole;
            }
            places--;
        }
    }
}
