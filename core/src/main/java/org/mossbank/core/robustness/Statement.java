package org.mossbank.core.robustness;

import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import org.mossbank.core.comparison.WithBest;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.Outcome;

/**
 * What a decision says of candidates, to be compared with what another one says.
 *
 * @param outcome which of the outcomes
 * @param best    who is recommended
 * @param safe    who is a safe choice where nobody is recommended
 * @param out     who is not the best
 */
public record Statement(Outcome outcome, Optional<String> best, SortedSet<String> safe, SortedSet<String> out) {
    public Statement {
        safe = new TreeSet<>(safe);
        out = new TreeSet<>(out);
    }

    static Statement of(Decision decision, double margin) {
        SortedSet<String> safe = new TreeSet<>();
        SortedSet<String> out = new TreeSet<>();
        for (WithBest.Candidate c : decision.field().map(WithBest::candidates).orElse(java.util.List.of())) {
            if (c.out()) {
                out.add(c.name());
            } else if (decision.outcome() == Outcome.SAFE_CHOICES && c.isSafe(margin)) {
                safe.add(c.name());
            }
        }
        return new Statement(
                decision.outcome(),
                decision.outcome() == Outcome.RECOMMENDED ? decision.leader() : Optional.empty(),
                safe,
                out);
    }

    /** Whether the same is recommended, or the same are safe choices, or as little. */
    public boolean saysAsMuchAs(Statement other) {
        return outcome == other.outcome && best.equals(other.best) && safe.equals(other.safe);
    }
}
