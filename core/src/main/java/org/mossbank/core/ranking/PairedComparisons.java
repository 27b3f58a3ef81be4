package org.mossbank.core.ranking;

import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;

/** How often each of two things was preferred to the other, added up over all rows of a pair. */
public final class PairedComparisons {
    private final List<String> items;
    private final double[][] wins;
    private final double[][] ties;

    private PairedComparisons(List<String> items, double[][] wins, double[][] ties) {
        this.items = items;
        this.wins = wins;
        this.ties = ties;
    }

    /** One row of a pair, in either order; counts are at least 0. */
    public record Row(String first, String second, double firstWins, double secondWins, double ties) {
        /** @throws IllegalArgumentException if the two are one, or a count is negative */
        public Row {
            Require.that(!first.equals(second), "second", "must be another than the first", second);
            Require.that(firstWins >= 0 && secondWins >= 0 && ties >= 0, "counts", "must be at least 0", first);
        }
    }

    public static PairedComparisons of(Collection<Row> rows) {
        TreeSet<String> names = new TreeSet<>();
        rows.forEach(r -> {
            names.add(r.first());
            names.add(r.second());
        });
        List<String> items = List.copyOf(names);
        Map<String, Integer> index = new TreeMap<>();
        items.forEach(i -> index.put(i, index.size()));
        double[][] wins = new double[items.size()][items.size()];
        double[][] ties = new double[items.size()][items.size()];
        for (Row row : rows) {
            int a = Require.known(index, row.first());
            int b = Require.known(index, row.second());
            wins[a][b] += row.firstWins();
            wins[b][a] += row.secondWins();
            ties[a][b] += row.ties();
            ties[b][a] += row.ties();
        }
        return new PairedComparisons(items, wins, ties);
    }

    /** In alphabetical order. */
    public List<String> items() {
        return items;
    }

    int size() {
        return items.size();
    }

    double wins(int winner, int loser) {
        return wins[winner][loser];
    }

    double ties(int a, int b) {
        return ties[a][b];
    }

    boolean hasTies() {
        return java.util.Arrays.stream(ties)
                .flatMapToDouble(java.util.Arrays::stream)
                .anyMatch(t -> t > 0);
    }

    /** The same without ties. */
    PairedComparisons decided() {
        return new PairedComparisons(items, wins, new double[size()][size()]);
    }

    /** Whether a chain of wins, or ties, leads from each item to each other. */
    boolean isStronglyConnected() {
        return size() < 2 || reachesAll(false) && reachesAll(true);
    }

    private boolean reachesAll(boolean backwards) {
        boolean[] seen = new boolean[size()];
        Deque<Integer> open = new ArrayDeque<>();
        open.add(0);
        seen[0] = true;
        int reached = 0;
        while (!open.isEmpty()) {
            int at = open.remove();
            reached++;
            for (int to = 0; to < size(); to++) {
                double edge = ties[at][to] + (backwards ? wins[to][at] : wins[at][to]);
                if (!seen[to] && edge > 0) {
                    seen[to] = true;
                    open.add(to);
                }
            }
        }
        return reached == size();
    }

    /**
     * Whether abilities exist for which every win is by 2 and more and every tie within 2: then the likelihood grows without
     * end as they and the tie rate do. Differences of abilities as lengths of a graph: there is such a solution just if no
     * circle has a negative length (Bellman and Ford).
     */
    boolean growsWithTies() {
        double[] length = new double[size()];
        for (int round = 0; round <= size(); round++) {
            boolean changed = false;
            for (int i = 0; i < size(); i++) {
                for (int j = 0; j < size(); j++) {
                    if (i == j) {
                        continue;
                    }
                    double most = Double.POSITIVE_INFINITY; // of ability j less ability i
                    if (wins[i][j] > 0) {
                        most = -2;
                    } else if (ties[i][j] > 0) {
                        most = 2;
                    }
                    if (length[i] + most < length[j]) {
                        length[j] = length[i] + most;
                        changed = true;
                    }
                }
            }
            if (!changed) {
                return true;
            }
        }
        return false;
    }

    @Override
    public String toString() {
        return items.stream().collect(Collectors.joining(", "));
    }
}
