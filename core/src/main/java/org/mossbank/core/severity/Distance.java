package org.mossbank.core.severity;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mossbank.core.estimate.Require;

/**
 * How far one rater's levels lie from others' on the same units: what a rater who learns a scale looks at first.
 *
 * <p>For a rater \(r\) on the units \(i\) that somebody else placed too, with \(x\) a level as a share of its scale and
 * \(\bar x_{i,-r}\) the mean of the others' on the unit,
 * \[ \text{apart} = \frac{100}{n} \sum_i |x_{ir} - \bar x_{i,-r}|, \quad
 *    \text{above} = \frac{100}{n} \sum_i (x_{ir} - \bar x_{i,-r}). \]
 * Against a reference the given level stands for \(\bar x_{i,-r}\).
 *
 * <p>In percent of the scale, so that scales of different lengths can be joined: apart in [0, 100], above in [-100, 100].
 * A description of the units at hand; no inference to others is meant. Linear in the number of grades.
 *
 * @param apart  mean distance, whichever way
 * @param above  mean signed distance; negative is below
 * @param grades how many it is the mean of, at least 1
 */
public record Distance(double apart, double above, int grades) {

    /**
     * A level that a rater gave a unit.
     *
     * @param highest of the unit's scale, at least 1
     */
    public record Placed(String unit, String rater, int level, int highest) {
        /** @throws IllegalArgumentException if the level is not on the scale */
        public Placed {
            if (highest < 1 || level < 0 || level > highest) {
                throw new IllegalArgumentException("level lies on its scale: " + level + " of " + highest);
            }
        }

        double share() {
            return (double) level / highest;
        }
    }

    /** Empty if nobody else placed a unit that the rater did. */
    public static Optional<Distance> fromOthers(List<Placed> all, String rater) {
        Map<String, List<Placed>> byUnit = new HashMap<>();
        all.forEach(
                p -> byUnit.computeIfAbsent(p.unit(), u -> new ArrayList<>()).add(p));
        List<Double> signed = new ArrayList<>();
        for (Placed own : all) {
            if (own.rater().equals(rater)) {
                Require.known(byUnit, own.unit()).stream()
                        .filter(p -> !p.rater().equals(rater))
                        .mapToDouble(Placed::share)
                        .average()
                        .ifPresent(others -> signed.add(own.share() - others));
            }
        }
        return of(signed);
    }

    /**
     * @param reference the level at which a unit should stand
     * @return empty if the rater placed no unit that has a reference
     */
    public static Optional<Distance> fromReference(List<Placed> all, String rater, Map<String, Integer> reference) {
        return of(all.stream()
                .filter(p -> p.rater().equals(rater) && reference.containsKey(p.unit()))
                .map(p -> p.share() - (double) Require.known(reference, p.unit()) / p.highest())
                .toList());
    }

    private static Optional<Distance> of(List<Double> signed) {
        int n = signed.size();
        return n == 0
                ? Optional.empty()
                : Optional.of(new Distance(
                        100 * signed.stream().mapToDouble(Math::abs).sum() / n,
                        100 * signed.stream().mapToDouble(d -> d).sum() / n,
                        n));
    }
}
