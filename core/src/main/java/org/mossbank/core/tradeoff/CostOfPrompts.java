package org.mossbank.core.tradeoff;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * What a prompt costs each candidate on average, over the prompts that all of them answered.
 *
 * <p>\[ \bar k_c = \frac{1}{|P|} \sum_{p \in P} \frac{1}{|A_{cp}|} \sum_{a \in A_{cp}} k_{cpa} \] with \(P\) the prompts that every
 * candidate answered and \(A_{cp}\) a candidate's answers to one of them: asked twice counts once. In the currency of the
 * answers. Not known where one of these answers has no cost, or currencies differ, or no prompt is common to all: a candidate
 * whose costs were written down in part would look cheap.
 *
 * @param means     by candidate; empty if it is not known for all
 * @param currency  what they are in; empty if they are not known
 * @param prompts   how many are common to all
 * @param estimated candidates of which some cost is an estimate
 * @param why       what stands in the way; empty if nothing does
 */
public record CostOfPrompts(
        Map<String, Double> means, String currency, int prompts, Set<String> estimated, String why) {
    public CostOfPrompts {
        means = Map.copyOf(means);
        estimated = Set.copyOf(estimated);
    }

    /**
     * What an answer cost.
     *
     * @param amount    at least 0; empty where it is not known
     * @param currency  empty where it is not known
     * @param estimated whether it was worked out and not measured
     */
    public record Cost(String candidate, String prompt, OptionalDouble amount, String currency, boolean estimated) {}

    /** @param answers of all candidates that are compared */
    public static CostOfPrompts of(List<Cost> answers) {
        Map<String, Map<String, List<Cost>>> byCandidate = answers.stream()
                .collect(Collectors.groupingBy(
                        Cost::candidate,
                        TreeMap::new,
                        Collectors.groupingBy(Cost::prompt, TreeMap::new, Collectors.toList())));
        Set<String> common = new HashSet<>();
        answers.forEach(a -> common.add(a.prompt()));
        byCandidate.values().forEach(prompts -> common.retainAll(prompts.keySet()));
        if (common.isEmpty()) {
            return unknown(0, "no prompt was answered by all");
        }
        List<Cost> counted =
                answers.stream().filter(a -> common.contains(a.prompt())).toList();
        if (counted.stream().anyMatch(a -> a.amount().isEmpty() || a.currency().isEmpty())) {
            return unknown(common.size(), "some answers have no cost");
        }
        Set<String> currencies = counted.stream().map(Cost::currency).collect(Collectors.toSet());
        if (currencies.size() > 1) {
            return unknown(common.size(), "costs are in different currencies");
        }
        Map<String, Double> means = new HashMap<>();
        byCandidate.forEach((candidate, prompts) -> means.put(
                candidate,
                prompts.entrySet().stream()
                        .filter(e -> common.contains(e.getKey()))
                        .mapToDouble(e -> e.getValue().stream()
                                .mapToDouble(a -> a.amount().orElseThrow())
                                .average()
                                .orElseThrow())
                        .average()
                        .orElseThrow()));
        return new CostOfPrompts(
                means,
                currencies.iterator().next(),
                common.size(),
                counted.stream().filter(Cost::estimated).map(Cost::candidate).collect(Collectors.toSet()),
                "");
    }

    private static CostOfPrompts unknown(int prompts, String why) {
        return new CostOfPrompts(Map.of(), "", prompts, Set.of(), why);
    }

    public OptionalDouble mean(String candidate) {
        Double mean = means.get(candidate);
        return mean == null ? OptionalDouble.empty() : OptionalDouble.of(mean);
    }
}
