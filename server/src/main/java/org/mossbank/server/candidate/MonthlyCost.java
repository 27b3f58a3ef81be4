package org.mossbank.server.candidate;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.tradeoff.TeamCost;

/**
 * What a month of a stated use would cost, in each way in which a candidate is sold.
 *
 * @param ways         that which stops least first, then the cheapest; none where nothing is known
 * @param capUncounted whether its plan has a cap in tokens, and its answers' tokens are not known: it is not priced then
 */
public record MonthlyCost(List<Priced> ways, boolean capUncounted) {
    private static final double MONTHS = 12;
    private static final double WEEKS = 52;

    public MonthlyCost {
        ways = List.copyOf(ways);
    }

    /** @param currency what the amount is in */
    public record Priced(TeamCost cost, String currency) {}

    /**
     * What one task takes.
     *
     * @param cost     absent where it is not known
     * @param tokens   in and out; absent where they were not counted
     * @param currency what the cost is in; absent where that is not known
     */
    public record Task(
            @Nullable Double cost,
            @Nullable Double tokens,
            @Nullable String currency) {}

    public static MonthlyCost of(CandidateContent.Price price, TeamUse use, Task spent) {
        String currency = spent.currency;
        OptionalDouble task =
                currency == null || spent.cost == null ? OptionalDouble.empty() : OptionalDouble.of(spent.cost);
        Optional<TeamCost.Cap> cap = Optional.ofNullable(price.cap()).flatMap(c -> counted(c, use, spent));
        boolean uncounted = price.cap() != null && cap.isEmpty();
        // A plan whose cap cannot be told in tasks would look as if it stopped nothing.
        OptionalDouble monthly = price.monthly() == null || uncounted
                ? OptionalDouble.empty()
                : OptionalDouble.of(price.monthly().doubleValue());
        String planned = price.currency();
        List<Priced> ways = new ArrayList<>();
        if (planned == null || planned.equals(currency) || monthly.isEmpty()) {
            String all = planned == null || monthly.isEmpty() ? currency : planned;
            priced(use, new TeamCost.Terms(task, monthly, cap), all).forEach(ways::add);
        } else {
            // Two currencies cannot be added up, so a plan with tokens beside it has no price.
            priced(use, new TeamCost.Terms(OptionalDouble.empty(), monthly, cap), planned)
                    .forEach(ways::add);
            priced(use, new TeamCost.Terms(task, OptionalDouble.empty(), cap), currency)
                    .forEach(ways::add);
        }
        return new MonthlyCost(ways, uncounted);
    }

    private static List<Priced> priced(TeamUse use, TeamCost.Terms terms, @Nullable String currency) {
        return currency == null
                ? List.of()
                : TeamCost.of(use.use(), terms).stream()
                        .map(c -> new Priced(c, currency))
                        .toList();
    }

    /** In tasks and working days; empty where it counts tokens that nobody counted. */
    private static Optional<TeamCost.Cap> counted(CandidateContent.Cap cap, TeamUse use, Task spent) {
        double days = switch (cap.period()) {
            case DAY -> 1;
            case WEEK -> use.daysPerMonth() * MONTHS / WEEKS;
            case MONTH -> use.daysPerMonth();
        };
        return switch (cap.unit()) {
            case PROMPTS -> Optional.of(new TeamCost.Cap(cap.amount(), days));
            case TOKENS -> {
                Double each = spent.tokens;
                yield each == null || each <= 0
                        ? Optional.empty()
                        : Optional.of(new TeamCost.Cap(cap.amount() / each, days));
            }
        };
    }

    /** The way that stops least, and of these the cheapest; empty where nothing is known. */
    public Optional<Priced> best() {
        return ways.stream().findFirst();
    }
}
