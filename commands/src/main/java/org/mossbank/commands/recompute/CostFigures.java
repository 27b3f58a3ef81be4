package org.mossbank.commands.recompute;

import static org.mossbank.commands.recompute.SignedMemo.cell;

import java.io.IOException;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.tradeoff.Spending;
import org.mossbank.core.tradeoff.TeamCost;

/** What an answer that works came to, and what a month of the stated use costs, from an archive's tables. */
final class CostFigures {
    private static final double MONTHS = 12;
    private static final double WEEKS = 52;

    private final SignedMemo memo;
    private final Collection<CSVRecord> answers;
    private final Set<String> withoutText;
    private final Map<String, Double> found = new TreeMap<>();

    private CostFigures(SignedMemo memo, Collection<CSVRecord> answers, Set<String> withoutText) {
        this.memo = memo;
        this.answers = answers;
        this.withoutText = withoutText;
    }

    /**
     * @param answers     that count
     * @param withoutText of these, those that left nothing
     * @param sent        rater and prompt of each first sheet that was sent in
     * @throws IOException if a table cannot be read
     */
    static Map<String, Double> of(
            SignedMemo memo, Collection<CSVRecord> answers, Set<String> withoutText, Set<List<String>> sent)
            throws IOException {
        CostFigures figures = new CostFigures(memo, answers, withoutText);
        figures.work(sent);
        return figures.found;
    }

    private void work(Set<List<String>> sent) throws IOException {
        Map<String, CSVRecord> models = memo.table("candidates").stream()
                .filter(c -> !cell(c, "baseline").equals("true"))
                .collect(Collectors.toMap(c -> c.get("candidate"), Function.identity()));
        List<CSVRecord> counted = answers.stream()
                .filter(a -> models.containsKey(a.get("candidate")))
                .toList();
        List<String> currencies = counted.stream()
                .map(a -> cell(a, "currency"))
                .filter(c -> !c.isEmpty())
                .distinct()
                .toList();
        String currency = currencies.size() == 1 ? currencies.get(0) : "";
        Map<String, String> prompts =
                counted.stream().collect(Collectors.toMap(a -> a.get("answer"), a -> a.get("prompt")));
        Map<String, List<String>> words = memo.table("judgements").stream()
                .filter(j -> !cell(j, "repeat").equals("true") && prompts.containsKey(j.get("answer")))
                .filter(j -> sent.contains(List.of(j.get("rater"), prompts.get(j.get("answer")))))
                .collect(Collectors.groupingBy(
                        j -> j.get("answer"), Collectors.mapping(j -> cell(j, "works"), Collectors.toList())));
        List<Spending> spent = Spending.of(counted.stream()
                .map(a -> spending(a, words.getOrDefault(a.get("answer"), List.of()), !currency.isEmpty()))
                .toList());
        for (Spending s : spent) {
            s.oneThatWorks().value().ifPresent(v -> found.put("one-that-works/" + s.candidate(), v));
        }
        Optional<CSVRecord> use = memo.table("stated-use").stream().findFirst();
        if (use.isPresent()) {
            for (Spending s : spent) {
                month(use.get(), Require.known(models, s.candidate()), s, currency)
                        .ifPresent(m -> found.put("month/" + s.candidate(), m));
            }
        }
    }

    private static OptionalDouble number(CSVRecord row, String column) {
        return cell(row, column).isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Double.parseDouble(cell(row, column)));
    }

    private Spending.Answer spending(CSVRecord answer, List<String> words, boolean priced) {
        OptionalDouble in = number(answer, "input_tokens");
        OptionalDouble out = number(answer, "output_tokens");
        List<String> tried = words.stream()
                .filter(w -> !w.isEmpty() && !w.equals("not-tried"))
                .toList();
        long yes = tried.stream().filter(w -> w.equals("as-is")).count();
        Spending.Works works = tried.isEmpty()
                ? Spending.Works.NOT_SAID
                : 2 * yes > tried.size() ? Spending.Works.YES : Spending.Works.NO;
        return new Spending.Answer(
                answer.get("candidate"),
                answer.get("prompt"),
                priced ? number(answer, "cost") : OptionalDouble.empty(),
                number(answer, "total_ms"),
                in.isPresent() && out.isPresent()
                        ? OptionalDouble.of(in.getAsDouble() + out.getAsDouble())
                        : OptionalDouble.empty(),
                withoutText.contains(answer.get("answer")) ? Spending.Works.EMPTY : works);
    }

    /** The way that stops least, then the cheapest; amounts in two currencies are never added up. */
    private static OptionalDouble month(CSVRecord stated, CSVRecord candidate, Spending spent, String currency) {
        TeamCost.Use use = new TeamCost.Use(
                Integer.parseInt(stated.get("people")),
                Double.parseDouble(stated.get("tasks_per_day")),
                Integer.parseInt(stated.get("days_per_month")));
        OptionalDouble task = spent.cost().mean().value();
        Optional<TeamCost.Cap> cap = cap(candidate, use, spent);
        boolean uncounted = number(candidate, "cap_amount").isPresent() && cap.isEmpty();
        OptionalDouble monthly = uncounted ? OptionalDouble.empty() : number(candidate, "monthly_price");
        boolean two = monthly.isPresent() && !cell(candidate, "currency").equals(currency);
        Stream<TeamCost> ways = two
                ? TeamCost.of(use, new TeamCost.Terms(OptionalDouble.empty(), monthly, cap)).stream()
                : TeamCost.of(use, new TeamCost.Terms(task, monthly, cap)).stream();
        return ways.mapToDouble(TeamCost::monthly).findFirst();
    }

    private static Optional<TeamCost.Cap> cap(CSVRecord candidate, TeamCost.Use use, Spending spent) {
        OptionalDouble amount = number(candidate, "cap_amount");
        if (amount.isEmpty()) {
            return Optional.empty();
        }
        double days = switch (cell(candidate, "cap_period")) {
            case "day" -> 1;
            case "week" -> use.daysPerMonth() * MONTHS / WEEKS;
            default -> use.daysPerMonth();
        };
        if (cell(candidate, "cap_unit").equals("prompts")) {
            return Optional.of(new TeamCost.Cap(amount.getAsDouble(), days));
        }
        OptionalDouble tokens = spent.tokens().mean().value();
        return tokens.isPresent() && tokens.getAsDouble() > 0
                ? Optional.of(new TeamCost.Cap(amount.getAsDouble() / tokens.getAsDouble(), days))
                : Optional.empty();
    }
}
