package org.mossbank.core.assignment;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.random.RandomGenerator;
import org.mossbank.core.estimate.Require;

/**
 * Chooses which raters grade each prompt, so that each answer has at least so many, raters have alike much to do, overall
 * and within each kind, and every two raters share alike many prompts.
 *
 * <p>Such designs exist exactly only for some sizes (balanced incomplete blocks: R. Fisher (1940), An examination of the
 * different possible solutions of a problem in incomplete blocks, <i>Annals of Eugenics</i> 10, 52-75). For all sizes the
 * sum of squared counts is made small by exchanges from several random starts: counts that are as even as they can be
 * have the least sum of squares.
 *
 * <p>\[ \min \; 10^4 \sum_r n_r^2 + 10^2 \sum_{r < s} n_{rs}^2 + 10 \sum_{r, k} n_{rk}^2 \]
 *
 * <p>with \(n_r\) the prompts of rater \(r\), \(n_{rs}\) those that two raters share, \(n_{rk}\) those of a kind. Cost:
 * exchanges × raters for each start.
 */
final class RaterSets {
    private static final int STARTS = 12;
    // Loads come before pairs, pairs before loads within a kind: a step in one outweighs what the next can lose by it.
    private static final long LOAD = 10_000;
    private static final long PAIR = 100;
    private static final long KIND = 10;

    private final List<String> raters;
    private final GradingTask task;
    private final int least;
    private final Map<String, SortedSet<String>> allowed;
    private final int[] kindOf;
    private final int kinds;

    private BitSet[] sets = new BitSet[0];
    private int[] load = new int[0];
    private int[][] pairs = new int[0][];
    private int[][] kindLoad = new int[0][];

    private RaterSets(GradingTask task, int least) {
        this.task = task;
        this.raters = List.copyOf(task.raters());
        this.least = least;
        this.allowed = task.allowedByAnswer();
        Map<String, Integer> kindIndex = new TreeMap<>();
        this.kindOf = task.prompts().stream()
                .mapToInt(p -> kindIndex.computeIfAbsent(p.kind(), k -> kindIndex.size()))
                .toArray();
        this.kinds = kindIndex.size();
    }

    /** @return for each prompt of the task the raters who get it */
    static List<List<String>> choose(GradingTask task, int least, RandomGenerator random) {
        RaterSets search = new RaterSets(task, least);
        BitSet[] best = new BitSet[0];
        long lowest = Long.MAX_VALUE;
        for (int start = 0; start < STARTS; start++) {
            search.begin(new Random(random.nextLong()));
            search.improve();
            if (search.cost() < lowest) {
                lowest = search.cost();
                best = search.sets.clone();
            }
        }
        List<List<String>> chosen = new ArrayList<>();
        for (BitSet set : best) {
            chosen.add(set.stream().mapToObj(search.raters::get).toList());
        }
        return chosen;
    }

    private void begin(Random random) {
        int n = raters.size();
        sets = new BitSet[task.prompts().size()];
        load = new int[n];
        pairs = new int[n][n];
        kindLoad = new int[kinds][n];
        List<Integer> order = new ArrayList<>();
        for (int p = 0; p < sets.length; p++) {
            sets[p] = new BitSet(n);
            order.add(p);
        }
        Collections.shuffle(order, random);
        List<Integer> candidates = new ArrayList<>();
        for (int r = 0; r < n; r++) {
            candidates.add(r);
        }
        for (int p : order) {
            Collections.shuffle(candidates, random);
            while (!isEnough(p)) {
                add(p, cheapest(p, candidates));
            }
        }
    }

    /** The rater whose joining helps an answer that still needs somebody, at the least cost. */
    private int cheapest(int p, List<Integer> candidates) {
        int best = -1;
        long lowest = Long.MAX_VALUE;
        for (int r : candidates) {
            if (!sets[p].get(r) && helps(p, r) && addedCost(p, r) < lowest) {
                lowest = addedCost(p, r);
                best = r;
            }
        }
        return best;
    }

