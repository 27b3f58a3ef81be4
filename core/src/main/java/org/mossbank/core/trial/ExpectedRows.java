package org.mossbank.core.trial;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/**
 * Rows that a query must give, as lines of comma-separated values with a line of names above.
 *
 * @param rows as text
 */
public record ExpectedRows(String rows, Order order) {
    /** Whether rows must come in the order in which they stand. */
    public enum Order {
        AS_GIVEN,
        ANY
    }

    /** Where rows are not as they must be, in words; empty if they are. Cost: sorting them. */
    public Optional<String> difference(String came) {
        List<String> ours = lines(rows);
        List<String> theirs = lines(came);
        if (ours.isEmpty() || theirs.isEmpty()) {
            return ours.equals(theirs) ? Optional.empty() : Optional.of("there are no columns to compare");
        }
        if (!ours.get(0).equals(theirs.get(0))) {
            return Optional.of("the columns are others");
        }
        if (ours.size() != theirs.size()) {
            return Optional.of("rows: %,d, not %,d".formatted(theirs.size() - 1, ours.size() - 1));
        }
        List<String> wanted = arranged(ours);
        List<String> found = arranged(theirs);
        for (int i = 0; i < wanted.size(); i++) {
            if (!wanted.get(i).equals(found.get(i))) {
                return Optional.of(
                        order == Order.AS_GIVEN ? "row %,d is another".formatted(i + 1) : "a row is another");
            }
        }
        return Optional.empty();
    }

    private List<String> arranged(List<String> lines) {
        List<String> rest = new ArrayList<>(lines.subList(1, lines.size()));
        if (order == Order.ANY) {
            Collections.sort(rest);
        }
        return rest;
    }

    private static List<String> lines(String text) {
        return text.lines().map(String::stripTrailing).filter(l -> !l.isEmpty()).toList();
    }
}
