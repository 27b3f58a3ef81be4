package org.mossbank.core.comparison;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;

/**
 * Holm's step-down correction: p values of several tests, adjusted so that the chance of any false finding stays at the
 * nominal level.
 *
 * <p>\[ \tilde p_{(j)} = \max_{i \le j} \min(1, (m - i + 1) p_{(i)}) \] over the p values in ascending order. Probabilities, in
 * [0, 1]; none for none. Cost: m log m.
 *
 * <p>Source: S. Holm (1979), A simple sequentially rejective multiple test procedure, <i>Scandinavian Journal of
 * Statistics</i> 6(2), 65-70, https://www.jstor.org/stable/4615733.
 */
public final class Holm {
    private Holm() {}

    /**
     * Adjusted p values in the order given: the running maximum of (m - j + 1) p₍ⱼ₎, at most 1.
     *
     * @throws IllegalArgumentException if a p value lies outside [0, 1]
     */
    public static double[] adjust(double... p) {
        int[] rank = ranks(p);
        double[] adjusted = new double[p.length];
        Integer[] order = order(p);
        double running = 0;
        for (int i : order) {
            running = Math.max(running, Math.min(1, (p.length - rank[i]) * Require.proportion("p", p[i])));
            adjusted[i] = running;
        }
        return adjusted;
    }

    /** The same by test; one without a p value is left out, not counted, and stays without. */
    public static Map<String, Estimate> adjust(Map<String, OptionalDouble> p) {
        List<String> tests = p.entrySet().stream()
                .filter(e -> e.getValue().isPresent())
                .map(Map.Entry::getKey)
                .toList();
        double[] adjusted = adjust(tests.stream()
                .mapToDouble(t -> Require.known(p, t).orElseThrow())
                .toArray());
        Map<String, Estimate> all = new LinkedHashMap<>();
        p.keySet().forEach(t -> all.put(t, Estimate.undefined(Reason.NO_P_VALUE)));
        IntStream.range(0, adjusted.length).forEach(i -> all.put(tests.get(i), Estimate.of(adjusted[i])));
        return all;
    }

    /**
     * What Holm's steps leave for each test.
     *
     * @param adjusted p values after correction, in the order given
     * @param levels   at which level a test's own interval says the same as its corrected p: its step's where it is
     *                 rejected, the first step's that is not for it and all after it
     */
    public record Steps(List<Estimate> adjusted, List<Double> levels) {
        public Steps {
            adjusted = List.copyOf(adjusted);
            levels = List.copyOf(levels);
        }

        /** Allowance of error of one test. */
        public double level(int test) {
            return levels.get(test);
        }
    }

    /**
     * @param p     undefined ones are not counted
     * @param alpha allowance for all tests together
     */
    public static Steps steps(List<Estimate> p, double alpha) {
        int[] counted = IntStream.range(0, p.size())
                .filter(i -> p.get(i).value().isPresent())
                .toArray();
        double[] values = IntStream.of(counted)
                .mapToDouble(i -> p.get(i).value().orElseThrow())
                .toArray();
        double[] adjusted = adjust(values);
        int[] rank = ranks(values);
        int m = counted.length;
        int firstKept = (int) Arrays.stream(adjusted).filter(x -> x <= alpha).count();
        List<Estimate> all = new ArrayList<>(p);
        List<Double> levels = new ArrayList<>(Collections.nCopies(p.size(), alpha));
        for (int i = 0; i < m; i++) {
            all.set(counted[i], Estimate.of(adjusted[i]));
            int step = Math.min(rank[i], Math.min(firstKept, m - 1));
            levels.set(counted[i], alpha / (m - step));
        }
        return new Steps(all, levels);
    }

    /** The position of each p value among the ascending ones, from 0; ties in the order given. */
    static int[] ranks(double... p) {
        Integer[] order = order(p);
        int[] rank = new int[p.length];
        for (int j = 0; j < order.length; j++) {
            rank[order[j]] = j;
        }
        return rank;
    }

    private static Integer[] order(double[] p) {
        Integer[] order = IntStream.range(0, p.length).boxed().toArray(Integer[]::new);
        Arrays.sort(order, Comparator.comparingDouble(i -> p[i]));
        return order;
    }
}