    private boolean helps(int p, int r) {
        return task.prompts().get(p).answers().stream()
                .anyMatch(a -> !hasEnough(p, a.answer())
                        && Require.known(allowed, a.answer()).contains(raters.get(r)));
    }

    private boolean hasEnough(int p, String answer) {
        SortedSet<String> may = Require.known(allowed, answer);
        long has = sets[p].stream().filter(r -> may.contains(raters.get(r))).count();
        return has >= Math.min(least, may.size());
    }

    private boolean isEnough(int p) {
        return task.prompts().get(p).answers().stream().allMatch(a -> hasEnough(p, a.answer()));
    }

    private boolean mayJoin(int p, int r) {
        return task.prompts().get(p).answers().stream()
                .anyMatch(a -> Require.known(allowed, a.answer()).contains(raters.get(r)));
    }

    /** What the squared counts grow by when a rater joins: (n + 1)² - n² = 2n + 1. */
    private long addedCost(int p, int r) {
        long cost = LOAD * (2L * load[r] + 1) + KIND * (2L * kindLoad[kindOf[p]][r] + 1);
        for (int other = sets[p].nextSetBit(0); other >= 0; other = sets[p].nextSetBit(other + 1)) {
            cost += PAIR * (2L * pairs[r][other] + 1);
        }
        return cost;
    }

    private void add(int p, int r) {
        for (int other = sets[p].nextSetBit(0); other >= 0; other = sets[p].nextSetBit(other + 1)) {
            pairs[r][other]++;
            pairs[other][r]++;
        }
        sets[p].set(r);
        load[r]++;
        kindLoad[kindOf[p]][r]++;
    }

    private void remove(int p, int r) {
        sets[p].clear(r);
        load[r]--;
        kindLoad[kindOf[p]][r]--;
        for (int other = sets[p].nextSetBit(0); other >= 0; other = sets[p].nextSetBit(other + 1)) {
            pairs[r][other]--;
            pairs[other][r]--;
        }
    }

    private long cost() {
        long cost = 0;
        for (int r = 0; r < load.length; r++) {
            cost += LOAD * load[r] * load[r];
            for (int s = 0; s < r; s++) {
                cost += PAIR * pairs[r][s] * pairs[r][s];
            }
            for (int[] ofKind : kindLoad) {
                cost += KIND * ofKind[r] * ofKind[r];
            }
        }
        return cost;
    }

    /** Exchanges raters, alone or crosswise between two prompts, as long as one makes the counts more even. */
    private void improve() {
        boolean better = true;
        while (better) {
            better = false;
            for (int p = 0; p < sets.length; p++) {
                better |= improve(p);
            }
        }
    }

    private boolean improve(int p) {
        for (int out = 0; out < load.length; out++) {
            for (int in = 0; in < load.length; in++) {
                if (sets[p].get(out) && !sets[p].get(in) && mayJoin(p, in)) {
                    if (exchanged(p, out, in) || exchangedCrosswise(p, out, in)) {
                        return true;
                    }
                }
            }
        }
        return false;
    }

    private boolean exchanged(int p, int out, int in) {
        long before = cost();
        swap(p, out, in);
        if (isEnough(p) && cost() < before) {
            return true;
        }
        swap(p, in, out);
        return false;
    }

    private boolean exchangedCrosswise(int p, int out, int in) {
        for (int q = 0; q < sets.length; q++) {
            if (q != p && sets[q].get(in) && !sets[q].get(out) && mayJoin(q, out)) {
                long before = cost();
                swap(p, out, in);
                swap(q, in, out);
                if (isEnough(p) && isEnough(q) && cost() < before) {
                    return true;
                }
                swap(q, out, in);
                swap(p, in, out);
            }
        }
        return false;
    }

    private void swap(int p, int out, int in) {
        remove(p, out);
        add(p, in);
    }
}
