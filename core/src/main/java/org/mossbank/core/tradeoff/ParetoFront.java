package org.mossbank.core.tradeoff;

import java.util.List;

/**
 * Which candidates are not outdone: for which no other is at least as good and at most as dear, and one of the two strictly.
 *
 * <p>\[ F = \{i : \nexists j : q_j \ge q_i \wedge c_j \le c_i \wedge (q_j > q_i \vee c_j < c_i)\} \]
 *
 * <p>Equal ones are all kept. Quality in points, cost in any unit that is the same for all. Whoever lacks one of the two is not
 * to be given. Cost O(n²).
 *
 * <p>Source: V. Pareto (1906), <i>Manuale di economia politica</i>, ch. 6.
 */
public final class ParetoFront {
    private ParetoFront() {}

    /** A candidate with how good and how dear it is. */
    public record Option(String name, double quality, double cost) {
        private boolean outdoes(Option other) {
            return quality >= other.quality && cost <= other.cost && (quality > other.quality || cost < other.cost);
        }
    }

    /** The names of those that are not outdone, in the order given. */
    public static List<String> of(List<Option> options) {
        return options.stream()
                .filter(o -> options.stream().noneMatch(other -> other.outdoes(o)))
                .map(Option::name)
                .toList();
    }
}
