package org.mossbank.core.reference;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.mossbank.core.estimate.Estimate;
import tools.jackson.databind.JsonNode;

/**
 * Walks what reference cases expect and compares it with what the core gives. Everything that is expected is checked: a
 * statistic or a key that is not known is a fault, and so is a folder without a case.
 */
final class ReferenceRun {
    /** How a statistic did. */
    static final class Tally {
        private int cases;
        private int checked;
        private int failed;
    }

    private final Map<String, Tally> tallies = new TreeMap<>();
    private final List<String> faults = new ArrayList<>();

    /** Prints a table, and the faults before it; ends with 1 if there are any. */
    public static void main(String[] arguments) {
        ReferenceRun run = new ReferenceRun();
        List<ReferenceCase> cases = ReferenceCase.below(Path.of(arguments[0]));
        if (cases.isEmpty()) {
            System.err.println("There is no case below " + arguments[0]);
            System.exit(1);
        }
        cases.forEach(run::check);
        run.faults.forEach(System.out::println);
        System.out.print(run.table(cases.size()));
        if (!run.faults.isEmpty()) {
            System.exit(1);
        }
    }

    List<String> faults() {
        return faults;
    }

    int checked() {
        return tallies.values().stream().mapToInt(t -> t.checked).sum();
    }

    String table(int cases) {
        StringBuilder table = new StringBuilder();
        String row = "%-20s %6s %8s %8s %7s%n";
        table.append(row.formatted("statistic", "cases", "values", "passed", "failed"));
        tallies.forEach((statistic, t) ->
                table.append(row.formatted(statistic, t.cases, t.checked, t.checked - t.failed, t.failed)));
        int failed = tallies.values().stream().mapToInt(t -> t.failed).sum();
        table.append(row.formatted("all", cases, checked(), checked() - failed, failed));
        return table.toString();
    }

    /** Checks every value that a case expects. */
    void check(ReferenceCase reference) {
        for (String statistic : reference.statistics()) {
            tallies.computeIfAbsent(statistic, s -> new Tally()).cases++;
            if (!ReferenceFigures.STATISTICS.containsKey(statistic)) {
                faults.add(reference.id() + ": unknown statistic " + statistic);
            }
        }
        if (reference.keys().isEmpty()) {
            faults.add(reference.id() + ": expects nothing");
        }
        ReferenceFigures figures = new ReferenceFigures(reference);
        for (String key : reference.keys()) {
            String word = key.split("\\.")[0];
            String statistic = reference.statistics().stream()
                    .filter(s -> word.matches(ReferenceFigures.STATISTICS.getOrDefault(s, "(?!)")))
                    .findFirst()
                    .orElse("of no statistic");
            Tally tally = tallies.computeIfAbsent(statistic, s -> new Tally());
            tally.checked++;
            String fault = fault(figures, key, reference.expected(key));
            if (statistic.equals("of no statistic") || fault != null) {
                tally.failed++;
                faults.add(reference.id() + " " + key + ": " + (fault == null ? "belongs to no statistic" : fault));
            }
        }
    }

    private static String fault(ReferenceFigures figures, String key, JsonNode expected) {
        Object figure;
        try {
            figure = figures.of(key);
        } catch (RuntimeException e) {
            return e.toString();
        }
        if (expected.path("set").asBoolean(false)) {
            Set<String> wanted = new TreeSet<>(expected.path("value").values().stream()
                    .map(JsonNode::asString)
                    .toList());
            return wanted.equals(figure) ? null : "is " + figure + ", not " + wanted;
        }
        if (!(figure instanceof Estimate estimate)) {
            return "is no number: " + figure;
        }
        return fault(estimate, expected);
    }

    private static String fault(Estimate estimate, JsonNode expected) {
        if (expected.path("undefined").asBoolean(false)) {
            boolean isLimit = expected.has("limit")
                    && estimate.value().isPresent()
                    && Math.abs(estimate.value().getAsDouble()
                                    - expected.path("limit").asDouble())
                            <= 1e-9;
            return estimate instanceof Estimate.Undefined || isLimit ? null : "is " + estimate + ", not undefined";
        }
        if (estimate.value().isEmpty()) {
            return "is undefined: " + estimate;
        }
        double value = estimate.value().getAsDouble();
        if (expected.has("accept_from")) {
            return value >= expected.path("accept_from").asDouble()
                            && value <= expected.path("accept_to").asDouble()
                    ? null
                    : "is " + value + ", outside " + expected;
        }
        if (!expected.path("value").isNumber() || !expected.has("tolerance")) {
            return "is expected in a way that is not known: " + expected;
        }
        double wanted = expected.path("value").asDouble();
        double tolerance = expected.path("tolerance").asDouble() * Math.max(1, Math.abs(wanted));
        return Math.abs(value - wanted) <= tolerance ? null : "is " + value + ", not " + wanted;
    }
}
